import type { Refusal } from "../maxes/limits";
import type { Goal } from "../maxes/season";

/** What a box slot is for. */
export const PURPOSES = {
  depth: "learn depth",
  power: "hip power",
  load: "the same work with less load",
  bottom: "a harder bottom",
  rebound: "break the rebound",
} as const;
export type Purpose = keyof typeof PURPOSES;

export const ROLES = { main: "main lift", accessory: "accessory" } as const;
export type Role = keyof typeof ROLES;

/** How the body meets the box; the trunk stays braced in every one. */
export const CONTACTS = {
  touch: "touch, no weight on the box",
  tight: "sit and stay tight",
  weight: "give weight and stay tight",
  relax: "relax the hips and fire, trunk braced",
} as const;
export type Contact = keyof typeof CONTACTS;

export interface BoxStyle {
  id: string;
  name: string;
  assumes: string;
  contact: Contact;
  /** Crease over the knee that the box is built for, and how far off it may be, cm. */
  offsetCm: number;
  underCm: number;
  overCm: number;
  /** A style that asks for a stop: bounces are looked for. */
  stops: boolean;
  /** Rocks back and forward: off by default, with the spine caution. */
  rocks: boolean;
  cues: string[];
}

/** Coaching practice, docs/sources.md: no study sets one over the other. */
export const BOX_STYLES: readonly BoxStyle[] = [
  {
    id: "wide",
    name: "Wide, sat back",
    assumes: "The hips can open wide, and the bar stays over the foot while the shins stand up.",
    contact: "weight",
    offsetCm: 0,
    underCm: 0,
    overCm: 2.5,
    stops: true,
    rocks: false,
    cues: [
      "Hips back first",
      "Full stop, chest leaned as it was",
      "Knees out, drive the floor apart",
    ],
  },
  {
    id: "athletic",
    name: "Athletic stance, stop without rocking",
    assumes: "The stance of the sport is the stance of the lift.",
    contact: "tight",
    offsetCm: 0,
    underCm: 0,
    overCm: 2.5,
    stops: true,
    rocks: false,
    cues: ["Down between the feet", "Stop, nothing moves", "Up as one piece"],
  },
  {
    id: "touch",
    name: "Light touch",
    assumes: "The box marks depth only; the legs carry the load all the way.",
    contact: "touch",
    offsetCm: 0,
    underCm: 2.5,
    overCm: 0,
    stops: false,
    rocks: false,
    cues: ["Feel it, do not sit", "Same speed down as without the box"],
  },
  {
    id: "competition",
    name: "Competition stance, sat firmly",
    assumes: "Unequipped lifter: lowered under control to the depth that will be judged.",
    contact: "weight",
    offsetCm: -1,
    underCm: 1.5,
    overCm: 1,
    stops: true,
    rocks: false,
    cues: ["Control down", "Firm seat, trunk locked", "Drive through mid-foot"],
  },
  {
    id: "rock",
    name: "Rock back",
    assumes: "Known from some gyms; under load it bends the spine between box and bar.",
    contact: "weight",
    offsetCm: 0,
    underCm: 0,
    overCm: 2.5,
    stops: true,
    rocks: true,
    cues: ["Only without a bar, as a hip drill"],
  },
];

export const SPINE_CAUTION =
  "No weight on the spine between box and bar beyond the style: no dropping, no rocking, trunk braced.";

export const styleById = (id: string | undefined): BoxStyle | undefined =>
  BOX_STYLES.find((one) => one.id === id);

/** Under this much training a lifter counts as a novice on the box, years. */
export const NOVICE_YEARS = 1;
export const OLDER_YEARS = 60;

export interface EligibilityInput {
  style: BoxStyle;
  contact: Contact;
  athlete: {
    trainingYears: number | undefined;
    /** In the year of the day, where it is known and may be used. */
    age: number | undefined;
    /** A limit holds on the squat: sore knees, a back. The instruction only, never the reason. */
    squatLimit: string | undefined;
    goal: Goal | undefined;
    /** Ladder: the rungs up to the found speed weight are passed. */
    ladderDone: boolean;
    /** The rung that is worked on; undefined once all are passed. */
    rungName?: string | undefined;
    /** A coach signed the free squat off. */
    freeSquatSigned: boolean;
  };
  refusals: readonly Refusal[];
  /** The school's rule for beginners. */
  beginners: "ladder" | "after-free" | "never";
  rockingAllowed: boolean;
  relaxAllowed: boolean;
}

export type Eligibility = {
  verdict: "allowed" | "accessory" | "refused";
  reasons: string[];
  /** What is offered in place of what is refused. */
  instead?: string;
};

/** Said by age to those who may know ages; others are told to ask a coach. */
export const OLDER_ON_BOX_WORDS = "From 60 on the box is a way round: sat back, or a light touch.";

/**
 * Whether an athlete may do a style, as main lift or as accessory only; a refusal can be set
 * aside by a coach with a note. Cautions of DOMAIN 9, 12, 14; the groups refused by default come
 * from the athlete's limits and age.
 */
export function eligibility(input: EligibilityInput): Eligibility {
  const { style, athlete } = input;
  const refused: string[] = [];
  let instead: string | undefined;
  const accessory: string[] = [];
  const says = (guarded: string) => input.refusals.filter((one) => one.guarded === guarded);
  if (style.rocks) {
    for (const one of says("rocking")) refused.push(`Rocking: ${one.because}`);
    if (!input.rockingAllowed) refused.push(`Rocking back is off by default. ${SPINE_CAUTION}`);
    else accessory.push("Only as a hip drill without a bar.");
    instead = "Instead: a stop without rocking.";
  }
  if (input.contact === "relax") {
    for (const one of says("relax-and-fire")) refused.push(`Relax and fire: ${one.because}`);
    if (!input.relaxAllowed)
      refused.push(
        "Relax and fire is off by default: only the hips let go, the trunk stays braced.",
      );
    instead = "Instead: sit and stay tight.";
  }
  const novice = athlete.trainingYears !== undefined && athlete.trainingYears < NOVICE_YEARS;
  if (novice && input.beginners === "never") {
    refused.push("This school keeps novices off the box.");
    instead = "Instead: the free squat.";
  }
  if (novice && input.beginners === "after-free" && !athlete.freeSquatSigned) {
    refused.push("This school asks for the free squat to be signed off first.");
    instead = "Instead: the free squat, until a coach signs it off.";
  }
  if (novice && input.beginners === "ladder" && !athlete.ladderDone) {
    accessory.push("A novice comes up the teaching ladder first.");
    instead = `Instead: the ladder${athlete.rungName ? `, ${athlete.rungName.toLowerCase()}` : ""}.`;
  }
  if (athlete.squatLimit !== undefined && style.id !== "wide")
    accessory.push(
      `A limit holds on the squat (${athlete.squatLimit}); sat back with upright shins asks least of the knee.`,
    );
  if (
    athlete.age !== undefined &&
    athlete.age >= OLDER_YEARS &&
    style.id !== "wide" &&
    style.id !== "touch"
  )
    accessory.push(OLDER_ON_BOX_WORDS);
  if (athlete.goal === "competition-lifting" && style.id !== "competition")
    accessory.push("A competition lifter's main squat is in the stance that is judged.");
  const offer = instead === undefined ? {} : { instead };
  if (refused.length > 0) return { verdict: "refused", reasons: refused, ...offer };
  if (accessory.length > 0) return { verdict: "accessory", reasons: accessory, ...offer };
  return { verdict: "allowed", reasons: [] };
}
