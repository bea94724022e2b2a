import type { Rule } from "./rule";
import { afterBlock } from "./rules/after-block";
import { boxEligible } from "./rules/box-eligible";
import { boxFault } from "./rules/box-fault";
import { boxFirstWeek } from "./rules/box-first-week";
import { boxHigh } from "./rules/box-high";
import { boxPurpose } from "./rules/box-purpose";
import { boxRelax } from "./rules/box-relax";
import { boxRock } from "./rules/box-rock";
import { boxSeat } from "./rules/box-seat";
import { boxStop } from "./rules/box-stop";
import { boxStyle } from "./rules/box-style";
import { cap } from "./rules/cap";
import { competition } from "./rules/competition";
import { convention } from "./rules/convention";
import { dayTooLong } from "./rules/day-too-long";
import { deload } from "./rules/deload";
import { deloadUnset } from "./rules/deload-unset";
import { ending } from "./rules/ending";
import { firstTime } from "./rules/first-time";
import { fourSpeeds } from "./rules/four-speeds";
import { gone } from "./rules/gone";
import { grinding } from "./rules/grinding";
import { heavyDays } from "./rules/heavy-days";
import { heavyRefused } from "./rules/heavy-refused";
import { lossForSpeed } from "./rules/loss-for-speed";
import { muscleOver } from "./rules/muscle-over";
import { nextVariation } from "./rules/next-variation";
import { noBar } from "./rules/no-bar";
import { noBase } from "./rules/no-base";
import { noExercise } from "./rules/no-exercise";
import { noRest } from "./rules/no-rest";
import { noSpeedWork } from "./rules/no-speed-work";
import { novices } from "./rules/novices";
import { olderSpeeds } from "./rules/older-speeds";
import { openPeak } from "./rules/open-peak";
import { order } from "./rules/order";
import { otherBasis } from "./rules/other-basis";
import { overMax } from "./rules/over-max";
import { overhead } from "./rules/overhead";
import { overlap } from "./rules/overlap";
import { pairingAfterHeavy } from "./rules/pairing-after-heavy";
import { pairingComplex } from "./rules/pairing-complex";
import { pairingGone } from "./rules/pairing-gone";
import { powerRest } from "./rules/power-rest";
import { primerReps } from "./rules/primer-reps";
import { repsASet } from "./rules/reps-a-set";
import { repsForPower } from "./rules/reps-for-power";
import { repsForSpeed } from "./rules/reps-for-speed";
import { repsOverTotal } from "./rules/reps-over-total";
import { repsUnderTotal } from "./rules/reps-under-total";
import { resistanceNotHung } from "./rules/resistance-not-hung";
import { resistanceNovice } from "./rules/resistance-novice";
import { resistanceRefused } from "./rules/resistance-refused";
import { resistanceShare } from "./rules/resistance-share";
import { resistanceUse } from "./rules/resistance-use";
import { reuse } from "./rules/reuse";
import { roomTaken } from "./rules/room-taken";
import { spacing } from "./rules/spacing";
import { speedRest } from "./rules/speed-rest";
import { stale } from "./rules/stale";
import { template } from "./rules/template";
import { upperResistance } from "./rules/upper-resistance";
import { veryStrong } from "./rules/very-strong";
import { waveTooLong } from "./rules/wave-too-long";
import { weightHeld } from "./rules/weight-held";

/** Every rule of a plan, in the order in which a page tells them. A new one: its file, and its line here. */
export const RULES: readonly Rule[] = [
  gone,
  noExercise,
  noRest,
  afterBlock,
  waveTooLong,
  deloadUnset,
  repsForSpeed,
  repsForPower,
  powerRest,
  speedRest,
  primerReps,
  overMax,
  repsOverTotal,
  repsUnderTotal,
  repsASet,
  lossForSpeed,
  ending,
  olderSpeeds,
  noSpeedWork,
  otherBasis,
  grinding,
  upperResistance,
  resistanceUse,
  resistanceShare,
  convention,
  template,
  order,
  fourSpeeds,
  spacing,
  heavyDays,
  deload,
  reuse,
  nextVariation,
  overhead,
  overlap,
  dayTooLong,
  roomTaken,
  competition,
  muscleOver,
  noBar,
  noBase,
  firstTime,
  openPeak,
  weightHeld,
  stale,
  veryStrong,
  heavyRefused,
  resistanceRefused,
  resistanceNotHung,
  resistanceNovice,
  cap,
  novices,
  boxPurpose,
  boxSeat,
  boxEligible,
  boxStyle,
  boxRock,
  boxRelax,
  boxStop,
  boxHigh,
  boxFault,
  boxFirstWeek,
  pairingGone,
  pairingComplex,
  pairingAfterHeavy,
];
