import { createHash, randomBytes, randomUUID } from "node:crypto";
import type postgres from "postgres";
import { type Actor, isAllowed, ROUTE_RIGHTS } from "../../app/platform/rights";
import type { SecondTeam } from "../../db/fixtures/second-team";
import { complain } from "./complain";
import { type Seed, seedsOf } from "./seeds";
import { readWorld, type World } from "./world";

/**
 * Every right request × every actor × own and foreign ids. What the table of rights refuses changes
 * no row, and its twin by somebody who may is taken; another team reaches nothing of ours, and our
 * coach nothing of theirs, whichever way the ids are put in.
 */
type Send = (seed: Seed, cookie: string | undefined) => Promise<{ status: number; text: string }>;
type Pick = <T>(list: readonly T[]) => T;
type Who = Actor | "nobody" | "second";

/** Reads that are recorded, keys of forms, and tries of signing in: they may grow. */
const MAY_GROW = new Set(["reason_read", "submission"]);

/** Rows of each table, by team. */
async function countsOf(sql: postgres.Sql): Promise<Map<string, string>> {
  const tables = await sql`
    SELECT table_name AS name FROM information_schema.columns
    WHERE table_schema = 'public' AND column_name = 'team_id'`;
  const found = new Map<string, string>();
  for (const { name } of tables) {
    if (MAY_GROW.has(name)) continue;
    // The newest transaction too: a refused request may not change a row either.
    const rows = await sql.unsafe(
      `SELECT team_id, count(*)::int AS n, max(xmin::text::bigint)::text AS newest
       FROM "${name}" GROUP BY team_id`,
    );
    for (const row of rows) found.set(`${name} of ${row.team_id}`, `${row.n} ${row.newest}`);
  }
  return found;
}

const changed = (before: Map<string, string>, after: Map<string, string>) =>
  [...new Set([...before.keys(), ...after.keys()])].filter(
    (key) => before.get(key) !== after.get(key),
  );

/** A tablet of a rack, paired; its cookie. */
async function tablet(sql: postgres.Sql, revoked: boolean): Promise<string> {
  const token = randomBytes(32).toString("base64url");
  const hash = createHash("sha256").update(token).digest("hex");
  await sql`
    INSERT INTO rack_device (team_id, id, room_id, rack_id, name, token_hash, paired_at, revoked_at)
    SELECT r.team_id, ${randomUUID()}, r.room_id, r.id, 'Matrix', ${hash}, now(), ${revoked ? new Date() : null}
    FROM rack r JOIN team t ON t.id = r.team_id WHERE t.name = 'Skerry Coast' LIMIT 1`;
  return `sprezza_rack=${token}`;
}

/** Whether a refusal is one: of the guard, or to the sign-in. */
const isRefused = (answer: { status: number; text: string }) =>
  [401, 403, 405].includes(answer.status) || answer.text.includes("/sign-in");
const isTaken = (answer: { status: number; text: string }) =>
  answer.status < 400 && !/"ok",false|"ok":false|"problems"|"refused"/.test(answer.text);

/** The same request with every id of ours put in another team's place. */
function withForeignIds(seed: Seed, world: World, second: SecondTeam): Seed | undefined {
  const kinds: Array<[keyof World, string]> = [
    ["athletes", second.athleteId],
    ["plans", second.planId],
    ["rooms", second.roomId],
    ["racks", second.rackId],
    ["variants", second.variantId],
    ["boxVariants", second.variantId],
    ["sessions", second.sessionId],
    ["running", second.sessionId],
  ];
  const theirs = new Map<string, string>();
  for (const [kind, id] of kinds) for (const own of world[kind] as string[]) theirs.set(own, id);
  for (const [kind, value] of Object.entries(world))
    if (Array.isArray(value) && kind !== "foreign")
      for (const own of value as string[])
        if (/^[0-9a-f-]{36}$/.test(own) && !theirs.has(own)) theirs.set(own, second.athleteId);
  for (const own of [world.rep, world.record, world.piece, world.band, world.edited, world.boxSlot])
    for (const id of Object.values(own ?? {}))
      if (typeof id === "string" && /^[0-9a-f-]{36}$/.test(id) && !theirs.has(id))
        theirs.set(id, second.athleteId);
  const text = JSON.stringify(seed);
  const swapped = text.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, (id) => theirs.get(id) ?? id);
  return swapped === text ? undefined : (JSON.parse(swapped) as Seed);
}

/** Forms that are about the team as a whole and only mention ids beside: taken without them. */
const MENTIONS_ONLY = new Set(["/library fill"]);

export async function rightsMatrix(input: {
  sql: postgres.Sql;
  send: Send;
  pick: Pick;
  today: string;
  second: SecondTeam;
  cookies: Record<string, string>;
}): Promise<{ faults: number; refusals: number; twins: number; foreign: number }> {
  const { sql, send, pick, today, second, cookies } = input;
  const cookieOf: Record<Who, string | undefined> = {
    owner: cookies.owner,
    coach: cookies.coach,
    assistant: cookies.assistant,
    athlete: cookies.athlete,
    second: cookies.second,
    rack: await tablet(sql, false),
    "revoked-rack": await tablet(sql, true),
    nobody: undefined,
  };
  const actors: Array<Actor | "nobody"> = [
    "owner",
    "coach",
    "assistant",
    "athlete",
    "rack",
    "revoked-rack",
    "nobody",
  ];
  const tally = { faults: 0, refusals: 0, twins: 0, foreign: 0 };
  const fault = (words: string) => {
    tally.faults++;
    complain(words);
  };
  const fresh = async (i: number) => seedsOf(await readWorld(sql, today), pick)[i] as Seed;
  const many = seedsOf(await readWorld(sql, today), pick).length;
  for (let i = 0; i < many; i++) {
    const world = await readWorld(sql, today);
    const seed = seedsOf(world, pick)[i] as Seed;
    const name = `${seed.route} ${seed.intent ?? ""}`.trim();
    const rule = ROUTE_RIGHTS.find((one) => one.path === seed.route);
    // Signing in and out is nobody's right and has tests of its own.
    if (!rule || rule.write === "anyone") continue;
    const may = (actor: Actor | "nobody") =>
      isAllowed(rule.write, actor === "nobody" ? undefined : actor);

    let before = await countsOf(sql);
    const refused = actors.filter((actor) => !may(actor));
    for (const actor of refused) {
      const answer = await send(seed, cookieOf[actor]);
      tally.refusals++;
      if (!isRefused(answer))
        fault(`NOT REFUSED: ${name} by ${actor}: ${answer.status} ${answer.text.slice(0, 200)}`);
    }
    // Another team's owner with our ids: what it makes is its own.
    const stranger = await send(seed, cookieOf.second);
    tally.foreign++;
    if (stranger.status >= 500) fault(`${stranger.status}: ${name} by another team`);
    let after = await countsOf(sql);
    // A team that was not there before is the one that they made for themselves.
    const teams = new Set([...before.keys()].map((key) => key.split(" of ")[1]));
    const ours = changed(before, after).filter(
      (key) => !key.endsWith(second.teamId) && teams.has(key.split(" of ")[1]),
    );
    if (ours.length > 0) fault(`CHANGED by whom it is refused: ${name}: ${ours.join(", ")}`);

    const foreign = withForeignIds(seed, world, second);
    if (foreign && !MENTIONS_ONLY.has(name)) {
      before = after;
      const answer = await send(foreign, cookieOf[seed.as === "athlete" ? "athlete" : "coach"]);
      tally.foreign++;
      after = await countsOf(sql);
      if (answer.status >= 500) fault(`${answer.status}: ${name} with foreign ids`);
      const touched = changed(before, after);
      if (touched.length > 0)
        fault(
          `FOREIGN ids taken: ${name}: ${touched.join(", ")}; ${answer.status} ${answer.text.slice(0, 160)}`,
        );
    }

    // A form sent before may have taken the tablet off.
    if (may("rack")) cookieOf.rack = await tablet(sql, false);
    for (const actor of actors.filter(may)) {
      if (actor === "nobody") continue;
      const answer = await send(await fresh(i), cookieOf[actor]);
      tally.twins++;
      const decides = answer.text.includes("Only a coach or the owner") && actor === "assistant";
      // A tablet of another room; an athlete, whom only what they train alone lets write.
      const elsewhere =
        answer.text.includes("not in your room") && (actor === "rack" || actor === "athlete");
      if (isRefused(answer)) fault(`REFUSED: ${name} by ${actor}, who may: ${answer.status}`);
      else if (
        !isTaken(answer) &&
        !seed.refused &&
        !decides &&
        !elsewhere &&
        actor !== "revoked-rack"
      )
        fault(`NOT TAKEN: ${name} by ${actor}: ${answer.status} ${answer.text.slice(0, 1000)}`);
    }
  }
  return tally;
}
