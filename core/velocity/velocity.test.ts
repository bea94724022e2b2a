import { describe, expect, it, test } from "vitest";
import { Movement, type MovePiece, type Piece } from "../../device/movement";
import { referenceSet } from "../../device/reference-sets";
import { type Sample, type SensorSettings, sampleMovement } from "../../device/sensor";
import { seededRandom } from "../numeric/random";
import { quantile } from "../numeric/statistics";
import { analyseStream } from "./analyse";
import { CONFIRM_AFTER_S, LiveSet } from "./live";
import { repVelocity, type StreamSettings } from "./stream";
import { findTurns } from "./turns";

const measure = (samples: Sample[], settings: Partial<StreamSettings> = {}) =>
  analyseStream(
    { timesS: samples.map((one) => one.timeS), heightsM: samples.map((one) => one.heightM) },
    settings,
  );

interface Errors {
  mcv: number[];
  mcvHard: number[];
  pv: number[];
  pause: number[];
  contact: number[];
  mpv: number[];
  wrongCounts: number[];
}

const SETS = 200;
const measured = new Map<string, Errors>();

/** 200 sets of known truth through the sensor at one rate and noise. */
function accuracy(rateHz: number, noiseM: number): Errors {
  const key = `${rateHz}/${noiseM}`;
  const known = measured.get(key) ?? measureAll(rateHz, noiseM);
  measured.set(key, known);
  return known;
}

function measureAll(rateHz: number, noiseM: number): Errors {
  const out: Errors = {
    mcv: [],
    mcvHard: [],
    pv: [],
    pause: [],
    contact: [],
    mpv: [],
    wrongCounts: [],
  };
  for (let seed = 1; seed <= SETS; seed++) {
    const truth = referenceSet(seed);
    const settings: SensorSettings = { rateHz, noiseM, jitter: 0.1 };
    const { reps } = measure(sampleMovement(truth.movement, settings, seededRandom(seed * 7919)));
    const counted = reps.filter((rep) => rep.outcome === "counted");
    if (counted.length !== truth.reps.length || reps.length !== counted.length) {
      out.wrongCounts.push(seed);
      continue;
    }
    counted.forEach((rep, i) => {
      const known = truth.reps[i];
      if (!known) return;
      (known.brakesHard ? out.mcvHard : out.mcv).push(Math.abs(rep.mcvMps - known.mcvMps));
      out.pv.push(Math.abs(rep.pvMps - known.pvMps));
      out.mpv.push(Math.abs(rep.mpvMps - known.mpvMps));
      out.pause.push(Math.abs((rep.pauseS ?? 9) - known.pauseS));
      out.contact.push(Math.abs((rep.contactMps ?? 9) - known.contactMps));
    });
  }
  return out;
}

const p95 = (values: number[]) => quantile(values, 0.95) ?? Number.POSITIVE_INFINITY;

describe("accuracy on 200 sets of known truth", () => {
  test.each([
    [50, 0.0003, 0.01, 0.02],
    [100, 0.0003, 0.01, 0.02],
    [200, 0.0003, 0.01, 0.02],
    [50, 0.001, 0.02, 0.05],
    [100, 0.001, 0.02, 0.05],
    [200, 0.001, 0.02, 0.05],
  ])("%s Hz, %s m noise: count exact, MCV %s, PV %s, pause 0.05", (rate, noise, mcv, pv) => {
    const errors = accuracy(rate, noise);
    expect(errors.wrongCounts).toEqual([]);
    expect(p95(errors.mcv)).toBeLessThan(mcv);
    expect(p95(errors.pv)).toBeLessThan(pv);
    expect(p95(errors.pause)).toBeLessThan(0.05);
    expect(p95(errors.contact)).toBeLessThan(noise > 0.0005 ? 0.05 : 0.03);
    expect(errors.mcv.length + errors.mcvHard.length).toBeGreaterThan(700);
  });

  it("holds 0.03 on reps that brake harder than gravity", () => {
    for (const rate of [50, 100, 200]) {
      const { mcvHard } = accuracy(rate, 0.0003);
      expect(mcvHard.length).toBeGreaterThan(30);
      expect(p95(mcvHard)).toBeLessThan(0.03);
    }
    expect(p95([50, 100, 200].flatMap((rate) => accuracy(rate, 0.001).mcvHard))).toBeLessThan(0.03);
  });

  test.each([0.0003, 0.001])("25 Hz, %s m noise: count exact, MCV 0.05", (noise) => {
    const errors = accuracy(25, noise);
    expect(errors.wrongCounts).toEqual([]);
    expect(p95([...errors.mcv, ...errors.mcvHard])).toBeLessThan(0.05);
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

const REP: Piece[] = [move(-0.4, 0.6), move(0.4, 0.5), still(0.4)];

describe("what is a rep and what is not", () => {
  it("measures a plain rep to its truth", () => {
    const { reps } = measure(sampled([still(1), ...REP, still(1)]));
    expect(reps).toHaveLength(1);
    expect(reps[0]?.mcvMps).toBeCloseTo(0.8, 2);
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
    expect(reps[0]?.mcvMps).toBeCloseTo(0.5 / 0.9, 2);
  });

  it("keeps a sticking point inside its rep", () => {
    const { reps } = measure(sampled([still(1), move(-0.4, 0.8), move(0.4, 1.6, 0.55), still(1)]));
    expect(reps).toHaveLength(1);
    expect(reps[0]?.mcvMps).toBeCloseTo(0.25, 2);
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
  const play = (samples: Sample[], packet: number) => {
    const live = new LiveSet();
    const out: Array<{ mcv: number; endS: number; atS: number }> = [];
    for (let i = 0; i < samples.length; i += packet) {
      const part = samples.slice(i, i + packet);
      for (const rep of live.push(part)) {
        out.push({ mcv: rep.mcvMps, endS: rep.endS, atS: part[part.length - 1]?.timeS ?? 0 });
      }
    }
    return out;
  };
  const set = sampled([still(1), ...REP, ...REP, ...REP, still(1)]);

  it("confirms each rep once, within 300 ms of its end, with the stored stream's figure", () => {
    const heard = play(set, 5);
    const whole = measure(set).reps;
    expect(heard).toHaveLength(3);
    heard.forEach((rep, i) => {
      expect(rep.atS - rep.endS).toBeLessThan(0.3);
      expect(rep.atS - rep.endS).toBeGreaterThanOrEqual(CONFIRM_AFTER_S);
      expect(Math.abs(rep.mcv - (whole[i]?.mcvMps ?? 0))).toBeLessThan(0.01);
    });
  });

  it("gives the same reps whatever the packets", () => {
    const counts = [1, 3, 10, 25].map((packet) => play(set, packet).length);
    expect(counts).toEqual([3, 3, 3, 3]);
  });

  it("shows the last seconds of the bar", () => {
    const live = new LiveSet();
    live.push(set.slice(0, 300));
    const recent = live.recentHeights(1);
    expect(recent.length).toBeGreaterThan(90);
    expect(recent.length).toBeLessThan(110);
    expect(new LiveSet().recentHeights(1)).toEqual([]);
  });

  // All forty with `npm run soak`: each is played packet by packet, most of a second long.
  const liveSets = process.env.FULL_SEEDS ? 40 : 12;
  it(`counts exactly on ${liveSets} reference sets, packet by packet`, () => {
    for (let seed = 1; seed <= liveSets; seed++) {
      const truth = referenceSet(seed);
      const settings = { rateHz: 100, noiseM: 0.0003, jitter: 0.1 };
      const samples = sampleMovement(truth.movement, settings, seededRandom(seed));
      expect(play(samples, 10)).toHaveLength(truth.reps.length);
    }
  });
});
