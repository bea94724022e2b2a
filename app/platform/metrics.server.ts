import { timingSafeEqual } from "node:crypto";
import type { RequestHandler } from "express";
import client from "prom-client";
import { lastBackups } from "../../db/queries/backups.server";
import { databaseAnswers, databases } from "./database.server";
import { environment } from "./env.server";
import { openStreams } from "./event-stream.server";
import { log } from "./log.server";
import { ROUTE_RIGHTS } from "./rights";

/**
 * Figures for a collector, in the usual text format. Each process has its own: `/metrics` is the
 * pages', `/metrics/floor` that of the log and the live streams. Behind a token always: without one
 * there is nothing here.
 */
const registry = new client.Registry();

const requests = new client.Histogram({
  name: "sprezza_request_seconds",
  help: "Time from a request to the end of its answer, by the route's pattern.",
  labelNames: ["method", "route", "status"] as const,
  buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 15],
  registers: [registry],
});
const entries = new client.Counter({
  name: "sprezza_log_entries_total",
  help: "Entries of racks that were stored and read back equal, or taken again.",
  registers: [registry],
});

/** Begins to collect the process's own figures, where somebody may ask for them. */
export function startMetrics(): void {
  if (!environment().METRICS_TOKEN) return;
  registry.setDefaultLabels({ process: environment().SPREZZA_PROCESS ?? "one" });
  client.collectDefaultMetrics({ register: registry });
  new client.Gauge({
    name: "sprezza_live_streams",
    help: "Readers that follow a session now.",
    registers: [registry],
    collect() {
      this.set(openStreams());
    },
  });
  new client.Gauge({
    name: "sprezza_database_up",
    help: "1 while the database answers.",
    registers: [registry],
    async collect() {
      this.set((await databaseAnswers()) ? 1 : 0);
    },
  });
  if (environment().SPREZZA_PROCESS === "floor") return;
  new client.Gauge({
    name: "sprezza_backup_last_good_seconds",
    help: "When the last good backup ended, seconds since 1970; 0 where there was none.",
    registers: [registry],
    async collect() {
      // A database that is away is said by its own figure.
      const { good } = await lastBackups(databases().auth.database).catch(() => ({
        good: undefined,
      }));
      this.set(good ? good.endedAt.getTime() / 1000 : 0);
    },
  });
}

const PATTERNS = ROUTE_RIGHTS.map(({ path }) => ({
  path,
  pattern: new RegExp(`^${path.replace(/[.]/g, "\\.").replace(/:[^/]+/g, "[^/]+")}$`),
}));

/** The pattern of an address: few enough to be a label, and without ids, names or tokens. */
export function routeOf(pathname: string): string {
  const plain = pathname.replace(/\.data$/, "").replace(/^\/_root$/, "/");
  return PATTERNS.find((one) => one.pattern.test(plain))?.path ?? "other";
}

export function noteRequest(
  method: string,
  pathname: string,
  status: number,
  seconds: number,
): void {
  const known = /^(GET|HEAD|POST)$/.test(method) ? method : "other";
  requests.observe({ method: known, route: routeOf(pathname), status: String(status) }, seconds);
}

export function noteEntries(count: number): void {
  entries.inc(count);
}

/** Whether a request carries the token: compared in a time that tells nothing. */
export function carriesToken(authorization: string | undefined, token: string): boolean {
  const said = Buffer.from(authorization?.replace(/^Bearer\s+/i, "") ?? "");
  const wanted = Buffer.from(token);
  return said.length === wanted.length && timingSafeEqual(said, wanted);
}

/** Answers a collector, and whoever else with nothing. */
export const metricsHandler: RequestHandler = (request, response, next) => {
  const token = environment().METRICS_TOKEN;
  if (!token) {
    next();
    return;
  }
  response.setHeader("cache-control", "no-store");
  if (!carriesToken(request.get("authorization"), token)) {
    response
      .status(401)
      .setHeader("www-authenticate", "Bearer")
      .type("text")
      .send("A token is needed: Authorization: Bearer METRICS_TOKEN.");
    return;
  }
  registry.metrics().then(
    (text) => response.setHeader("content-type", registry.contentType).send(text),
    (error: unknown) => {
      log.error({ err: error }, "figures could not be collected");
      response.status(500).type("text").send("The figures could not be collected. See the log.");
    },
  );
};
