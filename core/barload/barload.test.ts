import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import { grains, kgToGrains, type Mass, type MassUnit } from "../units/mass";
import { workingIn } from "../units/working";
import { describeSide, loadBar, plateChange, stepFrom } from "./load";
import { loadableTable } from "./loadable";
import type { LoadingGear } from "./loading-gear";
import { describeRefusal, loadingWorking } from "./loading-words";
import { rimOnBar } from "./plate-rim";

const gearOf = (
  plates: Array<[number, number]>,
  options: { barKg?: number; ratedKg?: number; unit?: MassUnit; sleeveMm?: number } = {},
): LoadingGear => {
  const unit = options.unit ?? "kg";
  return {
    bar: {
      id: "b",
      name: "Straight bar",
      mass: { amount: options.barKg ?? 20, unit },
      rated: { amount: options.ratedKg ?? 320, unit },
      sleeveMm: options.sleeveMm ?? 415,
    },
    collar: { amount: 0, unit },
    plates: plates.map(([amount, pairs]) => ({
      mass: { amount, unit },
      pairs,
      thicknessMm: 12 + amount,
    })),
  };
};

const CLUB = gearOf([
  [25, 2],
  [20, 2],
  [15, 1],
  [10, 2],
  [5, 2],
  [2.5, 2],
  [1.25, 1],
]);

const totalOf = (side: readonly Mass[], gear: LoadingGear) =>
  grains(gear.bar.mass) + 2 * side.reduce((sum, plate) => sum + grains(plate), 0);

const kg = (amount: number): Mass => ({ amount, unit: "kg" });

describe("the rim that a camera sees", () => {
  const stock = [
    { mass: kg(20), pairs: 2, thicknessMm: 40, diameterMm: 450 },
    { mass: kg(10), pairs: 2, thicknessMm: 27, diameterMm: 325 },
    { mass: kg(2.5), pairs: 2, thicknessMm: 12 },
  ];

  it("is the largest plate's on the bar, not the largest at the rack", () => {
    expect(rimOnBar([kg(10)], stock)).toEqual({ diameterMm: 325, sure: true });
    expect(rimOnBar([kg(20), kg(10)], stock)).toEqual({ diameterMm: 450, sure: true });
  });

  it("says where a plate's size is not known, and nothing of an empty bar", () => {
    expect(rimOnBar([kg(10), kg(2.5)], stock)).toEqual({ diameterMm: 325, sure: false });
    expect(rimOnBar([kg(2.5)], stock)).toBeUndefined();
    expect(rimOnBar([], stock)).toBeUndefined();
  });
});

describe("nearest loadable", () => {
  test.each([
    [72.1, 72.5, "25 · 1.25"],
    [62.9, 62.5, "20 · 1.25"],
    [71.25, 70, "25"],
    [20, 20, "empty bar"],
    [100, 100, "25 · 15"],
  ])("%s kg asked gives %s kg: %s", (asked, total, side) => {
    const loading = loadBar(CLUB, asked);
    if (!loading.ok) throw new Error(loading.reason);
    expect(loading.totalKg).toBe(total);
    expect(describeSide(loading.side.plates)).toBe(side);
  });

  it("takes a tie to the lower total", () => {
    const loading = loadBar(gearOf([[5, 3]]), 35);
    expect(loading.ok && loading.totalKg).toBe(30);
  });

  it("goes always down where asked to", () => {
    const loading = loadBar(CLUB, 74.9, "down");
    expect(loading.ok && loading.totalKg).toBe(72.5);
  });

  it("loads pounds exactly: 135 lb is 45 a side", () => {
    const pounds = gearOf(
      [
        [45, 2],
        [25, 1],
        [10, 2],
        [5, 1],
        [2.5, 1],
      ],
      { barKg: 45, unit: "lb", ratedKg: 600 },
    );
    const loading = loadBar(pounds, 61);
    if (!loading.ok) throw new Error(loading.reason);
    expect(loading.totalGrains).toBe(grains({ amount: 135, unit: "lb" }));
    expect(describeSide(loading.side.plates)).toBe("45 lb");
  });

  it("mixes kilogram and pound plates without rounding", () => {
    const mixed: LoadingGear = {
      ...CLUB,
      plates: [
        { mass: { amount: 45, unit: "lb" }, pairs: 1, thicknessMm: 40 },
        { mass: { amount: 1.25, unit: "kg" }, pairs: 1, thicknessMm: 12 },
      ],
    };
    const loading = loadBar(mixed, 63.3);
    if (!loading.ok) throw new Error(loading.reason);
    expect(loading.totalGrains).toBe(totalOf(loading.side.plates, mixed));
    expect(loading.totalKg).toBeCloseTo(20 + 2 * (20.41165665 + 1.25), 9);
  });
});

describe("what cannot be built", () => {
  it("names the lightest possible below the bar, never a smaller number", () => {
    const refusal = loadBar(CLUB, 12);
    expect(refusal).toMatchObject({ ok: false, reason: "under-lightest", lightestKg: 20 });
    if (refusal.ok) throw new Error("loaded");
    expect(describeRefusal(refusal, "kg")).toBe(
      "12 kg is not loadable: the lightest possible is 20 kg (Straight bar, empty). Use a lighter bar, or another exercise.",
    );
  });

  it("names the bar's rating", () => {
    const refusal = loadBar(gearOf([[25, 6]], { ratedKg: 250 }), 262.5);
    if (refusal.ok) throw new Error("loaded");
    expect(refusal.reason).toBe("over-rating");
    expect(describeRefusal(refusal, "kg")).toBe(
      "Straight bar holds 250 kg at most. 262.5 kg asked. Use a heavier bar, or lower the working max.",
    );
  });

  it("names what the room's plates reach", () => {
    const refusal = loadBar(CLUB, 310);
    if (refusal.ok) throw new Error("loaded");
    expect(refusal.reason).toBe("over-plates");
    expect(describeRefusal(refusal, "kg")).toContain("This room's plates reach");
  });

  test.each([0, -5, Number.NaN, Number.POSITIVE_INFINITY])("%s is not a load", (asked) => {
    expect(loadBar(CLUB, asked)).toMatchObject({ ok: false, reason: "not-a-load" });
  });

  it("stops at the sleeve", () => {
    const table = loadableTable(gearOf([[25, 8]], { sleeveMm: 80 }));
    expect(table.totals.map((total) => total / 1e11)).toEqual([20, 70, 120]);
  });

  it("manages a room without plates", () => {
    const bare = gearOf([]);
    expect(loadBar(bare, 20)).toMatchObject({ ok: true, totalKg: 20 });
    expect(loadBar(bare, 30)).toMatchObject({ ok: false, reason: "over-plates" });
  });
});

const roomArbitrary = fc
  .array(
    fc.tuple(fc.constantFrom(0.5, 1.25, 2.5, 5, 10, 15, 20, 25), fc.integer({ min: 0, max: 3 })),
    { minLength: 1, maxLength: 6 },
  )
  .map((rows) => [...new Map(rows).entries()])
  .map((rows) => gearOf(rows, { sleeveMm: 2000, ratedKg: 900 }));

describe("laws of loading", () => {
  it("never uses more plates than the room has, and adds up exactly", () => {
    fc.assert(
      fc.property(roomArbitrary, fc.integer({ min: 20, max: 200 }), (gear, asked) => {
        const loading = loadBar(gear, asked);
        if (!loading.ok) return;
        expect(totalOf(loading.side.plates, gear)).toBe(loading.totalGrains);
        for (const stock of gear.plates) {
          const used = loading.side.plates.filter((one) => one.amount === stock.mass.amount).length;
          expect(used).toBeLessThanOrEqual(stock.pairs);
        }
      }),
    );
  });

  it("errs by at most half the gap between its neighbours", () => {
    fc.assert(
      fc.property(roomArbitrary, fc.double({ min: 20, max: 200, noNaN: true }), (gear, asked) => {
        const loading = loadBar(gear, asked);
        if (!loading.ok) return;
        const { totals } = loadableTable(gear);
        const exact = kgToGrains(asked);
        const low = totals.filter((total) => total <= exact).at(-1) as number;
        const high = totals.find((total) => total > exact);
        const gap = high === undefined ? 0 : high - low;
        expect(Math.abs(loading.totalGrains - exact)).toBeLessThanOrEqual(gap / 2);
      }),
    );
  });

  it("finds the same totals as trying every way, with the fewest plates", () => {
    fc.assert(
      fc.property(roomArbitrary, (gear) => {
        const fewest = new Map<number, number>();
        const visit = (index: number, sum: number, plates: number) => {
          const stock = gear.plates[index];
          if (!stock) {
            fewest.set(sum, Math.min(fewest.get(sum) ?? 99, plates));
            return;
          }
          for (let n = 0; n <= stock.pairs; n++) {
            visit(index + 1, sum + n * grains(stock.mass), plates + n);
          }
        };
        visit(0, 0, 0);
        const table = loadableTable(gear);
        const expected = [...fewest.keys()].map((side) => table.emptyGrains + 2 * side);
        expect(table.totals).toEqual(expected.sort((a, b) => a - b));
        for (const total of table.totals) {
          const side = table.sideFor(total);
          expect(side?.plates.length).toBe(fewest.get(side?.sideGrains ?? -1));
        }
      }),
      { numRuns: 60 },
    );
  });

  it("puts heavy plates inside", () => {
    const loading = loadBar(CLUB, 97.5);
    if (!loading.ok) throw new Error(loading.reason);
    const amounts = loading.side.plates.map((plate) => plate.amount);
    expect(amounts).toEqual([...amounts].sort((a, b) => b - a));
  });
});

describe("what a room can build is kept by what it is", () => {
  it("the same gear read again has the same totals; another plate, collar or bar has others", () => {
    const again = structuredClone(CLUB);
    expect(loadableTable(again).totals).toEqual(loadableTable(CLUB).totals);
    for (const other of [
      { ...CLUB, plates: CLUB.plates.slice(1) },
      { ...CLUB, collar: { amount: 2.5, unit: "kg" as const } },
      { ...CLUB, bar: { ...CLUB.bar, mass: { amount: 15, unit: "kg" as const } } },
      { ...CLUB, bar: { ...CLUB.bar, rated: { amount: 100, unit: "kg" as const } } },
      { ...CLUB, bar: { ...CLUB.bar, sleeveMm: 60 } },
    ]) {
      expect(loadableTable(other).totals).not.toEqual(loadableTable(CLUB).totals);
    }
  });

  it("a side that was asked for before is the same plates", () => {
    const table = loadableTable(structuredClone(CLUB));
    for (const total of table.totals) {
      const first = table.sideFor(total);
      expect(table.sideFor(total)).toEqual(first);
      expect(totalOf(first?.plates ?? [], CLUB)).toBe(total);
    }
    expect(table.sideFor(table.emptyGrains + 1)).toBeUndefined();
  });

  it("more rooms than are kept change no answer", () => {
    const before = loadableTable(CLUB).totals;
    for (let pairs = 1; pairs <= 250; pairs++) loadableTable(gearOf([[1 + pairs / 1000, 1]]));
    expect(loadableTable(structuredClone(CLUB)).totals).toEqual(before);
  });
});

describe("steps and changes", () => {
  it("steps one loadable total up or down, or as far as asked", () => {
    expect(stepFrom(CLUB, 60, -1e-6)?.totalKg).toBe(57.5);
    expect(stepFrom(CLUB, 60, 1e-6)?.totalKg).toBe(62.5);
    expect(stepFrom(CLUB, 60, -4)?.totalKg).toBe(55);
    expect(stepFrom(CLUB, 20, -5)).toBeUndefined();
  });

  const kg = (...amounts: number[]): Mass[] => amounts.map((amount) => ({ amount, unit: "kg" }));

  test.each([
    [kg(25, 2.5), kg(25, 5, 1.25), [2.5], [5, 1.25], 6],
    [kg(), kg(20), [], [20], 2],
    [kg(20, 10), kg(20, 10), [], [], 0],
    [kg(25), kg(20, 5), [25], [20, 5], 6],
    [kg(20, 10, 5), kg(20), [5, 10], [], 4],
  ])("from %j to %j", (from, to, off, on, moves) => {
    const change = plateChange(from, to);
    expect(change.off.map((plate) => plate.amount)).toEqual(off);
    expect(change.on.map((plate) => plate.amount)).toEqual(on);
    expect(change.moves).toBe(moves);
  });

  it("does not take 45 lb for 45 kg", () => {
    expect(plateChange([{ amount: 45, unit: "lb" }], kg(45)).moves).toBe(4);
  });

  it("says asked, nearest, true percentage and a side", () => {
    const loading = loadBar(CLUB, 72.1);
    if (!loading.ok) throw new Error(loading.reason);
    const { lines } = workingIn({ title: "", lines: loadingWorking(loading, 169.575) }, "kg");
    expect(lines.map((line) => line.value)).toEqual([
      "72.1 kg",
      "72.5 kg · 42.8 %",
      "20 + 25 · 1.25",
    ]);
    expect(lines[1]?.detail).toBe("neighbours 70 kg and 75 kg");
  });
});
