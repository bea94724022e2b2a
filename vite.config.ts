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
            // A rack's tablet loads these with every screen: one file instead of ten small ones.
            codeSplitting: {
              groups: [{ name: "units", test: /\/core\/(units|barload\/load|session\/turns)/ }],
            },
          },
        },
      },
    },
  },
});
