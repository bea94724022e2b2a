/**
 * `npm run bench`: ratios within one run, because machines differ and drift. Each line is a
 * median of several rounds; the baseline is a fixed piece of work on the same machine.
 */

import { linearRegression, linearRegressionLine, rSquared } from "simple-statistics";
import { loadBar } from "../core/barload/load";
import { loadableTable } from "../core/barload/loadable";
import { planSequence } from "../core/barload/sequence";
import { stored, TestDevice, testSession } from "../core/floor/fixtures/session";
import { FloorFold, reduceFloor } from "../core/floor/state";
import { seededRandom } from "../core/numeric/random";
import { fitLine } from "../core/numeric/regression";
import { analyseProfile } from "../core/profile/analysis";
import { fiellerAt, responseAt } from "../core/profile/prediction";
import { readiness } from "../core/profile/readiness";
import { velocityThreshold } from "../core/profile/threshold";
import { analyseStream } from "../core/velocity/analyse";
import { StreamMeter } from "../core/velocity/meter";
import { DEMO_ROOMS } from "../db/demo/rooms";
import { sampleMovement } from "../device/sensor";
import { SHAPE_FAMILIES, type ShapeFamily } from "../device/shapes/families";
import { baseline, line, sink, timed } from "./timing";

line("baseline: 5 million steps of integer work", baseline);

for (const rateHz of [100, 1000]) {
  const sets = Array.from({ length: 10 }, (_, i) => (SHAPE_FAMILIES.ramps as ShapeFamily)(i + 1));
  const streams = sets.map((set, i) => {
    const samples = sampleMovement(
      set.movement,
      { rateHz, noiseM: 0.0003, jitter: 0.05 },
      seededRandom(i),
    );
    return { timesS: samples.map((one) => one.timeS), heightsM: samples.map((one) => one.heightM) };
  });
  const seconds = sets.reduce((sum, set) => sum + set.movement.durationS, 0);
  const ms = timed(() => {
    for (const stream of streams) sink.value += analyseStream(stream).reps.length;
  });
  line(
    `measure ${seconds.toFixed(0)} s of stream at ${rateHz} Hz`,
    ms,
    `${Math.round((seconds * 1000) / ms)} × real time`,
  );
}

// One frame more, early in a set and five minutes on: the live detector keeps up with its stream.
for (const rateHz of [100, 1000]) {
  const frames = 300 * rateHz;
  const heightM = (i: number) => 1.2 + 0.25 * Math.cos((2 * Math.PI * i) / rateHz / 4);
  const secondOf = (from: number) => {
    const meter = new StreamMeter();
    for (let i = 0; i < from; i++) meter.push(i / rateHz, heightM(i));
    const start = performance.now();
    for (let i = from; i < from + 4 * rateHz; i++) {
      sink.value += meter.push(i / rateHz, heightM(i)).length;
    }
    return (performance.now() - start) / (4 * rateHz);
  };
  const best = (from: number) => Math.min(...Array.from({ length: 5 }, () => secondOf(from)));
  const early = best(rateHz);
  const late = best(frames);
  line(
    `one frame at ${rateHz} Hz, five minutes into a set (mean of four seconds with a rep in them)`,
    late,
    `${(late / early).toFixed(2)} × an early one`,
  );
}

const athletes = Array.from({ length: 40 }, (_, i) => `athlete ${i}`);
const session = testSession(athletes, 12);
const tablet = new TestDevice();
const entries = stored(
  athletes.flatMap((who) =>
    Array.from({ length: 12 }, (_, i) => tablet.set(who, i + 1, [0.8, 0.82, 0.79])).flat(),
  ),
);
const long = testSession(athletes, 42);
const many = stored(
  Array.from({ length: 32 }, (_, i) =>
    athletes.flatMap((who) => tablet.set(who, i + 1, [0.8, 0.82, 0.79])),
  ).flat(),
).slice(0, 5001);
line(
  "fold 5,000 entries of 40 athletes",
  timed(() => {
    sink.value += new FloorFold(long).add(many.slice(0, 5000)).state().calls.length;
  }),
);
const folded = new FloorFold(long).add(many.slice(0, 5000));
folded.state();
const newest = many.slice(5000);
line(
  "one more on top: the line it speaks of, and the floor",
  timed(() => {
    folded.remove(newest.map((entry) => entry.id));
    folded.add(newest);
    sink.value += folded.state().calls.length;
  }),
);
line(
  `fold a session: 40 athletes, 12 sets, ${entries.length} entries`,
  timed(() => {
    sink.value += reduceFloor(session, entries).calls.length;
  }),
);

const room = DEMO_ROOMS[0];
const bar = room?.bars[0];
if (room && bar) {
  const gear = () => ({
    bar: { id: "b", sleeveMm: 415, ...bar },
    collar: bar.collar,
    plates: room.plates,
  });
  const fresh = timed(() => {
    sink.value += loadableTable(gear()).totals.length;
  });
  const kept = gear();
  const lookups = timed(() => {
    for (let i = 0; i < 1000; i++) sink.value += loadBar(kept, 20 + (i % 250)).ok ? 1 : 0;
  });
  // Ten racks, four lifters in turn, twelve sets each.
  const racks = Array.from({ length: 10 }, (_, rack) =>
    Array.from({ length: 48 }, (_, i) => {
      const loading = loadBar(kept, (80 + 10 * (i % 4) + 3 * rack) * (0.5 + 0.02 * ((i >> 2) % 6)));
      return loading.ok ? [loading.totalKg] : [];
    }).flat(),
  );
  let moves = 0;
  let alone = 0;
  const sequences = timed(() => {
    moves = 0;
    alone = 0;
    for (const loads of racks) {
      const plan = planSequence(kept, loads);
      if (!plan.ok) continue;
      moves += plan.moves;
      alone += plan.movesOnePlan;
    }
  });
  line(
    "plate moves of a full room: 12 sets × 40 athletes",
    sequences,
    `${moves} moves, ${alone} load by load`,
  );
  line("table of a room's loadable totals", fresh);
  line(
    "1,000 nearest loads from a kept table",
    lookups,
    `${(fresh / (lookups / 1000)).toFixed(0)} × faster each than a fresh table`,
  );
}
// Lines through the same 5-point profiles, by our fit and by simple-statistics.
const random = seededRandom(11);
const profiles = Array.from({ length: 2000 }, () =>
  [40, 60, 80, 100, 110].map((x) => ({ x, y: 1.64 - 0.0108 * x + 0.02 * random.normal() })),
);
const pairs = profiles.map((points) => points.map(({ x, y }) => [x, y]));
const ours = timed(() => {
  for (const points of profiles) {
    const fit = fitLine(points);
    if (fit.ok) sink.value += fit.slope + (fit.see ?? 0) + fit.rSquared;
  }
});
const theirs = timed(() => {
  for (const points of pairs) {
    const fit = linearRegression(points);
    sink.value += fit.m + rSquared(points, linearRegressionLine(fit));
  }
});
line(
  `fit ${profiles.length} profiles: slope, R², SEE`,
  ours,
  `${Math.round((1000 * profiles.length) / ours)} a second, ${(theirs / ours).toFixed(1)} × simple-statistics (slope and R² only)`,
);
const withIntervals = timed(() => {
  for (const points of profiles) {
    const fit = fitLine(points);
    if (!fit.ok) continue;
    const speed = responseAt(fit, 80, 0.95);
    const load = fiellerAt(fit, 0.3, 0.95);
    sink.value += (speed.ok ? speed.low : 0) + (load.ok ? load.low : 0);
  }
});
line(
  "the same with two intervals",
  withIntervals,
  `${(withIntervals / ours).toFixed(1)} × the fits`,
);
const analysed = timed(() => {
  for (const points of profiles) {
    const result = analyseProfile({
      reps: points.map(({ x, y }, i) => ({ id: String(i), loadKg: x, velocityMps: y })),
      metric: "MCV",
      threshold: velocityThreshold({
        lift: "squat",
        metric: "MCV",
        teamMps: undefined,
        singles: [],
      }),
    });
    if (result.ok) sink.value += result.oneRepMax?.kg ?? 0;
  }
});
line(
  `analyse them: both intervals, flags, workings when read`,
  analysed,
  `${Math.round((1000 * profiles.length) / analysed)} a second, ${(analysed / theirs).toFixed(0)} × simple-statistics' fit`,
);
const fits = profiles.slice(0, 1000).flatMap((points) => {
  const fit = fitLine(points);
  return fit.ok ? [fit] : [];
});
line(
  `today's form of a squad of ${fits.length}`,
  timed(() => {
    for (const fit of fits) {
      const reps = (loads: number[], shift: number) =>
        loads.flatMap((loadKg) =>
          [0, 0.01, 0.02].map((drop) => ({
            loadKg,
            velocityMps: fit.intercept + fit.slope * loadKg + shift - drop,
          })),
        );
      const found = readiness({
        profile: reps([40, 60, 80, 100], 0),
        today: reps([40, 60, 80], 0.04),
        thresholdMps: 0.3,
        targetMps: 0.8,
      });
      if (found.ok) sink.value += found.targetLoad.estimate;
    }
  }),
);
if (sink.value < 0) console.log(sink);
