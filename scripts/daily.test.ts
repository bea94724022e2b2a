import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import fc from "fast-check";
import { afterAll, describe, expect, it } from "vitest";
import { backupName, dailySettings, newestAt, nextAt, tooMany } from "./daily.mjs";

const folder = mkdtempSync(path.join(tmpdir(), "sprezza-daily-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("the daily backup", () => {
  it("is named after its moment, and the name says the moment", () => {
    const at = new Date("2026-11-29T03:30:05Z");
    expect(backupName(at)).toBe("sprezza-20261129-033005.zip");
    expect(newestAt(["x.zip", backupName(at), "sprezza-20261128-033000.zip"])).toBe(at.getTime());
    expect(newestAt(["x.zip", "sprezza-before-step-3-20261128.zip"])).toBeUndefined();
  });

  it("takes only its own oldest files away, and never the newest", () => {
    const days = ["20261127", "20261128", "20261129"].map((day) => `sprezza-${day}-033000.zip`);
    const strange = ["notes.txt", "erasures.jsonl", "sprezza-before-step-3-1.zip", "sprezza-x.zip"];
    expect(tooMany([...strange, ...[...days].reverse()], 2)).toEqual([days[0]]);
    expect(tooMany([...strange, ...days], 3)).toEqual([]);
    fc.assert(
      fc.property(
        fc.array(fc.date({ min: new Date(0), max: new Date("2099-01-01"), noInvalidDate: true }), {
          maxLength: 30,
        }),
        fc.integer({ min: 1, max: 20 }),
        (dates, keep) => {
          const names = [...new Set(dates.map(backupName))];
          const gone = new Set(tooMany(names, keep));
          const stay = names.filter((name) => !gone.has(name)).sort();
          expect(stay).toEqual([...names].sort().slice(-keep));
        },
      ),
    );
  });

  it("comes at its time of day, by the calendar", () => {
    const from = new Date(2026, 10, 29, 3, 29, 59);
    expect(nextAt(from, [3, 30])).toEqual(new Date(2026, 10, 29, 3, 30));
    expect(nextAt(new Date(2026, 10, 29, 3, 30), [3, 30])).toEqual(new Date(2026, 10, 30, 3, 30));
    expect(nextAt(new Date(2026, 11, 31, 23, 59), [0, 5])).toEqual(new Date(2027, 0, 1, 0, 5));
  });

  it.each([
    [{ BACKUP_AT: "25:00" }, "BACKUP_AT is a time such as 03:30"],
    [{ BACKUP_AT: "noon" }, "BACKUP_AT is a time such as 03:30"],
    [{ BACKUP_KEEP: "0" }, "BACKUP_KEEP is a whole number"],
    [{ BACKUP_KEEP: "a few" }, "BACKUP_KEEP is a whole number"],
    [{ BACKUP_DATABASE_URL: "" }, "BACKUP_DATABASE_URL is not set"],
    [{ BACKUP_FOLDER: "package.json/nowhere" }, "cannot be written"],
  ])("refuses %j in a sentence", (env, words) => {
    const settings = { BACKUP_FOLDER: folder, BACKUP_DATABASE_URL: "postgres://x", ...env };
    expect(dailySettings(settings)?.refused).toContain(words);
  });

  it("is off where no folder is set, and on with usual numbers where one is", () => {
    expect(dailySettings({})).toBeUndefined();
    expect(dailySettings({ BACKUP_FOLDER: folder, BACKUP_DATABASE_URL: "postgres://x" })).toEqual({
      folder,
      at: [3, 30],
      keep: 14,
    });
  });
});
