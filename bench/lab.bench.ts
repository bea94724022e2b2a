/** Every answer of the Lab, computed whole as a keystroke asks for it: wanted under 16 ms. */

import { loadBar } from "../core/barload/load";
import { loadableTable } from "../core/barload/loadable";
import { planSequence, warmUpRamp } from "../core/barload/sequence";
import { bestTurns, seatFor } from "../core/boxsquat/stack";
import { progressions } from "../core/exercise/tonnage";
import { estimateRepMax } from "../core/maxes/rep-max";
import { groupSizesForRest } from "../core/prescribe/turns";
import { analyseProfile } from "../core/profile/analysis";
import { basisLoad } from "../core/recipe/basis";
import { proposeSetups } from "../core/resistance/rig-checks";
import { byConventions, resistanceCurve } from "../core/resistance/setup";
import { repTime } from "../core/velocity/rep-time";
import { DEMO_ROOMS } from "../db/demo/rooms";
import { line, sink, timed } from "./timing";

const room = DEMO_ROOMS[0];
const bar = room?.bars[0];
if (!room || !bar) throw new Error("The demo has a room with a bar.");
const gear = { bar: { id: "b", sleeveMm: 415, ...bar }, collar: bar.collar, plates: room.plates };
loadableTable(gear);

const band = (name: string, pull: number) => ({
  what: {
    kind: "band" as const,
    name,
    restM: 0.55,
    anchorM: 0.05,
    folded: false,
    readings: [0.6, 0.8, 1, 1.2, 1.45].map((lengthM) => ({
      lengthM,
      tensionKg: pull * (lengthM - 0.5),
    })),
  },
  perSide: 3,
});
const chain = (name: string, densityKgPerM: number) => ({
  what: {
    kind: "chain" as const,
    name,
    densityKgPerM,
    lengthM: 1.5,
    touchM: 0.2,
    folded: false,
  },
  perSide: 3,
});
const stock = [band("narrow", 17), band("middle", 29), chain("heavy", 6), chain("light", 2.4)];
const heights = { bottomM: 0.85, lockoutM: 1.4 };
const bases = [
  { id: "a", name: "Pin box", heightsCm: [28, 32, 36, 40, 44] },
  { id: "b", name: "Low box", heightsCm: [30] },
  { id: "c", name: "Bench", heightsCm: [43] },
];
const mats = [
  { id: "t", name: "thin", thicknessCm: 1.2, count: 6 },
  { id: "k", name: "thick", thicknessCm: 2.5, count: 4 },
];
const reps = [40, 60, 80, 100, 110].map((loadKg, i) => ({
  id: String(i),
  loadKg,
  velocityMps: 1.64 - 0.0108 * loadKg,
}));

const ANSWERS: Array<[string, () => void]> = [
  [
    "percent table and one load",
    () => {
      for (let percent = 30; percent <= 100; percent += 5) {
        sink.value += loadBar(gear, 1.425 * percent).ok ? 1 : 0;
      }
    },
  ],
  [
    "plate moves of 12 loads, with warm-up",
    () => {
      const loads = [60, 80, 100, 80, 60, 90, 110, 70, 60, 85, 95, 105];
      const plan = planSequence(gear, loads);
      sink.value += (plan.ok ? plan.moves : 0) + warmUpRamp(gear, 110).length;
    },
  ],
  [
    "max from a set",
    () => {
      sink.value += estimateRepMax({ loadKg: 100, reps: 5, reserve: 0 }).ok ? 1 : 0;
    },
  ],
  [
    "profile, target speed and load",
    () => {
      sink.value += analyseProfile({ reps, metric: "MCV", threshold: undefined }).ok ? 1 : 0;
    },
  ],
  [
    "ways to set a load",
    () => {
      const found = analyseProfile({ reps, metric: "MCV", threshold: undefined });
      const line = found.ok ? found.line : undefined;
      const facts = {
        maxKg: 120,
        line,
        peakForceMps: 0.7,
        peakPowerKg: 75,
        foundKg: undefined,
        bodyKg: 80,
      };
      for (const basis of [
        { by: "percent", percent: 60 },
        { by: "speed", mps: 0.8 },
        { by: "peak-force", slowerMps: 0 },
        { by: "reserve", reserve: 2 },
      ] as const) {
        const load = basisLoad(basis, facts, 3);
        sink.value += load.ok && loadBar(gear, load.kg).ok ? 1 : 0;
      }
    },
  ],
  [
    "rep time",
    () => {
      const input = { rangeM: 0.6, meanMps: 0.8, lowerS: 1, pauseS: 0, reps: 3 };
      sink.value += repTime(input)?.setS ?? 0;
    },
  ],
  [
    "bands and chains: curve, conventions, set-ups of the room",
    () => {
      const curve = resistanceCurve([stock[0] as (typeof stock)[0]], heights);
      if (curve.ok) sink.value += byConventions(curve.curve, 150, 60).length;
      sink.value += proposeSetups({ stock, heights, barKg: 80, wantedShare: 0.22 }).length;
    },
  ],
  [
    "box stack of one, and of six in the best order",
    () => {
      sink.value += seatFor({ targetCm: 38, bases, mats }).ok ? 1 : 0;
      const turns = { targetsCm: [38, 40, 36, 41, 37, 42], bases, mats };
      sink.value += bestTurns(turns)?.seats.changes ?? 0;
    },
  ],
  [
    "rest and groups, tonnage",
    () => {
      const rest = { leastRestS: 45, mostRestS: 75, setS: 8, changeS: 10, largest: 12 };
      sink.value += groupSizesForRest(rest).length;
      const work = { sets: 3, reps: 12, loadKg: 30, hands: 1 as const };
      sink.value += progressions(work, { reps: 3, loadKg: 2.5, sets: 1 }).length;
    },
  ],
];
for (const [name, work] of ANSWERS) {
  const ms = timed(work);
  line(`Lab: ${name}`, ms, ms < 16 ? "" : "OVER 16 ms");
}
