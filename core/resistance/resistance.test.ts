import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { hermiteAt, hermiteCurve } from "../numeric/hermite";
import { checkResistance, proposeSetups } from "./rig-checks";
import {
  type Band,
  bandCurve,
  bandKgAt,
  byConventions,
  type Chain,
  chainKgAt,
  type Resistance,
  resistanceCurve,
} from "./setup";

const HEIGHTS = { bottomM: 0.85, lockoutM: 1.4, measured: true };
const chain = (over: Partial<Chain> = {}): Chain => ({
  kind: "chain",
  name: "Chain",
  densityKgPerM: 6,
  lengthM: 1.5,
  touchM: 0.2,
  folded: false,
  ...over,
});
const band = (over: Partial<Band> = {}): Band => ({
  kind: "band",
  name: "Middle band",
  restM: 0.6,
  readings: [
    { lengthM: 0.7, tensionKg: 4 },
    { lengthM: 1.0, tensionKg: 13 },
    { lengthM: 1.3, tensionKg: 20 },
    { lengthM: 1.5, tensionKg: 28 },
  ],
  folded: false,
  anchorM: 0.05,
  ...over,
});
const known = (pieces: Resistance[], heights = HEIGHTS) => {
  const found = resistanceCurve(pieces, heights);
  if (!found.ok) throw new Error(found.reason);
  return found.curve;
};

describe("chains", () => {
  it("equal the worked example: 7.8 kg at the bottom, 14.4 at lockout, 11.1 in the mean", () => {
    const curve = known([{ what: chain(), perSide: 1 }]);
    expect(curve.bottomKg).toBeCloseTo(7.8, 10);
    expect(curve.lockoutKg).toBeCloseTo(14.4, 10);
    expect(curve.meanKg).toBeCloseTo(11.1, 10);
  });

  it("weigh at lockout what they weigh at the bottom and what was lifted off the floor", () => {
    const part = fc.double({ min: 0.3, max: 3, noNaN: true });
    fc.assert(
      fc.property(part, part, fc.integer({ min: 1, max: 3 }), (lengthM, densityKgPerM, perSide) => {
        const what = chain({ lengthM, densityKgPerM });
        const curve = known([{ what, perSide }]);
        const lifted =
          Math.min(HEIGHTS.lockoutM, what.touchM + lengthM) -
          Math.min(HEIGHTS.bottomM, what.touchM + lengthM);
        const liftedKg = 2 * perSide * densityKgPerM * lifted;
        expect(curve.lockoutKg).toBeCloseTo(curve.bottomKg + liftedKg, 9);
        for (const one of byConventions(curve, 150, 60)) {
          expect(one.bottomKg).toBeCloseTo(one.barKg + curve.bottomKg, 9);
          expect(one.lockoutKg).toBeCloseTo(one.bottomKg + liftedKg, 9);
        }
      }),
    );
  });

  it("are never lighter for being more, longer, heavier or hung higher off the floor", () => {
    const any = fc.record({
      densityKgPerM: fc.double({ min: 1, max: 20, noNaN: true }),
      lengthM: fc.double({ min: 0.3, max: 3, noNaN: true }),
      touchM: fc.double({ min: 0, max: 1, noNaN: true }),
      folded: fc.boolean(),
    });
    fc.assert(
      fc.property(any, fc.double({ min: 0, max: 2.5, noNaN: true }), (one, h) => {
        const here = chainKgAt(chain(one), h);
        expect(here).toBeGreaterThanOrEqual(0);
        expect(chainKgAt(chain(one), h + 0.1)).toBeGreaterThanOrEqual(here - 1e-12);
        expect(chainKgAt(chain({ ...one, lengthM: one.lengthM + 0.2 }), h)).toBeGreaterThanOrEqual(
          here - 1e-12,
        );
        expect(here).toBeLessThanOrEqual(one.densityKgPerM * one.lengthM + 1e-9);
        const two = known([{ what: chain(one), perSide: 2 }]);
        const single = known([{ what: chain(one), perSide: 1 }]);
        expect(two.meanKg).toBeGreaterThanOrEqual(single.meanKg);
      }),
    );
  });
});

describe("bands", () => {
  it("pass through every reading, rise all the way, and pull nothing at rest", () => {
    const found = bandCurve(band());
    if (!found.ok) throw new Error(found.reason);
    for (const { lengthM, tensionKg } of band().readings) {
      expect(hermiteAt(found.curve, lengthM)).toBeCloseTo(tensionKg, 12);
    }
    let before = -1;
    for (let x = 0.6; x < 1.6; x += 0.002) {
      const here = hermiteAt(found.curve, x);
      expect(here).toBeGreaterThan(before);
      before = here;
    }
    expect(bandKgAt(band(), found.curve, 0.05 + 0.6)).toBe(0);
    expect(bandKgAt(band({ folded: true }), found.curve, 0.05 + 0.5)).toBeCloseTo(26, 12);
  });

  it("have the stated tangents: mean of secants, end secants, within the circle of radius 3", () => {
    const points = [
      { x: 0, y: 0 },
      { x: 1, y: 1 },
      { x: 2, y: 1.1 },
      { x: 3, y: 6 },
    ];
    const curve = hermiteCurve(points);
    if ("ok" in curve) throw new Error(curve.reason);
    expect(curve.tangents[0]).toBeCloseTo(1, 12);
    // Second point: secants 1 and 0.1, mean 0.55; the piece 1–2 has secant 0.1.
    const secants = [1, 0.1, 4.9];
    secants.forEach((secant, i) => {
      const a = (curve.tangents[i] as number) / secant;
      const b = (curve.tangents[i + 1] as number) / secant;
      expect(Math.hypot(a, b)).toBeLessThanOrEqual(3 + 1e-12);
    });
    const free = hermiteCurve(points.slice(0, 2));
    if ("ok" in free) throw new Error(free.reason);
    expect(hermiteAt(free, 0.3)).toBeCloseTo(0.3, 12);
  });

  it("have a mean that equals fine numerical integration within 1e-6", () => {
    const readings = [{ lengthM: 0.6, tensionKg: 0 }, ...band().readings];
    const pieces: Resistance[] = [
      { what: band({ readings }), perSide: 1 },
      { what: band({ readings, folded: true, anchorM: 0.4 }), perSide: 1 },
      { what: chain({ folded: true }), perSide: 2 },
    ];
    const heights = { bottomM: 0.5, lockoutM: 1.7, measured: true };
    const curve = known(pieces, heights);
    const steps = 400_000;
    let sum = 0;
    for (let i = 0; i < steps; i++) sum += curve.at(0.5 + (1.2 * (i + 0.5)) / steps) / steps;
    expect(Math.abs(curve.meanKg - sum)).toBeLessThan(1e-6);
    expect(curve.extrapolated).toBe(true);
  });

  it.each([
    ["under-two-readings", [{ lengthM: 1, tensionKg: 10 }]],
    [
      "tension-not-rising",
      [
        { lengthM: 1, tensionKg: 10 },
        { lengthM: 1.2, tensionKg: 9 },
      ],
    ],
    [
      "length-not-rising",
      [
        { lengthM: 1, tensionKg: 10 },
        { lengthM: 1, tensionKg: 11 },
      ],
    ],
    [
      "not-metres",
      [
        { lengthM: 1, tensionKg: 10 },
        { lengthM: 41, tensionKg: 11 },
      ],
    ],
    [
      "negative",
      [
        { lengthM: -1, tensionKg: 10 },
        { lengthM: 1, tensionKg: 11 },
      ],
    ],
  ])("refuse as %s", (reason, readings) => {
    expect(bandCurve({ readings, restM: 0.6 })).toEqual({ ok: false, reason });
  });
});

describe("the three conventions", () => {
  it("give each its bar, and each its own total at the percentage", () => {
    const curve = known([{ what: chain(), perSide: 1 }]);
    const [bar, lockout, mean] = byConventions(curve, 150, 60);
    expect(bar?.barKg).toBeCloseTo(90, 10);
    expect(lockout?.lockoutKg).toBeCloseTo(90, 10);
    expect(mean?.meanKg).toBeCloseTo(90, 10);
    expect(bar?.lockoutPercent).toBeCloseTo(69.6, 10);
    expect(lockout?.shareAtLockout).toBeCloseTo(14.4 / 90, 10);
  });
});

describe("checks", () => {
  const ask = (pieces: Resistance[], over = {}) =>
    checkResistance({
      pieces,
      heights: HEIGHTS,
      curve: known(pieces),
      barKg: 80,
      upperBody: false,
      anchorKg: Number.POSITIVE_INFINITY,
      steppingOutKg: undefined,
      walkout: false,
      experienced: false,
      retired: [],
      unit: "kg" as const,
      ...over,
    }).map((one) => `${one.level}/${one.code}`);
  const bands: Resistance[] = [{ what: band(), perSide: 1 }];

  it.each([
    [bands, {}, []],
    [bands, { anchorKg: undefined }, ["refused/anchor-unknown"]],
    [bands, { anchorKg: 20 }, ["refused/anchor-lifts"]],
    [bands, { anchorKg: 40 }, ["warning/anchor-light"]],
    [bands, { anchorKg: 60 }, []],
    [bands, { barKg: 50, upperBody: true }, ["warning/upper-body"]],
    [bands, { walkout: true, steppingOutKg: 10 }, ["warning/stepping-out"]],
    [bands, { walkout: true }, ["note/stepping-out-unset"]],
    [bands, { bolted: false, anchorKg: 60 }, ["note/anchor-least-unset"]],
    [bands, { bolted: false, anchorKg: 60, leastAnchorKg: 80 }, ["refused/anchor-under-least"]],
    [bands, { bolted: false, anchorKg: 90, leastAnchorKg: 80 }, []],
    [bands, { retired: ["Middle band"] }, ["refused/retired"]],
    [[{ what: band({ anchorM: 0.4 }), perSide: 1 }], {}, ["warning/slack"]],
    [[{ what: chain({ lengthM: 0.6 }), perSide: 1 }], {}, ["warning/chain-off-floor-bottom"]],
    [[{ what: chain({ lengthM: 1 }), perSide: 1 }], {}, ["warning/chain-off-floor-lockout"]],
    [[...bands, { what: chain(), perSide: 1 }], {}, ["warning/both-kinds"]],
    [[...bands, { what: chain(), perSide: 1 }], { experienced: true }, []],
  ] as Array<[Resistance[], object, string[]]>)("case %#", (pieces, over, expected) => {
    expect(ask(pieces, over)).toEqual(expected);
  });
});

describe("proposals", () => {
  it("come nearest first, within the room's stock, bands and chains apart", () => {
    const stock = [
      { what: band(), perSide: 2 },
      {
        what: band({
          name: "Light band",
          readings: [
            { lengthM: 0.7, tensionKg: 2 },
            { lengthM: 1.5, tensionKg: 12 },
          ],
        }),
        perSide: 1,
      },
      { what: chain(), perSide: 2 },
    ];
    const found = proposeSetups({
      stock,
      heights: HEIGHTS,
      barKg: 80,
      wantedShare: 0.22,
      most: 20,
    });
    const distances = found.map((one) => Math.abs(one.share - 0.22));
    expect([...distances].sort((a, b) => a - b)).toEqual(distances);
    for (const one of found) {
      expect(new Set(one.pieces.map((piece) => piece.what.kind)).size).toBe(1);
      for (const piece of one.pieces) {
        const has = stock.find((item) => item.what === piece.what)?.perSide ?? 0;
        expect(piece.perSide).toBeLessThanOrEqual(has);
      }
    }
    // 2 × 2 − 1 + 2 of chains: 0–2 middle and 0–1 light bands, 1–2 chains.
    expect(found).toHaveLength(3 * 2 - 1 + 2);
  });
});
