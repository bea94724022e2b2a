import { describe, expect, it } from "vitest";
import { SHAPE_FAMILIES } from "../../device/shapes/families";
import { HELD_OUT_FAMILIES } from "../../device/shapes/held-out";
import { backAngle, backDrift } from "./back-angle";
import { measureClip, reachesSeat } from "./clip";
import { centred, type Filmed, film } from "./fixtures/film";
import { PLAIN_SCENE, Renderer } from "./fixtures/render";
import { brightnessAt, isFrame } from "./grey";
import { clipHeights, heightAt, upLeaning } from "./heights";
import { refineMark } from "./mark";
import { filmedHzOf, slowedOf } from "./retime";
import { type Rim, radiusOf } from "./rim";
import { SizeAlong } from "./size-along";
import { rateErrorMps } from "./speeds";
import { SteadyCheck } from "./steady";
import { RimTracker, type Sighting } from "./tracker";
import { wayThatDiffers } from "./way";

const SMALL = { ...PLAIN_SCENE, widthPx: 360, heightPx: 480, viewM: 2 };
const HARD = {
  ...SMALL,
  yawDeg: 9,
  pitchDeg: -8,
  readoutS: 0.006,
  barrel: 0.01,
  noise: 3,
  coder: 4,
  lightDrift: 0.1,
  flicker: 0.02,
};
const families = { ...SHAPE_FAMILIES, ...HELD_OUT_FAMILIES };

function filmed(of: Parameters<typeof film>[0]): Filmed {
  const made = film(of);
  if ("refused" in made) throw new Error(`The mark was refused: ${made.refused}`);
  return made;
}

describe("a set from a film", () => {
  for (const [family, seed, fps, withinMps] of [
    ["harmonic", 4, 60, 0.03],
    ["grinds", 2, 60, 0.03],
    ["pulls", 3, 30, 0.05],
  ] as const)
    it(`${family} at ${fps} pictures a second: every rep, and its speed within ${withinMps}`, () => {
      const set = families[family]?.(seed);
      if (!set) throw new Error("No such shapes.");
      // The first two of them: a test is no evening.
      const reps = set.reps.slice(0, 2);
      const { result, lost } = filmed({
        scene: { ...HARD, fps, seed: seed + 20 },
        way: centred({
          durationS: (reps.at(-1)?.endS ?? 0) + 0.9,
          heightAt: (t) => set.movement.heightAt(t),
        }),
        settings: { start: set.start },
        acrossAt: (t) => 0.02 * Math.sin(1.3 * t),
        marked: (mark) => ({ ...mark, xPx: mark.xPx + 2, radiusPx: mark.radiusPx * 1.02 }),
      });
      expect(lost).toBeUndefined();
      if (!result.ok) throw new Error(result.reason);
      expect(result.speeds.reps.map((one) => one.rep.outcome)).toEqual(
        reps.map((rep) => rep.outcome),
      );
      for (const [i, { rep, within90Mps }] of result.speeds.reps.entries()) {
        expect(Math.abs(rep.mcvMps - (reps[i]?.mcvMps ?? 0))).toBeLessThan(withinMps);
        expect(within90Mps).toBeGreaterThan(0.002);
        expect(within90Mps).toBeLessThan(0.08);
      }
    }, 60_000);
});

describe("what is lost is said to be", () => {
  const still = { durationS: 3, heightAt: () => 1 };

  it("a plate that leaves the picture", () => {
    const { lost } = filmed({
      scene: SMALL,
      way: { durationS: 4, heightAt: (t) => 1 + Math.max(0, t - 0.5) },
      settings: {},
    });
    expect(lost?.reason).toBe("left-picture");
  });

  it("somebody who stays in front of it; who walks by costs some pictures alone", () => {
    const passer = { widthM: 0.7, level: 120 };
    const stays = filmed({
      scene: { ...SMALL, passers: [{ ...passer, atS: 2.5, speedMps: 0.5, widthM: 1.2 }] },
      way: { ...still, durationS: 4 },
      settings: {},
    });
    expect(stays.lost?.reason).toBe("hidden");
    const by = filmed({
      scene: { ...SMALL, passers: [{ ...passer, atS: 1, speedMps: 3, widthM: 0.3 }] },
      way: still,
      settings: {},
    });
    expect(by.lost).toBeUndefined();
    expect(by.unseen).toBeLessThan(30);
    const places = by.sightings.map((one) => one.yPx);
    expect(Math.max(...places) - Math.min(...places)).toBeLessThan(1);
  });

  it("a camera that is knocked, and a bar that does not move", () => {
    const knocked = filmed({
      scene: { ...SMALL, driftPxPerS: 4, backTexture: 90 },
      way: { durationS: 3, heightAt: (t) => 1 + 0.2 * Math.sin(4 * t) },
      settings: {},
    });
    expect(knocked.cameraPx).toBeGreaterThan(8);
    expect(knocked.result).toMatchObject({ ok: false, reason: "camera-moved" });
    const { result } = filmed({ scene: SMALL, way: still, settings: {} });
    expect(result).toEqual({ ok: false, reason: "no-motion" });
  });
});

describe("heights", () => {
  const rim: Rim = { xPx: 200, yPx: 300, m11: 1 / 60 ** 2, m12: 0, m22: 1 / 58 ** 2 };
  const seen = (yPx: number, scale: number, i: number): Sighting => ({
    timeS: i / 60,
    xPx: 200,
    yPx,
    scale,
    sdPx: 0.05,
  });
  const base = { rim, onRim: 1, plateDiameterM: 0.45, up: { x: 0, y: -1 } };

  it("are the way in plate radii, whatever the plate's shape in the picture", () => {
    const found = clipHeights({ ...base, sightings: [seen(300, 1, 0), seen(242, 1, 1)] });
    expect(found?.heightsM[1]).toBeCloseTo(0.225, 10);
  });

  it("follow a plate that comes nearer as it rises, exactly", () => {
    // A pinhole that looks up by φ: y = f Y cos φ / (d + Y sin φ).
    const [f, d, phi] = [800, 3, 0.2];
    const heights = Array.from({ length: 200 }, (_, i) => 0.3 * Math.sin(i / 15));
    const depth = (h: number) => d + h * Math.sin(phi);
    const sightings = heights.map((h, i) => {
      const y = (f * h * Math.cos(phi)) / depth(h);
      return seen(300 - y, (d / depth(h)) ** 1.5, i);
    });
    const r = 0.225;
    const flat = {
      ...rim,
      m11: (d / (f * r)) ** 2,
      m22: (d / (f * r * Math.cos(phi))) ** 2,
    };
    const found = clipHeights({ ...base, rim: flat, sightings });
    heights.forEach((h, i) => {
      expect(found?.heightsM[i]).toBeCloseTo(h, 4);
    });
  });

  it("keep to the mark where a ring within the rim was followed, and to a larger rim that was", () => {
    const rises = [0, 40, 80, 120, 80, 40, 0, 40, 80];
    const at = (size: number) =>
      clipHeights({ ...base, sightings: rises.map((y, i) => seen(300 - y, size, i)) })?.heightsM[3];
    expect(at(1)).toBeCloseTo((0.225 * 120) / 58, 10);
    expect(at(0.93)).toBeCloseTo((0.225 * 120) / 58, 10);
    // A rim that was marked a hundredth too small: all pictures say how large it is.
    expect(at(1.01)).toBeCloseTo((0.225 * 120) / 58 / 1.01, 10);
  });

  it("a clip that plays four times slower was four times as fast", () => {
    const sightings = Array.from({ length: 400 }, (_, i) =>
      seen(300 + 60 * (1 - Math.cos(i / 20)), 1, i),
    );
    const of = { ...base, sightings, cameraPx: 0, pictureHeightPx: 480, settings: {} };
    const plain = measureClip({ ...of, slowedBy: 1 });
    const slow = measureClip({ ...of, slowedBy: 4 });
    if (!plain.ok || !slow.ok) throw new Error("Neither has a reason to fail.");
    expect(plain.speeds.reps.length).toBeGreaterThan(1);
    const [one, four] = [plain, slow].map((each) => each.speeds.reps[0]?.rep.mcvMps ?? 0);
    expect((four ?? 0) / (one ?? 1)).toBeGreaterThan(3.6);
    expect((four ?? 0) / (one ?? 1)).toBeLessThan(4.4);
  });

  it("a rim that hardly stands out is told, and makes every speed less sure", () => {
    const sightings = Array.from({ length: 400 }, (_, i) =>
      seen(300 + 60 * (1 - Math.cos(i / 20)), 1, i),
    );
    const of = { ...base, sightings, cameraPx: 0, pictureHeightPx: 480, settings: {}, slowedBy: 1 };
    const [clear, unclear] = [measureClip(of), measureClip({ ...of, onRim: 0.7 })];
    if (!clear.ok || !unclear.ok) throw new Error("Neither has a reason to fail.");
    expect(clear.notes.map((note) => note.kind)).not.toContain("unclear-rim");
    expect(unclear.notes.map((note) => note.kind)).toContain("unclear-rim");
    expect(unclear.speeds.reps[0]?.within90Mps ?? 0).toBeGreaterThan(
      1.5 * (clear.speeds.reps[0]?.within90Mps ?? 1),
    );
  });

  it("a plumb line that leans and a moment's height are read as they are drawn", () => {
    expect(upLeaning(0).x).toBeCloseTo(0, 12);
    expect(upLeaning(0).y).toBeCloseTo(-1, 12);
    expect(upLeaning(90).x).toBeCloseTo(1, 12);
    const heights = { timesS: [0, 0.1, 0.2], heightsM: [1, 2, 3] };
    expect(heightAt(heights, 0.1)).toBe(2);
    expect(heightAt(heights, 0.15)).toBe(3);
    expect(heightAt(heights, 5)).toBeUndefined();
  });

  it("a seat is reached within a hand's give", () => {
    expect(reachesSeat(0.01)).toBe(true);
    expect(reachesSeat(0.03)).toBe(false);
  });

  it("a way that is not the lifter's own is told, with the plate that would fit", () => {
    const rep = (rangeM: number, more: object = {}) =>
      ({ rep: { rangeM, outcome: "counted", short: false, ...more } }) as never;
    const tape = { m: 0.46, measured: true };
    const found = wayThatDiffers([rep(0.22), rep(0.23), rep(0.24)], tape, 0.225);
    expect(found?.plateM).toBeCloseTo(0.45, 9);
    expect(found?.filmedM).toBe(0.23);
    // A failed and a short rep say nothing of the whole way.
    const others = [rep(0.2, { outcome: "failed" }), rep(0.2, { short: true })];
    expect(wayThatDiffers([...others, rep(0.46)], tape, 0.45)).toBeUndefined();
    expect(wayThatDiffers(others, tape, 0.45)).toBeUndefined();
    // A tape is held to 15 %, what comes from stature to 40 %.
    const stature = { ...tape, measured: false };
    expect(wayThatDiffers([rep(0.4)], tape, 0.45)).toBeUndefined();
    expect(wayThatDiffers([rep(0.38)], tape, 0.45)).toBeDefined();
    expect(wayThatDiffers([rep(0.3)], stature, 0.45)).toBeUndefined();
    expect(wayThatDiffers([rep(0.25)], stature, 0.45)).toBeDefined();
    expect(wayThatDiffers([rep(0.2)], undefined, 0.45)).toBeUndefined();
    expect(wayThatDiffers([rep(0.2)], tape, Number.NaN)).toBeUndefined();
  });

  it("fewer pictures are a larger error, and none is the largest", () => {
    expect(rateErrorMps(30)).toBeGreaterThan(rateErrorMps(60));
    expect(rateErrorMps(Number.NaN)).toBe(0.03);
  });
});

describe("the back's lean", () => {
  const up = { x: 0, y: -1 };
  const hip = { xPx: 100, yPx: 400 };

  it("is the line from hip to shoulder against upright, to either side", () => {
    expect(backAngle({ hip, shoulder: { xPx: 100, yPx: 300 }, up })).toBeCloseTo(0, 9);
    for (const side of [-1, 1])
      expect(backAngle({ hip, shoulder: { xPx: 100 + side * 50, yPx: 350 }, up })).toBeCloseTo(
        45,
        9,
      );
    // A phone that stood askew by 10°: upright is along the rack.
    const askew = { x: Math.sin(0.1745), y: -Math.cos(0.1745) };
    expect(backAngle({ hip, shoulder: { xPx: 150, yPx: 350 }, up: askew })).toBeCloseTo(35, 1);
    expect(backAngle({ hip, shoulder: hip, up })).toBeUndefined();
    expect(backAngle({ hip, shoulder: { xPx: Number.NaN, yPx: 3 }, up })).toBeUndefined();
  });

  it("drifts from the first marked rep to the last", () => {
    expect(backDrift([undefined, 40, 43, undefined, 47])).toBe(7);
    expect(backDrift([40, undefined])).toBeUndefined();
  });
});

describe("bad input", () => {
  const renderer = new Renderer(SMALL, { heightAt: () => 1 });
  const frame = renderer.frame(0);
  const mark = renderer.markAt(0);

  it("a picture whose sizes do not fit is none, and is never read beyond its bytes", () => {
    for (const broken of [
      { ...frame, widthPx: 10_000 },
      { ...frame, widthPx: 0 },
      { ...frame, heightPx: Number.NaN },
      { ...frame, stridePx: 10 },
      { ...frame, grey: new Uint8Array(10) },
      { ...frame, timeS: Number.NaN },
    ]) {
      expect(isFrame(broken)).toBe(false);
      expect(RimTracker.begin(broken, mark)).toEqual({ ok: false, reason: "no-frame" });
    }
    expect(brightnessAt(frame, -1, 5)).toBeNaN();
    expect(brightnessAt(frame, Number.NaN, 5)).toBeNaN();
  });

  it("a mark that is none, lies outside or on nothing is refused", () => {
    const refused = (own: Partial<typeof mark>) => {
      const found = refineMark(frame, { ...mark, ...own });
      return found.ok ? "taken" : found.reason;
    };
    expect(refused({ radiusPx: Number.NaN })).toBe("mark-too-small");
    expect(refused({ radiusPx: -4 })).toBe("mark-too-small");
    expect(refused({ radiusPx: Number.POSITIVE_INFINITY })).toBe("mark-too-small");
    expect(refused({ xPx: Number.NaN })).toBe("mark-outside");
    expect(refused({ yPx: 9_999 })).toBe("mark-outside");
    expect(refused({ xPx: 60, yPx: 420, radiusPx: 25 })).toBe("no-rim");
    const found = refineMark(frame, mark);
    if (!found.ok) throw new Error(found.reason);
    expect(radiusOf(found.rim) / mark.radiusPx).toBeCloseTo(1, 1);
  });

  it("times that stand or go back are skipped", () => {
    const begun = RimTracker.begin(frame, mark);
    if (!begun.ok) throw new Error(begun.reason);
    expect(begun.tracker.push({ ...frame, timeS: 0 }).kind).toBe("skipped");
    expect(begun.tracker.push({ ...frame, timeS: -1 }).kind).toBe("skipped");
    expect(begun.tracker.push({ ...frame, timeS: 0.02 }).kind).toBe("seen");
  });

  it("an empty background tells nothing of the camera", () => {
    const empty = { ...frame, grey: new Uint8Array(frame.grey.length).fill(90) };
    expect(new SteadyCheck(empty, mark).look(empty)).toBeUndefined();
  });

  it("no size, no plumb line or no film is no height", () => {
    const rim: Rim = { xPx: 0, yPx: 0, m11: 1 / 900, m12: 0, m22: 1 / 900 };
    const up = { x: 0, y: -1 };
    const sightings: Sighting[] = [];
    expect(clipHeights({ rim, onRim: 1, sightings, plateDiameterM: 0.45, up })).toBeUndefined();
    for (const broken of [0, -1, Number.NaN, 50])
      expect(
        measureClip({
          rim,
          onRim: 1,
          sightings: Array.from({ length: 20 }, (_, i) => ({
            timeS: i / 60,
            xPx: 0,
            yPx: i,
            scale: 1,
            sdPx: 0.1,
          })),
          plateDiameterM: broken,
          up,
          slowedBy: 1,
          cameraPx: undefined,
          pictureHeightPx: 480,
          settings: {},
        }),
      ).toEqual({ ok: false, reason: "bad-size" });
  });
});

describe("a plate's size along its way", () => {
  it("is as marked and straight with the way, as far as pictures have shown", () => {
    const sizes = new SizeAlong(true);
    expect(sizes.at(0).scale).toBeCloseTo(1, 12);
    expect(sizes.at(2).sd).toBeGreaterThan(0.035);
    for (let i = 0; i < 200; i++) sizes.read(Math.sin(i / 9), 1 + 0.015 * Math.sin(i / 9));
    expect(sizes.at(2).scale).toBeCloseTo(1.03, 2);
    expect(sizes.at(2).sd).toBeLessThan(0.015);
    // A ring within the rim is not believed after so many.
    expect((sizes.at(0).scale - 0.95) / sizes.at(0).sd).toBeGreaterThan(5);
  });

  it("is what is followed, where the mark did not stand out", () => {
    const sizes = new SizeAlong(false);
    for (let i = 0; i < 60; i++) sizes.read(0, 0.95);
    expect(sizes.at(0).scale).toBeCloseTo(0.95, 2);
  });
});

describe("a film that plays slower than it was filmed", () => {
  const bytes = (length: number, set: (view: DataView) => void) => {
    const made = new Uint8Array(length);
    set(new DataView(made.buffer));
    return made;
  };

  it("tells from its file's tag, as text or as a float", () => {
    expect(filmedHzOf("240.000000")).toBe(240);
    expect(filmedHzOf(bytes(4, (view) => view.setFloat32(0, 120)))).toBe(120);
    expect(filmedHzOf(bytes(8, (view) => view.setFloat64(0, 960)))).toBe(960);
    for (const tag of [undefined, null, "", "often", new Uint8Array(3), new Uint8Array(4)])
      expect(filmedHzOf(tag)).toBeUndefined();
  });

  it("is so many times slower; a rate that hardly differs is the usual one", () => {
    expect(slowedOf(240, 29.97)).toBe(8);
    expect(slowedOf(60, 60.2)).toBe(1);
    expect(slowedOf(180, 30)).toBe(6);
    expect(slowedOf(30, 240)).toBeUndefined();
    expect(slowedOf(2000, 30)).toBeUndefined();
    expect(slowedOf(60, Number.NaN)).toBeUndefined();
  });
});
