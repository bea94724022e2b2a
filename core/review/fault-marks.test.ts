import { describe, expect, it } from "vitest";
import { faultMarks, MARKED_FAULTS, type MarkDay } from "./fault-marks";

const day = (
  date: MarkDay["date"],
  topPercent: number | null,
  ...faults: Array<[string, number, number | null]>
): MarkDay => ({ date, topPercent, faults });

describe("faults over the share of the max", () => {
  it("parts what was clean from where it was seen, and names where it returns", () => {
    const [knees, ...rest] = faultMarks([
      day("2026-02-02", 62, ["Knees in", 2, 60]),
      day("2026-02-05", 50),
      day("2026-02-09", 52.5),
      day("2026-02-12", 55),
      day("2026-02-16", 60, ["Knees in", 1, 57.5]),
    ]);
    expect(rest).toEqual([]);
    expect(knees).toEqual({
      fault: "Knees in",
      lastOn: "2026-02-16",
      cured: false,
      returnsAt: 57.5,
      seen: [60, 57.5],
      clean: [50, 52.5, 55],
    });
  });

  it("counts a day without a share as clean, and draws nothing of it", () => {
    const [one] = faultMarks([
      day("2026-02-02", 60, ["Rocking", 1, null]),
      day("2026-02-05", null),
      day("2026-02-09", null),
      day("2026-02-12", null),
    ]);
    expect(one).toMatchObject({ cured: true, seen: [], clean: [] });
  });

  it("shows the ones seen last, whatever the order of the days", () => {
    const days = [
      day("2026-02-12", 60, ["C", 1, 60]),
      day("2026-02-02", 60, ["A", 1, 60]),
      day("2026-02-05", 60, ["B", 1, 60]),
    ];
    expect(faultMarks(days).map((one) => one.fault)).toEqual(["C", "B"].slice(0, MARKED_FAULTS));
    expect(faultMarks([])).toEqual([]);
  });
});
