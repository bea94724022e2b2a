import { describe, expect, it } from "vitest";
import { Movement, type MovePiece, type Piece } from "../../device/movement";
import { type SensorSettings, sampleMovement } from "../../device/sensor";
import type { Sample } from "../../device/sensor-port";
import type { ShapeSet } from "../../device/shapes/builder";
import { SHAPE_FAMILIES, type ShapeFamily } from "../../device/shapes/families";
import { HELD_OUT_FAMILIES } from "../../device/shapes/held-out";
import { seededRandom } from "../numeric/random";
import { quantile } from "../numeric/statistics";
import { analyseStream } from "./analyse";
import { StreamMeter } from "./meter";
import { type MeasuredRep, repVelocity, type StreamSettings } from "./stream";
import { findTurns } from "./turns";

const measure = (samples: Sample[], settings: Partial<StreamSettings> = {}) =>
  analyseStream(
    { timesS: samples.map((one) => one.timeS), heightsM: samples.map((one) => one.heightM) },
    settings,
  );

/** Seeds a family: all with `npm run soak`. */
const SETS = process.env.FULL_SEEDS ? 100 : 20;
const FAMILIES: Record<string, ShapeFamily> = { ...SHAPE_FAMILIES, ...HELD_OUT_FAMILIES };
const drawn = new Map(
  Object.entries(FAMILIES).map(([name, family]) => [
    name,
    Array.from({ length: SETS }, (_, i) => family(i + 1)),
  ]),
);

const read = (set: ShapeSet, seed: number, rateHz: number, noiseM: number, lostShare = 0.01) =>
  measure(
    sampleMovement(
      set.movement,
      { rateHz, noiseM, jitter: 0.1, lostShare },
      seededRandom(seed * 7919 + rateHz),
    ),
    { start: set.start },
  );

interface Errors {
  mcv: number[];
  hard: number[];
  pv: number[];
  pause: number[];
}

/** Every family through the sensor at a rate and a noise; counts have to be exact. */
function accuracy(rates: number[], noiseM: number): Errors {
  const errors: Errors = { mcv: [], hard: [], pv: [], pause: [] };
  for (const rateHz of rates) {
    for (const [name, sets] of drawn) {
      sets.forEach((set, i) => {
        const { reps } = read(set, i + 1, rateHz, noiseM);
        const outcomes = (list: ReadonlyArray<{ outcome: string }>) => list.map((r) => r.outcome);
        expect(outcomes(reps), `${name} ${i + 1} at ${rateHz} Hz`).toEqual(outcomes(set.reps));
        reps.forEach((rep, k) => {
          const truth = set.reps[k];
          expect(rep.rocks.length, `rocks of ${name} ${i + 1}`).toBe(truth?.rocksM.length);
          if (truth?.outcome !== "counted") return;
          const kind = truth.brakesHard ? errors.hard : errors.mcv;
          kind.push(Math.abs(rep.mcvMps - truth.mcvMps));
          errors.pv.push(Math.abs(rep.pvMps - truth.pvMps));
          if (rep.pauseS !== undefined && truth.pauseS !== undefined) {
            errors.pause.push(Math.abs(rep.pauseS - truth.pauseS));
          }
        });
      });
    }
  }
  return errors;
}

const p95 = (values: number[]) => quantile(values, 0.95) ?? Number.POSITIVE_INFINITY;

describe("accuracy over twelve families of known truth, single samples lost", () => {
  it.each([
    [0.0003, 0.01, 0.02, 0.02, 0.05],
    [0.001, 0.02, 0.04, 0.05, 0.05],
    [0.002, 0.03, 0.05, 0.075, 0.1],
  ])(
    "%s m of noise: counts and rocks exact, MCV %s, braking hard %s, PV %s, pause %s",
    (...args) => {
      const [noiseM, mcv, hard, pv, pause] = args;
      const errors = accuracy([50, 100, 200], noiseM);
      expect(p95(errors.mcv)).toBeLessThan(mcv);
      expect(p95(errors.hard)).toBeLessThan(hard);
      expect(p95(errors.pv)).toBeLessThan(pv);
      expect(p95(errors.pause)).toBeLessThan(pause);
      expect(errors.mcv.length + errors.hard.length).toBeGreaterThan(30 * SETS);
    },
  );

  it.each([0.0003, 0.001])("25 Hz, %s m of noise, none lost: counts exact, MCV 0.05", (noiseM) => {
    const errors: number[] = [];
    for (const [name, sets] of drawn) {
      sets.forEach((set, i) => {
        const { reps } = read(set, i + 1, 25, noiseM, 0);
        expect(reps.length, `${name} ${i + 1}`).toBe(set.reps.length);
        reps.forEach((rep, k) => {
          const truth = set.reps[k];
          if (truth?.outcome === "counted") errors.push(Math.abs(rep.mcvMps - truth.mcvMps));
        });
      });
    }
    expect(p95(errors)).toBeLessThan(0.05);
  });
});

const move = (riseM: number, durationS: number, sticking = 0): MovePiece => ({
  kind: "move",
  riseM,
  durationS,
  skew: 0,
  sticking,
});
const still = (durationS: number): Piece => ({ kind: "still", durationS });

const sampled = (pieces: Piece[], options: Partial<SensorSettings> = {}) =>
  sampleMovement(
    new Movement(1.1, pieces),
    { rateHz: 100, noiseM: 0.0003, jitter: 0.05, ...options },
    seededRandom(11),
  );

/** Mean velocity of a half wave between its passages of 0.05 m/s, in closed form. */
function waveMcv(riseM: number, durationS: number): number {
  const peak = ((riseM / durationS) * Math.PI) / 2;
  const edge = Math.asin(0.05 / peak);
  return (2 * peak * Math.cos(edge)) / (Math.PI - 2 * edge);
}

const REP: Piece[] = [move(-0.4, 0.6), move(0.4, 0.5), still(0.4)];

describe("what is a rep and what is not", () => {
  it("measures a plain rep to its truth", () => {
    const { reps } = measure(sampled([still(1), ...REP, still(1)]));
    expect(reps).toHaveLength(1);
    expect(reps[0]?.mcvMps).toBeCloseTo(waveMcv(0.4, 0.5), 2);
    expect(reps[0]?.rangeM).toBeCloseTo(0.4, 2);
    expect(reps[0]?.eccentricS).toBeCloseTo(0.6, 1);
    expect(reps[0]?.greatestLoweringMps).toBeCloseTo(((0.4 / 0.6) * Math.PI) / 2, 1);
    expect(reps[0]?.outcome).toBe("counted");
  });

  it("keeps the metrics apart", () => {
    const { reps } = measure(sampled([still(1), ...REP, still(1)]));
    const rep = reps[0];
    if (!rep) throw new Error("no rep");
    expect(repVelocity(rep, "MCV")).toBe(rep.mcvMps);
    expect(repVelocity(rep, "PV")).toBe(rep.pvMps);
    expect(rep.pvMps).toBeGreaterThan(rep.mcvMps);
    expect(rep.mpvMps).toBeGreaterThanOrEqual(rep.mcvMps);
  });

  it("does not count the walkout, the re-rack or a bar that is only loaded", () => {
    const walk = [still(1), move(0.06, 0.5), move(-0.02, 0.3), move(0.02, 0.3), still(1)];
    const rack = [move(-0.05, 0.4), still(1)];
    expect(measure(sampled([...walk, ...rack])).reps).toEqual([]);
  });

  it("does not take a high unrack for a rep of a lift from the top", () => {
    expect(measure(sampled([still(1), move(0.25, 0.8), still(1)])).reps).toEqual([]);
  });

  it("counts a pull from the floor without a lowering before it", () => {
    const { reps } = measure(
      sampled([still(1), move(0.5, 0.9), still(0.5), move(-0.5, 0.7), still(1)]),
      {
        start: "bottom",
      },
    );
    expect(reps).toHaveLength(1);
    expect(reps[0]?.pauseS).toBeUndefined();
    expect(reps[0]?.mcvMps).toBeCloseTo(waveMcv(0.5, 0.9), 2);
  });

  it("keeps a sticking point inside its rep", () => {
    const { reps } = measure(sampled([still(1), move(-0.4, 0.8), move(0.4, 1.6, 0.55), still(1)]));
    expect(reps).toHaveLength(1);
    expect(Math.abs((reps[0]?.mcvMps ?? 0) - 0.256)).toBeLessThan(0.006);
  });

  it("records a rep that turns back as failed and does not count it", () => {
    const failed = [move(-0.4, 0.6), move(0.22, 0.8), move(-0.22, 0.6), still(2)];
    const { reps } = measure(sampled([still(1), ...REP, ...failed]));
    expect(reps.map((rep) => rep.outcome)).toEqual(["counted", "failed"]);
  });

  it("counts a half-depth rep and marks it short", () => {
    const half = [move(-0.22, 0.5), move(0.22, 0.4), still(0.4)];
    const { reps } = measure(sampled([still(1), ...REP, ...REP, ...half, ...REP, still(1)]));
    expect(reps.map((rep) => rep.short)).toEqual([false, false, true, false]);
  });

  it("measures a pause on the chest", () => {
    const { reps } = measure(
      sampled([still(1), move(-0.4, 0.7), still(0.6), move(0.4, 0.5), still(1)]),
    );
    expect(reps[0]?.pauseS).toBeGreaterThan(0.6);
    expect(reps[0]?.pauseS).toBeLessThan(0.7);
  });

  it("never fills in a rep that the sensor missed", () => {
    const gaps = [{ fromS: 2.1, toS: 3.3 }];
    const samples = sampled([still(1), ...REP, ...REP, ...REP, still(1)], { gaps });
    const result = measure(samples);
    expect(result.runs).toHaveLength(2);
    expect(result.reps.length).toBeLessThan(3);
  });

  it("gives nothing for nothing", () => {
    expect(analyseStream({ timesS: [], heightsM: [] }).reps).toEqual([]);
    expect(measure(sampled([still(5)])).reps).toEqual([]);
  });
});

describe("turning points", () => {
  it("alternate, and small wobble makes none", () => {
    const heights = Float64Array.from(
      { length: 400 },
      (_, i) => Math.cos(i / 30) + 0.005 * Math.sin(i),
    );
    const turns = findTurns(heights, 0.02);
    for (let i = 1; i < turns.length; i++) expect(turns[i]?.kind).not.toBe(turns[i - 1]?.kind);
    expect(
      findTurns(
        Float64Array.from({ length: 100 }, (_, i) => 0.005 * Math.sin(i)),
        0.02,
      ),
    ).toEqual([]);
    expect(findTurns(Float64Array.from([]), 0.02)).toEqual([]);
  });
});

describe("live", () => {
  const play = (samples: Sample[], settings: Partial<StreamSettings> = {}) => {
    const meter = new StreamMeter(settings);
    const heard: Array<{ rep: MeasuredRep; atS: number }> = [];
    for (const { timeS, heightM } of samples) {
      for (const rep of meter.push(timeS, heightM)) heard.push({ rep, atS: timeS });
    }
    return heard;
  };

  it("gives each rep once, within 300 ms of its end, and to the last digit as stored", () => {
    for (const name of ["ramps", "boxes", "failures", "pulls", "touches"]) {
      const late: number[] = [];
      drawn.get(name)?.forEach((set, i) => {
        const samples = sampleMovement(
          set.movement,
          { rateHz: 100, noiseM: 0.0003, jitter: 0.1 },
          seededRandom(i),
        );
        const heard = play(samples, { start: set.start });
        const stored = measure(samples, { start: set.start }).reps;
        expect(heard.map((one) => one.rep)).toEqual(stored);
        // Of a first pull no top is known: it is waited for a little longer.
        for (const { rep, atS } of heard.slice(set.start === "bottom" ? 1 : 0)) {
          if (rep.outcome === "counted") late.push(atS - rep.endS);
        }
      });
      expect(quantile(late, 0.95), name).toBeLessThan(0.3);
    }
  });

  it("looks at each frame as long late in a long set as early", () => {
    // Counted in the samples that are kept, not in time: nothing may grow with the set.
    const meter = new StreamMeter();
    let reps = 0;
    for (let i = 0; i < 5 * 60 * 200; i++) {
      const timeS = i / 200;
      const wave = 0.25 * Math.cos((2 * Math.PI * timeS) / 3);
      reps += meter.push(timeS, 1 + wave).length;
    }
    expect(reps).toBe(99);
    expect(meter.samplesKept).toBeLessThan(3 * 60 * 200);
  });
});

describe("frames that misbehave", () => {
  const set = sampled([still(1), ...REP, ...REP, ...REP, still(1)]);
  const heard = (samples: Sample[]) => {
    const faults: string[] = [];
    const meter = new StreamMeter({}, { fault: (fault) => faults.push(fault) });
    const reps = samples.flatMap(({ timeS, heightM }) => meter.push(timeS, heightM));
    return { reps: [...reps, ...meter.finish()], faults: [...new Set(faults)], meter };
  };
  const mcvs = (reps: MeasuredRep[]) => reps.map((rep) => rep.mcvMps);
  const clean = mcvs(heard(set).reps);
  const near = (reps: MeasuredRep[], within: number) => {
    expect(reps).toHaveLength(3);
    mcvs(reps).forEach((mcv, i) => {
      expect(Math.abs(mcv - (clean[i] as number))).toBeLessThan(within);
    });
  };
  const changed = (index: number, patch: (sample: Sample) => Sample) =>
    set.map((sample, i) => (i === index ? patch(sample) : sample));

  it("one stamp from the future loses that frame alone", () => {
    const { reps, faults } = heard(changed(150, (one) => ({ ...one, timeS: one.timeS + 3600 })));
    near(reps, 0.01);
    expect(faults).toEqual(["ahead"]);
  });

  it("one stamp from the past, and one twice", () => {
    const { reps, faults } = heard([
      ...changed(150, (one) => ({ ...one, timeS: 0.2 })).slice(0, 160),
      set[159] as Sample,
      ...set.slice(160),
    ]);
    near(reps, 0.01);
    expect(faults.sort()).toEqual(["back", "repeated"]);
  });

  it("a clock that is set back goes on after it", () => {
    const turned = set.map((one, i) => (i < 60 ? one : { ...one, timeS: one.timeS - 5 }));
    const { reps, faults } = heard(turned.map((one) => ({ ...one, timeS: one.timeS + 100 })));
    near(reps, 0.01);
    expect(faults).toEqual(["clock-set"]);
  });

  it("one-sample spikes are left out, rising or falling, wherever they stand", () => {
    for (let index = 40; index < set.length - 40; index += 23) {
      for (const spike of [0.08, -0.3, 4]) {
        const { reps, faults } = heard(
          changed(index, (one) => ({ ...one, heightM: one.heightM + spike })),
        );
        near(reps, 0.01);
        expect(faults).toEqual(["spike"]);
      }
    }
  });

  it("packets under one stamp are spread over their time", () => {
    const packed = set.map((one, i) => ({
      ...one,
      timeS: set[Math.min(set.length - 1, 5 * Math.floor(i / 5) + 4)]?.timeS ?? 0,
    }));
    const { reps, faults } = heard(packed);
    near(reps, 0.03);
    expect(faults).toEqual(["packets"]);
  });

  it("every stamp the same is nothing, in no time and no room", () => {
    const { reps, meter } = heard(
      Array.from({ length: 20_000 }, (_, i) => ({ timeS: 1, heightM: Math.sin(i / 50) })),
    );
    expect(reps).toEqual([]);
    expect(meter.samplesKept).toBeLessThan(20_000);
  });

  it("rates beyond 1,000 Hz are said and averaged", () => {
    const fast = sampled([still(1), ...REP, ...REP, ...REP, still(1)], { rateHz: 5000 });
    const { reps, faults, meter } = heard(fast);
    near(reps, 0.02);
    expect(faults).toEqual(["too-fast"]);
    expect(meter.runs[0]?.rateHz).toBeLessThanOrEqual(250);
  });

  it("a slipped cable ends the run there, and what follows is measured", () => {
    const slipped = set.map((one, i) => (i < 60 ? one : { ...one, heightM: one.heightM - 0.5 }));
    const { reps, faults } = heard(slipped);
    near(reps, 0.01);
    expect(faults).toEqual(["jump"]);
  });

  it("not a number, and infinite, are left out", () => {
    const { reps, faults } = heard(changed(120, (one) => ({ ...one, heightM: Number.NaN })));
    near(reps, 0.01);
    expect(faults).toEqual(["not-a-number"]);
    expect(heard(set.map(() => ({ timeS: Number.NaN, heightM: Infinity }))).reps).toEqual([]);
  });
});
