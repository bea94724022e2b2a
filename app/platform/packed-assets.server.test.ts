import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { request } from "node:http";
import { tmpdir } from "node:os";
import path from "node:path";
import { brotliDecompressSync, gunzipSync } from "node:zlib";
import express from "express";
import { afterAll, beforeAll, expect, it } from "vitest";
import { packedAssets } from "./packed-assets.server";

const folder = mkdtempSync(path.join(tmpdir(), "assets-"));
const TEXT = "const one = 1;\n".repeat(200);
let port = 0;
let close = () => {};

beforeAll(async () => {
  writeFileSync(path.join(folder, "a.js"), TEXT);
  writeFileSync(path.join(folder, "small.js"), "1");
  writeFileSync(path.join(folder, "font.woff2"), "x".repeat(5000));
  const app = express();
  app.use("/assets", packedAssets(folder, { "cache-control": "immutable" }));
  app.use("/assets", express.static(folder));
  await new Promise<void>((up) => {
    const server = app.listen(0, "127.0.0.1", () => {
      const address = server.address();
      port = typeof address === "object" ? (address?.port ?? 0) : 0;
      close = () => server.close();
      up();
    });
  });
});
afterAll(() => {
  close();
  rmSync(folder, { recursive: true, force: true });
});

const ask = (asked: string, encoding = "gzip, br", method = "GET") =>
  new Promise<{ status: number; headers: Record<string, unknown>; body: Buffer }>((done, fail) => {
    request({ port, path: asked, method, headers: { "accept-encoding": encoding } }, (response) => {
      const parts: Buffer[] = [];
      response.on("data", (part: Buffer) => parts.push(part));
      response.on("end", () =>
        done({
          status: response.statusCode ?? 0,
          headers: response.headers,
          body: Buffer.concat(parts),
        }),
      );
    })
      .on("error", fail)
      .end();
  });

it.each([
  ["gzip", "gzip", gunzipSync],
  // In the browsers' own order.
  ["br", "gzip, deflate, br", brotliDecompressSync],
] as const)("packs a text once as %s and says how long it is", async (packing, takes, unpack) => {
  for (let i = 0; i < 2; i++) {
    const { status, headers, body } = await ask("/assets/a.js", takes);
    expect(status).toBe(200);
    expect(headers).toMatchObject({
      "content-encoding": packing,
      "content-length": String(body.length),
      "cache-control": "immutable",
      vary: "accept-encoding",
    });
    expect(String(headers["content-type"])).toContain("javascript");
    expect(unpack(body).toString()).toBe(TEXT);
  }
  expect((await ask("/assets/a.js", "gzip", "HEAD")).body).toHaveLength(0);
});

it.each([
  ["who takes no gzip", "/assets/a.js", "identity"],
  ["what is small", "/assets/small.js", "gzip"],
  ["what is no text", "/assets/font.woff2", "gzip"],
])("%s goes on unpacked", async (_, asked, encoding) => {
  const { status, headers } = await ask(asked, encoding);
  expect(status).toBe(200);
  expect(headers["content-encoding"]).toBeUndefined();
});

it("a name that is not there, or leads out, is nobody's", async () => {
  for (const asked of ["/assets/b.js", "/assets/..%2fa.js", "/assets/%61.js%00", "/assets/"])
    expect((await ask(asked)).status).toBeGreaterThanOrEqual(400);
});
