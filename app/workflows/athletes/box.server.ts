import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { boxLoad } from "../../../core/boxsquat/boxload";
import { type DepthSet, depthLedger, isHighBox } from "../../../core/boxsquat/depth";
import { type FaultHistory, faultHistory } from "../../../core/boxsquat/faults";
import { holding, standing } from "../../../core/boxsquat/ladder";
import {
  boxHeightFromTrial,
  type SeatAnswer,
  type SeatBuild,
  seatFor,
} from "../../../core/boxsquat/stack";
import { BOX_STYLES, type Contact, eligibility, styleById } from "../../../core/boxsquat/styles";
import { limitHolds, refusals } from "../../../core/maxes/limits";
import { teamDefault } from "../../../core/review/teamdefaults";
import type { FrozenLifter } from "../../../core/session/frozen";
import { seatStock } from "../../../core/session/roomgear";
import { plainNumber } from "../../../core/units/mass";
import {
  addBoxSetup,
  addFaultNote,
  boxSetups,
  faultNotes,
  ladderMarks,
  markRehearsed,
  newestCard,
} from "../../../db/queries/box.server";
import { itemsOf } from "../../../db/queries/gear.server";
import { listVariants } from "../../../db/queries/maxes.server";
import { keepSetup, limitsOf, setupsOf } from "../../../db/queries/person.server";
import {
  coachValues,
  ensurePlanLibrary,
  listSchools,
} from "../../../db/queries/plan-library.server";
import { listPlans } from "../../../db/queries/plans.server";
import { faultsTagged, squatDays } from "../../../db/queries/sessions.server";
import { athleteById } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { BoxSetupForm, FaultForm, TrialForm } from "../../forms/box";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { trainingYears } from "../plan/prescribe-plan.server";
import { readMaxes } from "./resolve-maxes.server";
import { readPlaces } from "./today.server";

const NO_ATHLETE = failed("no-athlete", "This athlete is not in your team any more.");

/** What the room can build for an athlete's trial seat. */
async function seatOf(
  tx: TeamTransaction,
  roomId: string | undefined,
  trial: { boxSeatCm: number | null; boxCreaseCm: number | null } | undefined,
  style: (typeof BOX_STYLES)[number] | undefined,
): Promise<{ targetCm: number; answer: SeatAnswer; mats: string[] } | undefined> {
  if (roomId === undefined || trial?.boxSeatCm == null || trial.boxCreaseCm == null)
    return undefined;
  const targetCm = boxHeightFromTrial({
    seatCm: trial.boxSeatCm,
    creaseOverKneeCm: trial.boxCreaseCm,
    offsetCm: style?.offsetCm ?? 0,
  });
  const items = (await itemsOf(tx, roomId)).filter((one) => one.awayOn === null);
  const { bases, mats } = seatStock(items);
  const tolerance = style && { underCm: style.underCm, overCm: style.overCm };
  return {
    targetCm,
    answer: seatFor({ targetCm, bases, mats, ...(tolerance ? { tolerance } : {}) }),
    mats: mats.map((one) => one.name),
  };
}

/** A build in words: "Pin box at 36 cm + 1 × Thin mat". */
export const buildWords = (build: SeatBuild, mats: readonly string[]): string =>
  [
    `${build.base.name} at ${plainNumber(build.pinCm, 1)} cm`,
    ...build.mats.flatMap((n, i) => (n > 0 ? [`${n} × ${mats[i]}`] : [])),
  ].join(" + ");

/** What fits, else the nearest build; undefined where the room has nothing to build with. */
const builtOf = (answer: SeatAnswer): SeatBuild | undefined =>
  answer.ok ? answer.build : "nearest" in answer ? answer.nearest : undefined;

/** The set-up on the box of some athletes for one variant, as a rack's screen shows it. */
export async function rackSetups(
  tx: TeamTransaction,
  input: { athleteIds: readonly string[]; variantId: string; roomId: string },
): Promise<Map<string, Pick<FrozenLifter, "setup" | "box">>> {
  const rows = await boxSetups(tx);
  const found = new Map<string, Pick<FrozenLifter, "setup" | "box">>();
  for (const athleteId of input.athleteIds) {
    const box = rows.find(
      (one) => one.athleteId === athleteId && one.variantId === input.variantId,
    );
    const trial = (await setupsOf(tx, athleteId)).find((one) => one.variantId === input.variantId);
    const style = styleById(box?.styleId);
    const seat = await seatOf(tx, input.roomId, trial, style);
    const lines: string[] = [];
    if (seat?.answer.ok)
      lines.push(
        `Box ${plainNumber(seat.answer.build.heightCm, 1)} cm: ${buildWords(seat.answer.build, seat.mats)}`,
      );
    else if (seat && "nearest" in seat.answer)
      lines.push(
        `Box ${plainNumber(seat.answer.nearest.heightCm, 1)} cm is the nearest: ${buildWords(seat.answer.nearest, seat.mats)}, ${plainNumber(seat.targetCm, 1)} cm wanted`,
      );
    else lines.push("No box height yet: take a trial seat");
    if (box) {
      lines.push(
        [
          style?.name,
          box.distanceCm === null ? undefined : `heel ${plainNumber(box.distanceCm, 1)} cm`,
          box.rehearsedOn ? undefined : "NOT REHEARSED: empty bar first",
        ]
          .filter(Boolean)
          .join(" · "),
      );
    }
    const build = seat && builtOf(seat.answer);
    found.set(athleteId, {
      setup: lines,
      box: { heightCm: build?.heightCm, styleId: box?.styleId },
    });
  }
  return found;
}

/** What some athletes' squats and box squats came to: depth by day, and each fault's history. */
export async function boxHistories(
  tx: TeamTransaction,
  athleteIds: readonly string[],
  highBox = false,
): Promise<Map<string, { depth: DepthSet[]; faults: FaultHistory[] }>> {
  const [days, tagged, notes] = [
    await squatDays(tx, athleteIds),
    await faultsTagged(tx, athleteIds),
    await faultNotes(tx, athleteIds),
  ];
  const own = <T extends { athleteId: string }>(rows: readonly T[]) => {
    const by = new Map<string, T[]>();
    for (const row of rows) by.set(row.athleteId, [...(by.get(row.athleteId) ?? []), row]);
    return by;
  };
  const [dayOf, tagOf, noteOf] = [own(days), own(tagged), own(notes)];
  return new Map(
    athleteIds.map((id) => {
      const squatted = dayOf.get(id) ?? [];
      const seen = [...(tagOf.get(id) ?? []), ...(noteOf.get(id) ?? [])].map(
        ({ fault, date, percent }) => ({ fault, date, percent: percent ?? undefined }),
      );
      return [
        id,
        {
          depth: squatted.map(
            ({ date, sets, lift }): DepthSet => ({
              date,
              sets,
              depth: lift === "box-squat" && highBox ? "high-box" : "full",
            }),
          ),
          faults: faultHistory(
            seen,
            squatted.map((one) => one.date),
          ),
        },
      ];
    }),
  );
}

/** The same of one athlete. */
export async function boxHistory(tx: TeamTransaction, athleteId: string, highBox = false) {
  const found = (await boxHistories(tx, [athleteId], highBox)).get(athleteId);
  return found ?? { depth: [], faults: [] };
}

/** One athlete on the box: set-up card, styles allowed, ladder, faults, depth, box from free. */
export function readBoxCard(principal: Principal, athleteId: string) {
  return inTeam(principal, async (tx) => {
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
    const seat = await seatOf(tx, room?.id, setup, style);
    const built = seat && builtOf(seat.answer);
    const overCm = built?.offCm ?? 0;
    const history = await boxHistory(tx, athleteId, isHighBox(overCm));
    const held = limits.filter((one) => limitHolds(one, today));
    const squatLimit = held.find(
      (one) => one.lift === undefined || one.lift === "squat" || one.lift === "box-squat",
    );
    const stand = standing(marks.map((one) => ({ ...one, by: one.enteredBy })));
    // The school of the squad's newest plan, else the first: its rule for beginners.
    const plan = (await listPlans(tx)).find((one) => one.plan.squadId === person.squadId);
    const schools = (await listSchools(tx)).map((one) => one.school);
    const school = schools.find((one) => one.name === plan?.plan.block.school) ?? schools[0];
    const refused = refusals({
      limits: held,
      birthYear: person.birthYear ?? undefined,
      lift: "box-squat",
      today,
    });
    const maxes = (await readMaxes(tx, () => today, athleteId))(athleteId);
    const values = await coachValues(tx);
    const squat = variants.find((one) => one.lift === "squat" && one.baseKind === "own");
    const free = squat && maxes.of(squat.id);
    const freeKg = free && "max" in free ? free.max.kg : undefined;
    const found = marks.find((one) => one.rungId === "light-doubles" && one.outcome === "passed");
    return done({
      person: { id: person.id, name: person.name, unit: person.unit },
      today,
      roomName: room?.name,
      school: school?.name ?? "",
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
        on: box.enteredAt.toISOString().slice(0, 10),
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
            trainingYears: trainingYears(person.trainingSince, today),
            age:
              person.birthYear === null ? undefined : Number(today.slice(0, 4)) - person.birthYear,
            squatLimit: squatLimit?.instruction,
            goal: person.goal ?? undefined,
            ladderDone: stand.ready,
            freeSquatSigned: box?.freeSquatSigned ?? false,
          },
          refusals: refused,
          beginners: school?.box ?? "ladder",
          rockingAllowed: false,
          relaxAllowed: false,
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
          note: found.note,
        },
      },
      faults: history.faults,
      depth: depthLedger(history.depth, today, {
        weeks: teamDefault(values, "depthWeeks"),
        percent: teamDefault(values, "fullDepthPercent"),
      }),
      speedHoldsPercent: teamDefault(values, "speedHoldsPercent"),
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
              unit: person.unit ?? "kg",
            }),
      card: card && { version: card.version, cues: card.cues },
    });
  });
}

export type BoxCard = Extract<Awaited<ReturnType<typeof readBoxCard>>, { ok: true }>["value"];

/** Keeps a set-up: a new one asks for a rehearsal again. */
export async function keepBoxSetup(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof BoxSetupForm>,
): Promise<Outcome<{ styleId: string }>> {
  const card = await readBoxCard(principal, athleteId);
  if (!card.ok) return card;
  const verdict = card.value.styles.find((one) => one.id === input.styleId);
  if (verdict?.verdict === "refused" && input.styleNote.length < 3)
    return failed(
      "refused",
      `${verdict.reasons.join(" ")} Choose another style, or write a note to set this aside.`,
    );
  return inTeam(principal, async (tx) => {
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
  return inTeam(principal, async (tx) => {
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
  return inTeam(principal, async (tx) => {
    const [box] = await boxSetups(tx, athleteId);
    if (!box) return failed("no-setup", "Keep a set-up first: the rehearsal belongs to it.");
    const on = localDate("UTC");
    await markRehearsed(tx, box.id, { on, by: principal.name });
    return done({ on });
  });
}

export function noteFault(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof FaultForm>,
): Promise<Outcome<{ fault: string }>> {
  return inTeam(principal, async (tx) => {
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
