import { loadBar, stepFrom } from "../../../core/barload/load";
import { GUARDED_NAMES, refusals } from "../../../core/maxes/limits";
import { lifetimeBestKg, trainingYears } from "../../../core/maxes/records";
import { competitionMark, describeMark } from "../../../core/maxes/season";
import { compareProfiles, weakerSide } from "../../../core/profile/compare";
import { usualPowerBand } from "../../../core/profile/power-band";
import { addDays, type LocalDate } from "../../../core/units/time";
import { earlierLoads, earlierSets } from "../../../db/queries/earlier.server";
import { racksOf } from "../../../db/queries/gear.server";
import {
  currentChoices,
  listVariants,
  recordsOf,
  singlesOf,
} from "../../../db/queries/maxes.server";
import { notesWith } from "../../../db/queries/notes.server";
import {
  bodyMasses,
  competitions,
  dayNotes,
  limitsOf,
  setupsOf,
} from "../../../db/queries/person.server";
import { coachValues, listSchools } from "../../../db/queries/plan-library.server";
import { decisionsOf, newestProfiles, profileTests } from "../../../db/queries/profiles.server";
import { sessionsFor } from "../../../db/queries/sessions.server";
import { athleteById, type InSquads, listAthletes } from "../../../db/queries/squads.server";
import { type LiftPoint, liftPoints } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { analyseTest, datedProfile } from "../lifters/analyse-test.server";
import { readGroupCalls } from "../lifters/group-calls.server";
import { readNextDays } from "../lifters/next-days.server";
import { mayKnowReasons, noteFor, wordsFor } from "../lifters/public-words.server";
import { athleteMaxes } from "../lifters/resolve-maxes.server";
import { readAnswers } from "../lifters/sent-answers.server";
import { overSums } from "../lifters/session-sums.server";
import { callOf, decidedOf } from "../lifters/shown-call.server";
import { readChanges } from "../lifters/tested-changes.server";
import { toDosOf } from "../lifters/to-dos.server";
import { readPlaces } from "../lifters/today.server";
import { readBoxSummary } from "./box-summary.server";
import { readContrast } from "./contrast.server";
import { liftGlance } from "./lift-glance.server";

export const NO_ATHLETE = failed("no-athlete", "This athlete is not in your team. Open the list.");

/** Newest notes that a page shows. */
const NOTES_SHOWN = 3;

/** Days that speeds at one load look back: as in trends. */
const LOOK_BACK_DAYS = 365;

/** Newest sets of an imported sheet that a page shows. */
const EARLIER_SHOWN = 40;

/** Everything on one person's page. Health notes only for those who may see them. */
export function readAthlete(principal: Principal, athleteId: string) {
  const mayEdit = mayKnowReasons(principal);
  return overSums(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person) return NO_ATHLETE;
    const places = await readPlaces(tx);
    const squad = places.squads.find((one) => one.id === person.squadId);
    const room = places.roomOf(person);
    const today = places.todayOf(person);
    const variants = await listVariants(tx);
    const records = await recordsOf(tx, athleteId);
    const choices = await currentChoices(tx, { of: athleteId });
    const maxes = athleteMaxes({ variants, choices, records, today });
    const tests = (await profileTests(tx, { of: athleteId })).map((test) => ({
      ...test,
      note: noteFor(principal, test.note),
    }));
    const singles = await singlesOf(tx, athleteId);
    const setups = await setupsOf(tx, athleteId);
    const masses = await bodyMasses(tx, athleteId);
    const limits = await limitsOf(tx, athleteId);
    const events = await competitions(tx, person);
    const mark = competitionMark(events, today);
    const decisions = await decisionsOf(tx, athleteId);
    const squadProfiles = await squadWindows(tx, person);
    const gear = room && (await racksOf(tx, room.id))[0]?.gear;

    const points = await liftPoints(tx, {
      athleteIds: [athleteId],
      from: addDays(today, -LOOK_BACK_DAYS),
    });
    const upNext = await readNextDays(tx, person);
    const nextDays = upNext.ok ? upNext.value.days : [];
    const asked = nextDays.flatMap((day) => day.slots);
    const values = await coachValues(tx);
    const earlierBests = await earlierLoads(tx, athleteId);

    const lifts = variants.map((variant) => {
      const own = records.filter((record) => record.variantId === variant.id);
      const found = maxes.of(variant.id);
      const choice = choices.find((one) => one.variantId === variant.id);
      const analysed = tests
        .filter((test) => test.variantId === variant.id)
        .map((test) => analyseTest(test, variant, singles));
      const withLine = analysed.filter((test) => test.result.ok);
      const [newest, before] = withLine;
      const a = before && datedProfile(before, variant.id);
      const b = newest && datedProfile(newest, variant.id);
      const compared = a && b ? compareProfiles(a, b) : undefined;
      const squadLines = squadProfiles.filter((one) => one.variantId === variant.id);
      const at = gear && loadBar(gear, "max" in found ? found.max.kg / 2 : 40, "down");
      const next = gear && at?.ok ? stepFrom(gear, at.totalKg, 0.01) : undefined;
      return {
        id: variant.id,
        name: variant.name,
        lift: variant.lift,
        band: usualPowerBand(variant.lift, values),
        caution: variant.caution,
        resolved: found,
        learnt: maxes.learnt.get(variant.id),
        baseKind: variant.baseKind,
        chosen: choice && {
          recordId: choice.record.id,
          by: choice.chosenBy,
          factor: choice.factor,
        },
        bestKg: lifetimeBestKg(
          own,
          earlierBests.filter((one) => one.variantId === variant.id).map((one) => one.load),
        ),
        records: own.map(({ id, load, date, kind, note, enteredBy }) => ({
          id,
          load,
          date,
          kind,
          note,
          enteredBy,
        })),
        tests: analysed.map(({ id, date, metric, source, result }) => ({
          id,
          date,
          metric,
          source,
          v0Mps: result.ok ? result.line.v0Mps : undefined,
          l0Kg: result.ok ? result.line.l0Kg : undefined,
          oneRmKg: result.ok ? result.oneRepMax?.kg : undefined,
        })),
        profile: newest,
        compared: compared && { with: before?.date, result: compared },
        weaker: b
          ? weakerSide(
              { v0Mps: b.analysis.line.v0Mps, heavyKg: b.analysis.line.l0Kg },
              squadLines.map((one) => ({ v0Mps: one.line.v0Mps, heavyKg: one.line.l0Kg })),
            )
          : undefined,
        setup: setups.find((one) => one.variantId === variant.id),
        refused: refusals({
          limits,
          birthYear: person.birthYear ?? undefined,
          lift: variant.lift,
          today,
        }).map((one) => ({
          name: GUARDED_NAMES[one.guarded],
          because: wordsFor(principal, one.because),
        })),
        glance: liftGlance({
          history: points.filter((one) => one.variantId === variant.id),
          maxKg: "max" in found ? found.max.kg : undefined,
          profile: newest ?? analysed[0],
          today,
          asked: asked
            .filter((slot) => slot.variantId === variant.id)
            .flatMap((slot) => slot.sets.flatMap((set) => set.truePercent ?? [])),
        }),
        stepKg: at?.ok && next ? next.totalKg - at.totalKg : undefined,
      };
    });

    const inSquad = squad ? await listAthletes(tx, squad.id) : [];
    const at = inSquad.findIndex((one) => one.id === person.id);
    const waiting = mayEdit
      ? await readGroupCalls(tx, person.squadId ?? person.id, today)
      : undefined;
    return done({
      today,
      upNext: nextDays,
      /** Who stands before and after in the squad, by name. */
      beside: {
        at: at + 1,
        of: inSquad.length,
        before: inSquad[at - 1]?.id,
        after: at < 0 ? undefined : inSquad[at + 1]?.id,
      },
      groupId: person.squadId ?? person.id,
      calls: (waiting?.calls ?? [])
        .filter((call) => call.athleteId === athleteId)
        .map((call) => callOf(call, waiting?.decided ?? [])),
      decidedToday: (waiting?.decided ?? [])
        .filter((call) => call.athleteId === athleteId && call.date === today && !call.undoneAt)
        .map(decidedOf),
      lastDays: lastDays(points),
      person: {
        id: person.id,
        name: person.name,
        goal: person.goal,
        seasonPhase: person.seasonPhase,
        birthYear: mayEdit ? person.birthYear : null,
        trainingSince: person.trainingSince,
        trainingYears: trainingYears(person.trainingSince ?? undefined, today),
        unit: person.unit,
        schoolId: person.schoolId,
        statureCm: person.statureCm,
        ownSport: person.sport,
        sport: person.sport ?? squad?.sport ?? "",
        squadId: person.squadId,
        alsoIn: person.alsoIn,
        squadName: squad?.name ?? "",
        roomId: person.roomId,
        roomName: room?.name ?? "",
        note: mayEdit ? person.note : "",
        archived: person.archivedAt !== null,
        erased: person.erasedAt !== null,
      },
      schools: (await listSchools(tx)).map(({ id, school }) => ({ id, name: school.name })),
      squads: places.squads.map(({ id, name }) => ({ id, name })),
      rooms: places.rooms.map(({ id, name }) => ({ id, name })),
      masses: masses.map(({ id, date, mass, enteredBy }) => ({ id, date, mass, enteredBy })),
      competitions: events.map(({ id, name, date, athleteId: own }) => ({
        id,
        name,
        date,
        own: own !== null,
      })),
      /** What age alone refuses by default; the age itself is not said by it. */
      byAge: refusals({
        limits: [],
        birthYear: person.birthYear ?? undefined,
        lift: "",
        today,
      }).map((one) => GUARDED_NAMES[one.guarded].toLowerCase()),
      mark: mark && { words: describeMark(mark), refused: mark.testingRefused },
      limits: limits.map((limit) => ({
        ...limit,
        enteredAt: places.dayOf(person)(limit.enteredAt),
        liftName: limit.lift,
      })),
      lifts,
      box: await readBoxSummary(tx, athleteId, room?.id, variants),
      contrast: await readContrast(tx, athleteId, today),
      answers: await readAnswers(tx, { athleteId }),
      changes: await readChanges(tx, athleteId),
      agreed: (await toDosOf(tx, athleteId, today)).map(({ id, proposal, date, enteredBy }) => ({
        id,
        proposal,
        date,
        by: enteredBy,
      })),
      noted: mayEdit
        ? (await notesWith(tx, { words: "", aboutIds: [athleteId], most: NOTES_SHOWN })).map(
            ({ id, kind, date, words, enteredBy }) => ({ id, kind, date, words, by: enteredBy }),
          )
        : [],
      decisions: decisions.slice(0, 5).map((one) => ({
        id: one.id,
        date: one.date,
        decision: one.decision,
        plannedKg: one.plannedKg,
        proposedKg: one.proposedKg,
        decidedKg: one.decidedKg,
        targetMps: one.targetMps,
        reason: mayEdit ? one.reason : "",
        by: one.enteredBy,
      })),
      earlier: (await earlierSets(tx, athleteId, EARLIER_SHOWN)).map((one) => ({
        id: one.id,
        date: one.date,
        lift: variants.find((variant) => variant.id === one.variantId)?.name ?? "",
        sets: one.sets,
        reps: one.reps,
        load: one.load,
        velocityMps: one.velocityMps,
      })),
      notes: mayEdit ? await dayNotes(tx, athleteId) : undefined,
      sessions: (await sessionsFor(tx, person, 8)).map(({ id, date, title, status }) => ({
        id,
        date,
        title,
        status,
      })),
    });
  });
}

/** Training days that the margin draws. */
const DAYS_SHOWN = 5;

/** The newest days of lifts: sets done, and those that ended early. */
function lastDays(points: readonly LiftPoint[]) {
  const days = new Map<string, { sessionId: string; date: LocalDate; done: number; cut: number }>();
  for (const { sessionId, date, points: sum } of points) {
    const day = days.get(sessionId) ?? { sessionId, date, done: 0, cut: 0 };
    day.done += sum.setsDone;
    day.cut += sum.cut;
    days.set(sessionId, day);
  }
  return [...days.values()]
    .filter((day) => day.done > 0)
    .slice(-DAYS_SHOWN)
    .reverse();
}

/** The newest lines of a squad, for where an athlete stands in it. */
async function squadWindows(tx: TeamTransaction, { id, squadId }: InSquads) {
  const squad = squadId === null ? [{ id }] : await listAthletes(tx, squadId);
  return newestProfiles(tx, { of: squad.map((one) => one.id) });
}
