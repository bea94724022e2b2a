import { median } from "../numeric/statistics";
import { formatKg, massKg, plainNumber } from "../units/mass";
import { daysBetween } from "../units/time";
import type { Working } from "../units/working";
import type { MaxRecord } from "./records";

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

export type VariantMax =
  | {
      ok: true;
      kg: number /** Variants passed on the way, own one first. */;
      chain: string[];
      working: Working;
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
 * @param known working maxes in kg with their workings, by variant id
 * @param ratios ratios learnt from this athlete's records, by variant id; a coach's own comes first
 */
export function resolveMax(input: {
  variantId: string;
  variants: readonly VariantBase[];
  known: ReadonlyMap<string, { kg: number; working: Working }>;
  ratios?: ReadonlyMap<string, LearntRatio>;
}): VariantMax {
  const { known, ratios } = input;
  const chain: string[] = [];
  const lines: Working["lines"] = [];
  let factor = 1;
  let at = input.variants.find((one) => one.id === input.variantId);
  const first = at;
  while (at) {
    if (chain.includes(at.id)) return { ok: false, reason: "circle", at: at.name };
    chain.push(at.id);
    const own = known.get(at.id);
    if (own) {
      const kg = own.kg * factor;
      if (chain.length === 1)
        return {
          ok: true,
          kg,
          chain,
          get working() {
            return own.working;
          },
        };
      return {
        ok: true,
        kg,
        chain,
        working: {
          title: `Working max, ${first?.name}`,
          lines: [
            ...own.working.lines.map((line) => ({ ...line, emphasis: undefined })),
            ...lines.reverse(),
            {
              label: `Working max, ${first?.name}`,
              value: formatKg(kg, "kg", 1),
              emphasis: "answer",
            },
          ],
          sources: own.working.sources,
          changes: ["An own record of this variant, another ratio, or another record of its base."],
        },
      };
    }
    const { baseKind, baseId, name }: VariantBase = at;
    if (baseKind === "own" || baseId === undefined)
      return { ok: false, reason: "no-max", at: name };
    const base = input.variants.find((one) => one.id === baseId);
    if (baseKind === "ratio") {
      const learnt = ratios?.get(at.id);
      const ratio = at.ratio ?? learnt?.ratio;
      if (ratio === undefined) return { ok: false, reason: "no-ratio", at: name };
      factor *= ratio;
      lines.push({
        label: `${name}, of ${base?.name ?? "its base"}`,
        value: `× ${plainNumber(ratio, 3)}`,
        detail:
          at.ratio !== undefined
            ? "ratio set by a coach"
            : `learnt from ${learnt?.n} ${learnt?.n === 1 ? "pair" : "pairs"} of own records`,
      });
    } else {
      lines.push({ label: `${name} shares the max of`, value: base?.name ?? "" });
    }
    at = base;
  }
  return { ok: false, reason: "no-max", at: first?.name ?? "" };
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
