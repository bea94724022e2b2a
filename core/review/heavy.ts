import { type FrozenSession, liftsOf } from "../floor/frozen";
import type { FloorState } from "../floor/state";
import type { MaxKind } from "../maxes/records";
import { estimateRepMax } from "../maxes/rep-max";
import type { MassUnit } from "../units/mass";
import { isMeasured } from "../units/velocity";

/** The best set of a heavy slot: what may become the variant's record, on the coach's word. */
export interface HeavyBest {
  slotId: string;
  variantId: string;
  liftName: string;
  athleteId: string;
  name: string;
  unit: MassUnit;
  setKey: string;
  loadKg: number;
  reps: number;
  /** What it says of a single, kg: the load itself, or the median of the formulas. */
  recordKg: number;
  kind: Extract<MaxKind, "tested" | "rep-max-estimate">;
  /**
   * Mean speed of a measured single, m/s: where the coach says that it was all there was, it tells
   * the athlete's own threshold. Undefined for more reps, another metric, and what nobody measured.
   */
  singleMps: number | undefined;
}

/**
 * Of each lifter of a heavy slot the heaviest set whose reps were all counted; a set on the way up
 * counts too, for somebody may stop there. None where a rep was lost in it or none was counted.
 */
export function heavyBests(session: FrozenSession, floor: FloorState): HeavyBest[] {
  const heavy = new Map(
    liftsOf(session).flatMap((slot) =>
      slot.top && slot.variantId !== undefined ? [[slot.slotId, slot.variantId] as const] : [],
    ),
  );
  return floor.racks.flatMap(({ slot, lifters }) => {
    const variantId = heavy.get(slot.slotId);
    if (variantId === undefined) return [];
    return lifters.flatMap((one): HeavyBest[] => {
      const done = [...one.ramp, ...one.sets].flatMap((set) => {
        const reps = set.reps.filter((rep) => rep.outcome === "counted").length;
        const lost = set.reps.some((rep) => rep.outcome === "failed");
        const [rep] = set.reps;
        const singleMps =
          reps === 1 && slot.metric === "MCV" && rep && !rep.older && isMeasured(rep.source)
            ? rep.velocityMps
            : undefined;
        return set.stage === "done" && set.loadKg !== undefined && reps > 0 && !lost
          ? [{ setKey: set.prescription.key, loadKg: set.loadKg, reps, singleMps }]
          : [];
      });
      const best = done.reduce<(typeof done)[number] | undefined>(
        (most, set) =>
          most === undefined ||
          set.loadKg > most.loadKg ||
          (set.loadKg === most.loadKg && set.reps > most.reps)
            ? set
            : most,
        undefined,
      );
      if (!best) return [];
      const estimate = best.reps === 1 ? undefined : estimateRepMax({ ...best, reserve: 0 });
      if (estimate && !estimate.ok) return [];
      return [
        {
          slotId: slot.slotId,
          variantId,
          liftName: slot.liftName,
          athleteId: one.lifter.athleteId,
          name: one.lifter.name,
          unit: one.lifter.unit,
          ...best,
          recordKg: estimate ? estimate.medianKg : best.loadKg,
          kind: estimate ? "rep-max-estimate" : "tested",
        },
      ];
    });
  });
}
