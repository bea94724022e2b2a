/** The demo's camp day, for the long runs and the benchmarks: started, and lifted as entries. */
import { randomUUID } from "node:crypto";

/** The database of a server, by a role that sees everything. */
export const adminUrl = (env) =>
  env.ADMIN_DATABASE_URL.replace(/\/[^/]*$/, new URL(env.OWNER_DATABASE_URL).pathname);

/**
 * Starts the camp day for everybody of its squad, with whatever else runs ended first.
 * @returns the session's id and what it stands on
 */
export async function startCamp(base, cookie, sql) {
  await sql`UPDATE training_session SET status = 'ended', ended_at = now() WHERE status = 'running'`;
  const [plan] = await sql`SELECT id, squad_id, block FROM plan WHERE name = 'Camp day'`;
  const people = await sql`
    SELECT athlete_id AS id FROM athlete_squad WHERE squad_id = ${plan.squad_id}`;
  const form = new URLSearchParams({ intent: "draft", day: `${plan.id}/1` });
  for (const id of [...Object.keys(plan.block.slots), ...Object.keys(plan.block.pairings)])
    form.append("slot", `${plan.id}/1/${id}`);
  for (const { id } of people) form.append("present", id);
  const answer = await fetch(`${base}/floor`, {
    method: "POST",
    body: form,
    redirect: "manual",
    headers: { cookie, origin: base },
  });
  const id = /\/floor\/([0-9a-f-]{36})$/.exec(answer.headers.get("location") ?? "")?.[1];
  if (!id) throw new Error(`The camp day did not start (${answer.status}).`);
  const [{ frozen }] = await sql`SELECT frozen FROM training_session WHERE id = ${id}`;
  return { id, frozen };
}

/** Every set, round and item of the day as bodies, by station, in the order that they are done. */
export function bodiesOfDay(frozen, { repsEach } = {}) {
  const byStation = new Map(frozen.stations.map((station) => [station.id, []]));
  for (const slot of frozen.slots)
    for (const group of slot.groups) {
      const { stationId } = group;
      const bodies = byStation.get(stationId);
      const at = (one) => ({ athleteId: one.athleteId, slotId: slot.slotId, stationId });
      if (slot.kind === "pairing") {
        for (let round = 1; round <= slot.complex.rounds; round++)
          for (const one of group.athletes)
            for (let item = 0; item < slot.complex.items.length; item++)
              for (const kind of ["item-start", "item-done"])
                bodies.push({ kind, ...at(one), round, item });
        continue;
      }
      const people = slot.kind === "lift" ? group.lifters : group.athletes;
      const most = Math.max(...people.map((one) => one.sets.length));
      for (let i = 0; i < most; i++)
        for (const one of people) {
          const set = one.sets[i];
          if (!set) continue;
          const address = { ...at(one), setKey: set.key };
          if (slot.kind === "exercise") bodies.push({ kind: "work", ...address, reps: set.reps });
          else bodies.push(...liftedSet(address, set, repsEach));
        }
    }
  return byStation;
}

function liftedSet(address, set, repsEach) {
  const loadKg = set.loadKg ?? 40;
  return [
    ...(set.loadKg === undefined ? [{ kind: "set-load", ...address, loadKg }] : []),
    ...Array.from({ length: repsEach ?? set.reps }, (_, i) => ({
      kind: "rep",
      ...address,
      rep: i + 1,
      mcvMps: 0.9 - i * 0.01,
      mpvMps: 0.93 - i * 0.01,
      pvMps: 1.4,
      rangeM: 0.62,
      pauseS: 0.6,
      outcome: "counted",
      source: "simulated",
    })),
    { kind: "set-done", ...address, loadKg, endedBy: "cap", cut: false },
  ];
}

/** A tablet's stamp on bodies, one after the other. */
export function tablet() {
  const deviceId = randomUUID();
  const bootId = randomUUID();
  let deviceSeq = 0;
  const stamp = (body, monoMs, wallMs) => ({
    id: randomUUID(),
    deviceId,
    bootId,
    deviceSeq: ++deviceSeq,
    monoMs,
    wallTime: new Date(wallMs).toISOString(),
    supersedes: [],
    schemaVersion: 3,
    body,
  });
  return { deviceId, bootId, stamp };
}

/** Sends entries; gives the server's answers, or undefined where none came. */
export async function sendEntries(at, entries, clock) {
  const response = await fetch(`${at.base}/api/log/${at.session.id}`, {
    method: "POST",
    headers: { "content-type": "application/json", cookie: at.cookie, origin: at.base },
    body: JSON.stringify({ entries, clock }),
    signal: AbortSignal.timeout(10_000),
  });
  return response.ok ? (await response.json()).answers : undefined;
}
