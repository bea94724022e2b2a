import { expect, it } from "vitest";
import { stored, TestDevice, testSession } from "../../core/floor/fixtures/session";
import type { FrozenSession } from "../../core/floor/frozen";
import { packLog } from "./pack-session-log";
import { unpackLog } from "./session-log";

it("a session and its log come back as they went", () => {
  const tablet = new TestDevice();
  const made = testSession(["ann", "bo", "cy"]);
  const frozen: FrozenSession = {
    ...made,
    slots: made.slots.map((slot) =>
      slot.kind === "lift"
        ? {
            ...slot,
            groups: slot.groups.map((group) => ({
              ...group,
              lifters: group.lifters.map((lifter, i) => ({
                ...lifter,
                // Not everybody has as many sets, and not all have a load.
                sets: lifter.sets
                  .slice(i)
                  .map((set, j) => (j === 0 ? { ...set, loadKg: undefined } : set)),
              })),
            })),
            absent: testSession(["dot"]).slots.flatMap((one) =>
              one.kind === "lift" ? one.groups.flatMap((group) => group.lifters) : [],
            ),
          }
        : slot,
    ),
  };
  const log = {
    frozen,
    entries: stored([...tablet.set("ann", 1, [0.84, 0.86]), ...tablet.set("bo", 1, [0.7])]),
    names: { a: "A" },
  };
  const plain = JSON.parse(JSON.stringify(log));
  expect(unpackLog(packLog(log))).toEqual(plain);
  expect(packLog(log).length).toBeLessThan(JSON.stringify(log).length);
});
