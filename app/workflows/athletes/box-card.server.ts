import { boxLoad } from "../../../core/boxsquat/box-load";
import { depthLedger, isHighBox } from "../../../core/boxsquat/depth";
import { holding, ladderStanding } from "../../../core/boxsquat/ladder";
import { buildWords } from "../../../core/boxsquat/stack";
import { BOX_STYLES, type Contact, eligibility, styleById } from "../../../core/boxsquat/styles";
import { BREATHING_NAMES } from "../../../core/checks/school";
import { limitHolds, refusals } from "../../../core/maxes/limits";
import { trainingYears } from "../../../core/maxes/records";
import { coachFloor } from "../../../core/recipe/coach-floor";
import { teamDefault } from "../../../core/settings/usual";
import { boxSetups, ladderMarks, newestCard } from "../../../db/queries/box.server";
import { listVariants } from "../../../db/queries/maxes.server";
import { limitsOf, setupsOf } from "../../../db/queries/person.server";
import {
  coachValues,
  ensurePlanLibrary,
  listSchools,
} from "../../../db/queries/plan-library.server";
import { listPlans } from "../../../db/queries/plans.server";
import { newestProfiles } from "../../../db/queries/profiles.server";
import { athleteById, isFor, readTeam } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { inTeam } from "../../platform/database.server";
import { done } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { boxHistory } from "../lifters/box-history.server";
import { builtOf, seatOf, seatStockOf } from "../lifters/box-seat.server";
import { mayKnowReasons, wordsFor } from "../lifters/public-words.server";
import { readMaxes } from "../lifters/resolve-maxes.server";
import { readPlaces } from "../lifters/today.server";
import { NO_ATHLETE } from "./read-athlete.server";

/** One athlete on the box: set-up card, styles allowed, ladder, faults, depth, box from free. */
export async function readBoxCard(principal: Principal, athleteId: string) {
  const read = await inTeam(principal, (tx) => boxCardWithin(tx, athleteId));
  if (!read.ok) return read;
  const card = read.value;
  return done({
    ...card,
    box: card.box && {
      ...card.box,
      styleNote:
        card.box.styleNote && !mayKnowReasons(principal)
          ? "a coach's decision"
          : card.box.styleNote,
    },
    styles: card.styles.map((style) => ({
      ...style,
      reasons: [...style.reasons, ...(style.instead ? [style.instead] : [])].map((reason) =>
        wordsFor(principal, reason),
      ),
    })),
  });
}

/** The same within a transaction of the caller. */
export async function boxCardWithin(tx: TeamTransaction, athleteId: string) {
  const person = await athleteById(tx, athleteId);
  if (!person) return NO_ATHLETE;
  await ensurePlanLibrary(tx);
  const places = await readPlaces(tx);
  const today = places.todayOf(person);
  const room = places.roomOf(person);
  const variants = await listVariants(tx);
  const boxes = variants.filter((one) => one.lift === "box-squat");
  const [setups, boxRows, marks, limits, card] = [
    await setupsOf(tx, athleteId),
    await boxSetups(tx, athleteId),
    await ladderMarks(tx, athleteId),
    await limitsOf(tx, athleteId),
    await newestCard(tx),
  ];
  const variant = boxes.find((one) => boxRows[0]?.variantId === one.id) ?? boxes[0];
  const setup = setups.find((one) => one.variantId === variant?.id);
  const box = boxRows.find((one) => one.variantId === variant?.id);
  const style = styleById(box?.styleId) ?? BOX_STYLES[0];
  const seat = seatOf(await seatStockOf(tx, room?.id), setup, style);
  const built = seat && builtOf(seat.answer);
  const overCm = built?.offCm ?? 0;
  const history = await boxHistory(tx, athleteId, isHighBox(overCm));
  const held = limits.filter((one) => limitHolds(one, today));
  const squatLimit = held.find(
    (one) => one.lift === undefined || one.lift === "squat" || one.lift === "box-squat",
  );
  const stand = ladderStanding(marks.map((one) => ({ ...one, by: one.enteredBy })));
  // The school of the squad's newest plan, else the team's, else the first: its rule for beginners.
  const plan = (await listPlans(tx)).find((one) => isFor(one.plan, person));
  const schools = await listSchools(tx);
  const usual = (await readTeam(tx))?.schoolId;
  const { school } = schools.find((one) => one.id === person.schoolId) ??
    schools.find((one) => one.id === plan?.plan.block.schoolId) ??
    schools.find((one) => one.id === usual) ??
    schools[0] ?? { school: undefined };
  const refused = refusals({
    limits: held,
    birthYear: person.birthYear ?? undefined,
    lift: "box-squat",
    today,
  });
  const line = (
    await newestProfiles(tx, { of: athleteId, variantIds: variant ? [variant.id] : [] })
  ).find((one) => one.variantId === variant?.id);
  const maxes = (await readMaxes(tx, () => today, athleteId))(athleteId);
  const values = await coachValues(tx);
  const squat = variants.find((one) => one.lift === "squat" && one.baseKind === "own");
  const free = squat && maxes.of(squat.id);
  const freeKg = free && "max" in free ? free.max.kg : undefined;
  const found = marks.findLast((one) => one.load !== null);
  return done({
    person: { id: person.id, name: person.name, unit: person.unit },
    today,
    roomName: room?.name,
    school: school?.name ?? "",
    breathing: school && BREATHING_NAMES[school.breathing],
    variants: boxes.map(({ id, name }) => ({ id, name })),
    variant: variant && { id: variant.id, name: variant.name },
    setup: setup && {
      hook: setup.hook,
      safety: setup.safety,
      stance: setup.stance,
      note: setup.note,
      boxSeatCm: setup.boxSeatCm,
      boxCreaseCm: setup.boxCreaseCm,
    },
    box: box && {
      id: box.id,
      styleId: box.styleId,
      contact: box.contact as Contact,
      distanceCm: box.distanceCm,
      cues: box.cues,
      styleNote: box.styleNote,
      freeSquatSigned: box.freeSquatSigned,
      rehearsedOn: box.rehearsedOn,
      rehearsedBy: box.rehearsedBy,
      by: box.enteredBy,
      on: places.dayOf(person)(box.enteredAt),
    },
    seat: seat && {
      ...seat,
      words: built ? buildWords(built, seat.mats) : "",
    },
    instructions: held.map((one) => one.instruction),
    styles: BOX_STYLES.map((one) => ({
      id: one.id,
      ...eligibility({
        style: one,
        contact: box?.styleId === one.id ? (box.contact as Contact) : one.contact,
        athlete: {
          trainingYears: trainingYears(person.trainingSince ?? undefined, today),
          age: person.birthYear === null ? undefined : Number(today.slice(0, 4)) - person.birthYear,
          squatLimit: squatLimit?.instruction,
          goal: person.goal ?? undefined,
          ladderDone: stand.ready,
          rungName: stand.rung?.name,
          freeSquatSigned: box?.freeSquatSigned ?? false,
        },
        refusals: refused,
        beginners: school?.box ?? "ladder",
        rockingAllowed: school?.rockingDrill ?? false,
        relaxAllowed: school?.relaxAndFire ?? false,
      }),
    })),
    ladder: {
      ladderReps: values.ladderReps,
      rungId: stand.rung?.id,
      ready: stand.ready,
      marks: marks.map(({ rungId, outcome, date, note, enteredBy }) => ({
        rungId,
        outcome,
        date,
        note,
        by: enteredBy,
      })),
      holding: found && {
        ...holding(found.date, today, teamDefault(values, "holdWeeksMost")),
        load: found.load,
        variantName: boxes.find((one) => one.id === found.variantId)?.name ?? "",
        on: found.date,
      },
    },
    faults: history.faults,
    depth: depthLedger(history.depth, today, {
      weeks: teamDefault(values, "depthWeeks"),
      percent: teamDefault(values, "fullDepthPercent"),
    }),
    speedFloorMps: coachFloor("box-squat", values),
    speedWeightStepKg: values.speedWeightStepKg,
    ownLine: line && { ...line.line, testedOn: line.testedOn },
    fromFree:
      freeKg === undefined || !style
        ? undefined
        : boxLoad({
            baseKg: freeKg,
            base: "working-max",
            styleName: style.name,
            learnt: variant && maxes.learnt.get(variant.id),
            share: {
              least: teamDefault(values, "boxFreeLeastPercent"),
              most: teamDefault(values, "boxFreeMostPercent"),
            },
          }),
    card: card && { version: card.version, cues: card.cues },
  });
}

export type BoxCard = Extract<Awaited<ReturnType<typeof readBoxCard>>, { ok: true }>["value"];
