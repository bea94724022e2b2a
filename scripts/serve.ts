/**
 * The production server: our own Express around the built application, so that it stops cleanly
 * (connections, event streams, the database pools) and can speak TLS to tablets on the local
 * network. Prints `listening ADDRESS` when it is ready.
 */
import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { createServer as createPlain } from "node:http";
import { createServer as createSecure } from "node:https";
import type { AddressInfo } from "node:net";
import path from "node:path";
import type { Response } from "express";

process.env.NODE_ENV ??= "production";

/** One sentence and no stack: whoever starts the server should know what to do. */
function giveUp(sentence: string): never {
  console.error(sentence);
  process.exit(1);
}

const { environment } = await import("../app/platform/env.server");
const settings = (() => {
  try {
    return environment();
  } catch (error) {
    return giveUp((error as Error).message);
  }
})();
const { closeDatabases, databases } = await import("../app/platform/database.server");
for (const [name, address] of [
  ["app", settings.DATABASE_URL],
  ["auth", settings.AUTH_DATABASE_URL],
] as const) {
  try {
    await databases()[name].client`SELECT 1`;
  } catch {
    giveUp(
      `The database does not answer at ${new URL(address).host}. Start it, or correct ${name === "app" ? "DATABASE_URL" : "AUTH_DATABASE_URL"}, then start again.`,
    );
  }
}
await closeDatabases();
const compression = (await import("compression")).default;
const { default: express } = await import("express");
const { createRequestHandler } = await import("@react-router/express");
const { log } = await import("../app/platform/log.server");

const buildFile = path.resolve("build/server/index.js");
const build = await import(buildFile);

const app = express();
app.disable("x-powered-by");
// What is built never changes under its name: no validators, no request number, the best
// compression. A rack's tablet loads twenty of these.
app.use(
  "/assets",
  compression({ level: 9 }),
  express.static("build/client/assets", {
    immutable: true,
    maxAge: "1y",
    etag: false,
    lastModified: false,
    setHeaders: (response) => response.setHeader("x-content-type-options", "nosniff"),
  }),
);
app.use((request, response, next) => {
  // Set here, never taken from outside: what the sign-in's rate limit counts by, and the log.
  request.headers["x-client-address"] = request.socket.remoteAddress ?? "unknown";
  const id = randomUUID();
  request.headers["x-request-id"] = id;
  response.setHeader("x-request-id", id);
  response.setHeader("x-content-type-options", "nosniff");
  response.setHeader("referrer-policy", "same-origin");
  response.setHeader("x-frame-options", "DENY");
  const startedAt = performance.now();
  response.on("finish", () => {
    log.info(
      {
        requestId: id,
        method: request.method,
        path: request.path,
        status: response.statusCode,
        ms: Math.round(performance.now() - startedAt),
      },
      "request",
    );
  });
  next();
});
// Pages are made anew for everybody and cross a room: their time counts more than the last byte
// (a large plan: a third less work at the lightest level, an eighth more to send).
app.use(compression({ level: 1 }));
app.use((_request, response, next) => {
  mayStopWaiting(response);
  next();
});
app.use(express.static("build/client", { maxAge: "1h" }));
app.all(/.*/, createRequestHandler({ build }));

/**
 * Whoever waits for room to write can stop waiting. The compression hands them to a stream of its
 * own, where the response's `off` does not find them: a long page would leave one behind for
 * every chunk.
 */
function mayStopWaiting(response: Response): void {
  const emitter: NodeJS.EventEmitter = response;
  const { on, removeListener } = emitter;
  let stream: NodeJS.EventEmitter | undefined;
  emitter.on = (type, listener) => {
    const at = on.call(response, type, listener);
    if (type === "drain") stream = at;
    return response;
  };
  emitter.off = (type, listener) => {
    if (type === "drain") stream?.removeListener(type, listener);
    return removeListener.call(response, type, listener);
  };
  emitter.removeListener = emitter.off;
}

const secure = settings.TLS_KEY !== undefined && settings.TLS_CERT !== undefined;
const server = secure
  ? createSecure(
      {
        key: readFileSync(settings.TLS_KEY as string),
        cert: readFileSync(settings.TLS_CERT as string),
      },
      app,
    )
  : createPlain(app);

server.on("error", (error: NodeJS.ErrnoException) => {
  giveUp(
    error.code === "EADDRINUSE"
      ? `Port ${settings.PORT} on ${settings.HOST} is in use. Set PORT to a free one.`
      : `The server could not start: ${error.message}`,
  );
});
server.listen(settings.PORT, settings.HOST, () => {
  const { port } = server.address() as AddressInfo;
  console.log(`listening ${secure ? "https" : "http"}://${settings.HOST}:${port}`);
});

// The database driver can throw from a timer of its own when a connection dies while it writes.
// The queries on that connection have been refused by then; the pool opens a new one. Anything
// else that nobody caught is a bug, and the process ends.
process.on("uncaughtException", (error) => {
  if (/[\\/]node_modules[\\/]postgres[\\/]/.test(error.stack ?? "")) {
    log.error({ err: error }, "a database connection died");
    return;
  }
  log.fatal({ err: error }, "uncaught");
  process.exit(1);
});

let stopping = false;
async function stop() {
  if (stopping) return;
  stopping = true;
  server.close();
  server.closeAllConnections();
  await build.entry.module.shutdown?.();
  process.exit(0);
}
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
