import { readFileSync } from "node:fs";
import path from "node:path";
import { openProfileTest } from "./athlete-part";
import { admin, endOwnSessions, makeSession } from "./floor-session";
import { allSent, stateFile } from "./people";
import { expect, type Page, test } from "./test";

/** Films whose truth is known, see clips/make-clip.ts. */
test.use({ storageState: stateFile("coach") });
const CLIPS = path.resolve("e2e/clips");
const truth = JSON.parse(readFileSync(path.join(CLIPS, "truth.json"), "utf8")) as {
  mark: { xPx: number; yPx: number; radiusPx: number };
  reps: Array<{ outcome: string; mcvMps: number; pauseS: number }>;
};

/** The demo room's plates, kg, and how far they are across. */
const ACROSS_CM: Record<number, string> = { 25: "45", 20: "45", 15: "45", 10: "32.5", 5: "23" };

async function openFilm(page: Page, name: string): Promise<void> {
  await page.goto("/lab?tool=video");
  await page.getByLabel("A film of the set, from the side").setInputFiles(path.join(CLIPS, name));
}

/** A film in whatever part of a page shows it, marked and ready to be measured. */
async function readyFilm(page: Page): Promise<void> {
  await page
    .getByLabel("A film of the set, from the side")
    .setInputFiles(path.join(CLIPS, "box-squat-60.mp4"));
  await page.getByLabel(/Everybody in the picture was asked/).check();
  await markPlate(page);
  await page.getByLabel("The film plays").selectOption("1");
}

async function markPlate(page: Page): Promise<void> {
  const form = page.getByRole("form", { name: "The film" });
  // As a hand does it: some pixels off.
  await form.getByLabel("Across, px").fill(String(Math.round(truth.mark.xPx + 4)));
  await form.getByLabel("Down, px").fill(String(Math.round(truth.mark.yPx - 3)));
  await form.getByLabel("Radius, px").fill(String(Math.round(truth.mark.radiusPx + 2)));
}

test("a film is marked once, and gives the set's reps with what they may be off by", async ({
  page,
}) => {
  const sent: string[] = [];
  page.on("request", (request) => {
    if (request.method() !== "GET") sent.push(request.url());
  });
  await openFilm(page, "box-squat-60.mp4");
  await expect(page.getByText(/60 a second/)).toBeVisible();
  await markPlate(page);
  const measure = page.getByRole("button", { name: "Measure the cut" });
  await measure.click();
  await expect(page.getByText("Ask who is in the picture first")).toBeVisible();
  await page.getByLabel(/Everybody in the picture was asked/).check();
  await measure.click();
  await expect(page.getByText("Say whether the film plays as fast")).toBeVisible();
  await page.getByLabel("The film plays").selectOption("1");
  await measure.click();
  const found = page.getByRole("region", { name: "From video" });
  await expect(found).toBeVisible({ timeout: 40_000 });
  const rows = found.getByRole("row").filter({ has: page.getByRole("rowheader") });
  await expect(rows).toHaveCount(truth.reps.length);
  for (const [i, rep] of truth.reps.entries()) {
    const cells = await rows.nth(i).getByRole("cell").allTextContents();
    const [, mean = "", within = ""] = cells;
    expect(Math.abs(Number(mean) - rep.mcvMps)).toBeLessThan(0.03);
    expect(Number(within.replace("± ", ""))).toBeGreaterThan(0.005);
    const stop = Number(cells[5]);
    expect(Math.abs(stop - rep.pauseS)).toBeLessThan(0.06);
  }
  // The back of two reps, marked where the bar is down: a mark, and how it drifts.
  const image = page.getByRole("img", { name: /^The picture with the mark/ });
  for (const [rep, shoulder] of [
    [1, 60],
    [2, 90],
  ] as const) {
    await found.getByRole("button", { name: `Mark the back at the bottom of rep ${rep}` }).click();
    await image.click({ position: { x: 100, y: 300 } });
    await image.click({ position: { x: 100 + shoulder, y: 200 } });
  }
  await expect(found.getByText(/The back leans 11° more in the last rep/)).toBeVisible();
  // A film that plays four times slower was four times as fast.
  await page.getByLabel("The film plays").selectOption("4");
  await expect(rows.first().getByRole("cell").nth(1)).not.toHaveText(
    String(truth.reps[0]?.mcvMps.toFixed(2)),
  );
  expect(sent, "what left the browser").toEqual([]);
});

test("slow motion whose file says how it was filmed gives the same speeds", async ({ page }) => {
  await openFilm(page, "box-squat-slow.mp4");
  const plays = page.getByLabel("The film plays");
  await expect(plays).toHaveValue("4");
  await expect(plays).toHaveAccessibleDescription("its file says: filmed at 60 a second");
  await page.getByLabel(/Everybody in the picture was asked/).check();
  await markPlate(page);
  await page.getByRole("button", { name: "Measure the cut" }).click();
  const rows = page
    .getByRole("region", { name: "From video" })
    .getByRole("row")
    .filter({ has: page.getByRole("rowheader") });
  await expect(rows).toHaveCount(truth.reps.length, { timeout: 40_000 });
  for (const [i, rep] of truth.reps.entries()) {
    const mean = await rows.nth(i).getByRole("cell").nth(1).textContent();
    expect(Math.abs(Number(mean) - rep.mcvMps)).toBeLessThan(0.03);
  }
});

test("a film that is none, or in which nothing moves, is a sentence", async ({ page }) => {
  await page.goto("/lab?tool=video");
  const choose = page.getByLabel("A film of the set, from the side");
  await choose.setInputFiles(path.join(CLIPS, "truth.json"));
  await expect(page.getByText("This file is no film that can be read")).toBeVisible();
  await choose.setInputFiles(path.join(CLIPS, "without-motion.webm"));
  await page.getByLabel(/Everybody in the picture was asked/).check();
  await markPlate(page);
  await page.getByLabel("The film plays").selectOption("1");
  await page.getByRole("button", { name: "Measure the cut" }).click();
  await expect(page.getByText("The plate hardly moves in this stretch")).toBeVisible({
    timeout: 20_000,
  });
  // A mark beside the plate finds no rim there.
  const form = page.getByRole("form", { name: "The film" });
  await form.getByLabel("Across, px").fill("60");
  await form.getByLabel("Down, px").fill("560");
  await form.getByLabel("Radius, px").fill("30");
  await page.getByRole("button", { name: "Measure the cut" }).click();
  await expect(page.getByText("No rim stands out under the mark")).toBeVisible({ timeout: 20_000 });
});

test("at a rack a film's reps are the set, said to be from video, once and in the log", async ({
  page,
}) => {
  const { id: session, rackId } = await makeSession("A film at the rack", { lifters: 1 });
  try {
    await page.goto(`/rack/${session}/${rackId}`);
    await page.getByTestId("load").waitFor();
    await page.getByRole("button", { name: "More" }).first().click();
    await page.getByRole("button", { name: "Frames of a film" }).click();
    await page.getByRole("button", { name: "Measure the film itself, on this screen" }).click();
    await readyFilm(page);
    // What is measured by is the largest plate on this very bar, as Gear has it.
    const form = page.getByRole("form", { name: "The film" });
    const across = form.getByLabel("Plate across, cm");
    await expect(across).toHaveAccessibleDescription(/largest on this bar, from Gear/);
    const side =
      (await page
        .getByRole("img", { name: /^Each side, inside out/ })
        .getAttribute("aria-label")) ?? "";
    const largest = Math.max(...(side.match(/\d+(\.\d+)?/g) ?? []).map(Number));
    await expect(across).toHaveValue(ACROSS_CM[largest] ?? "no plate");
    // The film's own plate is a full-size one.
    await across.fill("45");
    await page.getByRole("button", { name: "Measure the cut" }).click();
    const keep = page.getByRole("button", { name: "Enter these reps as this set" });
    await expect(keep).toBeVisible({ timeout: 40_000 });
    await keep.click();
    await expect(page.getByRole("dialog")).toBeHidden();
    await allSent(page);
    const reps = await admin`
      SELECT body->>'source' AS source, (body->>'mcvMps')::float AS mps, body->>'setKey' AS "set"
      FROM log_entry WHERE session_id = ${session} AND body->>'kind' = 'rep' ORDER BY seq`;
    // The film has six; the second is 12 % slower: the rule ends it, and the rest is no other set's.
    expect(reps.length).toBe(2);
    const [done] = await admin`
      SELECT body->>'endedBy' AS by, body->>'setKey' AS "set" FROM log_entry
      WHERE session_id = ${session} AND body->>'kind' = 'set-done'`;
    expect(done).toMatchObject({ by: "loss", set: reps[0]?.set });
    for (const [i, rep] of reps.entries()) {
      expect(rep.source).toBe("video");
      expect(rep.set).toBe(reps[0]?.set);
      expect(Math.abs(rep.mps - (truth.reps[i]?.mcvMps ?? 0))).toBeLessThan(0.03);
    }
    await page.goto(`/floor/${session}`);
    await page.getByRole("button", { name: "End the session" }).click();
    await page.getByRole("button", { name: "End it as it is" }).click();
    await page.waitForURL(/\/review\//);
    // Every rep of the set says in its working where its speed is from.
    await page.getByRole("button", { name: /, set 1, best 1\.\d\d,/ }).click();
    await expect(page.getByRole("region", { name: "Working" })).toContainText("video");
  } finally {
    await endOwnSessions();
  }
});

test("in a profile test a film's reps are of the load on the bar, and kept as video", async ({
  page,
}) => {
  test.setTimeout(150_000);
  const id = await openProfileTest(page, "Joss Harrow", "Back squat, straight bar");
  const load = page.getByTestId("test-load");
  await expect(load).toHaveText("45 kg");
  await page.getByText("Measure a film of this load").click();
  await readyFilm(page);
  const across = page.getByRole("form", { name: "The film" }).getByLabel("Plate across, cm");
  // A plate of half the size makes half of the lifter's way, and of every speed: it is said.
  await across.fill("22.5");
  await page.getByRole("button", { name: "Measure the cut" }).click();
  const keep = page.getByRole("button", { name: "These reps are of this load" });
  await expect(keep).toBeVisible({ timeout: 40_000 });
  const differs = page.getByText(/^The bar goes \d+ cm in this film; this lifter's own way is/);
  await expect(differs).toBeVisible();
  await across.fill("45");
  await expect(differs).toHaveCount(0);
  await keep.dblclick();
  const fastest = Math.max(...truth.reps.map((one) => one.mcvMps));
  await expect(page.getByText(/^6 here, fastest/)).toContainText(/1\.\d\d/);
  await expect(page.getByRole("row").filter({ hasText: "video" })).toHaveCount(6);
  await page.getByRole("button", { name: "Keep for Joss Harrow" }).click();
  await page.waitForURL(/\/profiles\//);
  await expect(page.getByText(/MCV, video · by/)).toBeVisible();
  const kept = await admin`
    SELECT t.source, p.load_kg AS "loadKg", p.velocity_mps AS mps
    FROM profile_test t JOIN profile_point p ON p.test_id = t.id
    WHERE t.athlete_id = ${id} AND t.entered_at =
      (SELECT max(entered_at) FROM profile_test WHERE athlete_id = ${id})`;
  expect(kept.map((one) => [one.source, one.loadKg])).toEqual(Array(6).fill(["video", 45]));
  expect(Math.abs(Math.max(...kept.map((one) => one.mps)) - fastest)).toBeLessThan(0.03);
});

test("a refused mark takes nothing away, and another film ends what runs", async ({ page }) => {
  await page.goto("/lab?tool=video");
  await readyFilm(page);
  const found = page.getByRole("region", { name: "From video" });
  await page.getByRole("button", { name: "Measure the cut" }).click();
  await expect(found.getByText("6 reps, from video")).toBeVisible({ timeout: 40_000 });
  const form = page.getByRole("form", { name: "The film" });
  await form.getByLabel("Across, px").fill("40");
  await page.getByRole("button", { name: "Go on from this picture" }).click();
  await expect(page.getByText("No rim stands out under the mark")).toBeVisible({ timeout: 20_000 });
  await markPlate(page);
  await page.getByRole("button", { name: "Measure the cut" }).click();
  await expect(found.getByText("6 reps, from video")).toBeVisible({ timeout: 40_000 });
  // Another film while one is run through: what the first still says is nobody's.
  await page.getByRole("button", { name: "Measure the cut" }).click();
  await page
    .getByLabel("A film of the set, from the side")
    .setInputFiles(path.join(CLIPS, "without-motion.webm"));
  await expect(page.getByText(/without-motion\.webm/)).toBeVisible({ timeout: 20_000 });
  await expect(found).toBeHidden();
  await expect(page.getByRole("button", { name: "Measure the cut" })).toBeVisible();
});
