import { expect, it } from "vitest";
import { actName, actWords } from "./act-words";
import { TestDevice } from "./fixtures/session";

it("names a rep with its speed, one that failed, and one that nobody measured", () => {
  const { body } = new TestDevice().rep("ann", 1, 2, 0.6);
  const { mcvMps: _, ...unmeasured } = body as Extract<typeof body, { kind: "rep" }>;
  expect([actName(body), actWords(body)]).toEqual(["rep 2, 0.60", "rep 2, 0.60 m/s"]);
  expect(actWords({ ...unmeasured, mcvMps: 0.2, outcome: "failed" })).toBe("rep 2, failed");
  expect(actWords(unmeasured)).toBe("rep 2");
});

it("says a load in the lifter's own unit", () => {
  const { body } = new TestDevice().done("ann", 1, 60);
  expect(actWords(body)).toBe("the end of the set (all reps done, 60 kg)");
  expect(actWords(body, { unit: "lb" })).toMatch(/132(\.3)? lb\)$/);
});
