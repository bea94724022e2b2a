import { expect, it } from "vitest";
import { z } from "zod";
import { newId } from "./new-id";

it("is an id of version 4, and another each time", () => {
  const ids = Array.from({ length: 1000 }, newId);
  expect(new Set(ids).size).toBe(1000);
  for (const id of ids) expect(z.uuidv4().safeParse(id).success).toBe(true);
});
