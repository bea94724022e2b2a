import { median } from "../numeric/statistics";
import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";
import { say, written } from "../units/written";

/** Beyond this a load is no load, kg. */
const MOST_KG = 10_000;

/**
 * One-rep max from a set to near failure. w is the load, r = reps + reps in reserve. The five
 * usual formulas disagree, so all are shown with their median, least and greatest.
 */
export const REP_MAX_FORMULAS = [
  { name: "Epley", text: "w (1 + r/30)", of: (w: number, r: number) => w * (1 + r / 30) },
  { name: "Brzycki", text: "36 w / (37 − r)", of: (w: number, r: number) => (36 * w) / (37 - r) },
  { name: "Lombardi", text: "w r^0.10", of: (w: number, r: number) => w * r ** 0.1 },
  {
    name: "Mayhew",
    text: "100 w / (52.2 + 41.9 e^(−0.055 r))",
    of: (w: number, r: number) => (100 * w) / (52.2 + 41.9 * Math.exp(-0.055 * r)),
  },
  {
    name: "Wathan",
    text: "100 w / (48.8 + 53.8 e^(−0.075 r))",
    of: (w: number, r: number) => (100 * w) / (48.8 + 53.8 * Math.exp(-0.075 * r)),
  },
] as const;

/** Trusted up to here; between the two a warning; over the second refused. */
export const REP_MAX_TRUSTED_REPS = 10;
export const REP_MAX_MOST_REPS = 15;

export type RepMaxEstimate =
  | {
      ok: true;
      reps: number;
      byFormula: Array<{ name: string; kg: number }>;
      medianKg: number;
      leastKg: number;
      greatestKg: number;
      /** Over ten reps the formulas drift apart. */
      beyondTrusted: boolean;
      working: Working;
    }
  | { ok: false; reason: "not-a-load" | "not-reps" | "too-many-reps" };

export const REP_MAX_WORDS = {
  "not-a-load": "A load over 0, for example 100 or 225 lb.",
  "not-reps": "Whole reps from 1, and a reserve of 0 or more.",
  "too-many-reps": "Over 15 reps with reserve no formula holds. Take a heavier set.",
} as const;

/**
 * @param loadKg over 0
 * @param reps done, whole, at least 1
 * @param reserve reps left in reserve, 0 and over; halves are allowed
 */
export function estimateRepMax(input: {
  loadKg: number;
  reps: number;
  reserve: number;
}): RepMaxEstimate {
  const { loadKg, reps, reserve } = input;
  if (!(loadKg > 0 && loadKg < MOST_KG)) return { ok: false, reason: "not-a-load" };
  const counted = Number.isInteger(reps) && reps >= 1 && Number.isFinite(reserve) && reserve >= 0;
  if (!counted) return { ok: false, reason: "not-reps" };
  const r = reps + reserve;
  if (r > REP_MAX_MOST_REPS) return { ok: false, reason: "too-many-reps" };

  // A single with nothing left is the max itself, whatever a formula makes of it.
  const byFormula = REP_MAX_FORMULAS.map(({ name, of }) => ({
    name,
    kg: r === 1 ? loadKg : of(loadKg, r),
  }));
  const values = byFormula.map((one) => one.kg);
  const medianKg = median(values) as number;
  const leastKg = Math.min(...values);
  const greatestKg = Math.max(...values);
  return {
    ok: true,
    reps: r,
    byFormula,
    medianKg,
    leastKg,
    greatestKg,
    beyondTrusted: r > REP_MAX_TRUSTED_REPS,
    working: {
      title: say`${written(medianKg)} from ${written(loadKg)} × ${reps}`,
      lines: [
        { label: "Set", value: say`${written(loadKg)} × ${reps}` },
        { label: "In reserve", value: plainNumber(reserve, 1), detail: `r = ${plainNumber(r, 1)}` },
        ...byFormula.map((one, i) => ({
          label: one.name,
          value: written(one.kg),
          detail: REP_MAX_FORMULAS[i]?.text,
        })),
        { label: "Least to greatest", value: say`${written(leastKg)} to ${written(greatestKg)}` },
        { label: "Median", value: written(medianKg), emphasis: "answer" as const },
      ],
      sources: ["Epley; Brzycki 1993; Lombardi 1989; Mayhew et al. 1992; Wathan 1994"],
      changes: ["Reps, reserve, or a tested single in place of an estimate."],
    },
  };
}
