import { createHash } from "node:crypto";
import { readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig, type Plugin } from "vite";

/** Writes the service worker beside the built files, with their names before its text. */
function serviceWorker(): Plugin {
  return {
    name: "service-worker",
    applyToEnvironment: (environment) => environment.name === "client",
    writeBundle({ dir = "build/client" }, bundle) {
      const files = Object.keys(bundle)
        .filter((name) => name.startsWith("assets/") && /\.(js|css|woff2|svg)$/.test(name))
        .map((name) => `/${name}`)
        .sort();
      const text = readFileSync("app/offline/service-worker.js", "utf8");
      const build = createHash("sha256")
        .update(JSON.stringify(files) + text)
        .digest("hex")
        .slice(0, 12);
      const facts = JSON.stringify({ build, files });
      writeFileSync(path.join(dir, "sw.js"), `self.SPREZZA = ${facts};\n${text}`);
    },
  };
}

export default defineConfig({
  plugins: [tailwindcss(), reactRouter(), serviceWorker()],
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
