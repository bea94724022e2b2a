import type { LoadingGear } from "../barload/loading-gear";
import { planSequence } from "../barload/sequence";
import type { FrozenLifter, RotationMoves } from "./frozen";

/** Loads of a rotation that are planned together; a longer one is cut into such pieces. */
const PIECE = 32;

/**
 * The plates of a rack's rotation, one set of each lifter in turn, chosen together: the same loads,
 * with the fewest plate moves from one lifter to the next.
 * @returns the lifters with the plates of each set beside its prescription; as they were where the
 *   rack does not build one of the loads
 */
export function platesOfRotation(
  gear: LoadingGear,
  lifters: readonly FrozenLifter[],
): { lifters: FrozenLifter[]; moves: RotationMoves | undefined } {
  const most = Math.max(0, ...lifters.map((one) => one.sets.length));
  const turns: Array<{ lifter: number; set: number; totalKg: number }> = [];
  for (let set = 0; set < most; set++)
    lifters.forEach((one, lifter) => {
      const totalKg = one.sets[set]?.loadKg;
      if (totalKg !== undefined) turns.push({ lifter, set, totalKg });
    });
  if (turns.length < 2) return { lifters: [...lifters], moves: undefined };
  const sides = new Map<string, FrozenLifter["sets"][number]["side"]>();
  let moves = 0;
  let alone = 0;
  let start: FrozenLifter["sets"][number]["side"] = [];
  for (let from = 0; from < turns.length; from += PIECE) {
    const piece = turns.slice(from, from + PIECE);
    const plan = planSequence(
      gear,
      piece.map((turn) => turn.totalKg),
      { start },
    );
    if (!plan.ok) return { lifters: [...lifters], moves: undefined };
    piece.forEach((turn, i) => {
      sides.set(`${turn.lifter}/${turn.set}`, plan.steps[i]?.side ?? []);
    });
    moves += plan.moves;
    alone += plan.movesOnePlan;
    start = plan.steps.at(-1)?.side ?? start;
  }
  return {
    moves: { moves, alone },
    lifters: lifters.map((one, lifter) => ({
      ...one,
      plates: Object.fromEntries(
        one.sets.flatMap((set, i) => {
          const side = sides.get(`${lifter}/${i}`);
          return side ? [[set.key, side]] : [];
        }),
      ),
    })),
  };
}
