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
            // A rack's tablet loads these with every screen: one file instead of ten small ones.
            codeSplitting: {
              groups: [
                { name: "units", test: /\/core\/(units|barload\/load|prescribe\/turns)/ },
                {
                  name: "floor",
                  test: /\/core\/(floor|liverules|profile\/(line|day-form)|velocity\/stream|numeric\/random|boxsquat\/stops)|\/device\/sensor\.ts|\/app\/offline\/(?!old-taps)|\/app\/forms\/json|\/app\/ui\/(speed-strip|loaded-bar|use-now)/,
                },
              ],
            },
          },
        },
      },
    },
  },
});
