import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testBand } from "./fixtures/band";
import { barUnder, chooseRig, type HangStock, NOTHING_TO_HANG, rigWords } from "./rig";
import type { Chain } from "./setup";

/** 10 kg a metre, 1 m long, its end on the floor at a bar height of 0.6 m. */
const chain = (name: string, densityKgPerM = 10): Chain => ({
  kind: "chain",
  name,
  densityKgPerM,
  lengthM: 1,
  touchM: 0.6,
  folded: false,
});
const band = (name: string, kgPerM = 20) => testBand(name, kgPerM);
const HEIGHTS = { bottomM: 0.9, lockoutM: 1.4, measured: true };
const stock = (pieces: HangStock["pieces"], anchorKg: number | undefined = 200): HangStock => ({
  pieces,
  anchorKg,
});

describe("a set-up for a wanted share", () => {
  // One chain a side: 2 × 10 × (h − 0.6): 6 kg at the bottom, 16 at lockout, 11 in the mean.
  const oneChain = stock([{ what: chain("Chain"), perSide: 1 }]);
  const rigged = (convention: "bar" | "lockout" | "mean") => {
    const found = chooseRig({
      stock: oneChain,
      heights: HEIGHTS,
      convention,
      askedKg: 80,
      wantedPercent: 20,
      emptyKg: 20,
    });
    if (!found.ok) throw new Error(found.reason);
    return found.rig;
  };

  it("is worked by hand for the three conventions: of 80 kg the bar is 80, 64 or 69", () => {
    const rig = rigged("bar");
    expect(
      [rig.bottomKg, rig.lockoutKg, rig.meanKg].map((kg) => Math.round(1e6 * kg) / 1e6),
    ).toEqual([6, 16, 11]);
    expect(barUnder("bar", 80, rigged("bar"))).toBe(80);
    expect(barUnder("lockout", 80, rigged("lockout"))).toBeCloseTo(64, 9);
    expect(barUnder("mean", 80, rigged("mean"))).toBeCloseTo(69, 9);
  });

  it("has the mean of a numeric integral over the range (trapezoids of a tenth of a millimetre)", () => {
    const found = chooseRig({
      stock: stock([{ what: band("Band"), perSide: 2 }]),
      heights: HEIGHTS,
      convention: "mean",
      askedKg: 100,
      wantedPercent: 30,
      emptyKg: 20,
    });
    if (!found.ok) throw new Error(found.reason);
    const { rig } = found;
    const [piece] = rig.pieces;
    const pull = (h: number) => 2 * (piece?.perSide ?? 0) * 20 * Math.max(0, h - 0.05 - 0.5);
    const steps = 5000;
    let sum = 0;
    for (let i = 0; i < steps; i++) {
      const a = 0.9 + (0.5 * i) / steps;
      sum += (pull(a) + pull(a + 0.5 / steps)) / 2 / steps;
    }
    expect(rig.meanKg).toBeCloseTo(sum, 6);
    expect(rig.lockoutKg).toBeCloseTo(pull(1.4), 9);
  });

  it("is the nearest of all that can be hung, tried one by one (property)", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 1, max: 2 }),
        fc.integer({ min: 5, max: 45 }),
        fc.constantFrom("bar" as const, "lockout" as const, "mean" as const),
        (densities, perSide, wantedPercent, convention) => {
          const pieces = densities.map((density, i) => ({
            what: chain(`C${i}`, density),
            perSide,
          }));
          const found = chooseRig({
            stock: stock(pieces),
            heights: HEIGHTS,
            convention,
            askedKg: 90,
            wantedPercent,
            emptyKg: 20,
          });
          // Each chain gives 0.3 d at the bottom and 0.8 d at lockout a side: counted here anew.
          let best = Number.POSITIVE_INFINITY;
          const counts = densities.map(() => 0);
          const tryAll = (i: number): void => {
            if (i === densities.length) {
              const kgM = densities.reduce((sum, d, k) => sum + d * (counts[k] as number), 0);
              if (kgM === 0) return;
              const [lockout, mean] = [2 * 0.8 * kgM, 2 * 0.55 * kgM];
              const bar = 90 - (convention === "bar" ? 0 : convention === "mean" ? mean : lockout);
              if (bar < 20) return;
              best = Math.min(best, Math.abs((100 * lockout) / (lockout + bar) - wantedPercent));
              return;
            }
            for (let n = 0; n <= perSide; n++) {
              counts[i] = n;
              tryAll(i + 1);
            }
          };
          tryAll(0);
          if (!found.ok) {
            expect(best).toBe(Number.POSITIVE_INFINITY);
            return;
          }
          const bar = barUnder(convention, 90, found.rig);
          const share = (100 * found.rig.lockoutKg) / (found.rig.lockoutKg + bar);
          expect(Math.abs(share - wantedPercent)).toBeCloseTo(best, 6);
        },
      ),
    );
  });

  it("names what is missing: pieces, heights, an anchor, a lighter set-up", () => {
    const asked = { convention: "bar" as const, askedKg: 80, wantedPercent: 20, emptyKg: 20 };
    const reason = (of: HangStock, heights: typeof HEIGHTS | undefined = HEIGHTS, over = {}) => {
      const found = chooseRig({ ...asked, stock: of, heights, ...over });
      return found.ok ? "ok" : found.reason;
    };
    expect(reason(NOTHING_TO_HANG)).toBe("no-pieces");
    expect(chooseRig({ ...asked, stock: oneChain, heights: undefined })).toMatchObject({
      reason: "no-heights",
    });
    const bands = [{ what: band("Band"), perSide: 2 }];
    expect(reason({ pieces: bands, anchorKg: undefined })).toBe("no-anchor");
    expect(reason(oneChain, HEIGHTS, { convention: "lockout", askedKg: 30 })).toBe("too-heavy");
  });

  it("never pulls more on a side than holds it", () => {
    const bands = [{ what: band("Band", 60), perSide: 2 }];
    const asked = { convention: "bar" as const, askedKg: 80, wantedPercent: 60, emptyKg: 20 };
    // One pulls 51 kg a side at lockout, two 102.
    const at = (anchorKg: number) => {
      const found = chooseRig({ ...asked, stock: stock(bands, anchorKg), heights: HEIGHTS });
      return found.ok ? found.rig.pieces[0]?.perSide : found.reason;
    };
    expect([at(200), at(60), at(40)]).toEqual([1, 1, "anchor-light"]);
    expect(
      chooseRig({ ...asked, wantedPercent: 75, stock: stock(bands, 200), heights: HEIGHTS }),
    ).toMatchObject({ rig: { pieces: [{ perSide: 2 }] } });
    expect(
      chooseRig({ ...asked, wantedPercent: 75, stock: stock(bands, 60), heights: HEIGHTS }),
    ).toMatchObject({ rig: { pieces: [{ perSide: 1 }] } });
  });

  it("keeps to one kind where one is asked", () => {
    const both = stock([
      { what: chain("Chain"), perSide: 1 },
      { what: band("Band", 5), perSide: 1 },
    ]);
    const kinds = (only?: "band" | "chain") => {
      const found = chooseRig({
        stock: both,
        heights: HEIGHTS,
        convention: "bar",
        askedKg: 80,
        wantedPercent: 17,
        emptyKg: 20,
        ...(only ? { only } : {}),
      });
      return found.ok ? found.rig.pieces.map((one) => one.what.name) : found.reason;
    };
    expect([kinds(), kinds("chain"), kinds("band")]).toEqual([["Chain"], ["Chain"], ["Band"]]);
  });

  it("says how it is rigged", () => {
    expect(rigWords(rigged("bar"))).toBe("1 × Chain a side, leader to 60 cm");
  });
});
