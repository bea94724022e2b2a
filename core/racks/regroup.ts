import { loadBar } from "../barload/load";
import type { FrozenSession } from "../floor/frozen";
import type { LifterState } from "../floor/lifter-state";
import type { SetState } from "../floor/set-state";
import type { FloorState } from "../floor/state";
import { needsOf, settingsOf } from "./lift-problem";
import { grainsOfSide, type MoveWeights, type Setting } from "./moves";
import type { GroupLifter, GroupRack, OpenProblem, RackGroup } from "./problem";

/** What is left of a lift in a running session, as groups that may be made anew. */
export interface Regrouping {
  slotId: string;
  name: string;
  rest: { leastS: number; mostS: number };
  problem: OpenProblem;
  /** As the groups stand now, of who has something left. */
  groups: RackGroup[];
}

const isLeft = (set: SetState) => set.stage === "to-come" || set.stage === "running";

/**
 * A lift's sets that are still to be done, at the session's racks: nothing that is done is in it, who
 * is in the middle of a set stays, and each rack is counted from how it stands now.
 *
 * @param out racks that are not to be used: broken, or wanted elsewhere
 * @returns undefined where nothing of the lift is left, or its racks are all out
 */
export function regroupingOf(input: {
  session: FrozenSession;
  floor: FloorState;
  slotId: string;
  weights: MoveWeights;
  out: readonly string[];
}): Regrouping | undefined {
  const { session, floor, slotId, weights, out } = input;
  const states = floor.racks.filter((one) => one.slot.slotId === slotId);
  const [first] = states;
  if (!first) return undefined;
  const stations = session.stations.flatMap((one) =>
    one.kind === "rack" && !out.includes(one.id) ? [one] : [],
  );
  const kinds = new Map<string, string>();
  for (const { gear } of stations) {
    const key = JSON.stringify(gear);
    if (!kinds.has(key)) kinds.set(key, `kind ${kinds.size + 1}`);
  }
  const racks = stations.map((station): GroupRack => {
    const now = standing(states.find((one) => one.rack.id === station.id)?.lifters ?? []);
    return {
      id: station.id,
      name: station.name,
      kind: kinds.get(JSON.stringify(station.gear)) ?? "",
      ...(now ? { now } : {}),
    };
  });
  const gearOf = new Map(
    stations.map((one) => [kinds.get(JSON.stringify(one.gear)) ?? "", one.gear]),
  );
  const lifters: GroupLifter[] = [];
  const groups: RackGroup[] = [];
  for (const { rack, lifters: here } of states) {
    const order: string[] = [];
    for (const one of here) {
      const left = one.off || one.ended ? [] : one.sets.filter(isLeft);
      if (left.length === 0) continue;
      const id = one.lifter.athleteId;
      const [shared] = settingsOf({ ...one.lifter, sets: one.lifter.sets.slice(0, 1) });
      order.push(id);
      lifters.push({
        id,
        name: one.lifter.name,
        loadKg: left.find((set) => set.loadKg !== undefined)?.loadKg,
        settings: Object.fromEntries(
          [...gearOf].map(([kind, gear]) => [
            kind,
            left.map((set): Setting => {
              const loading = set.loadKg === undefined ? undefined : loadBar(gear, set.loadKg);
              return {
                ...(shared ?? NOTHING_KNOWN),
                side: loading?.ok ? grainsOfSide(loading.side.plates) : undefined,
              };
            }),
          ]),
        ),
        needs: needsOf(one.lifter),
        ...(left[0]?.stage === "running" && !out.includes(rack.id) ? { fixedTo: rack.id } : {}),
      });
    }
    if (order.length > 0) groups.push({ rackId: rack.id, order });
  }
  if (lifters.length === 0 || racks.length === 0) return undefined;
  return {
    slotId,
    name: first.slot.liftName,
    rest: first.slot.rest,
    problem: { lifters, racks, weights, together: [], apart: [], stock: {} },
    groups,
  };
}

const NOTHING_KNOWN: Setting = {
  side: undefined,
  hooksCm: undefined,
  safetiesCm: undefined,
  seat: undefined,
  hangs: {},
};

/** How a rack stands after its last set; undefined before its first. */
function standing(here: readonly LifterState[]): Setting | undefined {
  let last: { atMs: number; lifter: LifterState; set: SetState } | undefined;
  for (const lifter of here)
    for (const set of [...lifter.ramp, ...lifter.sets]) {
      const atMs = set.end?.atMs;
      if (atMs !== undefined && (!last || atMs > last.atMs)) last = { atMs, lifter, set };
    }
  if (!last) return undefined;
  const [shared] = settingsOf({ ...last.lifter.lifter, sets: last.lifter.lifter.sets.slice(0, 1) });
  return { ...(shared ?? NOTHING_KNOWN), side: grainsOfSide(last.set.side) };
}

/** One word of the log that brings somebody to a rack, in a turn. */
export interface Regrouped {
  kind: "move";
  athleteId: string;
  slotId: string;
  stationId: string;
  turn: number;
}

/** What is said to the log so that groups stand as they were made; racks that stay as they are say nothing. */
export function regroupedBy(
  slotId: string,
  before: readonly RackGroup[],
  after: readonly RackGroup[],
): Regrouped[] {
  const was = new Map(before.map((one) => [one.rackId, one.order.join()]));
  return after.flatMap(({ rackId, order }) =>
    was.get(rackId) === order.join()
      ? []
      : order.map(
          (athleteId, turn): Regrouped => ({
            kind: "move",
            athleteId,
            slotId,
            stationId: rackId,
            turn,
          }),
        ),
  );
}
