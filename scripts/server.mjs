/**
 * One process of the built server: `pages` or `floor`, as SPREZZA_PROCESS says. Started by
 * supervisor.mjs; tells it over IPC where it listens, or the sentence why it does not.
 */
import path from "node:path";
import { pathToFileURL } from "node:url";

process.env.NODE_ENV ??= "production";
const build = await import(pathToFileURL(path.resolve("build/server/index.js")).href);
await build.entry.module.serve(build);
