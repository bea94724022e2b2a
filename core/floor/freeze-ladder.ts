import { ladderStanding, passWords, type RungMark } from "../boxsquat/ladder";
import type { MassUnit } from "../units/mass";
import type { DayPart } from "./freeze";
import type { PlaceStation } from "./freeze-exercise";
import type { FrozenExercise } from "./frozen";

/** The one set of a ladder's slot: the rung that somebody stands on. */
export const RUNG_KEY = "rung";
const REST_S = 60;

/** Somebody of a squad on the teaching ladder, with the marks so far in their order. */
export interface LadderPerson {
  id: string;
  name: string;
  unit: MassUnit;
  instructions: readonly string[];
  marks: readonly RungMark[];
}

/**
 * The teaching ladder as a slot: everybody who is here with the rung to be passed, one tap each.
 * Who has passed all is not in it, and counts at the gate all the same.
 *
 * @param reps clean reps in a row that pass a rung, where the coach has set them
 * @returns undefined where nobody here is on a rung
 */
export function freezeLadder(input: {
  slotId: string;
  squad: readonly LadderPerson[];
  here: ReadonlySet<string>;
  reps: number | undefined;
  gate: NonNullable<FrozenExercise["ladder"]>["gate"];
  places: readonly PlaceStation[];
}): DayPart | undefined {
  const { places, reps } = input;
  const standings = input.squad.map((one) => ({ one, standing: ladderStanding(one.marks) }));
  const [place] = places;
  const athletes = standings.flatMap(({ one, standing: { rung } }) =>
    rung && input.here.has(one.id)
      ? [
          {
            athleteId: one.id,
            name: one.name,
            unit: one.unit,
            instructions: [...one.instructions],
            rung: { id: rung.id, name: rung.name, how: rung.how, pass: passWords(rung, reps) },
            sets: [
              {
                key: RUNG_KEY,
                number: 1,
                reps: reps ?? 1,
                loadKg: undefined,
                loadReason: undefined,
              },
            ],
          },
        ]
      : [],
  );
  if (!place || athletes.length === 0) return undefined;
  const slot: FrozenExercise = {
    kind: "exercise",
    slotId: input.slotId,
    section: "main",
    exerciseId: "",
    name: "Teaching ladder",
    pattern: "squat",
    counts: "reps",
    sides: "both",
    hands: 1,
    output: "none",
    rest: { leastS: REST_S, mostS: REST_S },
    ladder: {
      gate: input.gate,
      squad: standings.map(({ one, standing }) => ({
        athleteId: one.id,
        name: one.name,
        passed: standing.passed.length,
      })),
    },
    groups: [{ stationId: place.id, athletes }],
  };
  return {
    slot,
    stations: [place],
    cautions: ["No dropping on to the box, no rocking; down a rung where it is not clean."],
    leftOut: new Map(),
  };
}
