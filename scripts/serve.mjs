/**
 * Serves a finished build, with its settings in the environment (docs/settings.md). `npm start`,
 * the demo and the tests all come to this.
 */
import { existsSync } from "node:fs";
import { dailySettings, keepDaily } from "./daily.mjs";
import { supervise } from "./supervisor.mjs";

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
const daily = dailySettings(process.env);
if (daily?.refused) {
  console.error(daily.refused);
  process.exit(1);
}
let stopDaily = () => {};
const server = supervise({
  env: { NODE_ENV: "production" },
  listening: (address) => {
    console.log(`listening ${address}`);
    if (daily) stopDaily = keepDaily(daily);
  },
  // A server without a team: whoever started it hands the code over.
  firstRun: () => console.log("first run"),
  // For tests: which processes there are.
  changed: () => process.send?.({ pids: server.pids() }),
  refused: (sentence) => {
    console.error(sentence);
    process.exit(1);
  },
});
const stop = async () => {
  stopDaily();
  await server.stop();
  process.exit(0);
};
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
// Whoever started this is gone (a closed terminal, a killed test): nothing is left behind.
if (process.send) process.on("disconnect", stop);
