import { analyseGaps } from "../../../core/contrast/gap-test";
import { OUTPUTS } from "../../../core/contrast/outputs";
import { loadSet, sidesOf } from "../../../core/contrast/run";
import { sideLedger } from "../../../core/contrast/sides";
import { reduceFloor } from "../../../core/floor/state";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import { gapTestDays } from "../../../db/queries/contrast.server";
import { entriesOfSessions, pairingsOfAthlete } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";
import { GAP_TRIALS } from "../../forms/gap";
import { gapDays } from "../lifters/own-gaps.server";

/** Newest pairings that an athlete's page shows. */
const RUNS_SHOWN = 5;
/** The ledger of sides looks back this far, days. */
export const LEDGER_DAYS = 28;

/** How an athlete answers to contrast work: own gaps, the newest pairings, left against right. */
export async function readContrast(tx: TeamTransaction, athleteId: string, today: LocalDate) {
  const gaps = [];
  const days = await gapTestDays(tx);
  for (const trial of GAP_TRIALS) {
    const { byAthlete, worthwhile } = await gapDays(tx, trial.id, days);
    const own = byAthlete.get(athleteId);
    if (!own) continue;
    const { up } = OUTPUTS[trial.output];
    gaps.push({
      trial: trial.id,
      name: trial.name,
      unit: trial.unit,
      days: own.length,
      analysis:
        worthwhile === undefined || !(worthwhile > 0)
          ? undefined
          : analyseGaps({ days: own, worthwhile, up, unit: trial.unit }),
    });
  }
  const rows = await pairingsOfAthlete(tx, athleteId);
  const recent = rows.filter(
    (row, i) => i < RUNS_SHOWN || daysBetween(row.date, today) <= LEDGER_DAYS,
  );
  const entries = await entriesOfSessions(
    tx,
    recent.map((row) => row.id),
  );
  const folded = recent.flatMap((row) =>
    reduceFloor(row.frozen, entries.get(row.id) ?? []).pairings.flatMap((pairing) =>
      pairing.athletes.flatMap((line) =>
        line.athlete.athleteId === athleteId ? [{ row, complex: line.complex, run: line.run }] : [],
      ),
    ),
  );
  return {
    gaps,
    runs: folded.slice(0, RUNS_SHOWN).map(({ row, complex, run }) => ({
      id: row.id,
      date: row.date,
      name: complex.name,
      early: run.rests.filter((one) => one.early).length,
      rests: run.rests.length,
      items: complex.items.flatMap((item, i) =>
        ([undefined, "left", "right"] as const).flatMap((side) => {
          const rounds = run.outputs.filter((one) => one.item === i && one.side === side);
          if (rounds.length === 0) return [];
          return [
            {
              id: item.id,
              name: item.name,
              side,
              unit: OUTPUTS[item.output].unit,
              baseline: run.baseline[i],
              rounds: rounds.map(({ round, value, verdict }) => ({
                round,
                value,
                verdict,
                kg: loadSet(run, i, round)?.kg,
              })),
            },
          ];
        }),
      ),
    })),
    sides: sideLedger(
      folded
        .filter(({ row }) => daysBetween(row.date, today) <= LEDGER_DAYS)
        .flatMap(({ complex, run }) => sidesOf(complex, run)),
    ),
  };
}

export type AthleteContrast = Awaited<ReturnType<typeof readContrast>>;
