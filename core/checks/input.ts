import type { FaultHistory } from "../boxsquat/box-faults";
import type { EligibilityInput } from "../boxsquat/styles";
import type { Complex } from "../contrast/complex";
import type { ComplexSettings } from "../contrast/complex-checks";
import type { Pattern } from "../exercise/exercise";
import type { Block, Slot } from "../plan/block";
import type { RoomTimes } from "../plan/day-clock";
import type { HeaviestSet } from "../plan/heaviest";
import type { WorkFacts } from "../plan/week-sums";
import type { RecipeSettings } from "../recipe/recipe";
import type { CoachValues } from "../settings/coach-values";
import type { School } from "./school";

export type CheckLevel = "refused" | "warning" | "note";

export interface PlanCheck {
  /** Stays the same while the matter does: an answer with a reason hangs on it. */
  key: string;
  code: string;
  level: CheckLevel;
  text: string;
  /** School (or "Arithmetic", "Cautions") from which it comes. */
  from: string;
  slotId?: string;
  /** Week of the block that it is about, where it is about one. */
  week?: number;
  /** Ids of those whom it names; absent where it is about the plan itself. */
  athletes?: string[];
}

export interface CheckedWork extends WorkFacts {
  pattern: Pattern;
  /** The variation it is, for the reuse rule; lifts only. */
  variation: string | undefined;
  overhead: boolean;
  upperBody: boolean;
}

export interface CheckedOnBox {
  facts: EligibilityInput["athlete"];
  /** A coach's note sets a refused style aside for this athlete. */
  setAside: boolean;
  /** What the room builds for the newest trial seat; undefined where none was taken. */
  seat: { name: string; substitute: string | undefined; limitKg: number | undefined } | undefined;
  /** Undefined without a set-up. */
  rehearsed: boolean | undefined;
}

export interface CheckedAthlete {
  id: string;
  name: string;
  trainingYears: number | undefined;
  /** Squat working max over body mass, where both are known. */
  squatPerBody: number | undefined;
  /** Variants of the block for which there is a working max. */
  maxOf: ReadonlySet<string>;
  /** Working maxes older than the limit, by variant. */
  staleOf: ReadonlySet<string>;
  /** Kinds of work refused by default, with the words that may be shown. */
  refused: ReadonlyArray<{
    what: "heavy" | "bands-chains" | "max-test" | "relax";
    /** On this lift alone; undefined: on every one. */
    lift: string | undefined;
    because: string;
  }>;
  /** Cap on a lift, % of the max, from an instruction. */
  caps: ReadonlyArray<{ lift: string; percent: number }>;
  /** The school this athlete follows, where it is not the block's. */
  schoolId: string | undefined;
  /** What the athlete brings to the box; undefined where the block has none. */
  box: CheckedOnBox | undefined;
  /** Cured faults of the box that came back at a share of the max, %. */
  returns: ReadonlyArray<Pick<FaultHistory, "fault" | "returnsAt">>;
}

export interface CheckInput {
  block: Block;
  school: School;
  /** The team's schools, for slots and athletes that follow another than the block. */
  schools: Readonly<Record<string, School>>;
  settings: RecipeSettings;
  workOf: (slot: Slot, exerciseId: string | undefined) => CheckedWork | undefined;
  liftOf: (variantId: string) => { name: string; lift: string } | undefined;
  /** What the team has set; rules ask `teamDefault` by key, so that the usual numbers hold else. */
  coachValues: CoachValues;
  /** What the team checks complexes by; the usual numbers where it set none. */
  complexSettings?: ComplexSettings;
  /** A complex of the team's library; undefined where it is gone. */
  complexOf: (complexId: string) => Complex | undefined;
  athletes: readonly CheckedAthlete[];
  /** By slot, then by athlete: the heaviest set that it asks, by any basis. */
  heaviest: Readonly<Record<string, Readonly<Record<string, HeaviestSet>>>>;
  /** Slots whose bands or chains cannot be hung in the plan's room, for whom and why. */
  notHung: ReadonlyArray<{ slotId: string; athleteIds: readonly string[]; reason: string }>;
  /** Slots whose kind of bar stands on no rack of the plan's room. */
  noBar: ReadonlyArray<{ slotId: string; reason: string }>;
  /** The team's variations of a lift. */
  variationsOf: (lift: string) => readonly string[];
  /** Variations used in the waves before this block, newest first, one list a wave. */
  before: ReadonlyArray<readonly string[]>;
  /** Other blocks of the squad whose dates lie within this one's, with the lifts they share. */
  overlaps: ReadonlyArray<{ name: string; from: string; to: string; lifts: readonly string[] }>;
  /** Days of other plans in the same room that have a time. */
  inRoom: readonly RoomTimes[];
  /** Dates of competitions and the weeks they touch, as words. */
  competitionWeeks: ReadonlyArray<{ week: number; words: string; factorSet: boolean }>;
}
