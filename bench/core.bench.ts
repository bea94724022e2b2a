/**
 * `npm run bench`: ratios within one run, because machines differ and drift. Each line is a
 * median of several rounds; the baseline is a fixed piece of work on the same machine.
 */

import { loadBar } from "../core/barload/load";
import { loadableTable } from "../core/barload/loadable";
import { stored, TestDevice, testSession } from "../core/floor/fixtures/session";
import { reduceFloor } from "../core/floor/state";
import { seededRandom } from "../core/numeric/random";
import { median } from "../core/numeric/statistics";
import { analyseStream } from "../core/velocity/analyse";
import { DEMO_ROOMS } from "../db/demo/rooms";
import { referenceSet } from "../device/reference-sets";
import { sampleMovement } from "../device/sensor";

const ROUNDS = 7;

function timed(work: () => void): number {
  const times: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const startedAt = performance.now();
    work();
    times.push(performance.now() - startedAt);
  }
  return median(times) ?? 0;
}

let sink = 0;
const baseline = timed(() => {
  for (let i = 0; i < 5e6; i++) sink = (sink + i * 31) % 1000003;
});
const line = (name: string, ms: number, more = "") =>
  console.log(
    `${name.padEnd(58)} ${ms.toFixed(2).padStart(9)} ms  ${(ms / baseline).toFixed(2).padStart(8)} × baseline  ${more}`,
  );
line("baseline: 5 million steps of integer work", baseline);

for (const rateHz of [100, 1000]) {
  const sets = Array.from({ length: 10 }, (_, i) => referenceSet(i + 1));
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
    for (const stream of streams) sink += analyseStream(stream).reps.length;
  });
  line(
    `measure ${seconds.toFixed(0)} s of stream at ${rateHz} Hz`,
    ms,
    `${Math.round((seconds * 1000) / ms)} × real time`,
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
line(
  `fold a session: 40 athletes, 12 sets, ${entries.length} entries`,
  timed(() => {
    sink += reduceFloor(session, entries).calls.length;
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
    sink += loadableTable(gear()).totals.length;
  });
  const kept = gear();
  const lookups = timed(() => {
    for (let i = 0; i < 1000; i++) sink += loadBar(kept, 20 + (i % 250)).ok ? 1 : 0;
  });
  line("table of a room's loadable totals", fresh);
  line(
    "1,000 nearest loads from a kept table",
    lookups,
    `${(fresh / (lookups / 1000)).toFixed(0)} × faster each than a fresh table`,
  );
}
if (sink < 0) console.log(sink);
