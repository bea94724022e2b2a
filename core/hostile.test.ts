import { describe, expect, it } from "vitest";
import { testGear } from "./barload/fixtures/gear";
import { leastMoves } from "./barload/least-moves";
import { describeSide, loadBar, plateChange, stepFrom } from "./barload/load";
import { loadableTable } from "./barload/loadable";
import { barWorking, describeRefusal, loadingWorking, onBarWorking } from "./barload/loading-words";
import { rimOnBar } from "./barload/plate-rim";
import { movesWorking, planSequence, warmUpRamp } from "./barload/sequence";
import { stepsInZone } from "./barload/zone";
import * as boxFaults from "./boxsquat/box-faults";
import { boxLoad } from "./boxsquat/box-load";
import * as depth from "./boxsquat/depth";
import * as ladder from "./boxsquat/ladder";
import { boxLowering } from "./boxsquat/lowering";
import * as photo from "./boxsquat/photo";
import { offsetWords } from "./boxsquat/slot";
import * as stack from "./boxsquat/stack";
import * as stops from "./boxsquat/stops";
import * as styles from "./boxsquat/styles";
import { complexLength } from "./contrast/item-seconds";
import * as tonnage from "./exercise/tonnage";
import { dayFormCall } from "./liverules/day-form-call";
import { faultsFor } from "./liverules/lift-faults";
import { nearestWithin } from "./liverules/nearest-within";
import { nextLoad } from "./liverules/next-load";
import * as repRules from "./liverules/rep";
import { afterSet } from "./liverules/set";
import * as speedClasses from "./liverules/speed-class";
import * as athleteRows from "./maxes/athlete-rows";
import * as earlierRows from "./maxes/earlier-rows";
import * as liftNames from "./maxes/lift-names";
import * as limits from "./maxes/limits";
import * as recordRows from "./maxes/record-rows";
import * as records from "./maxes/records";
import * as repMax from "./maxes/rep-max";
import * as season from "./maxes/season";
import { readTestingDay } from "./maxes/testing-day";
import * as variants from "./maxes/variants";
import * as butterworth from "./numeric/butterworth";
import * as change from "./numeric/change";
import { type Example, example, hostile, made, unsound } from "./numeric/fixtures/hostile";
import * as hermite from "./numeric/hermite";
import * as normal from "./numeric/normal";
import * as random from "./numeric/random";
import { fitLine } from "./numeric/regression";
import { cubicBetween } from "./numeric/resample";
import { inverseSpd } from "./numeric/spd";
import * as statistics from "./numeric/statistics";
import * as student from "./numeric/student-t";
import { analyseProfile } from "./profile/analysis";
import * as compare from "./profile/compare";
import * as line from "./profile/line";
import { loadedJump } from "./profile/loaded-jump";
import * as power from "./profile/power";
import * as powerBand from "./profile/power-band";
import * as prediction from "./profile/prediction";
import * as readinessModule from "./profile/readiness";
import { restEffect } from "./profile/rest-effect";
import * as steps from "./profile/steps";
import * as targets from "./profile/target-speed";
import { testWidth } from "./profile/test-width";
import * as threshold from "./profile/threshold";
import * as todaysFormModule from "./profile/todays-form";
import * as basis from "./recipe/basis";
import { coachFloor, withCoachFloor } from "./recipe/coach-floor";
import { readPercentTable } from "./recipe/percent-table";
import * as recipes from "./recipe/recipe";
import * as speeds from "./recipe/speeds";
import { heightsFromStature, heightsKnown, wayBetween } from "./resistance/heights";
import * as rig from "./resistance/rig";
import { checkResistance, proposeSetups } from "./resistance/rig-checks";
import * as setup from "./resistance/setup";
import { resistanceForShare } from "./resistance/share";
import * as clock from "./units/clock";
import * as dateOrder from "./units/date-order";
import { readDecimal } from "./units/decimal";
import { unitNameOf, withFieldUnits, withUnit } from "./units/field-unit";
import { drawnTogether, readLength } from "./units/length";
import * as mass from "./units/mass";
import { formatPercent } from "./units/percent";
import * as text from "./units/text";
import * as time from "./units/time";
import * as velocityUnits from "./units/velocity";
import { workingIn } from "./units/working";
import { readIn, say, written } from "./units/written";
import { analyseStream } from "./velocity/analyse";
import * as force from "./velocity/force";
import { compareForces } from "./velocity/force-compare";
import { setsOf } from "./velocity/long-stream";
import { measureVisit, type Window } from "./velocity/measure";
import { fitPassage } from "./velocity/passage";
import { isOlder } from "./velocity/processing";
import { repTime } from "./velocity/rep-time";
import { type MeasuredRep, repVelocity, STREAM_DEFAULTS } from "./velocity/stream";
import { findTurns } from "./velocity/turns";
import { speedOfFrames } from "./velocity/video";

/**
 * Every exported function of the core's arithmetic is called rightly here, then with each number
 * and list of that call made hostile. Folders of rules over parsed data are left to their parsers:
 * what reaches them has passed app/forms.
 */
const PARSED = [
  "settings",
  "reading",
  "gear",
  "contrast",
  "plan",
  "floor",
  // Built from frozen sets and gear.
  "racks",
  "checks",
  "review",
  // Pictures and what was seen in them; track.test.ts has the bad ones.
  "track",
  // Athletes' facts from the database, by way of app/forms.
  "prescribe",
];

const kg = (amount: number) => ({ amount, unit: "kg" as const });
const day = (text: string) => text as time.LocalDate;
const gear = made(testGear([25, 20, 15, 10, 5, 2.5, 1.25]));
const points = [
  { x: 40, y: 1.21 },
  { x: 60, y: 0.99 },
  { x: 80, y: 0.78 },
  { x: 100, y: 0.55 },
  { x: 110, y: 0.46 },
];
const reps = points.map(({ x, y }, i) => ({ id: String(i), loadKg: x, velocityMps: y }));
const fit = fitLine(points);
if (!fit.ok) throw new Error("The example has a line.");
const theLine = line.loadVelocityLine(reps, "MCV");
if (!theLine.ok) throw new Error("The example has a line.");
const theThreshold = threshold.velocityThreshold({
  lift: "squat",
  metric: "MCV",
  teamMps: undefined,
  singles: [],
});
const analysis = analyseProfile({ reps, metric: "MCV", threshold: theThreshold });
if (!analysis.ok) throw new Error("The example is a profile.");
const record = {
  id: "r",
  load: kg(100),
  date: day("2026-02-01"),
  kind: "tested" as const,
  note: "",
};
const recordB = { ...record, id: "s", load: kg(70), date: day("2026-02-03") };
const today = day("2026-03-01");
const loading = loadBar(testGear([20, 10, 5]), 80);
if (!loading.ok) throw new Error("The example loads.");
const working = { title: "", lines: [] };
const wave = new Float64Array(Array.from({ length: 60 }, (_, i) => Math.sin(i / 7)));
const chain: setup.Resistance = {
  what: { kind: "chain", name: "C", densityKgPerM: 4, lengthM: 1.5, touchM: 1.2, folded: false },
  perSide: 1,
};
const band: setup.Resistance = {
  what: {
    kind: "band",
    name: "B",
    restM: 1,
    readings: [
      { lengthM: 1.2, tensionKg: 5 },
      { lengthM: 1.6, tensionKg: 15 },
    ],
    folded: false,
    anchorM: 0,
  },
  perSide: 1,
};
const heights = { bottomM: 1.1, lockoutM: 1.5 };
const curve = setup.resistanceCurve([chain, band], heights);
if (!curve.ok) throw new Error("The example pulls.");
const theRig: rig.Rig = {
  pieces: [chain],
  bottomKg: 5,
  lockoutKg: 15,
  meanKg: 10,
  heightsMeasured: true,
  extrapolated: false,
};
const stretched = hermite.hermiteCurve([
  { x: 1, y: 0 },
  { x: 1.2, y: 5 },
  { x: 1.6, y: 15 },
]);
if ("ok" in stretched && stretched.ok === false) throw new Error("The example bends.");
const recipe: recipes.Recipe = {
  name: "W",
  aim: "speed",
  school: "S",
  basis: "percent",
  start: 50,
  steps: [{ id: "s1", sets: 8, reps: 2, add: 0 }],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
  ],
  convention: "bar",
  rest: { leastS: 45, mostS: 75 },
  cycle: [],
  lead: "percent",
  stop: { lossFrom: "best", floorMps: 0.5 },
  target: { lowMps: 0.7, highMps: 0.9 },
};
const box = { id: "b", name: "Box", heightsCm: [30, 35, 40] };
const mats = [{ id: "m", name: "Mat", thicknessCm: 2, count: 4 }];
const built = stack.seatFor({ targetCm: 38, bases: [box], mats });
if (!built.ok) throw new Error("The example sits.");
const seatBuild = built.build;
const leg = { hip: { x: 10, y: 0 }, knee: { x: 12, y: 50 }, ankle: { x: 11, y: 100 } };
const otherLeg = { hip: { x: 60, y: 0 }, knee: { x: 58, y: 50 }, ankle: { x: 59, y: 100 } };
const level = [
  { x: 0, y: 0 },
  { x: 100, y: 2 },
] as const;
const boxRep = { pauseS: 0.4, bottomM: 0.9, greatestLoweringMps: 0.5, timeToPeakS: 0.3 };
const boxStyle = styles.BOX_STYLES[0] as styles.BoxStyle;
const facts: basis.BasisFacts = {
  maxKg: 100,
  line: made(theLine),
  peakForceMps: 0.8,
  peakPowerKg: 60,
  foundKg: undefined,
  bodyKg: 80,
};
const repsOfStream = (() => {
  const timesS = Array.from({ length: 600 }, (_, i) => i / 100);
  const heightsM = timesS.map((t) => 1 + 0.25 * Math.cos((2 * Math.PI * t) / 3));
  return { timesS, heightsM, reps: analyseStream({ timesS, heightsM }).reps };
})();
const visitWindow: Window = {
  heights: Float64Array.from(
    { length: 300 },
    (_, i) => 1 + 0.25 * Math.cos((2 * Math.PI * i) / 300),
  ),
  rateHz: 100,
  startS: 0,
  visit: {
    outcome: "counted",
    leaveTop: 20,
    from: 0,
    stayFrom: 20,
    bottom: 150,
    top: 299,
    decided: 299,
    fallBackM: 0,
    riseM: 0.5,
    loweredM: 0.5,
  },
};
const error = { value: 1.2, freedom: 20 };
const mark = {
  competition: { name: "Cup", date: day("2026-03-05") },
  days: 4,
  kind: "before" as const,
  testingRefused: true,
};
const now = { deviceId: "d", bootId: "b", monoMs: 1000, atMs: 1_770_000_000_000 };
const max = records.workingMax({ liftName: "Squat", record, factor: undefined, today });

/** Four points whose moments rise, and one between the middle two. */
const CUBIC = [0, 1, 1, 2, 2, 3, 3, 5, 1.5].map((one) => made(one)) as unknown as Parameters<
  typeof cubicBetween
>;

const EXAMPLES: Example[] = [
  // units
  example(clock.isOneClock, now, now),
  example(clock.secondsBetween, now, { ...now, monoMs: 2000 }),
  example(readDecimal, "1.5"),
  example(readLength, "40 cm", "cm"),
  example(offsetWords, 8),
  example(unitNameOf, made("load")),
  example(withUnit, made("225"), made("lb")),
  example(withFieldUnits, made([["load", "5"]] as Array<[string, string]>)),
  example(drawnTogether, made("17.5 in 44 cm")),
  example(written, 82.5, 1),
  example((kg: number) => say`${written(kg)} asked`, 82.5),
  example(say, made(Object.assign(["", " asked"], { raw: [] })), made(written(80))),
  example(workingIn, made(working), "kg" as const),
  example(readIn, made(written(80)), "kg" as const),
  example(mass.grains, made(kg(20))),
  example(mass.kgToGrains, made(20)),
  example(mass.grainsToKg, made(mass.kgToGrains(20))),
  example(mass.massKg, made(kg(20))),
  example(mass.massIn, made(mass.kgToGrains(20)), "lb"),
  example(mass.readMass, "82.5", "kg"),
  example(mass.plainNumber, 1.5, made(2)),
  example(mass.formatMass, kg(20)),
  example(mass.formatKg, 82.5, "kg", made(2)),
  example(formatPercent, 75, made(1)),
  example(text.cleanText, "a"),
  example(text.cleanValues, made({ a: 1 })),
  example(text.isClean, "a"),
  example(time.formatClock, 75),
  example(time.daysBetween, day("2026-01-01"), today),
  example(time.addDays, today, 3),
  example(time.dateAt, "UTC", new Date(0)),
  example(time.instantAt, "UTC", today, 1050),
  example(time.isDate, "2026-01-01"),
  example(velocityUnits.formatVelocity, 0.75),
  example(velocityUnits.formatAgainst, 0.75, 0.8),
  example(velocityUnits.keepVelocity, made(0.7512)),
  example(velocityUnits.isMeasured, "typed"),
  example(velocityUnits.isFilmed, "video"),
  example(velocityUnits.filmedWords, { filmed: true }),
  example(velocityUnits.areComparable, "sensor", "video"),
  // numeric
  example(butterworth.butterworthLowpass, made(7), made(100)),
  example(
    butterworth.filterBothWays,
    made(butterworth.butterworthLowpass(7, 100)),
    made(wave),
    made(9),
  ),
  example(butterworth.smoothZeroLag, made(wave), 100, 7),
  example(butterworth.derivative, made(wave), 100),
  example(change.typicalError, [
    [30, 31],
    [40, 40.5],
    [35, 34],
  ]),
  example(change.smallestWorthwhileChange, [30, 40, 35]),
  example(change.changeBetween, {
    before: 30,
    after: 33,
    error,
    worthwhile: 1,
    higherIsBetter: true,
    unit: "cm",
    decimals: made(1),
    trialsBefore: 2,
    trialsAfter: 2,
  }),
  example(change.testValue, [30, 31], true, "mean"),
  example(hermite.hermiteCurve, [
    { x: 1, y: 0 },
    { x: 1.2, y: 5 },
    { x: 1.6, y: 15 },
  ]),
  example(hermite.hermiteAt, made(stretched as hermite.HermiteCurve), made(1.3)),
  example(random.seededRandom, 1),
  example(random.seedFromText, "a"),
  example(fitLine, points),
  example(cubicBetween, ...CUBIC),
  example(inverseSpd, [
    [2, 1],
    [1, 2],
  ]),
  example(statistics.mean, [1, 2, 4]),
  example(statistics.standardDeviation, [1, 2, 4]),
  example(statistics.quantile, [1, 2, 4], 0.95),
  example(statistics.median, [1, 2, 4]),
  example(normal.normalCdf, 1.2),
  example(normal.normalQuantile, 0.95),
  example(student.studentCdf, made(1.2), made(5)),
  example(student.studentQuantile, made(0.975), made(5)),
  // maxes
  example(limits.limitHolds, { until: undefined, liftedOn: undefined }, today),
  example(limits.refusals, { limits: [], birthYear: 2010, lift: "squat", today }),
  example(records.trainingYears, day("2020-01-01"), today),
  example(records.workingMax, { liftName: "Squat", record: made(record), factor: 0.95, today }),
  example(
    records.basedMax,
    made(records.plainMax(max)),
    made({ kg: 90, steps: [{ by: "ratio" as const, name: "B", of: "S", ratio: 0.9, pairs: 2 }] }),
    "Box",
  ),
  example(records.plainMax, made(max)),
  example(records.maxWorking, made(records.plainMax(max)), "Squat"),
  example(records.recordWarnings, made([record]), { load: made(kg(120)), date: today }, today),
  example(records.lifetimeBestKg, made([record, recordB])),
  example(records.isFirstTime, 100, 90),
  example(repMax.estimateRepMax, { loadKg: 100, reps: 5, reserve: 0 }),
  example(season.competitionMark, [{ name: "Cup", date: day("2026-03-05") }], today),
  example(season.describeMark, made(mark)),
  example(variants.resolveMax, {
    variantId: "b",
    variants: [
      { id: "a", name: "A", baseKind: "own", baseId: undefined, ratio: undefined },
      { id: "b", name: "B", baseKind: "ratio", baseId: "a", ratio: 0.8 },
    ],
    known: new Map([["a", { kg: 100 }]]),
  }),
  example(variants.learnRatio, made([recordB]), made([record])),
  example(
    athleteRows.readAthleteList,
    made([
      ["Name", "Born"],
      ["A", "2001"],
    ]),
    made({
      today,
      unit: "kg" as const,
      athletes: [],
      squads: ["Judo"],
      rooms: [],
      choices: {},
      mapping: undefined,
    }),
  ),
  example(
    recordRows.readRecordSheet,
    made([
      ["Athlete", "Lift", "Date", "Load"],
      ["A", "Squat", "2026-01-05", "80"],
    ]),
    made({
      today,
      unit: "kg" as const,
      kind: "tested" as const,
      athletes: [{ id: "a", name: "A" }],
      variants: [{ id: "s", name: "Squat" }],
      mapping: undefined,
      lifts: {},
    }),
  ),
  example(
    earlierRows.readEarlierSheet,
    made([
      ["Date", "Athlete", "Lift", "Reps", "Load"],
      ["2026-01-05", "A", "Squat", "3", "80"],
    ]),
    made({
      today,
      unit: "kg" as const,
      athletes: [{ id: "a", name: "A" }],
      variants: [{ id: "s", name: "Squat" }],
      mapping: undefined,
      lifts: {},
      slash: undefined,
    }),
  ),
  example(liftNames.liftKey, made("Squat")),
  example(liftNames.liftNamed, made("squat"), made([{ id: "s", name: "Squat" }]), made({})),
  example(readPercentTable, made([["3x2 50"], ["3x2 55"]]), made({})),
  example(
    readTestingDay,
    made([["Athlete"], ["A"]]),
    made({
      today,
      date: today,
      unit: "kg",
      athletes: [],
      variants: [],
      tests: [],
      lifts: {},
      lastKg: () => undefined,
    }),
  ),
  // barload
  example(leastMoves, {
    kinds: made([
      { each: 10, count: 2, thicknessMm: 20 },
      { each: 5, count: 2, thicknessMm: 20 },
    ]),
    sleeveMm: 400,
    targets: [15, 20, 15],
    start: made([]),
  }),
  example(loadBar, gear, 82.5, "nearest"),
  example(stepFrom, gear, 80, 2.5),
  example(plateChange, made([kg(20), kg(10)]), made([kg(20), kg(5)])),
  example(rimOnBar, made([kg(20), kg(10)]), made(testGear([20, 10, 5]).plates)),
  example(describeSide, made([kg(20), kg(10)])),
  example(loadingWorking, made(loading), 100),
  example(describeRefusal, { ok: false, reason: "not-a-load", askedKg: 5 }, "kg"),
  example(barWorking, "Bar", made(loading), 120),
  example(onBarWorking, made(working), made(loading)),
  example(loadableTable, gear),
  example(planSequence, gear, [60, 80, 60], made({})),
  example(warmUpRamp, gear, 100, [0.4, 0.6, 0.8]),
  example(movesWorking, made(planSequence(testGear([20, 10, 5]), [60, 80]) as never)),
  // resistance
  example(heightsFromStature, "squat", 175),
  example(heightsKnown, { bottomM: 0.5, lockoutM: 0.9 }, "squat", 175),
  example(wayBetween, { ...heights, measured: true }),
  example(checkResistance, {
    pieces: [chain, band],
    heights: { ...heights, measured: true },
    curve: made(curve.curve),
    barKg: 60,
    upperBody: false,
    anchorKg: 100,
    bolted: false,
    leastAnchorKg: 80,
    steppingOutKg: 30,
    walkout: true,
    experienced: true,
    retired: [],
    unit: "kg" as const,
  }),
  example(proposeSetups, {
    stock: [chain, band],
    heights,
    barKg: 60,
    wantedShare: 0.22,
    most: 5,
  }),
  example(setup.bandCurve, {
    restM: 1,
    readings: [
      { lengthM: 1.2, tensionKg: 5 },
      { lengthM: 1.6, tensionKg: 15 },
    ],
  }),
  example(setup.chainKgAt, made(chain.what as setup.Chain), made(1.3)),
  example(
    setup.bandKgAt,
    made(band.what as setup.Band),
    made(stretched as hermite.HermiteCurve),
    made(1.3),
  ),
  example(setup.resistanceCurve, [chain, band], heights),
  example(
    setup.byConventions,
    made({ bottomKg: 5, lockoutKg: 20, meanKg: 12 }),
    made(120),
    made(60),
  ),
  example(setup.resistanceWorking, made([chain]), made(curve.curve)),
  example(setup.lockoutShare, made(curve.curve), made(60)),
  // velocity
  example(
    analyseStream,
    { timesS: repsOfStream.timesS, heightsM: repsOfStream.heightsM },
    { start: "top", cutoffHz: 7 },
  ),
  example(force.addedMassKg, "bar-and-body", 80),
  example(force.repForce, { propulsiveS: 0.5, propulsiveM: 0.4, propulsiveEndMps: 0.05 }, 100),
  example(setsOf, made(repsOfStream.reps)),
  example(fitPassage, {
    heights: wave.map((h) => h * h),
    rateHz: 100,
    guess: 22,
    side: 1,
    movingSpan: 12,
    otherSpan: 8,
    noiseM: 0.001,
    levelMps: 0.05,
    peakMps: 0.8,
    toPeakS: 0.2,
  }),
  example(isOlder, "velocity-1"),
  example(repVelocity, made(repsOfStream.reps[0] as MeasuredRep), "MCV"),
  example(measureVisit, made(visitWindow), made(STREAM_DEFAULTS)),
  example(repTime, { rangeM: 0.5, meanMps: 0.5, lowerS: 1, pauseS: 0.5, reps: 3 }),
  example(findTurns, wave, 0.02),
  // profile
  example(analyseProfile, { reps, metric: "MCV", threshold: made(theThreshold) }),
  example(
    compare.compareProfiles,
    made({
      testedOn: day("2026-01-01"),
      variantId: "v",
      metric: "MCV",
      source: "sensor",
      analysis,
    }),
    made({ testedOn: today, variantId: "v", metric: "MCV", source: "sensor", analysis }),
    0.03,
  ),
  example(compare.weakerSide, { v0Mps: 1.5, heavyKg: 100 }, [
    { v0Mps: 1.4, heavyKg: 90 },
    { v0Mps: 1.6, heavyKg: 110 },
    { v0Mps: 1.5, heavyKg: 95 },
    { v0Mps: 1.45, heavyKg: 97 },
    { v0Mps: 1.55, heavyKg: 105 },
    { v0Mps: 1.5, heavyKg: 99 },
  ]),
  example(line.fastestByLoad, made(reps)),
  example(line.loadVelocityLine, reps, "MCV"),
  example(line.velocityAt, made(theLine), made(80)),
  example(line.loadAt, made(theLine), made(0.8)),
  example(targets.targetSpeed, {
    variantId: "v",
    loadKg: made(80),
    metric: "MCV",
    coach: undefined,
    profile: made({ line: theLine, variantId: "v", testedOn: today }),
    percentOfMax: 60,
    groupCurve: made(targets.GROUP_CURVES.bench),
  }),
  example(targets.groupVelocity, made(targets.GROUP_CURVES.bench), made(60)),
  example(targets.groupPercent, made(targets.GROUP_CURVES.bench), made(0.8)),
  example(targets.groupWorking, made(targets.GROUP_CURVES.bench), 0.8),
  example(power.estimatedPowerW, made(theLine), made(70), made(80)),
  example(
    power.forcePower,
    made({ used: reps, line: theLine, addedKg: 70, systemName: "bar", oneRmKg: 120 }),
  ),
  example(powerBand.usualPowerBand, "squat", {
    powerSquatFromPercent: 45,
    powerSquatToPercent: 60,
  }),
  example(powerBand.bandWords, made({ lowPercent: 45, highPercent: 60 })),
  example(prediction.responseAt, made(fit), 80, 0.95, false),
  example(prediction.fiellerAt, made(fit), 0.8, 0.95),
  example(prediction.inverseAt, made(fit), 0.8, 0.95, 0.001),
  example(readinessModule.readiness, {
    profile: reps,
    today: [
      { loadKg: 40, velocityMps: 1.15 },
      { loadKg: 60, velocityMps: 0.95 },
    ],
    thresholdMps: 0.3,
    targetMps: 0.8,
    readingSdMps: 0.03,
    dayShiftSdMps: 0.05,
  }),
  example(todaysFormModule.todaysForm, {
    profile: reps,
    today: [
      { loadKg: 40, velocityMps: 1.15 },
      { loadKg: 60, velocityMps: 0.95 },
    ],
    thresholdMps: 0.3,
    targetMps: 0.8,
    readingSdMps: 0.03,
    dayShiftSdMps: 0.05,
  }),
  example(todaysFormModule.readinessChange, {
    plannedKg: made(80),
    targetLoadKg: made(75),
    targetSdKg: 2,
    stepKg: 2.5,
  }),
  example(steps.testSteps, {
    maxKg: made(120),
    bestKg: 115,
    bodyMassKg: 80,
    gear,
    rounding: "nearest",
  }),
  example(line.fitPoints, made(points.map((p) => ({ loadKg: p.x, velocityMps: p.y })))),
  example(line.lineOfFit, made(fit), "MCV", 5),
  example(rig.barUnder, "lockout", made(100), made({ lockoutKg: 20, meanKg: 12 })),
  example(rig.chooseRig, {
    stock: made({ pieces: [{ what: chain.what, perSide: 2 }], anchorKg: 100 }),
    heights: made({ ...heights, measured: true }),
    convention: "lockout",
    askedKg: 100,
    wantedPercent: 20,
    emptyKg: 20,
  }),
  example(rig.rigWords, made(theRig)),
  example(boxFaults.boxFaultNamed, "x"),
  example(
    boxFaults.faultHistory,
    [
      { fault: "a", date: day("2026-02-01"), percent: 60 },
      { fault: "a", date: day("2026-02-20"), percent: 70 },
    ],
    [day("2026-02-05"), day("2026-02-08"), day("2026-02-11")],
  ),
  example(boxFaults.returnsWithin, made([{ returnsAt: 70 }]), 75),
  example(boxLoad, {
    baseKg: 100,
    base: "working-max",
    styleName: "Wide",
    learnt: undefined,
    share: { least: 60, most: 70 },
  }),
  example(depth.isHighBox, 3),
  example(
    depth.depthLedger,
    [
      { date: day("2026-02-20"), sets: 3, depth: "full" as const },
      { date: day("2026-02-21"), sets: 5, depth: "high-box" as const },
    ],
    today,
    { weeks: 4, percent: 50 },
  ),
  example(ladder.passWords, made(ladder.RUNGS[0] as ladder.Rung), 5),
  example(ladder.ladderStanding, [
    { rungId: "chair", outcome: "passed" as const, date: day("2026-02-01"), by: "A", note: "" },
  ]),
  example(ladder.gate, {
    athletes: [
      { name: "A", ready: true },
      { name: "B", ready: false },
    ],
    startedOn: day("2026-02-01"),
    today,
    sharePercent: 80,
    weeks: 4,
  }),
  example(
    ladder.findSpeedWeight,
    [
      { loadKg: 40, speedMps: 0.9, eye: undefined, pushed: true },
      { loadKg: 50, speedMps: 0.7, eye: undefined, pushed: true },
    ],
    { mps: 0.6, of: "floor" as const },
  ),
  example(ladder.holding, day("2026-02-01"), today, 3),
  example(photo.thighFromPhoto, {
    knee: { x: 10, y: 50 },
    crease: { x: 40, y: 48 },
    level,
    thighCm: 42,
  }),
  example(photo.legsFromPhoto, { legs: [leg, otherLeg], level }),
  example(photo.kneeWords, made({ shinOutDeg: 1, kneeInDeg: 2 })),
  example(photo.shinWords, made({ shinOutDeg: 1, kneeInDeg: 2 })),
  example(photo.frontLegWorking, made({ shinOutDeg: 1, kneeInDeg: 2 }), "left", true),
  example(photo.sidePhotoWorking, made({ angleDeg: 3, creaseOverKneeCm: 2 }), made(38), true),
  example(stack.boxHeightFromTrial, { seatCm: 40, creaseOverKneeCm: 2, offsetCm: 1 }),
  example(stack.seatFor, { targetCm: 38, bases: [box], mats }),
  example(stack.seatsForGroup, { targetsCm: [36, 38], bases: [box], mats }),
  example(stack.bestTurns, { targetsCm: [36, 38], bases: [box], mats }),
  example(stack.buildWords, made(seatBuild), mats),
  example(
    stack.seatWorking,
    made({
      seatCm: 40,
      creaseOverKneeCm: 2,
      targetCm: 38,
      build: seatBuild,
      mats,
      tolerance: { underCm: 0, overCm: 2.5 },
    }),
  ),
  example(stops.judgeBoxReps, made([boxRep, boxRep]), { smallestStopS: 0.3, seatM: 0.9 }),
  example(stops.twoBounces, [{ stop: "bounce" as const }, { stop: "bounce" as const }]),
  example(
    stops.boxRepWords,
    made({ pauseS: 0.4, loweringMps: 0.5, contactMps: 0.2, toPeakS: 0.3 }),
  ),
  example(styles.styleById, "wide"),
  example(styles.eligibility, {
    style: boxStyle,
    contact: "weight",
    athlete: {
      trainingYears: 2,
      age: 30,
      squatLimit: undefined,
      goal: undefined,
      ladderDone: true,
      freeSquatSigned: true,
    },
    refusals: [],
    beginners: "ladder",
    rockingAllowed: false,
    relaxAllowed: false,
  }),
  example(dateOrder.formatDay, today, made("dmy" as const)),
  example(dateOrder.formatDayShort, today, made("mdy" as const)),
  example(dateOrder.datesIn, "tested 2026-03-10", made("dmy" as const)),
  example(dateOrder.orderOfLanguage, "en-GB"),
  example(stepsInZone, [20, 40, 45, 50, 80], { fromKg: 40, toKg: 80 }),
  example(testWidth, { loadsKg: [40, 60, 80], oneRmKg: 120, v0Mps: 1.6, thresholdMps: 0.3 }),
  example(loadedJump, {
    points: [
      { loadKg: 0, heightCm: 44 },
      { loadKg: 20, heightCm: 37 },
      { loadKg: 40, heightCm: 29 },
    ],
    atKg: 30,
    wantedCm: 35,
  }),
  example(restEffect, {
    steps: [
      { restS: 60, changeMps: -0.03 },
      { restS: 90, changeMps: 0 },
      { restS: 120, changeMps: -0.01 },
      { restS: 180, changeMps: 0.03 },
      { restS: 240, changeMps: 0.01 },
    ],
    atS: 90,
  }),
  example(resistanceForShare, {
    totalKg: 80,
    sharePercent: 20,
    of: made("max" as const),
    maxKg: 120,
  }),
  example(complexLength, {
    items: [
      { reps: 2, secondsEach: 3, gapS: 20 },
      { reps: 3, secondsEach: 2, gapS: 0 },
    ],
    rounds: 5,
    restS: 150,
  }),
  example(boxLowering, {
    fromCm: 41,
    toCm: 36,
    weeks: 3,
    withinCm: 0.5,
    bases: made([{ id: "box", name: "Box", heightsCm: [30, 36] }]),
    mats: made([{ id: "mat", name: "Mat", thicknessCm: 2.5, count: 2 }]),
  }),
  example(compareForces, {
    light: { loadKg: 60, forceN: 730, powerW: 690, velocityMps: 0.9 },
    heavy: { loadKg: 120, forceN: 1205, powerW: 430, velocityMps: 0.3 },
    rangeM: 0.5,
  }),
  example(tonnage.tonnageKg, { sets: 3, reps: 8, loadKg: 20, hands: 2 }),
  example(tonnage.waysToTonnage, { sets: 3, reps: 12, loadKg: 30, hands: made(2 as const) }, 1200),
  example(
    tonnage.progressions,
    { sets: 3, reps: 8, loadKg: 20, hands: made(2 as const) },
    { reps: 2, loadKg: 2.5, sets: 1 },
  ),
  example(tonnage.tonnageWorking, { sets: 3, reps: 8, loadKg: 20, hands: made(2 as const) }),
  example(basis.basisOf, "percent", made(50)),
  example(basis.basisLoad, { by: "percent", percent: 50 } as basis.LoadBasis, facts, 3),
  example(basis.basisLoad, { by: "speed", mps: 0.8 } as basis.LoadBasis, facts, 3),
  example(basis.basisLoad, { by: "peak-force", slowerMps: 0.1 } as basis.LoadBasis, facts, 3),
  example(basis.basisLoad, { by: "peak-power", percent: 90 } as basis.LoadBasis, facts, 3),
  example(basis.basisLoad, { by: "reserve", reserve: 2 } as basis.LoadBasis, facts, 3),
  example(basis.basisLoad, { by: "fixed", kg: 50 } as basis.LoadBasis, facts, 3),
  example(basis.basisLoad, { by: "body", percent: 50 } as basis.LoadBasis, facts, 3),
  example(basis.loadForReserve, 100, 3, 2),
  example(basis.describeBasis, { by: "percent", percent: 50 }, "kg" as const),
  example(basis.basisText, { by: "fixed", kg: 50 } as basis.LoadBasis),
  example(coachFloor, made("squat" as const), made({ floorSquatMps: 0.5 })),
  example(speedClasses.classBorders, made("squat" as const), {
    strengthSpeedSquatMps: 0.5,
    speedStrengthSquatMps: 0.75,
    absoluteSpeedSquatMps: 1,
  }),
  example(speedClasses.speedClassAt, 0.6, [0.5, 0.75, 1] as const),
  example(speedClasses.liftSpeedClass, made("speed" as const)),
  example(withCoachFloor, made(recipe), "squat", made({ floorSquatMps: 0.5 })),
  example(recipes.recipeWeeks, made(recipe)),
  example(recipes.timedSets, { everyS: 45, minutes: 12 }),
  example(
    recipes.expandRecipe,
    made({ ...recipe, weeks: [...recipe.weeks, { id: "d", add: 0, kind: "deload" as const }] }),
    { deloadSets: 0.5, deloadLoad: 0.8 },
    2,
  ),
  example(recipes.percentOf, { basis: { by: "percent", percent: 50 }, factor: 0.8 }),
  example(speeds.hasOlderSpeeds, made(recipe)),
  example(speeds.stopOf, made(recipe)),
  example(speeds.targetOf, made(recipe)),
  example(faultsFor, "squat"),
  example(repRules.endedWords, "loss"),
  // What ends a set was read when the plan was.
  example(
    repRules.lossLine,
    [0.9, 0.8],
    made({ cap: 3, lossPercent: 20, lossFrom: "best" as const }),
  ),
  example(repRules.isSpeed, 0.9),
  example(
    repRules.afterRep,
    [0.9, 0.8, 0.7],
    made({ cap: 5, lossPercent: 20, lossFrom: "best" as const, floorMps: 0.5, smallestStopS: 0.3 }),
    undefined,
    [0.4, 0.2, 0.2],
  ),
  example(speedOfFrames, { frames: 48, framesPerS: 60, travelM: 0.64 }),
  example(dayFormCall, {
    test: {
      reps: [
        { loadKg: 40, velocityMps: 1.2 },
        { loadKg: 60, velocityMps: 0.98 },
        { loadKg: 80, velocityMps: 0.77 },
      ],
    },
    wayUp: [{ loadKg: 40, velocityMps: 1.1 }],
    first: { loadKg: 70, target: { lowMps: 0.75, highMps: 0.85 } },
    gear,
  }),
  example(nearestWithin, gear, 80, -7),
  example(nextLoad, {
    lifted: [{ loadKg: 60, velocities: [0.8, 0.7], eye: made("on"), failed: false }],
    gear,
    lineMps: made(0.5),
    bestKg: made(80),
  }),
  example(afterSet, {
    sets: [
      {
        key: "a",
        number: made(1),
        loadKg: 80,
        velocities: [0.6, 0.58],
        target: made({ lowMps: 0.7, highMps: 0.9 }),
      },
    ],
    nextLoadKg: 80,
    gear,
    line: made(theLine),
    velocityLed: true,
    restLengthened: false,
    loadCall: "none",
    repDropMps: 0.01,
    restStepS: 15,
  }),
  example(threshold.velocityThreshold, {
    lift: "squat",
    metric: "MCV",
    teamMps: made(0.31),
    singles: made([{ loadKg: 120, velocityMps: 0.28, metric: "MCV" as const, date: today }]),
    defaultWeight: 3,
  }),
];

describe("hostile numbers", () => {
  const modules = import.meta.glob<Record<string, unknown>>(["./*/*.ts", "!./**/*.test.ts"], {
    eager: true,
  });

  it("every exported function of the arithmetic has an example", () => {
    const known = new Set(EXAMPLES.map((one) => one.name));
    const missing = Object.entries(modules).flatMap(([path, own]) =>
      PARSED.includes(path.split("/")[1] ?? "")
        ? []
        : Object.entries(own).flatMap(([name, value]) =>
            typeof value === "function" &&
            !/^class\s/.test(Function.prototype.toString.call(value)) &&
            !known.has(name)
              ? [`${path} ${name}`]
              : [],
          ),
    );
    expect(missing).toEqual([]);
  });

  it.each(EXAMPLES.map((one) => [one.name, one] as const))("%s", (_, one) => {
    expect(unsound(one.call(one.args)), "the right call").toBeUndefined();
    const found: string[] = [];
    for (const { words, args } of hostile(one.args)) {
      const started = performance.now();
      try {
        const wrong = unsound(one.call(args));
        if (wrong !== undefined) found.push(`${words}: ${wrong}`);
      } catch (error) {
        found.push(`${words}: ${error instanceof Error ? error.message : String(error)}`);
      }
      if (performance.now() - started > HANGS_MS) found.push(`${words}: hangs`);
    }
    expect(found).toEqual([]);
  });
});

/** A call that takes this long hangs; the machine may be very busy. */
const HANGS_MS = 20_000;
