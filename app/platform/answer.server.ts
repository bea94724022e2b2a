import { randomUUID } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { gzip } from "node:zlib";
import { isClean } from "../../core/units/text";
import { log, loggedPath } from "./log.server";
import { noteRequest } from "./metrics.server";
import { bodyLimit, limitedBody, tooLargeWords } from "./request-body.server";
import { headersOfAnswers } from "./security-headers.server";

/** The router's own handler: a request in, an answer out. */
export type Handle = (request: Request) => Promise<Response>;

const BODILESS = new Set(["GET", "HEAD"]);
const compress = promisify(gzip);
/** Goes out as it is made, at its reader's pace: news, and files that may be large. */
const STREAMED = /^(text\/event-stream|application\/zip)/;
/** Smaller answers gain nothing. */
const LEAST_COMPRESSED = 1024;
const TEXT = /^(text\/|application\/(json|javascript|manifest\+json)|image\/svg)/;

/**
 * Answers one request with the router. Bodies are passed on as they come and broken off at their
 * limit; pages and data go out whole and lightly compressed (off this thread), streams and archives
 * piece by piece and never faster than their reader takes them.
 */
export async function answer(
  incoming: IncomingMessage,
  outgoing: ServerResponse,
  handle: Handle,
): Promise<void> {
  const startedAt = performance.now();
  const id = randomUUID();
  const { request, url, tooLarge } = requestFrom(incoming, outgoing, id);
  outgoing.setHeader("x-request-id", id);
  outgoing.on("close", () => {
    const ms = performance.now() - startedAt;
    noteRequest(incoming.method ?? "", url.pathname, outgoing.statusCode, ms / 1000);
    log.info(
      {
        requestId: id,
        method: incoming.method,
        path: loggedPath(url.pathname),
        status: outgoing.statusCode,
        ms: Math.round(ms),
      },
      "request",
    );
  });
  const response = await answerOf(request, tooLarge, handle, id);
  await send(incoming, outgoing, response);
}

async function answerOf(
  request: Request | Response,
  tooLarge: () => number | undefined,
  handle: Handle,
  id: string,
): Promise<Response> {
  if (request instanceof Response) return request;
  try {
    const response = await handle(request);
    // Whoever read the body met the end of what may be read, whatever they made of that.
    const limit = tooLarge();
    if (limit === undefined) return response;
    await response.body?.cancel();
    return sentence(413, tooLargeWords(limit));
  } catch (error) {
    const limit = tooLarge();
    if (limit !== undefined) return sentence(413, tooLargeWords(limit));
    log.error({ err: error, requestId: id }, "request failed");
    return sentence(500, `Something went wrong on our side (request ${id}). Try again.`);
  }
}

export function sentence(status: number, words: string): Response {
  return new Response(words, {
    status,
    headers: { "content-type": "text/plain; charset=utf-8" },
  });
}

/** The request as the router reads it; an answer where it can be none. */
function requestFrom(incoming: IncomingMessage, outgoing: ServerResponse, id: string) {
  const none = () => undefined;
  const said = incoming.headers;
  const proto = said["x-front-proto"] === "https" ? "https" : "http";
  let url: URL;
  try {
    url = new URL(`${proto}://${said.host ?? "localhost"}`);
    // Never resolved against the host: "//elsewhere" is a path here.
    const [path = "/", ...query] = (incoming.url ?? "/").split("?");
    if (!isClean(decodeURIComponent(path))) throw new URIError("no text");
    url.pathname = path;
    url.search = query.join("?");
  } catch {
    url = new URL("http://localhost/");
    return {
      request: sentence(400, "This address could not be read. Check it and try again."),
      url,
      tooLarge: none,
    };
  }
  const limit = bodyLimit(url.pathname);
  const announced = Number(said["content-length"] ?? 0);
  if (announced > limit) {
    return { request: sentence(413, tooLargeWords(limit)), url, tooLarge: none };
  }

  const headers = new Headers();
  for (const [name, value] of Object.entries(said)) {
    if (value === undefined || name === "x-front-key") continue;
    for (const one of [value].flat()) headers.append(name, one);
  }
  headers.set("x-request-id", id);
  const away = new AbortController();
  outgoing.on("close", () => away.abort());
  let exceeded = false;
  const method = incoming.method ?? "GET";
  const body = BODILESS.has(method)
    ? null
    : limitedBody(Readable.toWeb(incoming) as unknown as ReadableStream<Uint8Array>, limit, () => {
        exceeded = true;
      });
  const init = { method, headers, signal: away.signal, body, duplex: "half" };
  try {
    return {
      request: new Request(url, init),
      url,
      tooLarge: () => (exceeded ? limit : undefined),
    };
  } catch {
    return {
      request: sentence(405, "Nothing to do here."),
      url,
      tooLarge: none,
    };
  }
}

async function send(
  incoming: IncomingMessage,
  outgoing: ServerResponse,
  response: Response,
): Promise<void> {
  if (outgoing.destroyed) {
    await response.body?.cancel();
    return;
  }
  const headers = new Headers(response.headers);
  headersOfAnswers(headers);
  outgoing.statusCode = response.status;
  const write = () => {
    for (const [name, value] of headers) if (name !== "set-cookie") outgoing.setHeader(name, value);
    const cookies = headers.getSetCookie();
    if (cookies.length > 0) outgoing.setHeader("set-cookie", cookies);
  };

  if (STREAMED.test(headers.get("content-type") ?? "") && response.body) {
    write();
    outgoing.flushHeaders();
    try {
      // Waits while the reader's connection is full: what is not taken is not made either.
      await pipeline(Readable.fromWeb(response.body as never, { highWaterMark: 1 }), outgoing);
    } catch {
      // The reader left, or was too slow and was ended; it comes back with its cursor.
      outgoing.destroy();
    }
    return;
  }

  let whole = Buffer.from(await response.arrayBuffer());
  const type = headers.get("content-type") ?? "";
  if (whole.byteLength >= LEAST_COMPRESSED && TEXT.test(type) && takesGzip(incoming)) {
    whole = await compress(whole, { level: 1 });
    headers.set("content-encoding", "gzip");
    headers.append("vary", "accept-encoding");
  }
  write();
  if (response.status !== 204 && response.status !== 304)
    outgoing.setHeader("content-length", whole.byteLength);
  outgoing.end(incoming.method === "HEAD" ? undefined : whole);
}

function takesGzip(incoming: IncomingMessage): boolean {
  return /(^|[\s,])gzip\s*(,|;\s*q=(?!0(\.0*)?\s*(,|$))|$)/.test(
    String(incoming.headers["accept-encoding"] ?? ""),
  );
}
