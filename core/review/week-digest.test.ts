import { describe, expect, it } from "vitest";
import type { LocalDate } from "../units/time";
import { digestMarkdown, type WeekDigest } from "./week-digest";

const EMPTY: WeekDigest = {
  squadName: "Sprint kayak",
  from: "2026-03-09" as LocalDate,
  to: "2026-03-15" as LocalDate,
  sessions: [],
  athletes: [],
  records: [],
  waiting: 0,
  decided: [],
  notes: [],
  coming: [],
};

describe("a week's digest as Markdown", () => {
  it("says of an empty week that nothing was done", () => {
    const text = digestMarkdown(EMPTY, "kg");
    expect(text.startsWith("# Sprint kayak, 2026-03-09 to 2026-03-15\n")).toBe(true);
    expect(text).toContain("## Sessions\n\nNone.");
    expect(text).not.toContain("| Athlete |");
  });

  it("writes loads in the reader's unit, and lets nobody's words become marks", () => {
    const text = digestMarkdown(
      {
        ...EMPTY,
        athletes: [
          {
            name: "Bo | Pipe",
            sessions: 2,
            setsDone: 17,
            setsPlanned: 18,
            cut: 1,
            tonnageKg: 2000,
            heavyDays: 1,
            faults: ["Knees in"],
          },
        ],
        records: [{ name: "Ann", lift: "Bench press", kg: 100, date: "2026-03-10" as LocalDate }],
        notes: [
          {
            about: "Ann",
            date: "2026-03-11" as LocalDate,
            words: "# shoulders *loose*\nsecond line",
            by: "C",
          },
        ],
      },
      "lb",
    );
    expect(text).toContain("| Bo \\| Pipe | 2 | 17 of 18 | 1 | 4409 lb | 1 | Knees in |");
    expect(text).toContain("Bench press: 220.5 lb");
    expect(text).toContain("\\# shoulders \\*loose\\* second line");
  });
});
