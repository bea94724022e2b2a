import { expect, it } from "vitest";
import { idFrom, idOrNone, isId } from "./id";

const ID = "0198c0de-0000-7000-8000-000000000001";

it.each([
  [ID, ID],
  [ID.toUpperCase(), ID],
  ["", "00000000-0000-0000-0000-000000000000"],
  [`${ID}a`, "00000000-0000-0000-0000-000000000000"],
  [`${ID}\n`, "00000000-0000-0000-0000-000000000000"],
  ["constructor", "00000000-0000-0000-0000-000000000000"],
  [null, "00000000-0000-0000-0000-000000000000"],
])("%j names %s", (text, id) => {
  expect(idFrom(text)).toBe(id);
  expect(isId(idFrom(text))).toBe(true);
  expect(idOrNone(text)).toBe(text !== null && isId(text) ? id : undefined);
});
