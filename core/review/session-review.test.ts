import { describe, expect, it } from "vitest";
import { stored, TestDevice, testSession } from "../floor/fixtures/session";
import { reduceFloor } from "../floor/state";
import { readIn } from "../units/written";
import { reviewSession } from "./session-review";
import { tonnageWorking } from "./session-sum";

describe("review of a session", () => {
  const tablet = new TestDevice();
  const entries = stored([
    ...tablet.set("ann", 1, [0.84, 0.86, 0.81]),
    ...tablet.set("bo", 1, [0.7, 0.69, 0.66]),
    tablet.rep("ann", 2, 1, 0.9),
    tablet.rep("ann", 2, 2, 0.7),
    tablet.done("ann", 2, 57.5, true),
    tablet.entry({
      kind: "fault",
      athleteId: "ann",
      slotId: "slot",
      stationId: "rack",
      setKey: "w1.a.2",
      fault: "Uneven lockout",
      cut: false,
    }),
  ]);
  const floor = reduceFloor(testSession(), entries);
  const review = reviewSession(testSession(), floor);
  const ann = review.lifters[0];

  it("sets done against planned", () => {
    expect(review).toMatchObject({ setsPlanned: 6, setsDone: 3, judged: 3, onSpeed: 2, cut: 1 });
    expect(ann).toMatchObject({ setsDone: 2, setsPlanned: 3, repsDone: 5, repsPlanned: 9 });
  });

  it("adds tonnage from what was on the bar", () => {
    expect(ann?.tonnageKg).toBe(3 * 60 + 2 * 57.5);
    expect(ann?.plannedTonnageKg).toBe(9 * 60);
    const [state] = floor.racks[0]?.lifters ?? [];
    const working = state && tonnageWorking(state);
    expect(readIn(working?.lines.find((line) => line.emphasis)?.value ?? "", "kg")).toBe("295 kg");
  });

  it("names a set measured in another class, where the coach has set the borders", () => {
    const session = testSession();
    const slots = session.slots.map((slot) =>
      slot.kind === "lift"
        ? {
            ...slot,
            speedClass: "strength-speed" as const,
            classBorders: [0.5, 0.85, 1.1] as const,
          }
        : slot,
    );
    const judged = reviewSession(
      { ...session, slots },
      reduceFloor({ ...session, slots }, entries),
    ).lifters;
    expect(judged[0]?.otherClass).toEqual([
      "Set 1 moved at 0.86 m/s: speed-strength, strength-speed planned",
      "Set 2 moved at 0.90 m/s: speed-strength, strength-speed planned",
    ]);
    expect(judged[1]?.otherClass).toEqual([]);
    expect(ann?.otherClass).toEqual([]);
  });

  it("records a cut set with its cause, as information", () => {
    expect(ann?.cutSets).toEqual([
      { number: 2, cause: "0.70 is 22 % under the best, 15 % allowed" },
    ]);
    expect(ann?.faults).toEqual(["Uneven lockout"]);
  });

  it("says how each set stood by its best rep", () => {
    expect(ann?.sets.map((set) => [set.bestMps, set.standing])).toEqual([
      [0.86, "on"],
      [0.9, "on"],
    ]);
    expect(review.lifters[1]?.sets[0]?.standing).toBe("under");
    expect(review.callsWaiting).toBe(1);
  });

  it("is empty for an empty session", () => {
    expect(reviewSession(testSession([]), reduceFloor(testSession([]), []))).toMatchObject({
      setsPlanned: 0,
      setsDone: 0,
      lifters: [],
    });
  });
});
