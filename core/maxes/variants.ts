import { median } from "../numeric/statistics";
import { massKg } from "../units/mass";
import { daysBetween } from "../units/time";
import type { MaxRecord, MaxStep } from "./records";

/**
 * Where a lift variant's max comes from: its own records, a ratio to another variant's max, or
 * the same max as another's. A variant is lift + bar + grip + stance + box style + resistance.
 */
export const BASE_KINDS = ["own", "ratio", "shares"] as const;
export type BaseKind = (typeof BASE_KINDS)[number];

export interface VariantBase {
  id: string;
  name: string;
  baseKind: BaseKind;
  /** The variant whose max is taken, for ratio and shares. */
  baseId: string | undefined;
  /** Coach-set ratio; unset until given, and learnt from records where they allow it. */
  ratio: number | undefined;
}

/** No variant lifts more than so many times its base. */
const MOST_RATIO = 10;

export type VariantMax =
  | {
      ok: true;
      kg: number;
      /** Variants passed on the way, own one first. */
      chain: string[];
      /** From the base to the variant, base first; none where the record is its own. */
      steps: MaxStep[];
    }
  | {
      ok: false;
      reason: "no-max" | "no-ratio" | "circle";
      /** The variant where the chain ended. */
      at: string;
    };

/**
 * The working max that percentages of a variant stand on, through ratios and shares to a variant
 * that has a chosen record.
 * @param known working maxes in kg, by variant id
 * @param ratios ratios learnt from this athlete's records, by variant id; a coach's own comes first
 */
export function resolveMax(input: {
  variantId: string;
  variants: readonly VariantBase[];
  known: ReadonlyMap<string, { kg: number }>;
  ratios?: ReadonlyMap<string, LearntRatio>;
}): VariantMax {
  const { known, ratios } = input;
  const chain: string[] = [];
  const steps: MaxStep[] = [];
  let factor = 1;
  let at = input.variants.find((one) => one.id === input.variantId);
  const first = at?.name ?? "";
  while (at) {
    if (chain.includes(at.id)) return { ok: false, reason: "circle", at: at.name };
    chain.push(at.id);
    const own = known.get(at.id);
    if (own) return { ok: true, kg: own.kg * factor, chain, steps: steps.reverse() };
    const { baseKind, baseId, name }: VariantBase = at;
    if (baseKind === "own" || baseId === undefined)
      return { ok: false, reason: "no-max", at: name };
    const base = input.variants.find((one) => one.id === baseId);
    if (baseKind === "ratio") {
      const learnt = ratios?.get(at.id);
      const ratio = at.ratio ?? learnt?.ratio;
      if (ratio === undefined || !(ratio > 0 && ratio <= MOST_RATIO))
        return { ok: false, reason: "no-ratio", at: name };
      factor *= ratio;
      steps.push({
        by: "ratio",
        name,
        of: base?.name ?? "its base",
        ratio,
        ...(at.ratio === undefined && learnt ? { pairs: learnt.n } : {}),
      });
    } else {
      steps.push({ by: "shares", name, of: base?.name ?? "" });
    }
    at = base;
  }
  return { ok: false, reason: "no-max", at: first };
}

/** Records this far apart may be set against each other for a ratio, days. */
export const RATIO_PAIR_DAYS = 28;

export interface LearntRatio {
  ratio: number;
  /** Pairs of records that it stands on. */
  n: number;
}

/**
 * The ratio of a variant to its base from the athlete's own records: the median over the
 * variant's records of record ÷ nearest base record in time, within 28 days. Estimates and
 * coach's calls do not count; undefined where no pair is close enough.
 */
export function learnRatio(
  own: readonly MaxRecord[],
  base: readonly MaxRecord[],
): LearntRatio | undefined {
  const lifted = (record: MaxRecord) => record.kind === "competition" || record.kind === "tested";
  const ratios = own.filter(lifted).flatMap((record) => {
    const distance = (other: MaxRecord) => Math.abs(daysBetween(record.date, other.date));
    const nearest = base.filter(lifted).sort((a, b) => distance(a) - distance(b))[0];
    return nearest && distance(nearest) <= RATIO_PAIR_DAYS
      ? [massKg(record.load) / massKg(nearest.load)]
      : [];
  });
  const ratio = median(ratios);
  return ratio === undefined ? undefined : { ratio, n: ratios.length };
}
