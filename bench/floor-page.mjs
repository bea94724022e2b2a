/**
 * The floor's page with a long log against one with an empty log, in one run: asked turn about, so
 * that the machine's moods fall on both. Prints the ratio of the medians and of the fastest.
 *
 * `node scripts/with-database.mjs --serve node bench/floor-page.mjs`; ENTRIES (5000), ROUNDS (30).
 */
import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { runningSession, signIn } from "../scripts/soak-client.mjs";

const ENTRIES = Number(process.env.ENTRIES ?? 5000);
const ROUNDS = Number(process.env.ROUNDS ?? 30);
const WARM_UP = 5;
const BATCH = 100;
const base = process.env.BASE_URL;
const admin = postgres(
  process.env.ADMIN_DATABASE_URL.replace(
    /\/postgres$/,
    `/${process.env.DATABASE_NAME ?? "sprezza_browser"}`,
  ),
  { max: 1, onnotice: () => {} },
);

/** Another session of the same people and prescriptions, with nothing in its log. */
async function copyOf(id) {
  const copy = randomUUID();
  await admin`
    INSERT INTO training_session
      (team_id, id, plan_id, week, slot_id, date, room_id, status, frozen, last_seq, started_at, started_by)
    SELECT team_id, ${copy}, plan_id, 1000 + (random() * 1e6)::int, slot_id, date, room_id, 'running',
      frozen, 0, started_at, 'bench' FROM training_session WHERE id = ${id}`;
  await admin`
    INSERT INTO session_person (team_id, session_id, athlete_id, name, instructions, setup)
    SELECT team_id, ${copy}, athlete_id, name, instructions, setup FROM session_person
    WHERE session_id = ${id}`;
  return copy;
}

/** Reps of every set of everybody, until there are as many as asked; each set is ended. */
async function fill(id, cookie) {
  const [{ frozen }] = await admin`SELECT frozen FROM training_session WHERE id = ${id}`;
  const sets = frozen.slots
    .filter((slot) => slot.kind === "lift")
    .flatMap((slot) =>
      slot.groups.flatMap((group) =>
        group.lifters.flatMap((lifter) =>
          lifter.sets
            .filter((set) => set.loadKg !== undefined)
            .map((set) => ({
              address: {
                athleteId: lifter.athleteId,
                slotId: slot.slotId,
                stationId: group.stationId,
                setKey: set.key,
              },
              loadKg: set.loadKg,
            })),
        ),
      ),
    );
  const each = Math.ceil(ENTRIES / sets.length) - 1;
  const bodies = sets.flatMap(({ address, loadKg }) => [
    ...Array.from({ length: each }, (_, i) => ({
      kind: "rep",
      ...address,
      rep: i + 1,
      mcvMps: 0.9 - i * 0.002,
      mpvMps: 0.93 - i * 0.002,
      pvMps: 1.4,
      rangeM: 0.62,
      outcome: "counted",
      source: "simulated",
    })),
    { kind: "set-done", ...address, loadKg, endedBy: "hand", cut: false },
  ]);
  const deviceId = randomUUID();
  const bootId = randomUUID();
  const entries = bodies.slice(0, ENTRIES).map((body, i) => ({
    id: randomUUID(),
    deviceId,
    bootId,
    deviceSeq: i + 1,
    monoMs: 1000 * i,
    wallTime: new Date().toISOString(),
    supersedes: [],
    schemaVersion: 2,
    body,
  }));
  for (let i = 0; i < entries.length; i += BATCH) {
    const response = await fetch(`${base}/api/log/${id}`, {
      method: "POST",
      headers: { "content-type": "application/json", cookie, origin: base },
      body: JSON.stringify({
        entries: entries.slice(i, i + BATCH),
        clock: { deviceId, bootId, monoMs: 1000 * ENTRIES, wallMs: Date.now() },
      }),
    });
    const { answers } = await response.json();
    const refused = answers.find((answer) => answer.status !== "stored");
    if (refused) throw new Error(`Refused: ${JSON.stringify(refused)}`);
  }
}

const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];
const cookie = await signIn(base);
const { id } = await runningSession(base, cookie);
const pages = [await copyOf(id), await copyOf(id)];
await fill(pages[1], cookie);
const times = [[], []];
const bytes = [0, 0];
for (let round = 0; round < WARM_UP + ROUNDS; round++)
  for (const side of round % 2 ? [1, 0] : [0, 1]) {
    const startedAt = performance.now();
    const answer = await fetch(`${base}/floor/${pages[side]}`, { headers: { cookie } });
    bytes[side] = (await answer.text()).length;
    if (answer.status !== 200) throw new Error(`The floor answered ${answer.status}.`);
    if (round >= WARM_UP) times[side].push(performance.now() - startedAt);
  }
const [empty, full] = times.map(median);
console.log(
  `empty ${empty.toFixed(1)} ms (${bytes[0]} characters), ${ENTRIES} entries ${full.toFixed(1)} ms (${bytes[1]} characters)`,
);
console.log(
  `${ENTRIES} entries against none: ${(full / empty).toFixed(2)} × (fastest ${(Math.min(...times[1]) / Math.min(...times[0])).toFixed(2)} ×)`,
);
await admin`DELETE FROM log_entry WHERE session_id IN ${admin(pages)}`.catch(() => {});
await admin.end();
