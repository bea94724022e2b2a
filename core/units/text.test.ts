import { expect, it } from "vitest";
import { cleanText, cleanValues, isClean } from "./text";

it("takes out what no database keeps, and nothing else", () => {
  expect(cleanText("a\0b")).toBe("ab");
  expect(cleanText("half \ud800")).toBe("half \ufffd");
  expect(cleanText("😀 Åse, 3 × 5")).toBe("😀 Åse, 3 × 5");
  expect([isClean("a\0"), isClean("\udc00"), isClean("Åse")]).toEqual([false, false, true]);
});

it("goes through plain data, names of members too", () => {
  const sent = JSON.parse(
    '{"a\\u0000":["x\\u0000",{"b":"\\ud800"}],"n":1,"z":null,"__proto__":{"x":1}}',
  );
  const data = cleanValues(sent);
  expect(data).toEqual({ ok: true, value: { a: ["x", { b: "\ufffd" }], n: 1, z: null } });
  expect(data.ok && (data.value as { x?: number }).x).toBeUndefined();
});

it("says where data is nested deeper than anything of ours", () => {
  const nested = (levels: number) => JSON.parse(`${"[".repeat(levels)}${"]".repeat(levels)}`);
  expect(cleanValues(nested(30)).ok).toBe(true);
  expect(cleanValues(nested(100_000))).toEqual({ ok: false, reason: "too-deep" });
});
