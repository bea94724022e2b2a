import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { tsconfigPaths: true },
  worker: { format: "es" },
  environments: {
    client: {
      build: {
        rolldownOptions: {
          output: {
            // Every page is sent the names of all files of all routes: short ones.
            entryFileNames: "assets/[hash].js",
            chunkFileNames: "assets/[hash].js",
            // A rack's tablet loads these with every screen: one file instead of ten small ones. What
            // every page needs stands first: else it would come with the floor's rules.
            codeSplitting: {
              groups: [
                {
                  name: "react",
                  test: /\/node_modules\/(react|react-dom|scheduler|react-router)\/|vite\/preload-helper/,
                  priority: 1,
                },
                // What a browser still holds of the log is sent from whatever page it is on.
                {
                  name: "outbox",
                  test: /\/app\/offline\/(browser|clock|device|new-id|outbox|outbox-store|post-log)\.ts|\/core\/floor\/entries\.ts|\/node_modules\/idb\//,
                  priority: 1,
                },
                // Small, and on nearly every page: a file's head weighs more than some of them.
                {
                  name: "units",
                  test: /\/core\/(units|barload\/load|prescribe\/turns)|\/app\/ui\/(dates|unit|use-keys|single-keys)\.ts/,
                },
                {
                  name: "floor",
                  test: /\/core\/(floor\/(?!on-paper|freeze)|liverules|profile\/(line|day-form)|velocity\/stream|numeric\/random|boxsquat\/stops)|\/device\/sensor\.ts|\/app\/offline\/(?!old-taps)|\/app\/forms\/json|\/app\/ui\/(speed-strip|loaded-bar|use-now)/,
                },
              ],
            },
          },
        },
      },
    },
  },
});
