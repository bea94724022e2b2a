import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import {
  addBoxSetup,
  addFaultNote,
  addLadderMarks,
  boxSetups,
  markRehearsed,
} from "../../../db/queries/box.server";
import { listVariants } from "../../../db/queries/maxes.server";
import { keepSetup, setupsOf } from "../../../db/queries/person.server";
import { athleteById } from "../../../db/queries/squads.server";
import type { BoxSetupForm, FaultForm, FoundWeightForm, TrialForm } from "../../forms/box";
import { now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";
import { boxCardWithin } from "./box-card.server";
import { NO_ATHLETE } from "./read-athlete.server";

/** Keeps a set-up: a new one asks for a rehearsal again. */
export function keepBoxSetup(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof BoxSetupForm>,
): Promise<Outcome<{ styleId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    // What refuses a style is read where the set-up is written: nothing comes in between.
    const card = await boxCardWithin(tx, athleteId);
    if (!card.ok) return card;
    const verdict = card.value.styles.find((one) => one.id === input.styleId);
    if (verdict?.verdict === "refused" && input.styleNote.length < 3)
      return failed(
        "refused",
        `${verdict.reasons.join(" ")} Choose another style, or write a note to set this aside.`,
      );
    await addBoxSetup(tx, {
      id: uuidv7(),
      athleteId,
      variantId: input.variantId,
      styleId: input.styleId,
      contact: input.contact,
      distanceCm: input.distanceCm ?? null,
      cues: input.cues,
      styleNote: input.styleNote,
      freeSquatSigned: input.freeSquatSigned,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ styleId: input.styleId });
  });
}

/** Keeps a trial seat with the rest of the lift's set-up as it stands. */
export function keepTrial(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof TrialForm>,
): Promise<Outcome<{ seatCm: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person) return NO_ATHLETE;
    const old = (await setupsOf(tx, athleteId)).find((one) => one.variantId === input.variantId);
    const { teamId: _team, ...kept } = old ?? { teamId: "", id: uuidv7(), athleteId };
    await keepSetup(tx, {
      ...kept,
      ...input,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ seatCm: input.boxSeatCm });
  });
}

export function tickRehearsal(
  principal: Principal,
  athleteId: string,
): Promise<Outcome<{ on: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const [box] = await boxSetups(tx, athleteId);
    if (!box) return failed("no-setup", "Keep a set-up first: the rehearsal belongs to it.");
    const person = await athleteById(tx, athleteId);
    const places = await readPlaces(tx);
    const on = person ? places.todayOf(person) : places.today;
    await markRehearsed(tx, box.id, { on, by: principal.name });
    return done({ on });
  });
}

export function noteFault(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof FaultForm>,
): Promise<Outcome<{ fault: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person) return NO_ATHLETE;
    await addFaultNote(tx, {
      id: uuidv7(),
      athleteId,
      fault: input.fault,
      date: (await readPlaces(tx)).todayOf(person),
      percent: input.percent ?? null,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ fault: input.fault });
  });
}

/** Keeps a speed weight that was found: plans by the found weight stand on it from now on. */
export function keepFoundWeight(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof FoundWeightForm>,
): Promise<Outcome<{ count: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person) return NO_ATHLETE;
    const variant = (await listVariants(tx)).find((one) => one.id === input.variantId);
    if (variant?.lift !== "box-squat")
      return failed("no-variant", "Choose a box squat of your team: the weight belongs to it.");
    await addLadderMarks(tx, [
      {
        id: uuidv7(),
        athleteId,
        rungId: "light-doubles",
        outcome: "passed",
        date: (await readPlaces(tx)).todayOf(person),
        note: input.note,
        load: input.load,
        variantId: variant.id,
        enteredBy: principal.name,
        enteredAt: now(),
      },
    ]);
    return done({ count: 1 });
  });
}
