import { randomUUID } from "node:crypto";
import { type Browser, type BrowserContext, expect, type Page } from "@playwright/test";
import postgres from "postgres";
import type { FrozenSession } from "../core/floor/frozen";
import type { LoadVelocityLine } from "../core/profile/line";
import { stateFile } from "./people";

/** Sessions of their own for the tests of the log: nobody else's floor is disturbed. */
export const admin = postgres(
  (process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_browser"),
  // Several files of tests share it: it closes by itself when nobody asks any more.
  { max: 1, idle_timeout: 1, onnotice: () => {} },
);

export interface OwnSession {
  id: string;
  rackId: string;
  /** Where a second rack was asked for: the last lifter stands at it. */
  otherRackId: string;
  roomId: string;
  title: string;
  /** First names of those who lift, in the rack's order. */
  names: string[];
  /** Their own lines, and the wanted speeds of their first sets. */
  lines: Array<LoadVelocityLine | undefined>;
  targets: Array<{ lowMps: number; highMps: number } | undefined>;
}

/**
 * A running session of one rack: the first lifters of the demo's kayak session, with so many sets
 * each as asked, at a rack that only it knows, in a week that the plan does not have.
 */
export async function makeSession(
  title: string,
  over: { lifters?: number; sets?: number; realRack?: boolean; secondRack?: boolean } = {},
): Promise<OwnSession> {
  const [row] = await admin`
    SELECT s.id, s.team_id, s.plan_id, s.room_id, s.frozen, s.date::text AS date FROM training_session s
      JOIN team t ON t.id = s.team_id
    WHERE t.name = 'Skerry Coast' AND s.plan_id IS NOT NULL AND s.frozen->>'title' LIKE '%kayak, week 2%'
    ORDER BY s.started_at DESC LIMIT 1`;
  if (!row) throw new Error("The demo has a kayak session.");
  const frozen = structuredClone(row.frozen) as FrozenSession;
  const [slot] = frozen.slots;
  const [station] = frozen.stations;
  if (slot?.kind !== "lift" || station?.kind !== "rack") throw new Error("It is lifted.");
  const lifters = slot.groups
    .flatMap((group) => group.lifters)
    .filter((lifter) => lifter.sets.every((set) => set.loadKg !== undefined))
    .slice(0, over.lifters ?? 3)
    .map((lifter) => ({
      ...lifter,
      unit: "kg" as const,
      sets: Array.from({ length: over.sets ?? 4 }, (_, i) => {
        const set = lifter.sets[i % lifter.sets.length];
        if (!set) throw new Error("Everybody has sets.");
        return { ...set, key: `own.${i + 1}`, number: i + 1 };
      }),
    }));
  if (!over.realRack) station.id = randomUUID();
  slot.groups = [{ stationId: station.id, lifters }];
  frozen.stations = [station];
  const all = [...lifters];
  const other = { ...station, id: randomUUID(), name: "99" };
  if (over.secondRack) {
    frozen.stations.push(other);
    slot.groups.push({ stationId: other.id, lifters: lifters.splice(-1) });
  }
  frozen.title = title;
  const id = randomUUID();
  await admin`
    INSERT INTO training_session
      (team_id, id, plan_id, week, slot_id, date, room_id, status, frozen, last_seq, started_at, started_by)
    VALUES (${row.team_id}, ${id}, ${row.plan_id}, ${1000 + Math.floor(Math.random() * 1e6)}, ${slot.slotId}, ${row.date}, ${row.room_id}, 'running',
      ${admin.json(JSON.parse(JSON.stringify(frozen)))}, 0, '2026-03-10T16:30:00Z', 'test')`;
  await admin`
    INSERT INTO session_person (team_id, session_id, athlete_id, name, instructions, setup, setups)
    SELECT team_id, ${id}, athlete_id, name, instructions, setup, setups FROM session_person
    WHERE session_id = ${row.id}`;
  const people = await admin`SELECT athlete_id, name FROM session_person WHERE session_id = ${id}`;
  const nameOf = new Map(people.map((one) => [one.athlete_id, String(one.name)]));
  return {
    id,
    rackId: station.id,
    otherRackId: other.id,
    roomId: row.room_id,
    title,
    lines: all.map((lifter) => lifter.line),
    targets: all.map((lifter) => lifter.sets[0]?.target),
    names: all.map((lifter) => nameOf.get(lifter.athleteId)?.split(" ")[0] ?? ""),
  };
}

/** The sessions of these tests are over: nobody's list of what runs has them. */
export async function endOwnSessions(): Promise<void> {
  await admin`
    UPDATE training_session SET status = 'ended', ended_at = now()
    WHERE started_by = 'test' AND status = 'running'`;
}

/** What is in the log of a session, in order. */
export function entriesOf(sessionId: string) {
  return admin`
    SELECT e.id, e.seq::int AS seq, e.kind, e.supersedes, e.doubt, e.device_id,
      e.body || jsonb_strip_nulls(jsonb_build_object('why', w.why, 'reason', w.reason)) AS body
    FROM log_entry e LEFT JOIN entry_words w ON w.team_id = e.team_id AND w.id = e.id
    WHERE e.session_id = ${sessionId} ORDER BY e.seq`;
}

/** Another browser with somebody signed in, at a rack's tablet. */
export async function atRack(
  browser: Browser,
  baseURL: string | undefined,
  session: OwnSession,
  prepare: (context: BrowserContext) => Promise<unknown> = async () => {},
  more: Parameters<Browser["newContext"]>[0] = {},
): Promise<Page> {
  const context = await browser.newContext({
    ...more,
    ...(baseURL === undefined ? {} : { baseURL }),
    storageState: stateFile("coach"),
    viewport: { width: 1024, height: 768 },
  });
  await prepare(context);
  const page = await context.newPage();
  await page.goto(`/rack/${session.id}/${session.rackId}`);
  await page.getByTestId("load").waitFor();
  return page;
}

/** A set of typed speeds, by keys alone, and on to the next lifter. */
export async function quickSet(page: Page, speeds: readonly string[]): Promise<void> {
  const field = page.getByRole("dialog", { name: "Type a speed" }).getByRole("textbox");
  // The screen is drawn before its keys are there: on a busy machine a moment before.
  await expect(async () => {
    await page.keyboard.press("9");
    await field.waitFor({ timeout: 1000 });
  }).toPass();
  for (const speed of speeds) {
    await field.fill(speed);
    await field.press("Enter");
  }
  await page.getByText(/^Ended by/).waitFor();
  await page.keyboard.press("n");
}
