import { readdirSync } from "node:fs";
import { readFile } from "node:fs/promises";
import path from "node:path";
import { promisify } from "node:util";
import { gzip } from "node:zlib";
import type { RequestHandler } from "express";

const pack = promisify(gzip);
/** Under this a header costs more than packing saves. */
const WORTH_BYTES = 1024;
const TEXTS = /\.(js|css|svg|json)$/;

/**
 * Built files that are text, packed as well as gzip can, once for all who ask: a rack's tablet
 * loads twenty of them. Whoever takes no gzip, and every other file, goes on to the next handler.
 *
 * @param headers set on every answer
 */
export function packedAssets(folder: string, headers: Record<string, string>): RequestHandler {
  const names = new Set(readdirSync(folder).filter((name) => TEXTS.test(name)));
  const packed = new Map<string, Promise<Buffer | undefined>>();
  const packedOf = (name: string) => {
    const known = packed.get(name);
    if (known) return known;
    const made = readFile(path.join(folder, name)).then((text) =>
      text.length < WORTH_BYTES ? undefined : pack(text, { level: 9 }),
    );
    packed.set(name, made);
    made.catch(() => packed.delete(name));
    return made;
  };
  return (request, response, next) => {
    const name = request.path.slice(1);
    const asked = request.method === "GET" || request.method === "HEAD";
    if (!asked || !names.has(name) || !request.acceptsEncodings("gzip")) return next();
    packedOf(name).then((body) => {
      if (!body) return next();
      response.type(path.extname(name)).set({
        ...headers,
        "content-encoding": "gzip",
        vary: "accept-encoding",
        "content-length": String(body.length),
      });
      response.end(request.method === "HEAD" ? undefined : body);
    }, next);
  };
}
