import { describe, expect, it } from "vitest";
import { aloneRefusal } from "./alone";

describe("who trains a squad's day alone", () => {
  const today = "2026-03-10" as const;

  it("is as old as the team asks for, counted by calendar years", () => {
    expect(aloneRefusal({ birthYear: 2008, today, fromAge: 18 })).toBeUndefined();
    expect(aloneRefusal({ birthYear: 2009, today, fromAge: 18 })).toContain("under 18");
    expect(aloneRefusal({ birthYear: 2009, today, fromAge: 16 })).toBeUndefined();
  });

  it("is asked where nobody knows the year, but for a team that lets everybody", () => {
    expect(aloneRefusal({ birthYear: undefined, today, fromAge: 18 })).toContain("Ask your coach");
    expect(aloneRefusal({ birthYear: undefined, today, fromAge: 0 })).toBeUndefined();
    expect(aloneRefusal({ birthYear: 2020, today, fromAge: 0 })).toBeUndefined();
  });
});
