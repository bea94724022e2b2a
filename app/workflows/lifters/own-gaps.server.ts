import { analyseGaps, type GapTestDay } from "../../../core/contrast/gap-test";
import { smallestWorthwhileChange } from "../../../core/numeric/change";
import { gapTestDays } from "../../../db/queries/contrast.server";
import type { TeamTransaction } from "../../../db/team.server";

/**
 * The days of a trial by athlete, and the smallest worthwhile change of those who did it.
 * @param rows every day of the team, where they were read already
 */
export async function gapDays(
  tx: TeamTransaction,
  trial: string,
  rows?: Awaited<ReturnType<typeof gapTestDays>>,
) {
  const byAthlete = new Map<string, Array<GapTestDay & { heavySet: string }>>();
  for (const row of rows ?? (await gapTestDays(tx))) {
    if (row.trial !== trial) continue;
    const list = byAthlete.get(row.athleteId) ?? [];
    byAthlete.set(row.athleteId, list);
    list.push({
      date: row.date,
      baseline: row.baseline,
      trials: row.trials,
      heavySet: row.heavySet,
    });
  }
  const firsts = [...byAthlete.values()].flatMap((days) => days[0]?.baseline[0] ?? []);
  // Two people have a spread, but no squad: three is the least.
  const worthwhile = firsts.length >= 3 ? smallestWorthwhileChange(firsts) : undefined;
  return { byAthlete, worthwhile, firsts: firsts.length };
}

/** An athlete's own gap, where a test has found one; s. */
export async function ownGaps(
  tx: TeamTransaction,
  typedWorthwhile?: number,
): Promise<Map<string, number>> {
  const { byAthlete, worthwhile } = await gapDays(tx, "jump");
  const by = typedWorthwhile ?? worthwhile;
  const found = new Map<string, number>();
  if (by === undefined || !(by > 0)) return found;
  for (const [athleteId, days] of byAthlete) {
    const analysis = analyseGaps({ days, worthwhile: by });
    if (analysis.ok && analysis.verdict.kind === "best")
      found.set(athleteId, Math.round(60 * analysis.verdict.gapMin));
  }
  return found;
}
