/**
 * A block of 12 weeks for 200 athletes: what a change of the recipe costs to draw the visible
 * part and the whole, against computing every cell afresh with its working.
 */
import { loadableTable } from "../core/barload/loadable";
import { workingMax } from "../core/maxes/records";
import { type Block, blockOfLift, type Slot, slotWeek } from "../core/plan/block";
import { type BlockRoom, blockLoads, setInFull, slotCells } from "../core/plan/block-loads";
import { dayStave } from "../core/plan/day-time";
import type { Lifter } from "../core/prescribe/lifter";
import { loadVelocityLine } from "../core/profile/line";
import { NOTHING_TO_HANG } from "../core/resistance/rig";
import { grainsToKg, kgToGrains } from "../core/units/mass";
import { DEMO_ROOMS } from "../db/demo/rooms";
import { SHIPPED_RECIPES } from "../db/library/recipes";
import { line, sink, timed } from "./timing";

const room = DEMO_ROOMS[0];
const bar = room?.bars[0];
if (!room || !bar) throw new Error("The demo has a room with a bar.");
const VARIANTS = ["bench", "squat", "pull", "press"];
const rules: BlockRoom = {
  gear: { bar: { id: "b", sleeveMm: 415, ...bar }, collar: bar.collar, plates: room.plates },
  rounding: "nearest",
  metric: "MCV",
  settings: { deloadLoad: 0.8, deloadSets: 0.5 },
  hang: NOTHING_TO_HANG,
  forLift: {},
  unit: "kg",
  others: [],
  hand: undefined,
  handOf: {},
};
const profile = loadVelocityLine(
  [40, 60, 80].map((loadKg) => ({ loadKg, velocityMps: 1.6 - 0.01 * loadKg })),
  "MCV",
);
const athletes: Lifter[] = Array.from({ length: 200 }, (_, i) => ({
  id: `a${i}`,
  name: `Athlete ${i}`,
  unit: "kg" as const,
  instructions: [],
  trainingYears: 3,
  bodyKg: 80,
  byVariant: Object.fromEntries(
    VARIANTS.map((variantId) => [
      variantId,
      {
        workingMax: workingMax({
          liftName: variantId,
          record: {
            id: "r",
            load: { amount: 80 + (i % 60), unit: "kg" as const },
            date: "2026-02-01",
            kind: "tested" as const,
            note: "",
          },
          factor: undefined,
          today: "2026-03-01",
        }),
        profile: profile.ok ? { line: profile, variantId, testedOn: "2026-02-01" } : undefined,
        peakForceMps: undefined,
        profileReps: [],
        profileSource: undefined,
        peakPowerKg: undefined,
        peakForceReached: undefined,
        peakPowerReached: undefined,
        lifetimeBestKg: undefined,
        found: undefined,
        today: undefined,
        heights: undefined,
      },
    ]),
  ),
}));
const first = SHIPPED_RECIPES[0]?.recipe;
if (!first) throw new Error("There are shipped recipes.");
const base = blockOfLift({
  name: "Bench",
  startDate: "2026-03-02",
  variantId: "bench",
  recipe: first,
  schoolId: "",
});
const main = base.slots.main as Slot;
const block: Block = {
  ...base,
  weeks: 12,
  slots: Object.fromEntries(
    VARIANTS.map((variantId, i) => [
      i === 0 ? "main" : `s${i}`,
      {
        ...main,
        order: i,
        repeat: true,
        work: { kind: "lift" as const, variantId },
        recipe: SHIPPED_RECIPES[i]?.recipe ?? first,
      },
    ]),
  ),
};
let start = 40;
/** A change of the recipe, as one types it. */
const changed = (): Block => {
  start = start === 40 ? 42.5 : 40;
  return {
    ...block,
    slots: { ...block.slots, main: { ...(block.slots.main as Slot), recipe: { ...first, start } } },
  };
};
const visible = timed(() => {
  const weeks = [1, 2, 3, 4];
  const cells = slotCells({
    block: changed(),
    slotId: "main",
    weeks,
    athletes,
    room: rules,
    liftName: "",
  });
  sink.value += cells.length;
});
line(
  "plan: visible part, one slot, 4 weeks, 200 athletes",
  visible,
  visible < 100 ? "" : "OVER 100 ms",
);
const whole = timed(() => {
  sink.value += Object.keys(blockLoads({ block: changed(), athletes, room: rules })).length;
});
line("plan: all 4 slots, 12 weeks, 200 athletes", whole, whole < 1000 ? "" : "OVER 1 s");
// What nobody could do without: the percentage of the max, the nearest total, a place to keep it.
const plain = timed(() => {
  const now = changed();
  const { totals } = loadableTable(rules.gear);
  const kept: Record<string, Record<string, number>> = {};
  for (const athlete of athletes) {
    const own: Record<string, number> = {};
    for (const [slotId, slot] of Object.entries(now.slots)) {
      const variantId = slot.work.kind === "lift" ? slot.work.variantId : "";
      const maxKg = athlete.byVariant[variantId]?.workingMax?.kg ?? 0;
      for (let number = 1; number <= now.weeks; number++) {
        for (const set of slotWeek(now, slot, number, rules.settings)?.sets ?? []) {
          const percent = set.basis.by === "percent" ? set.basis.percent : 0;
          const asked = kgToGrains((maxKg * percent * (set.factor ?? 1)) / 100);
          let low = 0;
          let high = totals.length - 1;
          while (low < high) {
            const middle = (low + high + 1) >> 1;
            if ((totals[middle] as number) <= asked) low = middle;
            else high = middle - 1;
          }
          const under = totals[low] as number;
          const over = totals[low + 1] ?? under;
          own[`${slotId}/${number}/${set.key}`] = grainsToKg(
            over - asked < asked - under ? over : under,
          );
        }
      }
    }
    kept[athlete.id] = own;
  }
  sink.value += Object.keys(kept).length;
});
line(
  "plan: the same loads by a plain loop",
  plain,
  `ours ${(whole / plain).toFixed(2)} × the plain loop`,
);
const afresh = timed(() => {
  const now = changed();
  for (const [slotId, slot] of Object.entries(now.slots)) {
    const id = slot.work.kind === "lift" ? slot.work.variantId : "";
    for (let number = 1; number <= now.weeks; number++) {
      for (const athlete of athletes) {
        const week = slotWeek(now, slot, number, rules.settings);
        for (const set of week?.sets ?? []) {
          const lift = { id, name: id, lift: "bench" };
          const full = setInFull({
            block: now,
            slotId,
            week: week as never,
            set,
            athlete,
            room: rules,
            lift,
          });
          sink.value += full.loadKg ?? 0;
        }
      }
    }
  }
});
line(
  "plan: every cell afresh, with its working",
  afresh,
  `${(afresh / whole).toFixed(1)} × all of it`,
);
line(
  "plan: a week of days drawn to time",
  timed(() => {
    sink.value += dayStave(changed(), "d1", 3, rules.settings).lines.length;
  }),
);
