import { basedMax, type WorkingMax, workingMax } from "../../../core/maxes/records";
import {
  type LearntRatio,
  learnRatio,
  resolveMax,
  type VariantBase,
  type VariantMax,
} from "../../../core/maxes/variants";
import type { LocalDate } from "../../../core/units/time";
import {
  type Choice,
  currentChoices,
  listVariants,
  recordsOf,
  type StoredRecord,
  type VariantRow,
} from "../../../db/queries/maxes.server";
import type { TeamTransaction } from "../../../db/team.server";

export interface AthleteMaxes {
  /** By variant: the chosen record's working max, of the variants that have one. */
  own: ReadonlyMap<string, WorkingMax>;
  learnt: ReadonlyMap<string, LearntRatio>;
  /** Of any variant, through ratios and shares; a refusal says where the chain ended. */
  of(variantId: string):
    | {
        max: WorkingMax;
        viaBase: boolean;
        /** The variant whose record it stands on. */
        baseId: string;
      }
    | Extract<VariantMax, { ok: false }>;
}

export function variantBase(row: VariantRow): VariantBase {
  return {
    id: row.id,
    name: row.name,
    baseKind: row.baseKind,
    baseId: row.baseId ?? undefined,
    ratio: row.ratio ?? undefined,
  };
}

/** One athlete's maxes from what is stored; pure, so that thirty cost one reading. */
export function athleteMaxes(input: {
  variants: readonly VariantRow[];
  choices: readonly Choice[];
  records: readonly StoredRecord[];
  today: LocalDate;
}): AthleteMaxes {
  const variants = input.variants.map(variantBase);
  const own = new Map<string, WorkingMax>();
  for (const choice of input.choices) {
    const liftName = variants.find((one) => one.id === choice.variantId)?.name ?? "";
    own.set(choice.variantId, workingMax({ liftName, ...choice, today: input.today }));
  }
  const learnt = new Map<string, LearntRatio>();
  for (const variant of variants) {
    if (variant.baseKind !== "ratio") continue;
    const of = (id: string | undefined) => input.records.filter((one) => one.variantId === id);
    const ratio = learnRatio(of(variant.id), of(variant.baseId));
    if (ratio) learnt.set(variant.id, ratio);
  }
  return {
    own,
    learnt,
    of(variantId) {
      const found = resolveMax({ variantId, variants, known: own, ratios: learnt });
      if (!found.ok) return found;
      const base = own.get(found.chain[found.chain.length - 1] ?? "");
      if (!base) return { ok: false, reason: "no-max", at: "" };
      const baseId = found.chain.at(-1) ?? variantId;
      if (found.chain.length === 1) return { max: base, viaBase: false, baseId };
      const liftName = variants.find((one) => one.id === variantId)?.name ?? "";
      return { max: basedMax(base, found, liftName), viaBase: true, baseId };
    },
  };
}

/**
 * The maxes of every athlete of the team, of one, or of some.
 * @param wanted the variants that will be asked for; all where left out
 * @param known the team's variants, where they were read already
 */
export async function readMaxes(
  tx: TeamTransaction,
  todayOf: (athleteId: string) => LocalDate,
  of?: string | readonly string[],
  wanted?: readonly string[],
  known?: readonly VariantRow[],
): Promise<(athleteId: string) => AthleteMaxes> {
  const variants = known ?? (await listVariants(tx));
  const chains = (wanted ?? variants.map((one) => one.id)).map((id) => chainOf(variants, id));
  const choices = group(
    await currentChoices(tx, {
      of,
      ...(wanted ? { variantIds: chains.flat().map((one) => one.id) } : {}),
    }),
  );
  // Records are needed for learnt ratios only.
  const learns = chains.flat().some((one) => one.baseKind === "ratio");
  const records = group(learns ? await recordsOf(tx, of) : []);
  return (id) =>
    athleteMaxes({
      variants,
      choices: choices.get(id) ?? [],
      records: records.get(id) ?? [],
      today: todayOf(id),
    });
}

/** A variant and those that its max may go through on its way to a record. */
function chainOf(variants: readonly VariantRow[], id: string): VariantRow[] {
  const chain: VariantRow[] = [];
  let at = variants.find((one) => one.id === id);
  while (at && !chain.includes(at)) {
    chain.push(at);
    const { baseId } = at;
    at = variants.find((one) => one.id === baseId);
  }
  return chain;
}

function group<T extends { athleteId: string }>(rows: readonly T[]): Map<string, T[]> {
  const by = new Map<string, T[]>();
  for (const row of rows) {
    const list = by.get(row.athleteId);
    if (list) list.push(row);
    else by.set(row.athleteId, [row]);
  }
  return by;
}
