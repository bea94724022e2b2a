import { keepVelocity, type VelocityMetric } from "../units/velocity";
import type { EntryBody, SetAddress, SetEntryBody } from "./entries";
import type { LineEntry } from "./line";

/** A set as somebody who saw it wants it to stand. */
export interface WantedSet {
  /** In order; those without an id are new. What is not in the list is taken out. */
  reps: Array<{
    entryId: string | undefined;
    velocityMps: number | undefined;
    outcome: "counted" | "failed";
  }>;
  faults: Array<{ entryId: string | undefined; fault: string }>;
  /** What was on the bar, kg; undefined where the set is not finished. */
  loadKg: number | undefined;
  /** Another athlete or set that it belongs to. */
  moveTo: SetAddress | undefined;
  why: string;
}

/** An entry to be logged. */
export interface Correction {
  body: EntryBody;
  supersedes: string[];
}

/**
 * The entries that make a set stand as it is wanted: corrections of what is different, one void of
 * what is taken out, and what is new. Nothing where nothing is different.
 *
 * @param line entries of the athlete's slot that count, in the log's order
 * @param plannedReps of the set; a set that ends under them is cut
 */
export function correctSet(input: {
  at: SetAddress;
  line: readonly LineEntry[];
  metric: VelocityMetric;
  plannedReps: number;
  wanted: WantedSet;
}): Correction[] {
  const { at, line, metric, plannedReps, wanted } = input;
  const why = wanted.why.trim() === "" ? {} : { why: wanted.why.trim() };
  const to = wanted.moveTo ?? at;
  const moved = wanted.moveTo !== undefined;
  const mine = line.flatMap(({ entry, body }) =>
    "setKey" in body && body.setKey === at.setKey ? [{ id: entry.id, body }] : [],
  );
  const byId = new Map(mine.map((one) => [one.id, one.body]));
  const made: Correction[] = [];
  const stays = new Set<string>();
  const put = (id: string, before: SetEntryBody, after: SetEntryBody) => {
    stays.add(id);
    if (moved || JSON.stringify(before) !== JSON.stringify(after))
      made.push({ body: { ...after, ...to, ...why }, supersedes: [id] });
  };

  wanted.reps.forEach((rep, i) => {
    const before = rep.entryId === undefined ? undefined : byId.get(rep.entryId);
    if (rep.entryId !== undefined && before?.kind === "rep") {
      const same = inMetric(before, metric) === rep.velocityMps && before.outcome === rep.outcome;
      const { why: _, ...body } = before;
      put(rep.entryId, body, same ? body : byHand(body, rep, metric));
      return;
    }
    const numbers = mine.flatMap((one) => (one.body.kind === "rep" ? [one.body.rep] : []));
    const number = Math.max(0, ...numbers) + 1 + wanted.reps.slice(0, i).filter(isNew).length;
    made.push({
      body: {
        kind: "rep",
        ...to,
        rep: number,
        ...speedOf(rep.velocityMps, metric),
        outcome: rep.outcome,
        source: rep.velocityMps === undefined ? "eye" : "typed",
        ...why,
      },
      supersedes: [],
    });
  });
  for (const { entryId, fault } of wanted.faults) {
    const before = entryId === undefined ? undefined : byId.get(entryId);
    if (entryId !== undefined && before?.kind === "fault") put(entryId, before, before);
    else made.push({ body: { kind: "fault", ...to, fault, cut: false, ...why }, supersedes: [] });
  }
  const counted = wanted.reps.filter((rep) => rep.outcome === "counted").length;
  const ends = mine.flatMap(({ id, body }) => (body.kind === "set-done" ? [{ id, body }] : []));
  const [end] = ends;
  if (wanted.loadKg !== undefined) {
    const cut = counted < plannedReps;
    if (end) put(end.id, end.body, { ...end.body, loadKg: wanted.loadKg, cut });
    else
      made.push({
        body: {
          kind: "set-done",
          ...to,
          loadKg: wanted.loadKg,
          endedBy: counted >= plannedReps ? "cap" : "hand",
          cut,
          ...why,
        },
        supersedes: [],
      });
  }
  // A decision on a call of this set stays with it, unless the set goes to another.
  for (const { id, body } of mine) if (body.kind === "call" && !moved) stays.add(id);
  const out = mine.flatMap(({ id }) => (stays.has(id) ? [] : [id]));
  if (out.length > 0) made.push({ body: { kind: "void", ...why }, supersedes: out });
  return made;
}

const isNew = (rep: WantedSet["reps"][number]) => rep.entryId === undefined;

type Rep = Extract<SetEntryBody, { kind: "rep" }>;

/** A speed that somebody wrote over a reading: what the sensor said of the rep goes with it. */
function byHand(before: Rep, rep: WantedSet["reps"][number], metric: VelocityMetric): Rep {
  const { athleteId, slotId, stationId, setKey } = before;
  return {
    kind: "rep",
    athleteId,
    slotId,
    stationId,
    setKey,
    rep: before.rep,
    ...speedOf(rep.velocityMps, metric),
    outcome: rep.outcome,
    source: rep.velocityMps === undefined ? "eye" : "typed",
  };
}

function inMetric(rep: Rep, metric: VelocityMetric): number | undefined {
  if (metric === "MCV") return rep.mcvMps;
  return metric === "MPV" ? rep.mpvMps : rep.pvMps;
}

function speedOf(velocityMps: number | undefined, metric: VelocityMetric) {
  if (velocityMps === undefined) return {};
  const kept = keepVelocity(velocityMps);
  if (metric === "MCV") return { mcvMps: kept };
  return metric === "MPV" ? { mpvMps: kept } : { pvMps: kept };
}
