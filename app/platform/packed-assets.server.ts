import { readdirSync } from "node:fs";
import { readFile } from "node:fs/promises";
import path from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants, gzip } from "node:zlib";
import type { RequestHandler } from "express";

/** Ways of packing, the smaller first; browsers take the first over HTTPS and from themselves only. */
const PACKERS = {
  br: (text: Buffer) =>
    promisify(brotliCompress)(text, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY,
        [constants.BROTLI_PARAM_SIZE_HINT]: text.length,
      },
    }),
  gzip: (text: Buffer) => promisify(gzip)(text, { level: 9 }),
};
type Packing = keyof typeof PACKERS;
const PACKINGS: readonly Packing[] = ["br", "gzip"];

/** Under this a header costs more than packing saves. */
const WORTH_BYTES = 1024;
const TEXTS = /\.(js|css|svg|json)$/;

/**
 * Built files that are text, packed as well as can be, once for all who ask: a rack's tablet loads
 * twenty of them. Whoever takes nothing packed, and every other file, goes on to the next handler.
 *
 * @param headers set on every answer
 */
export function packedAssets(folder: string, headers: Record<string, string>): RequestHandler {
  const names = new Set(readdirSync(folder).filter((name) => TEXTS.test(name)));
  const packed = new Map<string, Promise<Buffer | undefined>>();
  const packedOf = (name: string, packing: Packing) => {
    const key = `${packing} ${name}`;
    const known = packed.get(key);
    if (known) return known;
    const made = readFile(path.join(folder, name)).then((text) =>
      text.length < WORTH_BYTES ? undefined : PACKERS[packing](text),
    );
    packed.set(key, made);
    made.catch(() => packed.delete(key));
    return made;
  };
  return (request, response, next) => {
    const name = request.path.slice(1);
    const asked = request.method === "GET" || request.method === "HEAD";
    if (!asked || !names.has(name)) return next();
    const packing = PACKINGS.find((one) => request.acceptsEncodings(one));
    if (!packing) return next();
    packedOf(name, packing).then((body) => {
      if (!body) return next();
      response.type(path.extname(name)).set({
        ...headers,
        "content-encoding": packing,
        vary: "accept-encoding",
        "content-length": String(body.length),
      });
      response.end(request.method === "HEAD" ? undefined : body);
    }, next);
  };
}
