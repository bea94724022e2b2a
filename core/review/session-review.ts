import { SPEED_CLASS_NAMES } from "../exercise/speed-classes";
import type { FrozenLift } from "../floor/frozen";
import type { LifterState } from "../floor/lifter-state";
import type { SetState } from "../floor/set-state";
import type { FloorState } from "../floor/state";
import { speedClassAt } from "../liverules/speed-class";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";

export interface LifterReview {
  athleteId: string;
  name: string;
  setsPlanned: number;
  setsDone: number;
  repsPlanned: number;
  repsDone: number;
  /** Σ load × counted reps, kg. */
  tonnageKg: number;
  plannedTonnageKg: number;
  cutSets: Array<{ number: number; cause: string }>;
  /** Best rep of each done set against what was wanted. */
  speed: Array<{
    number: number;
    bestMps: number | undefined;
    standing: "under" | "on" | "over" | "no-target" | "not-measured";
  }>;
  faults: string[];
  /** Sets measured in another speed class than the slot trains, in words. */
  otherClass: string[];
  working: Working;
}

export interface SessionReview {
  lifters: LifterReview[];
  setsPlanned: number;
  setsDone: number;
  /** Done sets with a target whose best rep reached it, and how many had one. */
  onSpeed: number;
  judged: number;
  cut: number;
  callsWaiting: number;
  callsDecided: number;
}

/** Done against planned, from the folded floor. */
export function reviewSession(floor: FloorState): SessionReview {
  const lifters = floor.racks.flatMap(({ slot, lifters }) =>
    lifters.map((lifter) => reviewLifter(lifter, slot)),
  );
  const sum = (pick: (one: LifterReview) => number) =>
    lifters.reduce((total, one) => total + pick(one), 0);
  const standings = lifters.flatMap((one) => one.speed.map((set) => set.standing));
  return {
    lifters,
    setsPlanned: sum((one) => one.setsPlanned),
    setsDone: sum((one) => one.setsDone),
    onSpeed: standings.filter((one) => one === "on" || one === "over").length,
    judged: standings.filter((one) => one === "on" || one === "over" || one === "under").length,
    cut: sum((one) => one.cutSets.length),
    callsWaiting: floor.calls.length,
    callsDecided: floor.decided.length,
  };
}

/** A set whose best rep is of another speed class than the slot trains, in words. */
function otherClassWords(set: SetState, slot: FrozenLift): string[] {
  const speeds = set.reps.flatMap((rep) =>
    rep.outcome === "counted" && rep.velocityMps !== undefined ? [rep.velocityMps] : [],
  );
  if (!slot.classBorders || !slot.speedClass || speeds.length === 0) return [];
  const best = Math.max(...speeds);
  const measured = speedClassAt(best, slot.classBorders);
  return measured === undefined || measured === slot.speedClass
    ? []
    : [
        `Set ${set.prescription.number} moved at ${formatVelocity(best)} m/s: ${SPEED_CLASS_NAMES[measured].toLowerCase()}, ${SPEED_CLASS_NAMES[slot.speedClass].toLowerCase()} planned`,
      ];
}

function countedReps(set: SetState): number {
  return set.reps.filter((rep) => rep.outcome === "counted").length;
}

function reviewLifter({ lifter, sets }: LifterState, slot: FrozenLift): LifterReview {
  const done = sets.filter((set) => set.stage === "done");
  const tonnageKg = done.reduce((sum, set) => sum + (set.loadKg ?? 0) * countedReps(set), 0);
  const plannedTonnageKg = sets.reduce(
    (sum, set) => sum + (set.prescription.loadKg ?? 0) * set.prescription.reps,
    0,
  );
  return {
    athleteId: lifter.athleteId,
    name: lifter.name,
    setsPlanned: sets.length,
    setsDone: done.length,
    repsPlanned: sets.reduce((sum, set) => sum + set.prescription.reps, 0),
    repsDone: done.reduce((sum, set) => sum + countedReps(set), 0),
    tonnageKg,
    plannedTonnageKg,
    cutSets: done
      .filter((set) => set.cut)
      .map((set) => ({
        number: set.prescription.number,
        cause: set.advice?.hits[0]?.text ?? "ended by hand",
      })),
    speed: done.map((set) => {
      const speeds = set.reps.flatMap((rep) =>
        rep.velocityMps === undefined || rep.outcome === "failed" ? [] : [rep.velocityMps],
      );
      return {
        number: set.prescription.number,
        bestMps: speeds.length > 0 ? Math.max(...speeds) : undefined,
        standing: set.verdict?.standing ?? "not-measured",
      };
    }),
    otherClass: done.flatMap((set) => otherClassWords(set, slot)),
    faults: done.flatMap((set) => set.faults.map((one) => one.fault)),
    working: {
      title: `Tonnage, ${lifter.name}`,
      lines: [
        ...done.map((set) => ({
          label: `Set ${set.prescription.number}`,
          value: say`${written(set.loadKg ?? 0)} × ${countedReps(set)}`,
        })),
        { label: "Done", value: written(tonnageKg, 1), emphasis: "answer" as const },
        { label: "Planned", value: written(plannedTonnageKg, 1) },
      ],
      sources: ["Load × counted reps; failed reps are not counted"],
    },
  };
}
