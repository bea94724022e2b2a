import type { CoachValues } from "./coach-values";
import { type DefaultKey, USUAL } from "./usual";
import { type ReviewKey, USUAL_REVIEW } from "./usual-review";

/**
 * Thresholds that coaches disagree about and that have a usual value, with where it comes from and
 * what it decides. The numbers stand in usual.ts, without these words: what reads one asks there.
 */
export interface DefaultSpec {
  key: string;
  name: string;
  unit: string;
  low: number;
  high: number;
  fallback: number;
  /** What it decides. */
  why: string;
  source: string;
}

const PRACTICE = "coaching practice, no study";

const SPECS: Record<DefaultKey | ReviewKey, Omit<DefaultSpec, "key" | "fallback">> = {
  changeHands: {
    name: "People who change a rack together",
    unit: "",
    low: 1,
    high: 4,
    why: "A rack's moves are shared between them: the change takes so much less.",
    source: PRACTICE,
  },
  turnSeconds: {
    name: "From one lifter to the next, where nothing is changed",
    unit: "s",
    low: 0,
    high: 120,
    why: "The walk to the bar: changes come on top.",
    source: PRACTICE,
  },
  platesSeconds: {
    name: "A plate put on or off, one side",
    unit: "s",
    low: 0,
    high: 120,
    why: "What a change of a rack costs when groups and orders are looked for, and how long the simulated day takes for it.",
    source: PRACTICE,
  },
  hooksSeconds: {
    name: "Hooks set to another hole",
    unit: "s",
    low: 0,
    high: 120,
    why: "What a change of a rack costs when groups and orders are looked for, and how long the simulated day takes for it.",
    source: PRACTICE,
  },
  pinsSeconds: {
    name: "Safeties or a box pin set to another hole",
    unit: "s",
    low: 0,
    high: 120,
    why: "What a change of a rack costs when groups and orders are looked for, and how long the simulated day takes for it.",
    source: PRACTICE,
  },
  matsSeconds: {
    name: "A mat put on or off a seat",
    unit: "s",
    low: 0,
    high: 120,
    why: "What a change of a rack costs when groups and orders are looked for, and how long the simulated day takes for it.",
    source: PRACTICE,
  },
  boxesSeconds: {
    name: "A box exchanged",
    unit: "s",
    low: 0,
    high: 120,
    why: "What a change of a rack costs when groups and orders are looked for, and how long the simulated day takes for it.",
    source: PRACTICE,
  },
  bandsSeconds: {
    name: "A band or chain put on or off, one side",
    unit: "s",
    low: 0,
    high: 120,
    why: "What a change of a rack costs when groups and orders are looked for, and how long the simulated day takes for it.",
    source: PRACTICE,
  },
  pairingLossPercent: {
    name: "Output lost against round 1 that proposes the end",
    unit: "%",
    low: 1,
    high: 50,
    why: "Output is what says that enough is done.",
    source: PRACTICE,
  },
  pairingEarlyPercent: {
    name: "Share of the planned rest under which a start is early",
    unit: "%",
    low: 10,
    high: 100,
    why: "A pairing's start under it says so.",
    source: PRACTICE,
  },
  pairingSamePercent: {
    name: "Change within which output is the same",
    unit: "%",
    low: 0,
    high: 20,
    why: "Over it output is better or fading, and a load that is looked for goes up.",
    source: "about one jump's own spread",
  },
  complexGapLeastS: {
    name: "Shortest gap of a dense complex",
    unit: "s",
    low: 0,
    high: 120,
    why: "A shorter gap is named.",
    source: PRACTICE,
  },
  complexGapMostS: {
    name: "Longest gap of a dense complex",
    unit: "s",
    low: 5,
    high: 240,
    why: "A longer gap is named.",
    source: PRACTICE,
  },
  potentiationLeastS: {
    name: "Gap under which little potentiation is seen",
    unit: "s",
    low: 0,
    high: 900,
    why: "A shorter gap after a heavy lift is named. An athlete's own gap comes first.",
    source: "Seitz & Haff 2016, means of groups",
  },
  pairingSquatPerBody: {
    name: "Squat over body mass before a pairing",
    unit: "×",
    low: 0.5,
    high: 3,
    why: "Who squats less is offered the simpler version.",
    source: PRACTICE,
  },
  pairingTrainingYears: {
    name: "Years of barbell training before a pairing",
    unit: "yr",
    low: 0,
    high: 10,
    why: "Who has trained less is offered the simpler version.",
    source: PRACTICE,
  },
  pairingRoundRestS: {
    name: "Rest between rounds that keeps output",
    unit: "s",
    low: 0,
    high: 600,
    why: "A shorter rest is named: watch whether output holds.",
    source: PRACTICE,
  },
  lightJumpBodyPercent: {
    name: "Heaviest light jump, of body mass",
    unit: "%",
    low: 0,
    high: 100,
    why: "Over it the jump is a lift.",
    source: PRACTICE,
  },
  lightJumpMaxPercent: {
    name: "Heaviest light jump, of a max",
    unit: "%",
    low: 0,
    high: 100,
    why: "Over it the jump is a lift.",
    source: PRACTICE,
  },
  gateSharePercent: {
    name: "Share of a group that opens the gate to heavy box work",
    unit: "%",
    low: 1,
    high: 100,
    why: "Rounded up to whole athletes.",
    source: PRACTICE,
  },
  gateWeeks: {
    name: "Weeks before the gate opens",
    unit: "weeks",
    low: 0,
    high: 12,
    why: "However many have passed.",
    source: PRACTICE,
  },
  holdWeeksMost: {
    name: "Longest hold of a found speed weight",
    unit: "weeks",
    low: 1,
    high: 8,
    why: "After it the card reminds.",
    source: PRACTICE,
  },
  fullDepthPercent: {
    name: "Squat sets to full depth beside a high box",
    unit: "%",
    low: 0,
    high: 100,
    why: "The depth ledger asks for it.",
    source: PRACTICE,
  },
  depthWeeks: {
    name: "Weeks that the depth ledger looks back",
    unit: "weeks",
    low: 1,
    high: 12,
    why: "Older sets do not count.",
    source: PRACTICE,
  },
  boxFreeLeastPercent: {
    name: "Box squat of the free squat, least",
    unit: "%",
    low: 30,
    high: 110,
    why: "Until the athlete's own records give a ratio.",
    source: PRACTICE,
  },
  boxFreeMostPercent: {
    name: "Box squat of the free squat, most",
    unit: "%",
    low: 30,
    high: 110,
    why: "Until the athlete's own records give a ratio.",
    source: PRACTICE,
  },
  bouncesThatCut: {
    name: "Bounces in a row that end a set on the box",
    unit: "reps",
    low: 1,
    high: 5,
    why: "Where a smallest stop is set. One is asked about, and the second says it is no slip.",
    source: PRACTICE,
  },
  overheadEveryWeeks: {
    name: "Weeks from one overhead press among the accessories to the next",
    unit: "weeks",
    low: 1,
    high: 12,
    why: "Closer together, a plan's check says so.",
    source: PRACTICE,
  },
  primerMostReps: {
    name: "Most reps of a primer",
    unit: "reps",
    low: 3,
    high: 60,
    why: "A primer wakes up; more of it tires, and a plan's check says so.",
    source: PRACTICE,
  },
  fewCutPercent: {
    name: "Sets cut that still count as few",
    unit: "%",
    low: 0,
    high: 100,
    why: "A review raises a base only under it.",
    source: PRACTICE,
  },
  riseChancePercent: {
    name: "Chance from which speed at equal load counts as risen or fallen",
    unit: "%",
    low: 60,
    high: 99.9,
    why: "Under it a review says unclear, and proposes neither a raise nor a lower base.",
    source:
      "one-sided 5 %; measured on made-up athletes: at most one in ten without a change is called",
  },
  smallestRiseMps: {
    name: "Smallest rise of speed in a wave that counts",
    unit: "m/s",
    low: 0.001,
    high: 0.1,
    why: "A stall is a high chance of less.",
    source: PRACTICE,
  },
  stallChancePercent: {
    name: "Chance from which a stall is called",
    unit: "%",
    low: 50,
    high: 99,
    why: "That the rise is under the smallest that counts. The coach's number of exposures comes first.",
    source: PRACTICE,
  },
  fadePercent: {
    name: "Speed lost over a day's sets that asks for longer rest",
    unit: "%",
    low: 1,
    high: 40,
    why: "From the first set to the last at one load, called where nine chances in ten lie over it.",
    source: PRACTICE,
  },
  fadeRestS: {
    name: "Rest that is added where speed fades over the sets",
    unit: "s",
    low: 5,
    high: 300,
    why: "For one athlete in one slot; the review proposes it.",
    source: PRACTICE,
  },
  floorUnderPercent: {
    name: "How far a floor of an athlete's own stands under their best",
    unit: "%",
    low: 5,
    high: 50,
    why: "The review proposes one where the slot's floor lies elsewhere by more than noise.",
    source: "velocity loss of power work, 10 to 15 % (DOMAIN 7)",
  },
  trendWeeks: {
    name: "Weeks that a review of speed at equal load looks back",
    unit: "weeks",
    low: 3,
    high: 104,
    why: "Older days do not count: what was long ago says little of now.",
    source: "weekly days of 9 to 15 weeks settle a rise of 0.03 m/s a wave in four of five",
  },
  profileDays: {
    name: "Days after which a profile is old",
    unit: "days",
    low: 7,
    high: 365,
    why: "The review asks for a new test.",
    source: "as a max goes stale: day 56",
  },
};

export const TEAM_DEFAULTS: readonly DefaultSpec[] = Object.entries({
  ...USUAL,
  ...USUAL_REVIEW,
}).map(([key, fallback]) => ({ key, fallback, ...SPECS[key as DefaultKey | ReviewKey] }));

/** All of them with the team's number, in the order of the list. */
export function listTeamDefaults(values: CoachValues) {
  return TEAM_DEFAULTS.map((spec) => ({ ...spec, value: values[spec.key] }));
}
