import { randomUUID } from "node:crypto";
import { expect, it } from "vitest";
import { noteSign, signsOf } from "./station-signs.server";

const session = () => ({ teamId: randomUUID(), id: randomUUID() });
const sign = (stationId: string, unsent = 0) => ({ stationId, batteryPercent: 64, unsent });

it("the newest sign of each station, with how long ago it came", () => {
  const at = session();
  noteSign(at, sign("1"), 0);
  noteSign(at, sign("2"), 5000);
  noteSign(at, sign("1", 3), 20_000);
  expect(signsOf(at, 30_000)).toEqual([
    { ...sign("1", 3), agoS: 10 },
    { ...sign("2"), agoS: 25 },
  ]);
  expect(signsOf(session(), 30_000)).toEqual([]);
  expect(signsOf({ ...at, teamId: randomUUID() }, 30_000)).toEqual([]);
});

it("forgets what is old, and holds no more than so many", () => {
  const at = session();
  noteSign(at, sign("1"), 0);
  expect(signsOf(at, 31 * 60_000)).toEqual([]);
  for (let i = 0; i < 200; i++) noteSign(at, sign(`s${i}`), 0);
  expect(signsOf(at, 0)).toHaveLength(100);
  const old = session();
  noteSign(old, sign("1"), 0);
  for (let i = 0; i < 600; i++) noteSign(session(), sign("1"), 0);
  expect(signsOf(old, 0)).toEqual([]);
});
