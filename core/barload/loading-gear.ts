import type { Mass } from "../units/mass";

export interface Bar {
  id: string;
  name: string;
  mass: Mass;
  /** Most the bar may hold, with itself. */
  rated: Mass;
  /** Sleeve length for plates, mm. */
  sleeveMm: number;
}

export interface PlateStock {
  mass: Mass;
  /** Pairs at hand: one plate for either side. */
  pairs: number;
  thicknessMm: number;
  /** Across its rim, mm: what a film of the set is measured by. Absent where nobody entered it. */
  diameterMm?: number | undefined;
}

export interface LoadingGear {
  bar: Bar;
  plates: readonly PlateStock[];
  /** Mass of one collar; two go on. */
  collar: Mass;
}

export type RoundingMode = "nearest" | "down";
