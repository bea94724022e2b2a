import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import type { RequestHandler } from "express";

/** What a page may be made of. */
const PARTS = /\.(js|css|woff2)$/;

/**
 * The service worker's text, with the names of the built files before it: another build is another
 * text, which a browser takes as a newer version.
 *
 * @param folder of the built client
 */
export function serviceWorkerText(folder: string): string {
  const files = readdirSync(path.join(folder, "assets"))
    .filter((name) => PARTS.test(name))
    .sort()
    .map((name) => `/assets/${name}`);
  const text = readFileSync(path.join(folder, "service-worker.js"), "utf8");
  const build = createHash("sha256")
    .update(JSON.stringify(files) + text)
    .digest("hex")
    .slice(0, 12);
  return `self.SPREZZA = ${JSON.stringify({ build, files })};\n${text}`;
}

/** Answers with it; a browser asks anew each time whether there is another. */
export function serviceWorker(folder: string): RequestHandler {
  const text = serviceWorkerText(folder);
  return (_request, response) => {
    response.type("js").set("cache-control", "no-cache").send(text);
  };
}
