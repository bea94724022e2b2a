import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { withRole } from "../reading/columns";
import {
  type AthleteColumn,
  type AthleteList,
  type ListContext,
  MOST_ATHLETES,
  readAthleteList,
} from "./athlete-rows";

const context: ListContext = {
  today: "2026-03-10",
  unit: "kg",
  athletes: [
    { id: "a1", name: "Ann Berg", squad: "Judo", archived: false },
    { id: "a2", name: "Bo Ås", squad: "Judo", archived: false },
    { id: "a3", name: "Bo Ås", squad: "Sprint", archived: false },
    { id: "a4", name: "Old Hand", squad: "", archived: true },
  ],
  squads: ["Judo", "Sprint kayak"],
  rooms: ["Boathouse"],
  choices: {},
  mapping: undefined,
};
const read = (text: string, more: Partial<ListContext> = {}): AthleteList =>
  readAthleteList(
    text.split("\n").map((line) => line.split("\t")),
    { ...context, ...more },
  );

describe("a list of athletes", () => {
  it("is names alone, one a line", () => {
    const list = read("Cay Dun\n\n  Eva   Falk \nAnn Berg");
    expect(list.header).toBeUndefined();
    expect(list.lines.map(({ line, name, fate }) => [line, name, fate.kind])).toEqual([
      [1, "Cay Dun", "add"],
      [3, "Eva Falk", "add"],
      [4, "Ann Berg", "update"],
    ]);
  });

  it("has its columns in any order and under usual names", () => {
    const list = read(
      "Weight\tSurname\tFirst name\tDOB\tGroup\tTraining age\tHeight\tSeason\tUnits\n" +
        "82,5\tDun\tCay\t14.02.2004\tjudo\t3\t1,81\tpre season\tlbs",
    );
    expect(list.problems).toEqual([]);
    expect(list.lines[0]).toMatchObject({
      line: 2,
      name: "Cay Dun",
      fate: { kind: "add" },
      problems: [],
      facts: {
        squad: "Judo",
        birthYear: 2004,
        trainingSince: "2023-03-10",
        statureCm: 181,
        seasonPhase: "pre-season",
        unit: "lb",
        bodyMass: { amount: 82.5, unit: "kg" },
      },
    });
    expect(list.newSquads).toEqual([]);
  });

  it("makes a squad that is new, and asks about one that is nearly there", () => {
    const list = read("Name\tSquad\nCay\tRowing\nDan\trowing\nEva\tJduo\nFay\tSprint kayack");
    expect(list.newSquads).toEqual(["Rowing"]);
    expect(list.lines[2]?.problems[0]).toContain('nearly "Judo"');
    expect(list.lines[3]?.problems[0]).toContain('nearly "Sprint kayak"');
  });

  it("asks where several have the name, where it is archived, and where it stands twice", () => {
    const list = read("Name\nBo Ås\nOld hand\nCay\ncay");
    expect(list.lines.map((one) => one.fate.kind)).toEqual(["ask", "ask", "add", "add"]);
    expect(list.lines[3]?.problems[0]).toContain("stands on line 4 already");
    const said = read("Name\nBo Ås\nOld hand\nCay\ncay", {
      choices: { 2: "a3", 3: "a4", 5: "new" },
    });
    expect(said.lines.map((one) => one.fate)).toEqual([
      { kind: "update", athleteId: "a3" },
      { kind: "update", athleteId: "a4" },
      { kind: "add" },
      { kind: "add" },
    ]);
    expect(said.lines.flatMap((one) => one.problems)).toEqual([]);
  });

  it.each([
    ["Birth year", "0", "holds no year"],
    ["Birth year", "2031", "between 1920 and 2026"],
    ["Trains since", "2027-01-01", "still to come"],
    ["Trains since", "long", "no date"],
    ["Goal", "win", "none of general strength"],
    ["Unit", "stone", "neither kg nor lb"],
    ["Height", "31", "no stature"],
    ["Weight", "820", "no body mass"],
    ["Room", "Boat house 2", "is no room here"],
  ])("says what is wrong under %s: %s", (title, cell, words) => {
    expect(read(`Name\t${title}\nCay\t${cell}`).lines[0]?.problems.join()).toContain(words);
  });

  it("without a name is a problem, as is a list without names", () => {
    expect(read("Name\tSquad\n\tJudo").lines[0]?.problems).toEqual(["No name."]);
    expect(read("Squad\tName\nJudo\t123").lines[0]?.problems[0]).toContain("is no name");
    expect(read("").problems).toEqual(["The list is empty."]);
    expect(read("Name").problems).toEqual(["No line under the header."]);
    expect(read("x", { mapping: { squad: 0 } }).problems[0]).toContain("No column holds the names");
  });

  it("takes the columns as somebody set them", () => {
    const mapping = withRole<AthleteColumn>({ name: 0 }, 1, "birthYear");
    const list = read("Cay Dun\t2004", { mapping });
    expect(list.lines[0]?.facts).toEqual({ birthYear: 2004 });
    expect(withRole(mapping, 1, "name")).toEqual({ name: 1 });
    expect(withRole(mapping, 1, "")).toEqual({ name: 0 });
  });

  it("of 10,000 lines with 300 faults names each of them, and takes no more lines", () => {
    const rows = Array.from({ length: MOST_ATHLETES }, (_, i) =>
      i % 33 === 0 && i < 9900 ? `Person ${i}\tborn long ago` : `Person ${i}\t2001`,
    );
    const list = read(["Name\tBirth year", ...rows].join("\n"));
    expect(list.lines).toHaveLength(MOST_ATHLETES);
    expect(list.lines.filter((one) => one.problems.length > 0)).toHaveLength(300);
    const longer = read(["Name\tBirth year", ...rows, "One more\t2001"].join("\n"));
    expect(longer.problems[0]).toContain("Split the list");
    expect(longer.lines).toEqual([]);
  });

  it("never fails, whatever the cells hold", () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ maxLength: 12 }), { maxLength: 5 }), { maxLength: 8 }),
        (rows) => {
          const list = readAthleteList(
            [["Name", "Birth year", "Height", "Weight", "Since"], ...rows],
            context,
          );
          const filled = rows.filter((cells) => cells.some((cell) => cell.trim() !== ""));
          if (filled.length > 0) expect(list.lines).toHaveLength(filled.length);
        },
      ),
    );
  });
});
