import { expect, it } from "vitest";
import { freshId } from "./setup-edit";

it("never gives an id again, also not one that was taken out", () => {
  const ids = Array.from({ length: 2000 }, () => freshId("s"));
  expect(new Set(ids).size).toBe(ids.length);
  for (const id of ids) expect(id).toMatch(/^s-[\w-]{1,58}$/);
});
