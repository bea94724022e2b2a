import { expect, it } from "vitest";
import { STREAMS_EACH, STREAMS_IN_ALL, takePlace } from "./live-places.server";
import type { Principal } from "./rights";

const person = (userId: string): Principal => ({
  kind: "person",
  userId,
  teamId: "team",
  role: "coach",
  name: userId,
  athleteId: undefined,
});

it("a person's newest streams are kept: the oldest gives its place up", () => {
  const places = Array.from({ length: STREAMS_EACH + 2 }, () => takePlace(person("a")));
  expect(places.map((place) => place?.lost.aborted)).toEqual(places.map((_, i) => i < 2));
  for (const place of places) place?.giveBack();
});

it("a full process takes no more, until one is given back", () => {
  const all = Array.from({ length: STREAMS_IN_ALL }, (_, i) => takePlace(person(`p${i >> 2}`)));
  expect(all.every(Boolean)).toBe(true);
  expect(takePlace(person("late"))).toBeUndefined();
  all[0]?.giveBack();
  all[0]?.giveBack();
  const late = takePlace(person("late"));
  expect(late).toBeDefined();
  expect(takePlace(person("later"))).toBeUndefined();
  for (const place of [...all, late]) place?.giveBack();
});
