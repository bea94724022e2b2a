import { type Gate, gate, RUNGS } from "../boxsquat/ladder";
import type { LocalDate } from "../units/time";
import type { ExerciseLine } from "./exercise-state";
import type { FrozenExercise } from "./frozen";

/** A rung that was passed in a session: the entry that says so. */
export interface RungPassed {
  entryId: string;
  athleteId: string;
  rungId: string;
}

/** Who has passed the rung of today, of a ladder's slot. */
export function rungsPassed(lines: readonly ExerciseLine[]): RungPassed[] {
  return lines.flatMap(({ athlete, sets }) => {
    const said = sets[0]?.done.at(-1);
    return athlete.rung && said && sets[0]?.stage === "done"
      ? [{ entryId: said.entryId, athleteId: athlete.athleteId, rungId: athlete.rung.id }]
      : [];
  });
}

/**
 * Whether the squad may move on to heavy work, with what was passed today counted: the same rule as
 * on the ladder's own page.
 */
export function gateOnFloor(
  slot: FrozenExercise,
  lines: readonly ExerciseLine[],
  today: LocalDate,
): Gate | undefined {
  const { ladder } = slot;
  if (!ladder) return undefined;
  const passed = new Map(
    rungsPassed(lines).map(({ athleteId, rungId }) => [
      athleteId,
      RUNGS.findIndex((rung) => rung.id === rungId) + 1,
    ]),
  );
  return gate({
    athletes: ladder.squad.map((one) => ({
      name: one.name,
      ready: Math.max(one.passed, passed.get(one.athleteId) ?? 0) >= RUNGS.length,
    })),
    today,
    ...ladder.gate,
  });
}
