import { seededRandom } from "../core/numeric/random";
import { simulateSet } from "../device/lifter";
import { SENSOR_DEFAULTS, sampleMovement } from "../device/sensor";
import { openPart } from "./athlete-part";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

test.use({ storageState: stateFile("coach") });
test.describe.configure({ mode: "serial" });

async function choose(page: Page, name: string, text: string, encoding: BufferEncoding = "utf8") {
  await page.getByLabel("File (CSV or text)").setInputFiles({
    name,
    mimeType: "text/csv",
    buffer: Buffer.from(text, encoding),
  });
  await expect(page.getByRole("heading", { name: new RegExp(name) })).toBeVisible();
}

const HEADER = "Name;Übung;When;Load;Rep;Speed";
const GOOD = ["40;1;1,21", "60;1;0,99", "60;2;0,97", "80;1;0,78", "100;1;0,55"].map(
  (rest) => `Dag Ollerton;Back squat, straight bar;2026-02-27;${rest}`,
);

test("a file with faults is named line by line, and nothing of it is imported", async ({
  page,
}) => {
  await page.goto("/data");
  // A byte-order mark, semicolons, decimal commas, Windows line ends, and faults.
  const lines = [
    ...GOOD,
    "Nobody;Back squat, straight bar;2026-02-27;60;3;0,9",
    "Dag Ollerton;Back squat, straight bar;2026-02-27;0;4;0,9",
    "Dag Ollerton;Back squat, straight bar;2027-02-27;60;5;0,9",
    "Dag Ollerton;Back squat, straight bar;2026-02-27;60;6;fast",
    "Dag Ollerton;Back squat, straight bar;2026-02-27;60;7;9,5",
    GOOD[0] ?? "",
  ];
  await choose(page, "winter.csv", `\uFEFF${[HEADER, ...lines].join("\r\n")}\r\n`);
  // Headers it cannot know are mapped by hand.
  await expect(page.getByText("Map the load and a velocity first.")).toBeVisible();
  for (const [column, role] of [
    ["Übung", "Lift"],
    ["When", "Date"],
    ["Speed", "Mean velocity (MCV)"],
  ]) {
    await page.getByLabel(`Column ${column} is`).selectOption(role ?? "");
  }
  await page.getByRole("button", { name: "Check every line" }).click();
  await expect(page.getByText("6 lines are not right. Nothing was imported.")).toBeVisible();
  const problems = page.getByRole("region", { name: "Problems by line" });
  for (const [line, words] of [
    ["7", 'No athlete "Nobody" in this team.'],
    ["8", "Load 0: the bar itself has a mass."],
    ["9", "Date 2027-02-27 is still to come."],
    ["10", 'MCV "fast" is not a number.'],
    ["11", "MCV 9,5 is over 5 m/s."],
    ["12", "The same set and rep as line 2."],
  ]) {
    await expect(problems.getByRole("row", { name: new RegExp(`^${line} `) })).toContainText(
      words ?? "",
    );
  }
  await expect(page.getByRole("button", { name: /^Import/ })).toHaveCount(0);

  await choose(page, "winter-mended.csv", `\uFEFF${[HEADER, ...GOOD].join("\r\n")}\r\n`);
  for (const [column, role] of [
    ["Übung", "Lift"],
    ["When", "Date"],
    ["Speed", "Mean velocity (MCV)"],
  ]) {
    await page.getByLabel(`Column ${column} is`).selectOption(role ?? "");
  }
  await page.getByRole("button", { name: "Check every line" }).click();
  await expect(page.getByText("5 lines read: 1 tests, 5 reps")).toBeVisible();
  await page.getByRole("button", { name: "Import 5 reps" }).click();
  await expect(page.getByText("Imported: 1 tests, 5 reps.")).toBeVisible();
});

test("the mapping is kept for the next file, and the same test is not imported twice", async ({
  page,
}) => {
  await page.goto("/data");
  await choose(page, "again.csv", [HEADER, ...GOOD].join("\n"));
  await expect(page.getByText("The columns are as you mapped them last time.")).toBeVisible();
  await page.getByRole("button", { name: "Check every line" }).click();
  await page.getByRole("button", { name: "Import 5 reps" }).click();
  await expect(
    page.getByText("the very same test is kept already. Nothing was imported."),
  ).toBeVisible();

  await page.goto("/athletes");
  await page.getByRole("link", { name: "Dag Ollerton" }).click();
  await openPart(page, "Back squat, straight bar");
  const squat = page.getByRole("region", { name: "Back squat, straight bar" });
  await expect(squat.getByText(/2026-02-27/).first()).toBeVisible();
  await expect(squat.getByRole("button", { name: /^V0/ })).toBeVisible();
});

test("reversed columns, an empty file and tabs from a spreadsheet", async ({ page }) => {
  await page.goto("/data");
  await page.getByLabel("File (CSV or text)").setInputFiles({
    name: "empty.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(""),
  });
  await expect(page.getByText("empty.csv is empty.")).toBeVisible();

  const rows = ["load\tmcv", "1.2\t40", "0.9\t60", "0.7\t80"].join("\n");
  // UTF-16 with its mark, as spreadsheets write "Unicode text".
  await choose(page, "reversed.txt", `\uFEFF${rows}`, "utf16le");
  await page.getByLabel("Athlete of every line").selectOption("Dag Ollerton");
  await page.getByLabel("Lift of every line").selectOption("Deadlift, straight bar");
  await page.getByRole("button", { name: "Check every line" }).click();
  await expect(page.getByText(/Load and velocity look reversed/)).toBeVisible();
  await page.getByLabel("Column load is").selectOption("left aside");
  await page.getByLabel("Column mcv is").selectOption("Load");
  await page.getByLabel("Column load is").selectOption("Mean velocity (MCV)");
  await page.getByRole("button", { name: "Check every line" }).click();
  await expect(page.getByText("3 lines read: 1 tests, 3 reps")).toBeVisible();
});

/** Three sets of a simulated squat as a stream of text. */
function streamText(): string {
  const lines = ["t_s,position_m"];
  let at = 0;
  for (const [i, loadKg] of [60, 90, 120].entries()) {
    const set = simulateSet(
      {
        v0Mps: 1.5,
        l0Kg: 200,
        repFade: 0.03,
        setFade: 0.01,
        fullRestS: 150,
        spreadMps: 0.01,
        rangeM: 0.55,
        topM: 1.4,
        loweringMps: 0.7,
        pauseS: 0,
        sticking: 0.2,
      },
      { loadKg, reps: 2, setsBefore: i, restS: 180, dayShiftMps: 0, seed: i + 4 },
    );
    const samples = sampleMovement(
      set.movement,
      { ...SENSOR_DEFAULTS, rateHz: 100 },
      seededRandom(i + 1),
    );
    for (const { timeS, heightM } of samples) {
      lines.push(`${(at + timeS).toFixed(4)},${heightM.toFixed(5)}`);
    }
    at += (samples.at(-1)?.timeS ?? 0) + 20;
  }
  return lines.join("\n");
}

test("a raw stream becomes sets, gets its loads, and is one test with force", async ({ page }) => {
  await page.goto("/data");
  await page.getByLabel("What the file holds").selectOption({ index: 1 });
  const text = streamText();
  const jumped = text.split("\n");
  jumped[200] = (jumped[200] ?? "").replace(/,.*/, ",9.9");
  await choose(page, "slipped.csv", jumped.join("\n"));
  await page.getByRole("button", { name: "Find the reps" }).click();
  // One height that cannot be is named and left out; what follows it is measured.
  await expect(page.getByText(/far from both neighbours, first in line 201/)).toBeVisible();
  await expect(page.getByText(/samples: 3 sets, 6 reps/)).toBeVisible();

  await choose(page, "stream.csv", text);
  await page.getByLabel("Athlete", { exact: true }).selectOption("Cato Brekke");
  await page.getByLabel("Lift", { exact: true }).selectOption("Back squat, straight bar");
  await page.getByRole("button", { name: "Find the reps" }).click();
  await expect(page.getByText(/samples: 3 sets, 6 reps/)).toBeVisible();
  await expect(page.getByText("2 gaps in the signal.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Import as one test" })).toBeDisabled();
  for (const [i, load] of ["60", "90", "120"].entries()) {
    await page.getByLabel(`Load of set ${i + 1}`).fill(load);
  }
  await page.getByRole("button", { name: "Import as one test" }).click();
  await expect(page.getByText("Imported: 1 tests, 6 reps.")).toBeVisible();

  await page.goto("/athletes");
  await page.getByRole("link", { name: "Cato Brekke" }).click();
  await openPart(page, "Back squat, straight bar");
  const squat = page.getByRole("region", { name: "Back squat, straight bar" });
  await expect(squat.getByText(/Peak force/)).toBeVisible();
  await expect(squat.getByText(/bar and [\d.]+ kg of the body/)).toBeVisible();
  await expect(squat.getByRole("button", { name: /at .* m\/s/ }).first()).toBeVisible();
});
