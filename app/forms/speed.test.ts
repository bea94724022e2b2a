import { expect, test } from "vitest";
import { readSpeed } from "./speed";

test.each([
  ["82", 0.82],
  ["0.82", 0.82],
  ["0,82", 0.82],
  ["105", 1.05],
  ["1.05", 1.05],
  [" 76 ", 0.76],
])("%j is %s m/s", (text, velocity) => {
  expect(readSpeed(text)).toBeCloseTo(velocity, 9);
});

test.each(["", "fast", "2", "900", "-80", "0", "1.2.3", "4.1"])("%j is refused", (text) => {
  expect(readSpeed(text)).toBeUndefined();
});
