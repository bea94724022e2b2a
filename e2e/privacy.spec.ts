import { createHash, randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { type APIRequestContext, request } from "@playwright/test";
import { hashPassword } from "better-auth/crypto";
import { isAllowed, ROUTE_RIGHTS } from "../app/platform/rights";
import { freePort } from "../scripts/cluster.mjs";
import { startServer } from "../scripts/run.mjs";
import { admin, atRack, endOwnSessions, makeSession, type OwnSession } from "./floor-session";
import { allSent, stateFile } from "./people";
import { expect, test } from "./test";

/**
 * Who reads what, made from the table of docs/decisions/privacy.md: a marker for each row is
 * planted in the demo, and every reader's every address, file, stream and store is searched.
 */
test.describe.configure({ mode: "serial" });

const READERS = ["Owner", "Coach", "Assistant", "The athlete", "Another athlete", "Rack tablet"];
const MARKS: Record<string, RegExp> = {
  Name: /Maren Solhaug/,
  "Instruction of a limit": /MK-instruction/,
  "Reason of a limit": /MK-reason/,
  "Where a pain is": /flagged at the rack: wrist|"place"|\bwrist\b.*pain/i,
  // No small number, for pages count what they send; and longer than what five figures in a row
  // of any identifier, time or sum may come to by chance.
  "Birth year": /1951941951/,
  "Refusal by age": /this age group|From 60 on the box/,
  "Sleep, eating, soreness": /6\.0317291/,
  "Why a refusal was set aside": /MK-override/,
  "Who read a reason": /MK-reader/,
  "Name of who was erased": /Erasedsen/,
};

interface Row {
  what: string;
  cells: string[];
}

function tableOf(text: string): Row[] {
  const lines = text.split("\n").filter((line) => line.startsWith("|"));
  const cells = (line: string) =>
    line
      .split("|")
      .slice(1, -1)
      .map((cell) => cell.trim());
  expect(cells(lines[0] ?? "").slice(1)).toEqual(READERS);
  return lines.slice(2).map((line) => {
    const [what = "", ...rest] = cells(line);
    return { what, cells: rest };
  });
}
const TABLE = tableOf(readFileSync("docs/decisions/privacy.md", "utf8"));

let ids: Record<string, string>;
let session: OwnSession;
const tokens = { rack: "", feed: "" };
const undo: Array<() => Promise<unknown>> = [];

const hash = (text: string) => createHash("sha256").update(text).digest("hex");

test.beforeAll(async ({ baseURL }) => {
  const [maren] =
    await admin`SELECT id, team_id, squad_id, birth_year, goal FROM athlete WHERE name = 'Maren Solhaug'`;
  const team = maren?.team_id;
  const athleteId = maren?.id;
  session = await makeSession("Privacy", { realRack: true });
  // Maren lifts in it, whoever else does.
  await admin`ALTER TABLE training_session DISABLE TRIGGER keep_frozen`;
  await admin`
    UPDATE training_session SET frozen = jsonb_set(frozen, '{slots,0,groups,0,lifters,0,athleteId}', to_jsonb(${athleteId}::text))
    WHERE id = ${session.id}`;
  await admin`ALTER TABLE training_session ENABLE TRIGGER keep_frozen`;
  await admin`
    INSERT INTO session_person (team_id, session_id, athlete_id, name, instructions)
    VALUES (${team}, ${session.id}, ${athleteId}, 'Maren Solhaug', ${["MK-instruction"]})
    ON CONFLICT (team_id, session_id, athlete_id) DO UPDATE SET instructions = EXCLUDED.instructions`;
  const limit = randomUUID();
  const by = { entered_by: "Callum Reyk", entered_at: new Date("2026-03-01") };
  await admin`INSERT INTO athlete_limit ${admin({ team_id: team, id: limit, athlete_id: athleteId, instruction: "MK-instruction", refuses: ["max-test"], ...by })}`;
  await admin`INSERT INTO limit_reason ${admin({ team_id: team, id: randomUUID(), limit_id: limit, kind: "knee", reason: "MK-reason\nMK-reason on a second line", guardian_consent: true, ...by })}`;
  await admin`INSERT INTO reason_read ${admin({ team_id: team, id: randomUUID(), limit_id: limit, read_by: "MK-reader", read_at: new Date("2026-03-02") })}`;
  await admin`UPDATE athlete SET birth_year = -1951941951 WHERE id = ${athleteId}`;
  await admin`INSERT INTO day_note ${admin({ team_id: team, id: randomUUID(), athlete_id: athleteId, date: "2026-01-05", sleep_h: 6.0317291, eating: 3, soreness: 4, ...by })}`;
  const [tested] =
    await admin`SELECT id, note FROM profile_test WHERE athlete_id = ${athleteId} ORDER BY date DESC LIMIT 1`;
  await admin`UPDATE profile_test SET note = 'Done although refused: MK-override' WHERE id = ${tested?.id ?? ""}`;
  const [plan] =
    await admin`SELECT id, room_id FROM plan WHERE team_id = ${team} AND squad_id = ${maren?.squad_id} LIMIT 1`;
  await admin`UPDATE plan SET block = jsonb_set(block, '{answered,mk}', '{"reason": "MK-override", "by": "C"}') WHERE id = ${plan?.id}`;
  const [variant] =
    await admin`SELECT id FROM lift_variant WHERE team_id = ${team} AND lift = 'bench' LIMIT 1`;
  const [run] =
    await admin`SELECT id FROM training_session WHERE team_id = ${team} AND plan_id IS NULL LIMIT 1`;
  const [recipe] = await admin`SELECT id FROM team_recipe WHERE team_id = ${team} LIMIT 1`;
  tokens.feed = `privacy-feed-${randomUUID()}`;
  await admin`INSERT INTO calendar_feed ${admin({ team_id: team, id: randomUUID(), plan_id: plan?.id, token_hash: hash(tokens.feed), ...by })}`;
  tokens.rack = `privacy-rack-${randomUUID()}`;
  const rackDevice = randomUUID();
  await admin`INSERT INTO rack_device ${admin({ team_id: team, id: rackDevice, room_id: session.roomId, rack_id: session.rackId, name: "Privacy", token_hash: hash(tokens.rack), paired_at: new Date() })}`;
  // Somebody else who trains here, with a sign-in.
  const [other] =
    await admin`SELECT id FROM athlete WHERE team_id = ${team} AND id <> ${athleteId} ORDER BY name DESC LIMIT 1`;
  const userId = randomUUID();
  const email = `${userId.slice(0, 8)}@privacy.example`;
  const password = await hashPassword("privacy-password");
  await admin`INSERT INTO auth."user" ${admin({ id: userId, name: "Other", email })}`;
  await admin`INSERT INTO auth.account ${admin({ id: userId, account_id: userId, provider_id: "credential", user_id: userId, password })}`;
  await admin`INSERT INTO membership ${admin({ team_id: team, id: randomUUID(), user_id: userId, name: "Other", role: "athlete", athlete_id: other?.id })}`;
  ids = {
    athleteId,
    variantId: variant?.id,
    testId: tested?.id,
    planId: plan?.id,
    roomId: plan?.room_id,
    sessionId: session.id,
    rackId: session.rackId,
    runId: run?.id,
    recipeFile: `${recipe?.id}.json`,
    roomFile: "room.csv",
    token: `${tokens.feed}.ics`,
    email,
    team,
    squadId: maren?.squad_id,
  };
  // A pain, as a tablet sends it.
  const coach = await request.newContext({
    baseURL: baseURL ?? "",
    storageState: stateFile("coach"),
  });
  const [frozen] = await admin`
    SELECT frozen->'slots'->0->>'slotId' AS slot, frozen->'slots'->0->'groups'->0->'lifters'->0->'sets'->0->>'key' AS key FROM training_session WHERE id = ${session.id}`;
  const sent = await coach.post(`/api/log/${session.id}`, {
    data: {
      entries: [
        {
          id: randomUUID(),
          deviceId: randomUUID(),
          bootId: randomUUID(),
          deviceSeq: 1,
          monoMs: 1000,
          wallTime: "2026-03-10T16:30:00Z",
          supersedes: [],
          schemaVersion: 2,
          body: {
            kind: "pain",
            athleteId,
            slotId: frozen?.slot,
            stationId: session.rackId,
            setKey: frozen?.key,
            place: "wrist",
          },
        },
      ],
    },
  });
  expect(await sent.json()).toMatchObject({ answers: [{ status: "stored" }] });
  // Somebody who goes: in the squad, in the session, in a plan's name; erased by the owner.
  const gone = randomUUID();
  await admin`INSERT INTO athlete ${admin({ team_id: team, id: gone, name: "Merk Erasedsen", squad_id: maren?.squad_id, note: "" })}`;
  await admin`INSERT INTO session_person ${admin({ team_id: team, session_id: session.id, athlete_id: gone, name: "Merk Erasedsen", instructions: [] })}`;
  await admin`UPDATE plan SET block = jsonb_set(block, '{marks,mk}', '{"week": 999, "kind": "off", "words": "Without Merk Erasedsen"}') WHERE id = ${plan?.id}`;
  const owner = await request.newContext({
    baseURL: baseURL ?? "",
    storageState: stateFile("owner"),
  });
  const erased = await owner.post(`/athletes/${gone}.data`, {
    form: { intent: "erase", typed: "Merk Erasedsen" },
  });
  expect(await erased.text()).toContain('"ok",true');
  await Promise.all([coach.dispose(), owner.dispose()]);
  undo.push(
    () => admin`UPDATE athlete SET birth_year = ${maren?.birth_year} WHERE id = ${athleteId}`,
    () =>
      admin`UPDATE profile_test SET note = ${tested?.note ?? ""} WHERE id = ${tested?.id ?? ""}`,
    () =>
      admin`UPDATE plan SET block = block #- '{answered,mk}' #- '{marks,mk}' WHERE id = ${plan?.id}`,
    () => admin`DELETE FROM day_note WHERE athlete_id = ${athleteId} AND sleep_h = 6.0317291`,
    () => admin`UPDATE athlete_limit SET lifted_on = '2026-01-01' WHERE athlete_id = ${athleteId}`,
    () => admin`DELETE FROM rack_device WHERE id = ${rackDevice}`,
    () => admin`DELETE FROM membership WHERE user_id = ${userId}`,
    () => admin`DELETE FROM auth."user" WHERE id = ${userId}`,
  );
});
test.afterAll(async () => {
  for (const one of undo) await one();
  await endOwnSessions();
});

/** Every address that a reader may open, with everything that can be asked of it. */
async function everythingOf(
  context: APIRequestContext,
  actor: string,
): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  const fill = (pattern: string) =>
    pattern.replace(/:(\w+)/g, (_, name: string) => ids[name] ?? "missing");
  const more: Record<string, string[]> = {
    "/plan/:planId": ["?view=checks", "?week=1", "?view=board"],
    "/plan/:planId/out/:planFile": ["block.json", "loads.csv", "calendar.ics"],
    "/data/out/:file": ["records.csv", "reps.csv", "tests.csv"],
    "/lab/profile": [`?athlete=${ids.athleteId}&variant=${ids.variantId}`],
    "/lab/gap": [`?athlete=${ids.athleteId}`],
    "/athletes/profiles": [`?squad=${ids.squadId}`],
    "/athletes/box": [`?squad=${ids.squadId}`],
    "/floor/pairing": [`?squad=${ids.squadId}`],
    "/api/find": ["?q=Maren", "?q=MK", "?q=Erasedsen"],
    "/api/log/:sessionId": ["?after=0"],
  };
  for (const rule of ROUTE_RIGHTS) {
    // Streams that never end; a sensor's is of heights alone.
    if (["/api/live/:sessionId", "/api/sensor/:rackId"].includes(rule.path)) continue;
    if (!isAllowed(rule.read, actor === "nobody" ? undefined : (actor as "owner"))) continue;
    const address = fill(rule.path);
    const extra = more[rule.path] ?? [];
    const addresses = extra.some((one) => !one.startsWith("?"))
      ? extra.map((file) => address.replace(/[^/]+$/, file))
      : [address, ...extra.map((query) => address + query)];
    for (const one of addresses) {
      const [path = "", query = ""] = one.split("?");
      const data = `${path === "/" ? "/_root" : path}.data${query ? `?${query}` : ""}`;
      for (const get of [one, data]) {
        const answer = await context.get(get, { maxRedirects: 0 });
        found.set(get, await answer.text());
      }
    }
  }
  if (
    isAllowed(
      ROUTE_RIGHTS.find((one) => one.path === "/api/live/:sessionId")?.read,
      actor as "owner",
    )
  )
    found.set("live stream", await streamOf(context));
  return found;
}

/** The first of the live stream, from the session's beginning. */
async function streamOf(context: APIRequestContext): Promise<string> {
  const { cookies } = await context.storageState();
  const stop = new AbortController();
  const answer = await fetch(`${base}/api/live/${session.id}?after=0`, {
    headers: { cookie: cookies.map((one) => `${one.name}=${one.value}`).join("; ") },
    signal: stop.signal,
  });
  let text = "";
  try {
    for await (const chunk of answer.body ?? []) {
      text += Buffer.from(chunk as Uint8Array).toString("utf8");
      if (text.includes("event: entries")) break;
    }
  } finally {
    stop.abort();
  }
  return text;
}

let base = "";
async function readerOf(who: string, baseURL: string): Promise<[APIRequestContext, string]> {
  const state: Record<string, [string, string]> = {
    Owner: ["owner", "owner"],
    Coach: ["coach", "coach"],
    Assistant: ["assistant", "assistant"],
    "The athlete": ["maren", "athlete"],
  };
  const known = state[who];
  if (known)
    return [await request.newContext({ baseURL, storageState: stateFile(known[0]) }), known[1]];
  if (who === "Rack tablet") {
    const url = new URL(baseURL);
    const cookie = { name: "sprezza_rack", value: tokens.rack, domain: url.hostname, path: "/" };
    const rest = { expires: -1, httpOnly: true, secure: false, sameSite: "Lax" as const };
    const storageState = { cookies: [{ ...cookie, ...rest }], origins: [] };
    return [await request.newContext({ baseURL, storageState }), "rack"];
  }
  const context = await request.newContext({ baseURL });
  const form = { email: ids.email ?? "", password: "privacy-password", to: "/" };
  await context.post("/sign-in", { form, maxRedirects: 0 });
  return [context, "athlete"];
}

test("every row of the table has a marker", () => {
  expect(TABLE.map((row) => row.what)).toEqual(Object.keys(MARKS));
});

for (const [column, who] of READERS.entries()) {
  test(`${who}: reads what the table says, and no more`, async ({ baseURL }) => {
    base = baseURL ?? "";
    const [context, actor] = await readerOf(who, base);
    const found = await everythingOf(context, actor);
    const asking =
      actor === "athlete"
        ? await context.post("/card.data", { form: {} })
        : await context.post(`/athletes/${ids.athleteId}.data`, { form: { intent: "reasons" } });
    const asked = await asking.text();
    const places = (mark: RegExp) =>
      [...found].flatMap(([place, text]) => {
        const at = text.search(mark);
        return at < 0 ? [] : [`${place}: ${text.slice(Math.max(0, at - 60), at + 60)}`];
      });
    for (const row of TABLE) {
      const mark = MARKS[row.what] ?? /never/;
      const cell = row.cells[column];
      const message = `${row.what}, ${who}`;
      if (cell === "yes") expect(places(mark).length, message).toBeGreaterThan(0);
      else expect(places(mark), message).toEqual([]);
      if (cell === "on asking") expect(asked, message).toMatch(mark);
      else if (cell === "no") expect(asked, message).not.toMatch(mark);
    }
    await context.dispose();
  });
}

test("another team, and whoever is not signed in, read none of it", async ({ baseURL }) => {
  base = baseURL ?? "";
  for (const [name, actor] of [
    ["second", "owner"],
    ["nobody", "nobody"],
  ] as const) {
    const context = await request.newContext({
      baseURL: base,
      ...(name === "second" ? { storageState: stateFile("second") } : {}),
    });
    // Their own people may be of any age.
    for (const [place, text] of await everythingOf(context, actor))
      for (const [what, mark] of Object.entries(MARKS))
        if (what !== "Refusal by age") expect(text, `${place}: ${what}`).not.toMatch(mark);
    await context.dispose();
  }
});

test("a pain's place leaves the tablet with nothing behind", async ({ browser, baseURL }) => {
  const own = await makeSession("Privacy, a pain");
  const rack = await atRack(browser, baseURL, own);
  await rack.getByRole("button", { name: "Fault or pain" }).click();
  await rack.getByRole("button", { name: "ankle" }).click();
  await expect(rack.getByText("Held by coach: no heavier until a coach has spoken.")).toBeVisible();
  await allSent(rack);
  // What the browser keeps: its databases, stores and caches.
  const kept = await rack.evaluate(async () => {
    const all: unknown[] = [{ ...localStorage }, { ...sessionStorage }, await caches.keys()];
    for (const { name } of await indexedDB.databases()) {
      const database = await new Promise<IDBDatabase>((resolve, reject) => {
        const open = indexedDB.open(name ?? "");
        open.onsuccess = () => resolve(open.result);
        open.onerror = () => reject(open.error);
      });
      for (const store of database.objectStoreNames)
        all.push(
          await new Promise((resolve) => {
            const read = database.transaction(store).objectStore(store).getAll();
            read.onsuccess = () => resolve(read.result);
          }),
        );
      database.close();
    }
    return JSON.stringify(all);
  });
  expect(kept).not.toContain("ankle");
  expect(await rack.content()).not.toContain("ankle");
  await rack.reload();
  await expect(rack.getByText("Held by coach: no heavier until a coach has spoken.")).toBeVisible();
  expect(await rack.content()).not.toContain("ankle");
  // An assistant sees that somebody is held, and decides nothing; the coach lets the loads rise.
  const assistant = await browser.newContext({
    baseURL: baseURL ?? "",
    storageState: stateFile("assistant"),
  });
  const watching = await assistant.newPage();
  await watching.goto(`/floor/${own.id}`);
  const held = watching.getByRole("region", { name: "Held by coach" });
  await expect(held).toContainText("A coach decides.");
  expect(await watching.content()).not.toContain("ankle");
  const coach = await browser.newContext({
    baseURL: baseURL ?? "",
    storageState: stateFile("coach"),
  });
  const floor = await coach.newPage();
  await floor.goto(`/floor/${own.id}`);
  await floor.getByRole("button", { name: "Loads may rise again" }).click();
  await expect(rack.getByText("Held by coach")).toHaveCount(0);
  await expect(held).toHaveCount(0);
  await Promise.all([rack.context().close(), assistant.close(), coach.close()]);
});

test("the server's log has no token, no code, and no line of a reason", async () => {
  const server = startServer({
    ...process.env,
    PORT: String(await freePort(4800)),
    NODE_ENV: "production",
    LOG_LEVEL: "info",
  });
  let log = "";
  server.child.stdout?.on("data", (piece) => {
    log += String(piece);
  });
  const address = await server.address;
  await admin`ALTER TABLE limit_reason ADD CONSTRAINT mk_refused CHECK (reason NOT LIKE 'MK-three%')`;
  try {
    const coach = await request.newContext({ baseURL: address });
    await coach.post("/sign-in", {
      form: { email: "coach@skerry.example", password: "skerry-coast-demo", to: "/" },
      maxRedirects: 0,
    });
    await coach.get(`/feed/${tokens.feed}.ics`);
    await coach.get(`/api/find?q=MK-query`);
    await coach.post("/pair", { form: { code: "MKK-482913" }, maxRedirects: 0 });
    const refused = await coach.post(`/athletes/${ids.athleteId}.data`, {
      form: {
        intent: "limit",
        instruction: "MK-logged instruction",
        lift: "",
        capPercent: "",
        until: "",
        reasonKind: "knee",
        reason: "MK-three\nlines MK-second\nof MK-third",
      },
    });
    expect(refused.status()).toBe(500);
    await expect.poll(() => log).toContain("Failed query");
    expect(log).toContain("/feed/(token)");
    expect(log).not.toContain(tokens.feed);
    expect(log).not.toContain("482913");
    expect(log).not.toMatch(/MK-/);
    await coach.dispose();
  } finally {
    await admin`ALTER TABLE limit_reason DROP CONSTRAINT mk_refused`;
    await server.stop();
  }
});
