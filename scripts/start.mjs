/** `npm start`: serves a finished build. Its environment is described in docs/settings.md. */
import { existsSync } from "node:fs";
import { startServer } from "./run.mjs";

if (!existsSync("build/server/index.js")) {
  console.error("There is no build yet. Run `npm run build`, then `npm start`.");
  process.exit(1);
}
const missing = ["DATABASE_URL", "AUTH_DATABASE_URL", "SESSION_SECRET"].filter(
  (name) => !process.env[name],
);
if (missing.length > 0) {
  console.error(`Not set: ${missing.join(", ")}. See docs/settings.md.`);
  process.exit(1);
}
const server = startServer({ SHOW_LOG: "1", NODE_ENV: "production" });
process.on("SIGINT", () => void server.stop());
process.on("SIGTERM", () => void server.stop());
server.address.then(
  (address) => console.log(`Sprezza is at ${address}`),
  () => {},
);
process.exit((await server.ended) ?? 0);
