import { howWords, type LiftInput, settleLifter } from "../../../core/floor/freeze";
import type { FrozenLifter, FrozenSlot } from "../../../core/floor/frozen";
import { setSeconds } from "../../../core/plan/day-time";
import { dayTimes, liftProblem, moveSeconds } from "../../../core/racks/lift-problem";
import type { GroupRack, OpenProblem, RackGroup } from "../../../core/racks/problem";
import type { DayTimes, SimulatedSlot } from "../../../core/racks/simulate-day";
import type { CoachValues } from "../../../core/settings/coach-values";
import { itemsOf } from "../../../db/queries/gear.server";
import { coachValues, ensurePlanLibrary } from "../../../db/queries/plan-library.server";
import type { TeamTransaction } from "../../../db/team.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readerUnit } from "../lifters/reader-unit.server";
import { openPlanDay, type PlanDay, partsOfDay, type SettledPart } from "./day-parts.server";
import { freeStations, sharesOf } from "./free-stations.server";
import type { DayAsked } from "./start-session.server";

/** A lift of the day that is to be grouped. */
export interface LiftToGroup {
  slotId: string;
  name: string;
  rest: { leastS: number; mostS: number };
  /** Seconds of each set. */
  setS: number[];
  problem: OpenProblem;
  /** As it starts where nobody looks: by load. */
  byLoad: RackGroup[];
}

/** One slot of the day in its place: a lift to be grouped, or what stands as it is. */
export type DaySlot = { kind: "lift"; lift: LiftToGroup } | { kind: "other"; slot: SimulatedSlot };

export interface ProposedDay {
  title: string;
  roomName: string;
  people: Array<{ id: string; name: string }>;
  stations: Array<{ id: string; name: string }>;
  slots: DaySlot[];
  times: DayTimes;
}

/** What a day's groups are looked for in, as the day would be started; nothing is started. */
export function proposeDay(
  principal: Principal,
  input: { days: readonly DayAsked[]; present: string[] },
): Promise<Outcome<ProposedDay>> {
  return inTeam(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const unit = await readerUnit(tx, principal);
    const days: PlanDay[] = [];
    for (const asked of input.days) {
      const opened = await openPlanDay(tx, asked, { unit, present: input.present, at: now() });
      if (!opened.ok) return opened;
      days.push(opened.value);
    }
    const [lead] = days;
    if (!lead) return failed("no-week", "Nothing was chosen. Tick a day on the floor page.");
    if (days.some((day) => day.room.id !== lead.room.id))
      return failed("two-rooms", "These days are in different rooms. Look at each by itself.");
    const stations = await freeStations(tx, lead.room);
    const values = await coachValues(tx);
    const stock = await stockOf(tx, lead.room.id);
    const slots: DaySlot[] = [];
    const places = new Map<string, string>();
    for (const [i, racks] of sharesOf(stations.racks, days).entries()) {
      const day = days[i] as PlanDay;
      const how = { values, prefix: days.length > 1 ? `${i + 1}.` : "" };
      const parts = await partsOfDay(tx, day, { ...stations, racks }, how);
      if (!parts.ok) return parts;
      for (const part of parts.value) {
        for (const station of part.stations)
          places.set(station.id, station.kind === "rack" ? `Rack ${station.name}` : station.name);
        const lift = part.lift && toGroup(part, part.lift, values, stock);
        if (lift) for (const rack of lift.problem.racks) places.set(rack.id, `Rack ${rack.name}`);
        const slot = lift ? undefined : asItStands(part.slot, day);
        if (lift) slots.push({ kind: "lift", lift });
        else if (slot) slots.push({ kind: "other", slot });
      }
    }
    return done({
      title: days.map((day) => `${day.row.squadName}: ${day.block.name}`).join(" + "),
      roomName: lead.room.name,
      people: days.flatMap((day) => day.athletes.map(({ id, name }) => ({ id, name }))),
      stations: [...places].map(([id, name]) => ({ id, name })),
      slots,
      times: dayTimes(values),
    });
  });
}

/** How many of its boxes and mats a room has, by name. */
async function stockOf(tx: TeamTransaction, roomId: string): Promise<Record<string, number>> {
  const items = (await itemsOf(tx, roomId)).filter((one) => one.awayOn === null);
  return Object.fromEntries(
    items.flatMap((one) =>
      one.kind === "box" || one.kind === "seat" || one.kind === "mat"
        ? [[one.name, one.count] as const]
        : [],
    ),
  );
}

/** Racks that are alike in what they build and where their holes are have one kind. */
const kindOf = (rack: LiftInput["racks"][number]): string =>
  JSON.stringify([rack.gear, rack.hooksCm, rack.safetiesCm, rack.hang]);

function toGroup(
  part: SettledPart,
  input: LiftInput,
  values: CoachValues,
  stock: Readonly<Record<string, number>>,
): LiftToGroup | undefined {
  const { slot } = part;
  if (slot.kind !== "lift" || input.athletes.length === 0) return undefined;
  const how = howWords(input);
  const names = new Map<string, string>();
  const settled: Record<string, FrozenLifter[]> = {};
  const racks = input.racks.map((rack): GroupRack => {
    const long = kindOf(rack);
    const kind = names.get(long) ?? `kind ${names.size + 1}`;
    if (!names.has(long)) {
      names.set(long, kind);
      settled[kind] = input.athletes.map(
        (athlete) => settleLifter({ ...input, how, athlete, rack, hang: rack.hang }).lifter,
      );
    }
    return { id: rack.rackId, name: String(rack.number), kind };
  });
  const hung = input.racks.flatMap((rack) =>
    rack.hang.pieces.map((piece) => [piece.what.name, piece.perSide] as const),
  );
  const setS = input.week.sets.map((set) => setSeconds(set, input.plan.recipe));
  const problem = liftProblem({
    settled,
    racks,
    weights: moveSeconds(values),
    stock: { ...stock, ...Object.fromEntries(hung) },
  });
  return {
    slotId: slot.slotId,
    name: slot.liftName,
    rest: slot.rest,
    setS,
    problem,
    byLoad: slot.groups.map(({ stationId, lifters }) => ({
      rackId: stationId,
      order: lifters.map((one) => one.athleteId),
    })),
  };
}

/** What is no lift, with the seconds of its sets. */
function asItStands(slot: FrozenSlot, day: PlanDay): SimulatedSlot | undefined {
  if (slot.kind === "lift") return undefined;
  if (slot.kind === "pairing") {
    const { complex } = slot;
    const roundS = complex.items.reduce(
      (sum, item, i) => sum + ITEM_S + (i < complex.items.length - 1 ? item.gapS : 0),
      0,
    );
    return {
      slotId: slot.slotId,
      name: complex.name,
      rest: { leastS: complex.restS, mostS: Number.MAX_SAFE_INTEGER },
      // Everybody on a clock of their own: nobody waits for another's turn.
      groups: slot.groups.flatMap(({ stationId, athletes }) =>
        athletes.map(({ athleteId }) => ({
          stationId: `${stationId}/${athleteId}`,
          order: [
            { athleteId, sets: Array.from({ length: complex.rounds }, () => ({ setS: roundS })) },
          ],
        })),
      ),
    };
  }
  const planned = day.slots.find((one) => one.id === slot.from?.slotId);
  const seconds = planned ? planned.wave.sets.map((set) => setSeconds(set, planned.recipe)) : [];
  return {
    slotId: slot.slotId,
    name: slot.name,
    rest: slot.rest,
    groups: slot.groups.flatMap(({ stationId, athletes }) =>
      athletes.map(({ athleteId, sets }) => ({
        stationId: `${stationId}/${athleteId}`,
        order: [
          {
            athleteId,
            sets: sets.map((_, i) => ({ setS: seconds[i] ?? seconds.at(-1) ?? ITEM_S })),
          },
        ],
      })),
    ),
  };
}

/** Seconds of one item of a pairing, or of a set that nobody timed. */
const ITEM_S = 10;
