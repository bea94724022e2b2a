import type { liftVariant } from "../schema";

export interface ShippedVariant
  extends Omit<typeof liftVariant.$inferInsert, "teamId" | "id" | "baseId"> {
  /** Its base, by name; it stands before this one. */
  baseOf?: string;
}

const SQUAT = "Safeties just below the bar's lowest point. Collars on, clear floor behind.";
const BENCH =
  "Spotter at the head, collars on. Safeties below the arched chest and above the neck.";
const PULL = "Collars on, flat shoes, clear floor in front. Bar down under control.";
const BOX =
  "Safeties just below the bar's lowest point when seated. No dropping, no rocking, trunk braced.";
const BANDS =
  "Bands looked over before each session, rack bolted or weighted, nobody beside the bar's ends.";

/**
 * Lift variants that a new team starts with, each with its caution. Whoever trains other bars,
 * grips or boxes adds them under Library; a ratio is learnt from records until a coach sets one.
 */
export const SHIPPED_VARIANTS: readonly ShippedVariant[] = [
  {
    name: "Bench press, straight bar",
    lift: "bench",
    bar: "straight",
    start: "top",
    caution: BENCH,
  },
  {
    name: "Back squat, straight bar",
    lift: "squat",
    bar: "straight",
    start: "top",
    systemMass: "bar-and-body",
    caution: SQUAT,
  },
  {
    name: "Deadlift, straight bar",
    lift: "deadlift",
    bar: "straight",
    start: "bottom",
    caution: PULL,
  },
  {
    name: "Overhead press, straight bar",
    lift: "press",
    bar: "straight",
    start: "top",
    caution:
      "Safeties under the shoulders or an empty platform, collars on, nobody in front or behind.",
  },
  {
    name: "Bench press, wide grip",
    lift: "bench",
    bar: "straight",
    grip: "wide",
    start: "top",
    baseKind: "shares",
    baseOf: "Bench press, straight bar",
    caution: BENCH,
  },
  {
    name: "Bench press, close grip",
    lift: "bench",
    bar: "straight",
    grip: "close",
    start: "top",
    baseKind: "ratio",
    baseOf: "Bench press, straight bar",
    caution: BENCH,
  },
  {
    name: "Front squat, straight bar",
    lift: "squat",
    bar: "straight",
    grip: "front",
    start: "top",
    systemMass: "bar-and-body",
    baseKind: "ratio",
    baseOf: "Back squat, straight bar",
    caution: `${SQUAT} Let the bar go forward when it is lost.`,
  },
  {
    name: "Box squat, parallel, straight bar",
    lift: "box-squat",
    bar: "straight",
    boxStyle: "sit back, full stop",
    start: "top",
    systemMass: "bar-and-body",
    baseKind: "ratio",
    baseOf: "Back squat, straight bar",
    caution: BOX,
  },
  {
    name: "Box squat, parallel, bands",
    lift: "box-squat",
    bar: "straight",
    boxStyle: "sit back, full stop",
    resistance: "bands",
    start: "top",
    systemMass: "bar-and-body",
    baseKind: "ratio",
    baseOf: "Back squat, straight bar",
    caution: `${BOX} ${BANDS}`,
  },
  {
    name: "Deadlift, wide stance",
    lift: "deadlift",
    bar: "straight",
    stance: "wide",
    start: "bottom",
    baseKind: "ratio",
    baseOf: "Deadlift, straight bar",
    caution: PULL,
  },
  {
    name: "Trap-bar deadlift",
    lift: "trap-bar-deadlift",
    bar: "trap",
    start: "bottom",
    caution: PULL,
  },
  {
    name: "Bench pull, straight bar",
    lift: "bench-pull",
    bar: "straight",
    start: "bottom",
    caution: "Bench on firm blocks, collars on, chest stays on the bench.",
  },
];
