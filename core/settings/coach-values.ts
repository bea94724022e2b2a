/**
 * What only a coach can set. Each ships unset: a rule that needs one says "not set" and guesses
 * nothing. One page lists them all, unset ones first.
 */
export interface CoachValueSpec {
  key: string;
  name: string;
  unit: string;
  low: number;
  high: number;
  /** What it decides, and what happens while it is not set. */
  why: string;
}

/** The lifts by the middle of their settings' keys, with the range of a floor, m/s. */
const PER_LIFT = [
  { key: "Squat", name: "speed squats", low: 0.2, high: 1.5 },
  { key: "BoxSquat", name: "speed box squats", low: 0.2, high: 1.5 },
  { key: "Bench", name: "speed bench presses", low: 0.15, high: 1.2 },
  { key: "Press", name: "speed overhead presses", low: 0.15, high: 1.2 },
  { key: "Deadlift", name: "speed deadlifts", low: 0.15, high: 1.5 },
  { key: "TrapBar", name: "speed trap-bar deadlifts", low: 0.15, high: 1.5 },
  { key: "BenchPull", name: "speed bench pulls", low: 0.3, high: 1.8 },
  { key: "PullUp", name: "speed pull-ups", low: 0.2, high: 1.5 },
  { key: "HipThrust", name: "speed hip thrusts", low: 0.2, high: 1.5 },
] as const;

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Who is younger does a squad's day with a coach; the team's own number goes before it. Years. */
export const ALONE_FROM_AGE = 18;

export const COACH_VALUES: readonly CoachValueSpec[] = [
  {
    key: "deloadSets",
    name: "Sets in a deload, of the sets",
    unit: "×",
    low: 0.1,
    high: 1,
    why: "How many sets of a deload week are left. Not set: the sets stay as they are.",
  },
  {
    key: "deloadLoad",
    name: "Load in a deload, of the load",
    unit: "×",
    low: 0.3,
    high: 1,
    why: "How much of the load is left. Not set: a deload week has no loads.",
  },
  {
    key: "competitionFactor4",
    name: "Load four to three weeks before a competition",
    unit: "×",
    low: 0.5,
    high: 1.05,
    why: "Multiplies loads 28 to 15 days before. Not set: loads stay, and the plan asks.",
  },
  {
    key: "competitionFactor2",
    name: "Load in the last two weeks before a competition",
    unit: "×",
    low: 0.5,
    high: 1.05,
    why: "Multiplies loads 14 to 0 days before. Not set: loads stay, and the plan asks.",
  },
  {
    key: "afterCompetition",
    name: "Load in the fortnight after a competition",
    unit: "×",
    low: 0.5,
    high: 1.05,
    why: "Not set: loads stay, and the plan asks. No testing in that fortnight.",
  },
  ...PER_LIFT.map(({ key, name, low, high }) => ({
    key: `floor${key}Mps`,
    name: `Floor of ${name}`,
    unit: "m/s",
    low,
    high,
    why:
      key === "BoxSquat"
        ? "Proposed to new speed slots as the floor that ends a set, and ends the search for a speed weight. Not set: the squat's."
        : key === "Press"
          ? "Proposed to new speed slots as the floor that ends a set. Not set: the bench press's."
          : "Proposed to new speed slots as the floor that ends a set. Not set: no floor.",
  })),
  ...PER_LIFT.flatMap(({ key, name }) =>
    (
      [
        ["strengthSpeed", "strength-speed"],
        ["speedStrength", "speed-strength"],
        ["absoluteSpeed", "absolute speed"],
      ] as const
    ).map(([from, words]) => ({
      key: `${from}${key}Mps`,
      name: `${capital(name.replace("speed ", ""))}: ${words} from`,
      unit: "m/s",
      low: 0.05,
      high: 4,
      why: "Parts the four speed classes; a set measured in another class says so. Not all three set: not judged.",
    })),
  ),
  ...(["Squat", "Press"] as const).flatMap((lift) =>
    (["From", "To"] as const).map((end) => ({
      key: `power${lift}${end}Percent`,
      name: `Usual peak of power in ${lift === "Squat" ? "squats" : "presses"}, ${end.toLowerCase()}`,
      unit: "% 1RM",
      low: 0,
      high: 100,
      why: "A group's usual band stands beside the athlete's own peak, labelled. Not set: the own peak stands alone.",
    })),
  ),
  {
    key: "fastShareOffSeason",
    name: "Fast work off season, of all sets",
    unit: "%",
    low: 0,
    high: 100,
    why: "Stands beside each week's fast and slow sets. Not set: no comparison.",
  },
  {
    key: "fastSharePreSeason",
    name: "Fast work before the season, of all sets",
    unit: "%",
    low: 0,
    high: 100,
    why: "Stands beside each week's fast and slow sets. Not set: no comparison.",
  },
  {
    key: "fastShareInSeason",
    name: "Fast work in season, of all sets",
    unit: "%",
    low: 0,
    high: 100,
    why: "Stands beside each week's fast and slow sets. Not set: no comparison.",
  },
  {
    key: "sprintMetres",
    name: "Sprint metres a week that keep speed",
    unit: "m",
    low: 0,
    high: 2000,
    why: "The weekly dose of a quality that is kept up. Not set: metres are shown without it.",
  },
  {
    key: "jumpContacts",
    name: "Jump contacts a week that keep spring",
    unit: "",
    low: 0,
    high: 1000,
    why: "The weekly dose of a quality that is kept up. Not set: contacts are shown without it.",
  },
  {
    key: "smallestStopS",
    name: "Smallest stop on the box",
    unit: "s",
    low: 0.05,
    high: 2,
    why: "A shorter stop is a bounce. Not set: nothing is flagged.",
  },
  {
    key: "mostContactMps",
    name: "Fastest meeting with the box",
    unit: "m/s",
    low: 0.05,
    high: 2,
    why: "Faster, and the rack asks whether the athlete dropped onto it. Not set: it never asks.",
  },
  {
    key: "ladderReps",
    name: "Clean reps in a row that pass a rung of the box ladder",
    unit: "",
    low: 1,
    high: 50,
    why: "Stands with each rung's pass mark. Not set: the mark is in words alone.",
  },
  {
    key: "speedWeightStepKg",
    name: "Step on the way up to a speed weight",
    unit: "kg",
    low: 0.5,
    high: 20,
    why: "The next double that is proposed. Not set: the coach chooses the next bar.",
  },
  {
    key: "steppingOutKg",
    name: "Pull to step out of hooks against, at most",
    unit: "kg",
    low: 0,
    high: 100,
    why: "More warns. Not set: named, not judged.",
  },
  {
    key: "leastAnchorKg",
    name: "Least anchor weight of an unbolted rack, a side",
    unit: "kg",
    low: 0,
    high: 500,
    why: "Less is refused. Not set: named, not judged.",
  },
  {
    key: "stallExposures",
    name: "Days of one variation before a stall is called",
    unit: "days",
    low: 3,
    high: 60,
    why: "A review then asks whether the rise is too small. Not set: nobody stalls.",
  },
  {
    key: "baseStepPercent",
    name: "Step of a base that a review raises or lowers",
    unit: "%",
    low: 0.5,
    high: 10,
    why: "What a call proposes. Not set: the coach says by how much.",
  },
  {
    key: "aloneFromAge",
    name: "Age from which an athlete trains a squad's day alone",
    unit: "years",
    low: 0,
    high: 99,
    why: `On a phone of their own, without a coach beside. Not set: ${ALONE_FROM_AGE}. 0: everybody.`,
  },
];

export type CoachValues = Readonly<Record<string, number | undefined>>;

/** All of them with the team's number, unset ones first. */
export function listCoachValues(values: CoachValues) {
  return [...COACH_VALUES]
    .map((spec) => ({ ...spec, value: values[spec.key] }))
    .sort((a, b) => Number(a.value !== undefined) - Number(b.value !== undefined));
}
