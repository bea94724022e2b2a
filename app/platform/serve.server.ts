import { timingSafeEqual } from "node:crypto";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import compression from "compression";
import express from "express";
import { createRequestHandler, type ServerBuild } from "react-router";
import { answer, sentence } from "./answer.server";
import { closeDatabases, databases, isDatabaseAway } from "./database.server";
import { type Environment, environment } from "./env.server";
import { endStreams } from "./event-stream.server";
import { isFirstRun, mixedUp } from "./installation.server";
import { log } from "./log.server";
import { metricsHandler, startMetrics } from "./metrics.server";
import { packedAssets } from "./packed-assets.server";
import { schemaState } from "./schema-version.server";
import { headersOfAll } from "./security-headers.server";
import { serviceWorker } from "./service-worker.server";

/** Running answers may come to their end in this time when the process is told to stop. */
const DRAIN_MS = 8_000;

/** Says why it does not start, to whoever started it, and ends. */
function refuse(words: string): never {
  process.send?.({ refused: words });
  if (!process.send) console.error(words);
  // The message must be away before the process is.
  setTimeout(() => process.exit(1), 50);
  throw new Refused(words);
}
class Refused extends Error {}

/**
 * Serves the built application on a loopback port, behind the front (scripts/front.mjs), and tells
 * the supervisor over IPC where.
 */
export async function serve(build: ServerBuild): Promise<void> {
  try {
    const settings = environmentOr();
    if (await checkDatabases(settings)) await checkInstallation(settings);
    await listen(build, settings);
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
  }
}

function environmentOr(): Environment {
  try {
    return environment();
  } catch (error) {
    return refuse((error as Error).message);
  }
}

/**
 * A first start wants its database, and one whose tables are of this version. A process that is
 * started again serves also while the database is away: its pages say so, and it comes back.
 * @returns whether the databases answer
 */
async function checkDatabases(settings: Environment): Promise<boolean> {
  for (const [name, address] of [
    ["app", settings.DATABASE_URL],
    ["auth", settings.AUTH_DATABASE_URL],
  ] as const) {
    try {
      await databases()[name].client`SELECT 1`;
    } catch (error) {
      if (settings.STARTED_AGAIN === "1" && isDatabaseAway(error)) return false;
      const setting = name === "app" ? "DATABASE_URL" : "AUTH_DATABASE_URL";
      refuse(
        `The database does not answer at ${new URL(address).host}. Start it, or correct ${setting}, then start again.`,
      );
    }
  }
  const { behind, ahead } = await schemaState(databases().auth.client);
  if (ahead > 0) {
    refuse(
      `The database is of a newer version than this one (${ahead} ${ahead === 1 ? "step" : "steps"} ahead): nothing was started. Install that version again, or restore the backup that was kept before the upgrade (docs/operate.md, “Back to the version before”).`,
    );
  }
  if (behind > 0) {
    refuse(
      `The database is ${behind} ${behind === 1 ? "step" : "steps"} behind this version. Run \`npm run migrate\` with OWNER_DATABASE_URL set (it keeps a backup first), then start again.`,
    );
  }
  return true;
}

/** Demo and real data never mix; and whoever started a server without a team is told so. */
async function checkInstallation(settings: Environment): Promise<void> {
  const words = await mixedUp();
  if (words) refuse(words);
  if (settings.SPREZZA_PROCESS === "pages" && (await isFirstRun()))
    process.send?.({ firstRun: true });
}

async function listen(build: ServerBuild, settings: Environment): Promise<void> {
  const app = express();
  app.disable("x-powered-by");
  app.disable("etag");
  const everywhere = headersOfAll();
  const key = Buffer.from(settings.FRONT_KEY);
  app.use((request, response, next) => {
    // Only the front knows the client's address, and only the front is listened to.
    const said = Buffer.from(request.get("x-front-key") ?? "");
    if (said.length === key.length && timingSafeEqual(said, key)) next();
    else response.status(403).type("text").send("Use the server's own address.");
  });
  // What is built never changes under its name: no validators, the best compression, made once.
  app.use(
    "/assets",
    packedAssets("build/client/assets", {
      "cache-control": "public, max-age=31536000, immutable",
      "x-content-type-options": "nosniff",
    }),
    compression({ level: 9 }),
    express.static("build/client/assets", {
      immutable: true,
      maxAge: "1y",
      etag: false,
      lastModified: false,
      // A rack's tablet loads twenty of these: no header that means nothing for a file.
      setHeaders: (response) => response.setHeader("x-content-type-options", "nosniff"),
    }),
  );
  app.use((_request, response, next) => {
    for (const [name, value] of Object.entries(everywhere)) response.setHeader(name, value);
    next();
  });
  app.get("/sw.js", serviceWorker("build/client"));
  // No page waits for the file system to say that it is no file: a file's name has an ending.
  const files = express.static("build/client", { maxAge: "1h", index: false });
  app.use((request, response, next) => {
    if (/\.(?!data$)[a-z0-9]+$/i.test(request.path)) files(request, response, next);
    else next();
  });

  startMetrics();
  app.get(["/metrics", "/metrics/floor"], metricsHandler);
  const handle = createRequestHandler(build, settings.NODE_ENV);
  app.use((request, response) => {
    answer(request, response, handle).catch((error: unknown) => {
      log.error({ err: error }, "an answer could not be sent");
      response.destroy();
    });
  });
  // What Express itself cannot read: an address that does not decode.
  app.use(
    (
      _error: unknown,
      _request: express.Request,
      response: express.Response,
      _next: express.NextFunction,
    ) => {
      void sentence(400, "This address could not be read. Check it and try again.")
        .text()
        .then((words) => response.status(400).type("text").send(words));
    },
  );

  const server = createServer(app);
  // The front has waited for headers and bodies already; its kept connections outlast its own.
  server.keepAliveTimeout = 90_000;
  server.headersTimeout = 95_000;
  server.requestTimeout = 0;
  server.listen(0, "127.0.0.1", () => {
    process.send?.({ listening: (server.address() as AddressInfo).port });
  });

  // The database driver can throw from a timer of its own when a connection dies while it writes.
  // The queries on that connection have been refused by then; the pool opens a new one. Anything
  // else that nobody caught is a bug: the process ends, and the supervisor starts it again.
  process.on("uncaughtException", (error) => {
    if (/[\\/]node_modules[\\/]postgres[\\/]/.test(error.stack ?? "")) {
      log.error({ err: error }, "a database connection died");
      return;
    }
    log.fatal({ err: error }, "uncaught");
    process.exit(1);
  });

  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    const end = () => void closeDatabases().finally(() => process.exit(0));
    server.close(end);
    endStreams();
    server.closeIdleConnections();
    setInterval(() => server.closeIdleConnections(), 100).unref();
    setTimeout(end, DRAIN_MS).unref();
  };
  process.on("SIGTERM", stop);
  // Ctrl-C reaches the whole group; the supervisor says when.
  process.on("SIGINT", () => {});
  process.on("disconnect", stop);
}
