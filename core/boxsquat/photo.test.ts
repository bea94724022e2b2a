import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type FrontLeg, legsFromPhoto, type PhotoPoint, thighFromPhoto } from "./photo";

describe("a photo from the side", () => {
  it("reads a side photo, level or leaning, facing left or right", () => {
    const level = thighFromPhoto({
      knee: { x: 100, y: 200 },
      crease: { x: 200, y: 200 },
      level: undefined,
      thighCm: 42,
    });
    expect(level?.creaseOverKneeCm).toBeCloseTo(0, 12);
    fc.assert(
      fc.property(
        fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        fc.double({ min: -0.2, max: 0.2, noNaN: true }),
        fc.constantFrom(1, -1),
        (angle, lean, facing) => {
          // The true scene, turned by the camera's lean.
          const turn = (x: number, y: number) => ({
            x: 500 + x * Math.cos(lean) + y * Math.sin(lean),
            y: 500 + x * Math.sin(lean) - y * Math.cos(lean),
          });
          const found = thighFromPhoto({
            knee: turn(0, 0),
            crease: turn(facing * 100 * Math.cos(angle), 100 * Math.sin(angle)),
            level: [turn(-200, -50), turn(200, -50)],
            thighCm: 40,
          });
          expect(found?.angleDeg).toBeCloseTo((angle * 180) / Math.PI, 8);
          expect(found?.creaseOverKneeCm).toBeCloseTo(40 * Math.sin(angle), 8);
        },
      ),
    );
    const same = { x: 1, y: 1 };
    expect(
      thighFromPhoto({ knee: same, crease: same, level: undefined, thighCm: 40 }),
    ).toBeUndefined();
  });
});

/** A scene with y up, in metres, as a camera that leans sees it, in pixels. */
const camera = (lean: number) => (x: number, y: number) => ({
  x: 500 + 200 * (x * Math.cos(lean) + y * Math.sin(lean)),
  y: 500 + 200 * (x * Math.sin(lean) - y * Math.cos(lean)),
});

/** A leg by its angles: the left one in the picture leans outwards to the left. */
function leg(
  see: (x: number, y: number) => PhotoPoint,
  side: -1 | 1,
  shinOut: number,
  thighOut: number,
): FrontLeg {
  const knee = { x: side * (0.3 + 0.4 * Math.sin(shinOut)), y: 0.4 * Math.cos(shinOut) };
  return {
    ankle: see(side * 0.3, 0),
    knee: see(knee.x, knee.y),
    hip: see(knee.x + side * 0.45 * Math.sin(thighOut), knee.y + 0.45 * Math.cos(thighOut)),
  };
}
const deg = (rad: number) => (rad * 180) / Math.PI;

describe("a photo from the front", () => {
  it("straight legs have no tilt and no bend", () => {
    const see = camera(0);
    const found = legsFromPhoto({
      legs: [leg(see, -1, 0, 0), leg(see, 1, 0, 0)],
      level: undefined,
    });
    for (const one of found ?? []) {
      expect(one.shinOutDeg).toBeCloseTo(0, 10);
      expect(one.kneeInDeg).toBeCloseTo(0, 10);
    }
    expect(found).toHaveLength(2);
  });

  it("a knee that falls in is above zero, on either side", () => {
    const see = camera(0);
    const found = legsFromPhoto({
      legs: [leg(see, -1, -0.15, 0.1), leg(see, 1, 0.1, -0.2)],
      level: undefined,
    });
    expect(found?.[0].kneeInDeg).toBeCloseTo(deg(0.25), 8);
    expect(found?.[0].shinOutDeg).toBeCloseTo(deg(-0.15), 8);
    expect(found?.[1].kneeInDeg).toBeCloseTo(deg(-0.3), 8);
  });

  it("gives the true angles however the camera leans, where a level edge is marked", () => {
    const angle = fc.double({ min: -0.5, max: 0.5, noNaN: true });
    fc.assert(
      fc.property(angle, angle, angle, angle, angle, (lean, a, b, c, d) => {
        const see = camera(lean * 0.6);
        const edge: [PhotoPoint, PhotoPoint] = [see(0.9, -0.1), see(-0.8, -0.1)];
        const found = legsFromPhoto({ legs: [leg(see, -1, a, b), leg(see, 1, c, d)], level: edge });
        expect(found?.[0].shinOutDeg).toBeCloseTo(deg(a), 6);
        expect(found?.[0].kneeInDeg).toBeCloseTo(deg(b - a), 6);
        expect(found?.[1].shinOutDeg).toBeCloseTo(deg(c), 6);
        expect(found?.[1].kneeInDeg).toBeCloseTo(deg(d - c), 6);
      }),
    );
  });

  it("refuses marks on one point, legs that are swapped, and an edge that stands upright", () => {
    const see = camera(0);
    const [left, right] = [leg(see, -1, 0, 0), leg(see, 1, 0, 0)];
    expect(
      legsFromPhoto({ legs: [{ ...left, knee: left.ankle }, right], level: undefined }),
    ).toBeUndefined();
    expect(legsFromPhoto({ legs: [right, left], level: undefined })).toBeUndefined();
    expect(legsFromPhoto({ legs: [left, right], level: [see(0, 0), see(0, 1)] })).toBeUndefined();
  });
});
