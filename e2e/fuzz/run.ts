/**
 * Throws inputs at every route, loader and action of a running server, and counts what must not
 * be: a 500, an answer that never comes, a process that ends. Half of what is sent is nearly
 * right, so that it goes past the reading into the rules and the database.
 *
 * BASE_URL, ADMIN_DATABASE_URL and OWNER_DATABASE_URL as with-database.mjs sets them; FUZZ_COUNT
 * (3000), FUZZ_SEED (1). `--seeds` sends each right request twice, unchanged: it must be taken,
 * and make one thing. `--matrix` sends them as everybody, with own and foreign ids (matrix.ts).
 */
import { writeFileSync } from "node:fs";
import postgres from "postgres";
import { ROUTE_RIGHTS } from "../../app/platform/rights";
import { DEMO_PASSWORD } from "../../db/demo/people";
import { makeSecondTeam, SECOND_PASSWORD } from "../../db/fixtures/second-team";
import { complain } from "./complain";
import { rightsMatrix } from "./matrix";
import { type Seed, seedsOf } from "./seeds";
import { chanceFrom, pathOf, type Thrown, thrownRead, thrownWrite } from "./throw";
import { readWorld, type World } from "./world";

const env = (name: string) => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run through scripts/fuzz.mjs.`);
  return value;
};
const base = env("BASE_URL");
const COUNT = Number(process.env.FUZZ_COUNT ?? 3000);
const SEED = Number(process.env.FUZZ_SEED ?? 1);
const AT_ONCE = 6;
const HUNG_MS = 20_000;
/** Throws of an intent that never went past the reading, after the others. */
const TRIES_MORE = 40;
/** The world is read anew after so many: what was made and put away changes what is right. */
const WORLD_FOR = 400;
const TODAY = (process.env.SPREZZA_NOW ?? new Date().toISOString()).slice(0, 10);

async function signIn(email: string, password: string): Promise<string> {
  const response = await fetch(`${base}/sign-in`, {
    method: "POST",
    body: new URLSearchParams({ email, password, to: "/" }),
    redirect: "manual",
  });
  const cookies = response.headers.getSetCookie().map((one) => one.split(";")[0]);
  if (cookies.length === 0) throw new Error(`${email} could not sign in (${response.status}).`);
  return cookies.join("; ");
}

interface Answered {
  status: number;
  text: string;
  hung: boolean;
  ended: boolean;
}

async function send(thrown: Thrown, cookies: Record<string, string>): Promise<Answered> {
  const stop = new AbortController();
  const timer = setTimeout(() => stop.abort(), HUNG_MS);
  try {
    const cookie = thrown.headers.cookie ?? cookies[thrown.as];
    const response = await fetch(base + thrown.path, {
      method: thrown.method,
      headers: { ...thrown.headers, ...(cookie ? { cookie } : {}) },
      ...(thrown.body === undefined ? {} : { body: thrown.body }),
      redirect: "manual",
      signal: stop.signal,
    });
    const streamed = response.headers.get("content-type")?.startsWith("text/event-stream");
    let text = "";
    if (streamed) stop.abort();
    else text = await response.text();
    return { status: response.status, text, hung: false, ended: false };
  } catch (error) {
    const hung = stop.signal.aborted;
    // A request that the client itself will not send (a header, a method) is nothing thrown.
    const refusedHere = error instanceof TypeError && !(error.cause instanceof Error);
    return {
      status: refusedHere ? -1 : 0,
      text: String(error),
      hung,
      ended: !hung && !refusedHere,
    };
  } finally {
    clearTimeout(timer);
  }
}

/** Past the reading: it was allowed, it was there, and no field of it was refused. */
function wentPast(thrown: Thrown, answer: Answered): boolean {
  if (thrown.as === "nobody" || answer.status >= 400 || answer.status <= 0) return false;
  return !/"problems"|not complete|could not be read|"faults"/.test(answer.text);
}

const connection = () =>
  postgres(
    env("ADMIN_DATABASE_URL").replace(
      /\/[^/]*$/,
      `/${new URL(env("OWNER_DATABASE_URL")).pathname.slice(1)}`,
    ),
    {
      max: 2,
      onnotice: () => {},
    },
  );

/** Rows of every table that forms make things in. */
async function rowCounts(sql: postgres.Sql): Promise<Map<string, number>> {
  const tables = await sql`
    SELECT c.relname AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname = 'public' AND c.relkind = 'r'`;
  const counts = new Map<string, number>();
  for (const { name } of tables) {
    const [row] = await sql.unsafe(`SELECT count(*)::int AS n FROM "${name}"`);
    counts.set(String(name), Number(row?.n));
  }
  return counts;
}

/** Reads that are recorded, and pairings that replace one another, are no things made twice. */
const MAY_GROW = new Set(["reason_read", "submission"]);

async function sendSeeds(sql: postgres.Sql, cookies: Record<string, string>): Promise<number> {
  const chance = chanceFrom(SEED);
  let faults = 0;
  const names = seedsOf(await readWorld(sql, TODAY), chance.pick).length;
  for (let i = 0; i < names; i++) {
    // Read anew for each: what the one before put away is not chosen.
    const seed = seedsOf(await readWorld(sql, TODAY), chance.pick)[i] as Seed;
    const name = `${seed.route} ${seed.intent ?? ""}`.trim();
    const once = crypto.randomUUID();
    const thrown = asThrown(seed, once);
    const before = await rowCounts(sql);
    const first = await send(thrown, cookies);
    const middle = await rowCounts(sql);
    const second = await send(thrown, cookies);
    const after = await rowCounts(sql);
    const taken = first.status < 400 && !/"ok",false|"problems"/.test(first.text);
    const made = [...middle].filter(
      ([table, n]) => n !== before.get(table) && !MAY_GROW.has(table),
    );
    const twice = [...after].filter(
      ([table, n]) => n !== middle.get(table) && !MAY_GROW.has(table),
    );
    if (twice.length > 0) {
      faults++;
      complain(`MADE TWICE: ${name}: ${twice.map(([table]) => table).join(", ")}`);
    }
    if (second.status >= 500 || first.status >= 500) {
      faults++;
      complain(`${first.status}, ${second.status}: ${name}`);
    }
    if (!taken && !seed.refused) {
      faults++;
      complain(`NOT TAKEN: ${name}: ${first.status} ${first.text.slice(0, 300)}`);
    }
    if (process.env.FUZZ_VERBOSE)
      console.log(
        `${name}: ${first.status} ${taken ? "taken" : first.text.slice(0, 200)} ${made.map(([table]) => table).join(", ")}`,
      );
  }
  return faults;
}

function asThrown(seed: Seed, once: string): Thrown {
  const isForm = "form" in seed.body;
  return {
    route: seed.route,
    method: "POST",
    path: pathOf(seed.route, seed.params ?? {}) + (seed.route.startsWith("/api/") ? "" : ".data"),
    headers: {
      "content-type": isForm ? "application/x-www-form-urlencoded" : "application/json",
    },
    body:
      "form" in seed.body
        ? new URLSearchParams([["once", once], ...seed.body.form]).toString()
        : JSON.stringify({ once, ...seed.body.json }),
    as: seed.as === undefined ? "coach" : seed.as,
    gentle: true,
    intent: seed.intent,
  };
}

interface Tally {
  sent: number;
  past: number;
  slowestMs: number;
  statuses: Map<number, number>;
  intents: Set<string>;
}

/** What the database was at when an answer did not come. */
async function tellWhatRuns(sql: postgres.Sql): Promise<void> {
  const running = await sql`
    SELECT pid, state, wait_event_type, wait_event, pg_blocking_pids(pid) AS behind,
      extract(epoch FROM now() - xact_start)::int AS seconds, left(query, 120) AS query
    FROM pg_stat_activity WHERE backend_type = 'client backend' AND pid <> pg_backend_pid()`;
  for (const row of running) console.log(JSON.stringify(row));
}

async function throwAll(sql: postgres.Sql, cookies: Record<string, string>) {
  const chance = chanceFrom(SEED);
  const tallies = new Map<string, Tally>(
    ROUTE_RIGHTS.map((rule) => [
      rule.path,
      { sent: 0, past: 0, slowestMs: 0, statuses: new Map(), intents: new Set() },
    ]),
  );
  const faults: Array<{ what: string; thrown: Thrown; text: string }> = [];
  const reads = ROUTE_RIGHTS.filter((rule) => rule.path !== "/sign-out").map((rule) => rule.path);
  let world: World = await readWorld(sql, TODAY);
  let sent = 0;
  const throwOne = async (thrown: Thrown) => {
    const sentAt = performance.now();
    const answer = await send(thrown, cookies);
    if (answer.status === -1) return;
    const tally = tallies.get(thrown.route);
    if (!tally) return;
    tally.sent++;
    tally.slowestMs = Math.max(tally.slowestMs, performance.now() - sentAt);
    tally.statuses.set(answer.status, (tally.statuses.get(answer.status) ?? 0) + 1);
    if (wentPast(thrown, answer)) {
      tally.past++;
      if (thrown.intent) tally.intents.add(thrown.intent);
    }
    if (answer.status === 500 || answer.hung || answer.ended) {
      const what = answer.hung ? "HUNG" : answer.ended ? "ENDED" : "500";
      faults.push({ what, thrown, text: answer.text });
      if (answer.hung) await tellWhatRuns(sql);
      if (faults.length <= 60)
        complain(
          `${what}: ${thrown.method} ${thrown.path.slice(0, 160)} ${(thrown.body ?? "").slice(0, 400)}`,
        );
    }
  };
  const one = async () => {
    while (sent < COUNT) {
      const number = sent++;
      if (number % WORLD_FOR === WORLD_FOR - 1) world = await readWorld(sql, TODAY);
      // Loaders in turn, and twice as many actions.
      const seeds = seedsOf(world, chance.pick).filter((seed) => seed.route !== "/sign-out");
      // Later on, every other action is one that never went past the reading yet.
      const unseen = seeds.filter(
        (seed) => seed.intent && !tallies.get(seed.route)?.intents.has(seed.intent),
      );
      const pool = number > COUNT / 2 && number % 2 === 0 && unseen.length > 0 ? unseen : seeds;
      const thrown =
        number % 3 === 0
          ? thrownRead(reads[(number / 3) % reads.length] as string, world, chance)
          : thrownWrite(
              pool[(number - Math.ceil(number / 3)) % pool.length] as Seed,
              world,
              chance,
            );
      await throwOne(thrown);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  // What chance has left out gets as many throws more: whether all was reached is not luck.
  for (let i = 0; COUNT >= 3000 && i < TRIES_MORE; i++) {
    world = await readWorld(sql, TODAY);
    const left = seedsOf(world, chance.pick).filter(
      (seed) => seed.intent && !tallies.get(seed.route)?.intents.has(seed.intent),
    );
    if (left.length === 0) break;
    for (const seed of left) await throwOne(thrownWrite(seed, world, chance));
  }
  return { tallies, faults };
}

/** Intents that were thrown and never went past the reading. */
function unreached(tallies: Map<string, Tally>, world: World, pick: <T>(list: readonly T[]) => T) {
  return seedsOf(world, pick)
    .filter((seed) => seed.intent && !tallies.get(seed.route)?.intents.has(seed.intent))
    .map((seed) => `${seed.route} ${seed.intent}`);
}

const sql = connection();
const second = await makeSecondTeam(env("OWNER_DATABASE_URL"), `Second ${SEED}`);
const cookies: Record<string, string> = {
  owner: await signIn("owner@skerry.example", DEMO_PASSWORD),
  coach: await signIn("coach@skerry.example", DEMO_PASSWORD),
  assistant: await signIn("assistant@skerry.example", DEMO_PASSWORD),
  athlete: await signIn("maren@skerry.example", DEMO_PASSWORD),
  second: await signIn(second.email, SECOND_PASSWORD),
};

let failed = 0;
if (process.argv.includes("--seeds")) {
  failed += await sendSeeds(sql, cookies);
} else if (process.argv.includes("--matrix")) {
  const matrixAt = performance.now();
  const { faults, refusals, twins, foreign } = await rightsMatrix({
    sql,
    cookies,
    second,
    pick: chanceFrom(SEED).pick,
    today: TODAY,
    send: (seed, cookie) => {
      const thrown = asThrown(seed, crypto.randomUUID());
      return send(
        { ...thrown, as: "nobody", headers: { ...thrown.headers, ...(cookie ? { cookie } : {}) } },
        {},
      );
    },
  });
  console.log(
    `rights, ${Math.round((performance.now() - matrixAt) / 1000)} s: ${refusals} refused requests, ${twins} twins that may, ${foreign} with ids across teams; ${faults} faults`,
  );
  failed += faults;
} else {
  const { tallies, faults } = await throwAll(sql, cookies);
  const health = await fetch(`${base}/health`);
  let past = 0;
  let all = 0;
  console.log("route: sent, past the reading; statuses");
  for (const [route, tally] of [...tallies].sort()) {
    past += tally.past;
    all += tally.sent;
    const statuses = [...tally.statuses]
      .sort(([a], [b]) => a - b)
      .map(([status, n]) => `${status || "hung"} × ${n}`)
      .join(", ");
    console.log(
      `${route}: ${tally.sent}, ${tally.past}; ${statuses}; slowest ${Math.round(tally.slowestMs)} ms`,
    );
    if (tally.sent === 0 && route !== "/sign-out") failed++;
  }
  const missed = unreached(tallies, await readWorld(sql, TODAY), chanceFrom(1).pick);
  if (missed.length > 0) complain(`intents never past the reading: ${missed.join("; ")}`);
  const of = (what: string) => faults.filter((one) => one.what === what).length;
  console.log(
    `${all} inputs, ${past} signed in and past the reading (${Math.round((100 * past) / all)} %); ${of("500")} × 500, ${of("HUNG")} hung, ${of("ENDED")} connections ended, health ${health.status}`,
  );
  if (faults.length > 0) writeFileSync("test-results/fuzz-faults.json", JSON.stringify(faults));
  failed += faults.length + (health.status === 200 ? 0 : 1);
  if (past * 2 < all) complain(`Only ${past} of ${all} went past the reading.`);
  if (past * 2 < all || (COUNT >= 3000 && missed.length > 0)) failed++;
}
await sql.end();
console.log(failed === 0 ? "1 passed, 0 failed" : `0 passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
