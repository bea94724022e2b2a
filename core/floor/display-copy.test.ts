import { describe, expect, it } from "vitest";
import { ERASED_NAME, putCopies, takeCopies } from "./display-copy";
import { testSession } from "./fixtures/session";
import type { FrozenSession } from "./frozen";

function session(): FrozenSession {
  const made = testSession(["ann", "bo"]);
  for (const slot of made.slots)
    if (slot.kind === "lift")
      slot.groups[0]?.lifters.splice(0, 1, {
        ...(slot.groups[0].lifters[0] as NonNullable<(typeof slot.groups)[0]["lifters"][0]>),
        instructions: ["No deep knee bend"],
        setup: ["Box 38 cm", "Corner forward"],
      });
  return made;
}

describe("what a session shows of a person", () => {
  it("comes out and goes back the same", () => {
    const { frozen, copies } = takeCopies(session());
    expect(copies.map((copy) => copy.name)).toEqual(["ann Example", "bo Example"]);
    const text = JSON.stringify(frozen);
    expect(text).not.toMatch(/Example|knee|Corner/);
    expect(putCopies(frozen, copies)).toEqual(session());
  });

  it("is a person's no more once it is gone, and the sets stay", () => {
    const { frozen, copies } = takeCopies(session());
    const after = putCopies(frozen, copies.slice(1));
    const [slot] = after.slots;
    const lifters = slot?.kind === "lift" ? (slot.groups[0]?.lifters ?? []) : [];
    expect(lifters.map((one) => one.name)).toEqual([ERASED_NAME, "bo Example"]);
    expect(lifters[0]).toMatchObject({ athleteId: "ann", instructions: [] });
    expect(lifters[0]).not.toHaveProperty("setup");
    expect(lifters[0]?.sets).toHaveLength(3);
  });
});
