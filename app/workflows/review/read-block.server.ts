import { lastDate } from "../../../core/plan/block";
import { compareProfiles } from "../../../core/profile/compare";
import { massKg } from "../../../core/units/mass";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import {
  listVariants,
  recordsOf,
  singlesOf,
  type VariantRow,
} from "../../../db/queries/maxes.server";
import { physicalResults, physicalTests } from "../../../db/queries/physical.server";
import { listPlans } from "../../../db/queries/plans.server";
import { profileTests } from "../../../db/queries/profiles.server";
import { listAthletes } from "../../../db/queries/squads.server";
import { type LiftPoint, liftPoints } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";
import type { Principal } from "../../platform/rights";
import { analyseTest, datedProfile } from "../lifters/analyse-test.server";
import { overSums } from "../lifters/session-sums.server";
import { testedQualities } from "../lifters/tested-changes.server";
import { givenToParent } from "./for-parent.server";

/** Blocks that the chooser lists. */
const MOST_LISTED = 60;

/** A block by its tests: each athlete before and after, one opened as a report of a page. */
export async function readBlock(
  principal: Principal,
  asked: { planId: string; athleteId: string; typed: Readonly<Record<string, number>> },
) {
  return overSums(principal, async (tx) => {
    const rows = await listPlans(tx);
    const begun = rows.filter((row) => row.plan.startDate <= localDate(row.zone));
    const blocks = begun.slice(0, MOST_LISTED).map((row) => ({
      planId: row.plan.id,
      name: `${row.plan.name} · ${row.squadName}`,
      from: row.plan.startDate,
    }));
    const row =
      rows.find((one) => one.plan.id === asked.planId) ??
      begun.find((one) => lastDate(one.plan.block) < localDate(one.zone)) ??
      begun[0];
    if (!row) return { blocks, block: undefined };
    const { block } = row.plan;
    const today = localDate(row.zone);
    const from = block.startDate;
    const last = lastDate(block);
    const to = last.localeCompare(today) < 0 ? last : today;
    const squad = await listAthletes(tx, row.plan);
    const ids = squad.map((one) => one.id);
    const shared = {
      variants: await listVariants(tx),
      records: await recordsOf(tx, ids),
      tests: await physicalTests(tx),
      results: await physicalResults(tx),
      points: (await liftPoints(tx, { athleteIds: ids, from })).filter(
        (one) => one.planId === row.plan.id,
      ),
    };
    const lifts = liftsOfBlock(block.slots, shared.variants);
    const people = squad.map((person) => personOf(person, shared, { lifts, from }));
    const opened = squad.find((one) => one.id === asked.athleteId) ?? squad[0];
    return {
      blocks,
      block: {
        planId: row.plan.id,
        name: row.plan.name,
        squadName: row.squadName,
        from,
        to,
        weeks: block.weeks,
        over: last <= today,
      },
      people,
      opened: opened && {
        ...personOf(opened, shared, { lifts, from }),
        qualities: testedQualities({
          tests: shared.tests,
          all: shared.results,
          athleteId: opened.id,
          since: from,
          typed: asked.typed,
        }),
        given: await givenToParent(tx, { athleteId: opened.id, planName: row.plan.name }),
        profiles: await profileShifts(tx, opened.id, lifts, from),
        box: boxRatio(shared.variants, shared.records, opened.id, from),
      },
    };
  });
}

export type BlockPage = Awaited<ReturnType<typeof readBlock>>;

function liftsOfBlock(
  slots: Parameters<typeof lastDate>[0]["slots"],
  variants: readonly VariantRow[],
): VariantRow[] {
  const ids = new Set(
    Object.values(slots).flatMap((slot) =>
      slot.work.kind === "lift" ? [slot.work.variantId] : [],
    ),
  );
  return variants.filter((one) => ids.has(one.id));
}

interface Shared {
  records: Awaited<ReturnType<typeof recordsOf>>;
  points: readonly LiftPoint[];
  tests: Awaited<ReturnType<typeof physicalTests>>;
  results: Awaited<ReturnType<typeof physicalResults>>;
}

/** One athlete's block in a line: what was done, maxes before and since, tests that changed. */
function personOf(
  person: { id: string; name: string },
  shared: Shared,
  of: { lifts: readonly VariantRow[]; from: LocalDate },
) {
  const own = shared.points.filter((one) => one.athleteId === person.id);
  const sum = (pick: (one: LiftPoint) => number) => own.reduce((n, one) => n + pick(one), 0);
  return {
    id: person.id,
    name: person.name,
    sessions: new Set(own.map((one) => one.sessionId)).size,
    setsDone: sum((one) => one.points.setsDone),
    setsPlanned: sum((one) => one.points.setsPlanned),
    cut: sum((one) => one.points.cut),
    tonnageKg: sum((one) => one.points.tonnageKg),
    maxes: of.lifts.map((lift) => ({
      lift: lift.name,
      ...recordsAround(shared.records, person.id, lift.id, of.from),
    })),
    changes: testedQualities({
      tests: shared.tests,
      all: shared.results,
      athleteId: person.id,
      since: of.from,
    }).map(({ testName, side, change, before, after, unit, decimals }) => ({
      testName,
      side,
      unit,
      decimals,
      tested: before !== undefined && after !== undefined,
      change: change && { difference: change.difference, verdict: change.verdict },
    })),
  };
}

/** The newest lifted record up to a day, and the best since. */
function recordsAround(
  records: Shared["records"],
  athleteId: string,
  variantId: string,
  from: LocalDate,
) {
  const own = records.filter(
    (one) =>
      one.athleteId === athleteId &&
      one.variantId === variantId &&
      (one.kind === "tested" || one.kind === "competition"),
  );
  const before = own.find((one) => one.date <= from);
  const since = own.filter((one) => one.date > from);
  const best = since.reduce<(typeof since)[number] | undefined>(
    (most, one) => (most === undefined || massKg(one.load) > massKg(most.load) ? one : most),
    undefined,
  );
  return {
    before: before && { kg: massKg(before.load), date: before.date },
    after: best && { kg: massKg(best.load), date: best.date },
  };
}

/** How the line of each lift moved from before the block to since. */
async function profileShifts(
  tx: TeamTransaction,
  athleteId: string,
  lifts: readonly VariantRow[],
  from: LocalDate,
) {
  const singles = await singlesOf(tx, athleteId);
  const tests = await profileTests(tx, { of: athleteId, variantIds: lifts.map((one) => one.id) });
  return lifts.flatMap((lift) => {
    const dated = tests
      .filter((test) => test.variantId === lift.id)
      .flatMap((test) => datedProfile(analyseTest(test, lift, singles), lift.id) ?? []);
    const before = dated.find((one) => one.testedOn <= from);
    const after = dated.find((one) => one.testedOn > from);
    if (!before && !after) return [];
    const shift = before && after ? compareProfiles(before, after) : undefined;
    return [
      {
        lift: lift.name,
        before: before?.testedOn,
        after: after?.testedOn,
        shift: shift?.ok
          ? {
              ok: true as const,
              words: shift.words,
              working: shift.working,
              atLoads: shift.atLoads,
            }
          : shift && { ok: false as const, reason: shift.reason },
      },
    ];
  });
}

/** The box squat over the free squat, before and since, each from records of their own. */
function boxRatio(
  variants: readonly VariantRow[],
  records: Shared["records"],
  athleteId: string,
  from: LocalDate,
) {
  const box = variants.find((one) => one.lift === "box-squat");
  const free = variants.find((one) => one.lift === "squat" && one.baseKind === "own");
  if (!box || !free) return undefined;
  const [b, f] = [
    recordsAround(records, athleteId, box.id, from),
    recordsAround(records, athleteId, free.id, from),
  ];
  const ratio = (x: { kg: number } | undefined, y: { kg: number } | undefined) =>
    x && y ? x.kg / y.kg : undefined;
  return {
    before: ratio(b.before, f.before),
    after: ratio(b.after ?? b.before, f.after ?? f.before),
    boxChangeKg: b.before && b.after ? b.after.kg - b.before.kg : undefined,
    freeChangeKg: f.before && f.after ? f.after.kg - f.before.kg : undefined,
    apart: b.after && f.after ? Math.abs(daysBetween(b.after.date, f.after.date)) : undefined,
  };
}
