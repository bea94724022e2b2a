/**
 * The front: the one process that the network sees. It holds the port (and TLS), passes each
 * request to the process that answers it and brings the answer back, so that a page that takes
 * long to draw never holds up a rep: the log and the live streams are answered by a process of
 * their own. While a process is started again, its requests wait here for a moment.
 *
 * Node's own modules only. Started by supervisor.mjs, which tells it over IPC where each process
 * listens; answers with `{ listening: address }` or `{ refused: sentence }`.
 */
import { readFileSync } from "node:fs";
import http from "node:http";
import https from "node:https";
import { BlockList, isIP } from "node:net";
import { pipeline } from "node:stream";
import { readTls } from "./tls.mjs";
import { serveTrustPage } from "./trust-page.mjs";

/** Headers of one connection, not of the message. */
const OF_THE_CONNECTION = new Set([
  "connection",
  "keep-alive",
  "proxy-authenticate",
  "proxy-authorization",
  "proxy-connection",
  "te",
  "trailer",
  "transfer-encoding",
  "upgrade",
]);
/** What only the front may say to the processes behind it. */
const OURS = new Set(["x-client-address", "x-front-key", "x-front-proto"]);

/** A request waits this long for a process that is being started again. */
const WAIT_FOR_START_MS = 15_000;
const ASK_AGAIN_MS = 100;
/** A body of which nothing comes for this long is given up. */
const SILENT_BODY_MS = 15_000;
const HEADERS_MS = 10_000;
/** A whole request; the largest import over a slow link takes about a minute. */
const REQUEST_MS = 120_000;
/** What is still read of a body after its answer. */
const MOST_THROWN_AWAY = 64 * 1024 * 1024;
const THROW_AWAY_MS = 20_000;
/** Running answers may end in this time when the front is told to stop. */
const DRAIN_MS = 8_000;
/** Where PORT_OR_NEXT is set: so many ports after the wished one are tried. */
const NEXT_PORTS = 50;

const AWAY =
  "Sprezza is being started again. Nothing you typed is lost: keep this page open and try again in a moment. Rack tablets keep logging.";
const SLOW = "This came too slowly and was given up. Check the link, then send it again.";

/** Which process answers an address. */
export function processFor(url) {
  return /^\/(api\/(log|live)\/|metrics\/floor(\?|$))/.test(url) ? "floor" : "pages";
}

/** Addresses and networks ("10.0.0.0/8, ::1") of proxies whose word on the client is taken. */
export function trustedProxies(text) {
  const list = new BlockList();
  for (const one of text.split(",").map((part) => part.trim())) {
    if (one === "") continue;
    const [address, bits] = one.split("/");
    const family = isIP(address ?? "");
    if (family === 0) throw new Error(`TRUSTED_PROXIES: "${one}" is no address.`);
    const kind = family === 4 ? "ipv4" : "ipv6";
    if (bits === undefined) list.addAddress(address, kind);
    else list.addSubnet(address, Number(bits), kind);
  }
  return list;
}

const plain = (address) => address.replace(/^::ffff:(?=\d+\.\d+\.\d+\.\d+$)/, "");

/**
 * The client's address: the connection's, unless that is a proxy we were told to trust; then the
 * nearest address in X-Forwarded-For that is none.
 */
export function clientAddress(remote, forwardedFor, trusted) {
  let at = plain(remote ?? "unknown");
  const hops = (forwardedFor ?? "").split(",").map((hop) => plain(hop.trim()));
  while (hops.length > 0) {
    const family = isIP(at);
    if (family === 0 || !trusted.check(at, family === 4 ? "ipv4" : "ipv6")) break;
    const next = hops.pop();
    if (!next || isIP(next) === 0) break;
    at = next;
  }
  return at;
}

/** The headers that go on: without the connection's own, and without what only we may say. */
export function headersOn(raw) {
  const out = [];
  const named = new Set();
  for (let i = 0; i < raw.length; i += 2) {
    if (raw[i].toLowerCase() === "connection")
      for (const one of raw[i + 1].split(",")) named.add(one.trim().toLowerCase());
  }
  for (let i = 0; i < raw.length; i += 2) {
    const name = raw[i].toLowerCase();
    if (!OF_THE_CONNECTION.has(name) && !OURS.has(name) && !named.has(name))
      out.push(raw[i], raw[i + 1]);
  }
  return out;
}

function sentence(response, status, text) {
  if (response.headersSent || response.destroyed) {
    response.destroy();
    return;
  }
  response.writeHead(status, {
    "content-type": "text/plain; charset=utf-8",
    "cache-control": "no-store",
    "x-content-type-options": "nosniff",
    connection: "close",
    ...(status === 503 ? { "retry-after": "2" } : {}),
  });
  response.end(text);
}

/**
 * Answered before its body had come to the end (too large, not allowed): the rest is read and
 * thrown away, within bounds, for a browser reads no answer while it still sends.
 */
function throwAway(request, onward) {
  request.unpipe(onward);
  let left = MOST_THROWN_AWAY;
  request.on("data", (piece) => {
    left -= piece.length;
    if (left < 0) request.destroy();
  });
  const timer = setTimeout(() => request.destroy(), THROW_AWAY_MS);
  request.on("close", () => clearTimeout(timer));
  request.resume();
}

/**
 * The listener of the front.
 * @param settings `portOf(name)`: where a process listens now, or undefined; `key`: the secret
 *   that the processes ask for; `secure`; `trusted`: a BlockList of proxies
 */
export function frontListener({ portOf, key, secure, trusted }) {
  // A page that is slow to come holds its own connections only.
  const agents = {
    pages: new http.Agent({ keepAlive: true, timeout: 30_000 }),
    floor: new http.Agent({ keepAlive: true, timeout: 30_000 }),
  };
  return (request, response) => {
    const startedAt = Date.now();
    const name = processFor(request.url);
    const headers = headersOn(request.rawHeaders);
    headers.push(
      "x-client-address",
      clientAddress(request.socket.remoteAddress, request.headers["x-forwarded-for"], trusted),
      "x-front-key",
      key,
      "x-front-proto",
      secure ? "https" : "http",
    );
    const hasBody =
      request.headers["content-length"] !== undefined ||
      request.headers["transfer-encoding"] !== undefined;
    if (request.headers["transfer-encoding"] !== undefined)
      headers.push("transfer-encoding", "chunked");
    response.on("error", () => {});

    const attempt = () => {
      if (response.destroyed) return;
      const port = portOf(name);
      const again = () => {
        if (Date.now() - startedAt > WAIT_FOR_START_MS) sentence(response, 503, AWAY);
        else setTimeout(attempt, ASK_AGAIN_MS);
      };
      if (port === undefined) {
        again();
        return;
      }
      const onward = http.request({
        host: "127.0.0.1",
        port,
        method: request.method,
        path: request.url,
        headers,
        agent: agents[name],
        setHost: false,
      });
      let answered = false;
      let silent;
      const stopListening = () => {
        clearTimeout(silent);
        response.off("close", leave);
      };
      const leave = () => onward.destroy();
      response.on("close", leave);
      onward.on("response", (answer) => {
        answered = true;
        const back = [];
        for (let i = 0; i < answer.rawHeaders.length; i += 2)
          if (!OF_THE_CONNECTION.has(answer.rawHeaders[i].toLowerCase()))
            back.push(answer.rawHeaders[i], answer.rawHeaders[i + 1]);
        response.writeHead(answer.statusCode, answer.statusMessage, back);
        if (answer.headers["content-type"]?.startsWith("text/event-stream"))
          response.flushHeaders();
        pipeline(answer, response, stopListening);
        if (!request.complete) throwAway(request, onward);
      });
      onward.on("error", (error) => {
        stopListening();
        if (answered || response.destroyed) {
          response.destroy();
          return;
        }
        // Nothing was sent where the connection was refused; a kept connection that had just been
        // closed can be asked again where there is nothing to send twice.
        const unsent = error.code === "ECONNREFUSED";
        const stale = onward.reusedSocket && !hasBody;
        if (unsent || stale) again();
        else sentence(response, 503, AWAY);
      });
      if (!hasBody) {
        onward.end();
        return;
      }
      // The body is taken once the connection stands, so that a refused one has lost nothing.
      const passOn = () => {
        const heard = () => {
          clearTimeout(silent);
          silent = setTimeout(() => {
            sentence(response, 408, SLOW);
            onward.destroy();
          }, SILENT_BODY_MS);
        };
        heard();
        request.on("data", heard);
        request.on("end", () => clearTimeout(silent));
        request.on("error", () => onward.destroy());
        request.pipe(onward);
      };
      onward.on("socket", (socket) => {
        if (socket.connecting) socket.once("connect", passOn);
        else passOn();
      });
    };
    attempt();
  };
}

/** Listens on the wished port; where `next` is given, on the first free one after it. */
function listen(server, host, port, next) {
  return new Promise((resolve, reject) => {
    let at = port;
    server.on("error", (error) => {
      if (error.code === "EADDRINUSE" && at < port + next) server.listen(++at, host);
      else reject(error);
    });
    server.on("listening", () => resolve(server.address().port));
    server.listen(at, host);
  });
}

async function main() {
  const { HOST = "127.0.0.1", PORT = "3000", TRUST_PORT, TRUST_FILE, FRONT_KEY } = process.env;
  const refuse = (words) => process.send({ refused: words }, () => process.exit(1));
  const tls = readTls(process.env);
  if (tls?.refused) {
    refuse(tls.refused);
    return;
  }
  if (tls?.warning) console.error(tls.warning);
  const ports = {};
  process.on("message", (message) => Object.assign(ports, message.ports ?? {}));
  const secure = tls !== undefined;
  const listener = frontListener({
    portOf: (name) => ports[name] ?? undefined,
    key: FRONT_KEY,
    secure,
    trusted: trustedProxies(process.env.TRUSTED_PROXIES ?? ""),
  });
  const server = secure
    ? https.createServer({ key: tls.key, cert: tls.cert }, listener)
    : http.createServer(listener);
  server.headersTimeout = HEADERS_MS;
  server.requestTimeout = REQUEST_MS;
  server.keepAliveTimeout = 10_000;
  server.connectionsCheckingInterval = 2_000;
  server.on("clientError", (error, socket) => {
    if (!socket.writable) return;
    const status =
      error.code === "ERR_HTTP_REQUEST_TIMEOUT"
        ? "408 Request Timeout"
        : error.code === "HPE_HEADER_OVERFLOW"
          ? "431 Request Header Fields Too Large"
          : "400 Bad Request";
    socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
  });
  server.on("upgrade", (_request, socket) => socket.destroy());

  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setInterval(() => server.closeIdleConnections(), 200).unref();
    setTimeout(() => process.exit(0), DRAIN_MS).unref();
  };
  process.on("SIGTERM", stop);
  // Ctrl-C reaches the whole group; the supervisor says when.
  process.on("SIGINT", () => {});
  process.on("disconnect", () => process.exit(0));

  try {
    const next = process.env.PORT_OR_NEXT === "1" ? NEXT_PORTS : 0;
    const port = await listen(server, HOST, Number(PORT), next);
    if (TRUST_PORT && TRUST_FILE && secure) {
      const authority = readFileSync(TRUST_FILE, "utf8");
      serveTrustPage(Number(TRUST_PORT), HOST, { authority, securePort: () => port }, refuse);
    }
    process.send({ listening: `${secure ? "https" : "http"}://${HOST}:${port}`, port });
  } catch (error) {
    const words =
      error.code === "EADDRINUSE"
        ? `Port ${PORT} on ${HOST} is in use. Set PORT to a free one.`
        : `The server could not start: ${error.message}`;
    refuse(words);
  }
}

if (process.env.SPREZZA_PROCESS === "front") await main();
