import type { PlateStock } from "../../core/barload/loading-gear";
import type { Mass, MassUnit } from "../../core/units/mass";
import type { liftVariant } from "../schema";

export interface DemoRoom {
  name: "Boathouse" | "Dojo gym";
  zone: string;
  bars: Array<{ name: string; mass: Mass; rated: Mass; collar: Mass; racks: number[] }>;
  plates: PlateStock[];
}

const plates = (
  unit: MassUnit,
  rows: Array<[amount: number, pairs: number, thicknessMm: number, diameterMm: number]>,
) =>
  rows.map(([amount, pairs, thicknessMm, diameterMm]) => ({
    mass: { amount, unit },
    pairs,
    thicknessMm,
    diameterMm,
  }));

/** Two rooms: one in kilograms, one with an old set in pounds. */
export const DEMO_ROOMS: DemoRoom[] = [
  {
    name: "Boathouse",
    zone: "Europe/Oslo",
    bars: [
      {
        name: "Straight bar",
        mass: { amount: 20, unit: "kg" },
        rated: { amount: 320, unit: "kg" },
        collar: { amount: 0, unit: "kg" },
        racks: [1, 2, 3, 4],
      },
      {
        name: "Straight bar, thin",
        mass: { amount: 15, unit: "kg" },
        rated: { amount: 200, unit: "kg" },
        collar: { amount: 0, unit: "kg" },
        racks: [5, 6],
      },
    ],
    plates: plates("kg", [
      [25, 2, 45, 450],
      [20, 2, 40, 450],
      [15, 1, 34, 450],
      [10, 2, 27, 325],
      [5, 2, 22, 230],
      [2.5, 2, 16, 190],
      [1.25, 1, 12, 160],
    ]),
  },
  {
    name: "Dojo gym",
    zone: "Europe/Oslo",
    bars: [
      {
        name: "Straight bar, pounds",
        mass: { amount: 45, unit: "lb" },
        rated: { amount: 600, unit: "lb" },
        collar: { amount: 0, unit: "lb" },
        racks: [1, 2, 3],
      },
    ],
    plates: plates("lb", [
      [45, 2, 40, 450],
      [35, 1, 34, 360],
      [25, 2, 30, 280],
      [10, 2, 22, 230],
      [5, 2, 17, 200],
      [2.5, 2, 13, 160],
    ]),
  },
];

type VariantInsert = typeof liftVariant.$inferInsert;

export interface DemoVariant extends Omit<VariantInsert, "teamId" | "id" | "baseId"> {
  /** Its base, by name. */
  baseOf?: string;
}

export const DEMO_VARIANTS: DemoVariant[] = [
  {
    name: "Bench press, straight bar",
    lift: "bench" as const,
    bar: "straight",
    start: "top" as const,
    caution: "Spotter at the head, collars on. Safeties below the arched chest and above the neck.",
  },
  {
    name: "Back squat, straight bar",
    systemMass: "bar-and-body" as const,
    lift: "squat" as const,
    bar: "straight",
    start: "top" as const,
    caution: "Safeties just below the bar's lowest point. Collars on, clear floor behind.",
  },
  {
    name: "Deadlift, straight bar",
    lift: "deadlift" as const,
    bar: "straight",
    start: "bottom" as const,
    caution: "Collars on, flat shoes, clear floor in front. Bar down under control.",
  },
];

/** Variants whose max comes from another's. */
export const DEMO_BASED_VARIANTS: DemoVariant[] = [
  {
    name: "Bench press, wide grip",
    lift: "bench" as const,
    bar: "straight",
    grip: "wide",
    start: "top" as const,
    baseKind: "shares" as const,
    baseOf: "Bench press, straight bar",
    caution: "Spotter at the head, collars on. Safeties below the arched chest and above the neck.",
  },
  {
    name: "Box squat, parallel, straight bar",
    lift: "box-squat" as const,
    bar: "straight",
    boxStyle: "sit back, full stop",
    start: "top" as const,
    baseKind: "ratio" as const,
    baseOf: "Back squat, straight bar",
    systemMass: "bar-and-body" as const,
    caution:
      "Safeties just below the bar's lowest point when seated. No dropping, no rocking, trunk braced.",
  },
];
