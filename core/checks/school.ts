import { styleById } from "../boxsquat/styles";
import { TEMPLATE_NAMES, type Template } from "../plan/block";
import { BASIS_NAMES, type BasisKind } from "../recipe/basis";
import type { Aim, ResistanceConvention } from "../recipe/recipe";

export const SPEED_WORK = ["all-year", "sport-only", "none"] as const;
export const SPEED_WORK_NAMES: Record<(typeof SPEED_WORK)[number], string> = {
  "all-year": "all year",
  "sport-only": "only for speed in the sport, else volume waves",
  none: "none",
};

export const BOX_PLACES = ["ladder", "after-free", "never"] as const;
export const BOX_PLACE_NAMES: Record<(typeof BOX_PLACES)[number], string> = {
  ladder: "from day one, by the ladder",
  "after-free": "after a coach signs off the free squat",
  never: "never for a novice",
};

export const RESISTANCE_USE = ["always", "experienced", "little"] as const;
export const RESISTANCE_USE_NAMES: Record<(typeof RESISTANCE_USE)[number], string> = {
  always: "always",
  experienced: "for the experienced",
  little: "little or none for the upper body",
};

export const ENDINGS = ["fixed", "loss", "floor", "eye"] as const;
export const ENDING_NAMES: Record<(typeof ENDINGS)[number], string> = {
  fixed: "fixed reps",
  loss: "loss of velocity",
  floor: "a floor",
  eye: "the coach's eye",
};

export const BREATHING = ["held", "at-the-box", "free"] as const;
export const BREATHING_NAMES: Record<(typeof BREATHING)[number], string> = {
  held: "breath held from top to top",
  "at-the-box": "a short second breath on the box, trunk braced",
  free: "as the lifter breathes",
};

/**
 * A school of practice: the rules by which a plan is checked, as settings. A team starts from a
 * shipped one and changes it; every warning names the school that it came from.
 */
export interface School {
  name: string;
  /** What it takes for granted, in one sentence. */
  assumes: string;
  loadBy: BasisKind;
  /** Rest in speed work, s. */
  rest: { leastS: number; mostS: number };
  /** Most reps of a speed set, and of a power set or jump; least rest of power work, s. */
  speedReps: number;
  powerReps: number;
  powerRestS: number;
  order: Template;
  speedWork: (typeof SPEED_WORK)[number];
  convention: ResistanceConvention;
  /** Whether total reps are held against mean intensity (Prilepin's totals). */
  totals: boolean;
  /** A variation is not used again within so many waves. */
  reuseGapWaves: number;
  /** Deload and test after so many weeks. */
  deloadAfterWeeks: number;
  /** Hours between heavy and speed work for a pattern. */
  heavySpeedHours: number;
  /** From this squat over body mass, heavy work comes every so many weeks. */
  strongFrom: number;
  strongEveryWeeks: number;
  /** Heavy days a week that need no further question. */
  heavyDays: number;
  /** Hard sets a week per muscle. */
  hardSets: { least: number; most: number };
  /** Loss that ends a set by aim, %; absent: no loss limit. */
  loss: Partial<Record<Aim, number>>;
  resistance: (typeof RESISTANCE_USE)[number];
  ending: (typeof ENDINGS)[number];
  box: (typeof BOX_PLACES)[number];
  /** Ids of the styles that it teaches on the box, its own first. */
  boxStyles: string[];
  /** Whether the hips may let go on the box; minors and bad backs are refused by any school. */
  relaxAndFire: boolean;
  /** Whether rocking back is allowed as a hip drill without a bar. */
  rockingDrill: boolean;
  /** Breath at the bottom. */
  breathing: (typeof BREATHING)[number];
  /** What it hangs where it hangs anything, points or % as the recipe counts. */
  resistanceShare: { leastPercent: number; mostPercent: number };
}

/** A school as it was kept before styles on the box were rules. */
export type StoredSchool = Omit<
  School,
  "boxStyles" | "relaxAndFire" | "rockingDrill" | "breathing" | "resistanceShare"
> &
  Partial<School> & { boxStyle?: string };

/** What a school says of which it was never asked: coaching practice, docs/sources.md. */
export const SCHOOL_START = {
  relaxAndFire: false,
  rockingDrill: false,
  breathing: "held",
  resistanceShare: { leastPercent: 15, mostPercent: 30 },
} as const satisfies Partial<School>;

/** A stored school with every rule there is; the style of older ones was a sentence. */
export function schoolOf({ boxStyle, ...stored }: StoredSchool): School {
  const words = (boxStyle ?? "").toLowerCase();
  const named = ["wide", "athletic", "touch", "competition"].filter((id) => words.includes(id));
  return {
    ...SCHOOL_START,
    ...stored,
    boxStyles: stored.boxStyles ?? (named.length > 0 ? named : ["wide"]),
  };
}

/** The styles of a school on the box, in words. */
export const boxStyleWords = (school: School): string =>
  school.boxStyles
    .map((id) => styleById(id)?.name.toLowerCase())
    .filter((name) => name !== undefined)
    .join(", or ");

/** What two schools say otherwise, line by line; equal lines are left out unless asked for. */
export function compareSchools(
  a: School,
  b: School,
  all = false,
): Array<{ matter: string; a: string; b: string }> {
  const words = (school: School): Array<[string, string]> => [
    ["what sets the load", BASIS_NAMES[school.loadBy]],
    ["rest in speed work", `${school.rest.leastS} to ${school.rest.mostS} s`],
    ["most reps of a speed set", String(school.speedReps)],
    ["most reps of a power set", String(school.powerReps)],
    ["least rest in power work", `${school.powerRestS} s`],
    ["order", TEMPLATE_NAMES[school.order]],
    ["speed work", SPEED_WORK_NAMES[school.speedWork]],
    [
      "percentages count",
      { bar: "the bar only", lockout: "the lockout total", mean: "the mean over the range" }[
        school.convention
      ],
    ],
    ["total reps against intensity", school.totals ? "held to the totals" : "not counted"],
    ["a variation comes again after", `${school.reuseGapWaves} waves`],
    ["deload and test after", `${school.deloadAfterWeeks} weeks`],
    ["heavy to speed work of a pattern", `${school.heavySpeedHours} h`],
    [
      "very strong athletes lift heavy",
      `every ${school.strongEveryWeeks} weeks from ${school.strongFrom} × body mass`,
    ],
    ["heavy days a week", String(school.heavyDays)],
    ["hard sets a week per muscle", `${school.hardSets.least} to ${school.hardSets.most}`],
    [
      "a speed set ends at",
      school.loss.speed === undefined ? "no loss limit" : `${school.loss.speed} % loss`,
    ],
    ["bands and chains", RESISTANCE_USE_NAMES[school.resistance]],
    ["what ends a set", ENDING_NAMES[school.ending]],
    ["box squat for beginners", BOX_PLACE_NAMES[school.box]],
    ["style on the box", boxStyleWords(school)],
    ["relax and fire", school.relaxAndFire ? "allowed, hips only" : "off"],
    ["rocking back", school.rockingDrill ? "as a drill without a bar" : "off"],
    ["breath at the bottom", BREATHING_NAMES[school.breathing]],
    [
      "hangs in bands or chains",
      `${school.resistanceShare.leastPercent} to ${school.resistanceShare.mostPercent} %`,
    ],
  ];
  const other = words(b);
  return words(a)
    .map(([matter, text], i) => ({ matter, a: text, b: other[i]?.[1] ?? "" }))
    .filter((row) => all || row.a !== row.b);
}

export type SecondDay = "speed-wave" | "volume-wave" | "none";

/** What the second day's chooser looks at. Undefined is not known, and is said. */
export interface SecondDayFacts {
  /** The sport asks for speed of movement. */
  sportNeedsSpeed: boolean;
  trainingYears: number | undefined;
  /** Speed at equal load rose beyond noise in the last wave. */
  speedRose: boolean | undefined;
  /** Heavy days a week already planned. */
  heavyDays: number;
  inSeason: boolean;
}

/** Proposes a second day, with the reasons for and against each; the coach chooses. */
export function secondDay(
  school: School,
  facts: SecondDayFacts,
): { proposed: SecondDay; reasons: Array<{ for: SecondDay; text: string }> } {
  const reasons: Array<{ for: SecondDay; text: string }> = [];
  const say = (forWhat: SecondDay, text: string) => reasons.push({ for: forWhat, text });
  if (facts.trainingYears !== undefined && facts.trainingYears < 1) {
    say("volume-wave", "Under a year of training: practice and volume come before speed work.");
    return { proposed: "volume-wave", reasons };
  }
  if (facts.inSeason && facts.heavyDays >= school.heavyDays) {
    say("none", "In season with the heavy day planned: the sport is the second day.");
  }
  if (school.speedWork === "none") say("volume-wave", `${school.name} does no speed work.`);
  if (school.speedWork === "all-year")
    say("speed-wave", `${school.name} keeps speed work all year.`);
  if (school.speedWork === "sport-only") {
    say(
      facts.sportNeedsSpeed ? "speed-wave" : "volume-wave",
      facts.sportNeedsSpeed
        ? "The sport asks for speed, and the school does speed work for that."
        : "The sport does not ask for it: sets up and reps down instead.",
    );
  }
  if (facts.speedRose === false) {
    say("volume-wave", "Speed at equal load did not rise in the last wave: change what is done.");
  }
  if (facts.speedRose === true && school.speedWork !== "none") {
    say("speed-wave", "Speed at equal load rose in the last wave: it answers.");
  }
  const votes = (one: SecondDay) => reasons.filter((reason) => reason.for === one).length;
  const ranked: SecondDay[] = ["none", "speed-wave", "volume-wave"];
  const proposed = ranked.reduce((best, one) => (votes(one) > votes(best) ? one : best));
  return { proposed, reasons };
}
