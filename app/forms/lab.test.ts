import { describe, expect, it } from "vitest";
import { AnswerForm } from "./lab";

const ID = "01900000-0000-7000-8000-000000000001";
const answer = { tool: "plates", state: "max=120", answer: "72.5 kg", target: `athlete:${ID}` };

describe("an answer on its way", () => {
  it("names where it goes", () => {
    expect(AnswerForm.parse(answer).target).toEqual({ kind: "athlete", id: ID });
    expect(AnswerForm.parse({ ...answer, target: `plan:${ID}` }).target.kind).toBe("plan");
  });
  it.each([
    ["nowhere", { target: "" }, "Choose an athlete or a plan."],
    ["another tool", { tool: "oracle" }, "Invalid option"],
    ["no answer", { answer: " " }, "There is no answer yet"],
    ["a name in the state", { state: "max=120&athlete=x" }, "Send numbers, not a name."],
    ["too much", { state: "x".repeat(2001) }, "Too much stands in the fields"],
  ])("%s is refused with a sentence", (_name, over, words) => {
    const parsed = AnswerForm.safeParse({ ...answer, ...over });
    expect(parsed.error?.issues[0]?.message).toContain(words);
  });
});
