import { boardCell, boardRow, openBlock } from "./board";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

/** The block board: what is pulled can be typed and done by keys, each is undone, two coaches at one block. */

test.use({ storageState: stateFile("coach") });

const BENCH = "Bench press, straight bar";

async function openBoard(page: Page): Promise<void> {
  await page.goto("/plan");
  await page.getByRole("link", { name: "Spring block", exact: true }).click();
  await boardRow(page, "Box jump").waitFor();
}

const undo = async (page: Page) => {
  const button = page.getByRole("button", { name: "Undo" });
  await expect(button).toBeEnabled();
  await button.click();
};
/** Names of the rows, from above. */
const rows = (page: Page) =>
  page
    .getByRole("table", { name: "The block, weeks across" })
    .locator("tbody th[scope=row] button.text-left")
    .evaluateAll((all) => all.map((one) => one.lastElementChild?.textContent ?? ""));
const nameOf = (page: Page, week: number, name = BENCH) =>
  boardCell(page, name, week).first().getAttribute("aria-label");

async function pull(page: Page, from: { x: number; y: number }, to: { x: number; y: number }) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
}
const middle = async (selector: ReturnType<Page["locator"]>) => {
  const box = await selector.boundingBox();
  if (!box) throw new Error("nothing to pull");
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

test("a bar is pulled, stepped and typed; it shows everywhere before it is kept, and is undone", async ({
  page,
}) => {
  await openBoard(page);
  const before = await nameOf(page, 2);
  expect(before).toContain("9×3 · 45–55 %");
  await boardCell(page, BENCH, 2).first().click();
  const bar = page.getByLabel("3 sets of 3, %").first();

  // By the arrow keys: drawn everywhere, in week 6 too, with what it does to loads and totals.
  await page.keyboard.press("Enter");
  await expect(bar).toBeFocused();
  await page.keyboard.press("ArrowUp");
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(
    /47.5–57.5 %, tried, was 9×3 · 45–55 %/,
  );
  await expect(boardCell(page, BENCH, 6).first()).toHaveAccessibleName(/tried/);
  await expect(page.getByText(/loads of 12 athletes move, in weeks 2, 6\./)).toBeVisible();
  await expect(page.getByRole("row").filter({ hasText: "Tonnage" })).toContainText("+");
  // Stepped on, faster than the page is drawn: each step counts, and the bar stays in hand.
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowUp");
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/52.5–62.5 %, tried/);
  await expect(bar).toBeFocused();
  // Another slot is picked: what was tried is not kept, which is said, with the way back.
  await boardCell(page, "Pull-up", 1).click();
  await expect.poll(() => nameOf(page, 2)).toBe(before);
  await page.getByRole("button", { name: "Try it again" }).click();
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/52.5–62.5 %, tried/);
  await boardCell(page, BENCH, 2).first().click();
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/52.5–62.5 %, tried/);
  // Put back: nothing was kept.
  await bar.press("Escape");
  await expect.poll(() => nameOf(page, 2)).toBe(before);

  // Typed, and kept by the same key.
  await bar.fill("50");
  await bar.press("Enter");
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/50–60 %, tried/);
  await bar.press("Enter");
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/9×3 · 50–60 %$/);
  await undo(page);
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/9×3 · 45–55 %$/);

  // Enter on another button is that button's own.
  await bar.press("ArrowUp");
  await page.getByRole("button", { name: /^Put back/ }).focus();
  await page.keyboard.press("Enter");
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/9×3 · 45–55 %$/);

  // Pulled by its handle, upwards.
  const handle = page.locator("[title^='Pull: 2.5 %']").first();
  const at = await middle(handle);
  await pull(page, at, { x: at.x, y: at.y - 12 });
  await expect(boardCell(page, BENCH, 2).first()).toHaveAccessibleName(/tried/);
  await page.getByRole("button", { name: /^Put back/ }).click();
  await expect.poll(() => nameOf(page, 2)).toBe(before);
});

test("a slot is pulled to another day, stepped by keys, and set by its fields; each is one undo", async ({
  page,
}) => {
  await openBoard(page);
  const first = await rows(page);
  await boardCell(page, "Pull-up", 1).click();

  const grip = boardRow(page, "Side plank").locator("[title^='Pull to another']");
  await pull(page, await middle(grip), await middle(boardRow(page, "Pull-up")));
  await expect.poll(() => rows(page)).not.toEqual(first);
  const pulled = await rows(page);
  expect(pulled.indexOf("Side plank")).toBe(pulled.indexOf("Pull-up") - 1);
  await undo(page);
  await expect.poll(() => rows(page)).toEqual(first);

  // By keys: down one place, over the section's edge, and back.
  await boardCell(page, "Bench pull", 1).click();
  await page.keyboard.press("Alt+ArrowDown");
  await expect.poll(() => rows(page)).not.toEqual(first);
  await undo(page);
  await expect.poll(() => rows(page)).toEqual(first);

  // By its fields.
  await page.getByLabel("Bench pull, day").selectOption("Day 2");
  await expect.poll(async () => (await rows(page)).indexOf("Bench pull")).toBeGreaterThan(5);
  await undo(page);
  await expect.poll(() => rows(page)).toEqual(first);
});

test("a cycle begins later and is longer, by pulling and by keys; a week is done as another", async ({
  page,
}) => {
  await openBoard(page);
  await boardCell(page, BENCH, 1).first().click();
  const end = page.locator("[title^='Pull: the cycle']");
  const at = await middle(end);
  await pull(page, at, { x: at.x + 95, y: at.y });
  await expect(boardCell(page, BENCH, 4).first()).toHaveAccessibleName(/week 4 of 4/);
  await undo(page);
  await expect(boardCell(page, BENCH, 4).first()).toHaveAccessibleName(/week 1 of 3/);
  await boardCell(page, BENCH, 1).first().click();
  await page.keyboard.press("Alt+Shift+ArrowRight");
  await expect(boardCell(page, BENCH, 4).first()).toHaveAccessibleName(/week 4 of 4/);
  await undo(page);
  await boardCell(page, BENCH, 1).first().click();
  await page.keyboard.press("Alt+ArrowRight");
  await expect(boardCell(page, BENCH, 1).first()).toHaveAccessibleName(/none$/);
  await undo(page);
  await expect(boardCell(page, BENCH, 1).first()).toHaveAccessibleName(/week 1 of 3/);

  // Week 3's flat work copied to week 1.
  await boardCell(page, BENCH, 3).first().click();
  await page.keyboard.press("Control+c");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Control+v");
  await expect(boardCell(page, BENCH, 1).first()).toHaveAccessibleName(/9×3 · 55 %/);
  await undo(page);
  await expect(boardCell(page, BENCH, 1).first()).toHaveAccessibleName(/9×3 · 40–50 %/);
});

test("the deload is pulled to another week, typed there, and moved by a press", async ({
  page,
}) => {
  await openBoard(page);
  const heads = page.locator("thead th");
  await expect(heads.nth(5)).toContainText("deload");
  await pull(
    page,
    await middle(page.getByTitle("Pull to another week")),
    await middle(page.locator("#week-7")),
  );
  await expect(heads.nth(7)).toContainText("deload");
  await undo(page);
  await expect(heads.nth(5)).toContainText("deload");
  await page.locator("#week-5").click();
  await page.getByRole("button", { name: "A week later" }).click();
  await expect(heads.nth(6)).toContainText("deload");
  await page.getByLabel("Move the deload to week").fill("3");
  await page.getByLabel("Move the deload to week").press("Enter");
  await expect(heads.nth(3)).toContainText("deload");
  await undo(page);
  await undo(page);
  await expect(heads.nth(5)).toContainText("deload");
});

test("one athlete's loads of a week are typed there, and the totals follow", async ({ page }) => {
  await openBoard(page);
  await boardCell(page, BENCH, 1).first().click();
  await page.getByLabel("Athlete whose loads are shown").selectOption("Ansel Quist");
  const total = page.getByRole("row").filter({ hasText: "Tonnage" }).getByRole("cell").first();
  const before = Number((await total.textContent())?.match(/[\d.]+/)?.[0]);
  const first = page.getByLabel("Load of 3 sets of 3, kg").first();
  const kg = Number(await first.inputValue());
  await first.fill(String(kg + 10));
  await first.press("Enter");
  await expect
    .poll(async () => Number((await total.textContent())?.match(/[\d.]+/)?.[0]))
    .toBe(before + 3 * 3 * 10);
  await page.getByRole("button", { name: "as the recipe" }).click();
  await expect
    .poll(async () => Number((await total.textContent())?.match(/[\d.]+/)?.[0]))
    .toBe(before);
});

test("two coaches on one board: each sees the other's move, and none is lost", async ({
  page,
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ storageState: stateFile("owner"), baseURL });
  const owner = await context.newPage();
  await openBoard(page);
  await openBoard(owner);
  const first = await rows(page);
  await boardCell(page, "Bench pull", 1).click();
  await page.keyboard.press("Alt+ArrowDown");
  await owner.locator("#week-5").click();
  await owner.getByRole("button", { name: "A week later" }).click();
  for (const each of [page, owner]) {
    await expect.poll(() => rows(each), { timeout: 15_000 }).not.toEqual(first);
    await expect(each.locator("thead th").nth(6)).toContainText("deload", { timeout: 15_000 });
  }
  await owner.reload();
  await undo(owner);
  await page.reload();
  await undo(page);
  await expect.poll(() => rows(page)).toEqual(first);
  await expect(page.locator("thead th").nth(5)).toContainText("deload");
  await context.close();
});

test("a day has a start and a length: the calendar carries the time, and what is too long is said", async ({
  page,
}) => {
  await openBoard(page);
  await page.getByRole("button", { name: /^Day 1/ }).click();
  const start = page.getByLabel("Day 1, starts at");
  await start.fill("17:30");
  await start.blur();
  const length = page.getByLabel("Day 1, minutes it has");
  await length.fill("30");
  await length.blur();
  await page.getByRole("link", { name: /^Checks/ }).click();
  await expect(page.getByText(/Day 1, week \d: \d+ min, and it has 30/)).toBeVisible();
  await page.getByRole("link", { name: "Board" }).click();
  await openBlock(page);
  const address = await page
    .getByRole("link", { name: "dates as a calendar" })
    .getAttribute("href");
  const text = await (await page.request.get(address ?? "")).text();
  expect(text).toMatch(/DTSTART:20260330T153000Z/);
  await undo(page);
  await expect(page.getByRole("button", { name: "Undo" })).toBeEnabled();
  await undo(page);
});

test("what cannot be is said: a load, a length; a top set offers no sets; the numbers stay the numbers", async ({
  page,
}) => {
  await openBoard(page);
  await boardCell(page, BENCH, 1).first().click();
  const load = page.getByLabel("Load of 3 sets of 3, kg").first();
  await load.fill("heavy");
  await load.press("Enter");
  await expect(page.getByRole("alert")).toContainText(/load/i);
  await page.getByRole("button", { name: /^Day 1/ }).click();
  await page.getByLabel("Day 1, minutes it has").fill("2");
  await page.getByLabel("Day 1, minutes it has").blur();
  await expect(page.getByText("Whole minutes from 5 to 480.")).toBeVisible();
  await boardCell(page, "Back squat, straight bar", 1).last().click();
  await expect(page.getByLabel(/sets of 3, %|set of 3, %|1 sets of 3, %/).first()).toBeVisible();
  await expect(page.getByRole("button", { name: "More sets a step" })).toHaveCount(0);

  await page.getByRole("link", { name: "Numbers", exact: true }).click();
  await page
    .getByRole("navigation", { name: "Slots" })
    .getByRole("link", { name: "Pull-up" })
    .click();
  await expect(page.getByRole("form", { name: "Recipe" })).toBeVisible();
});

test("on a phone one week stands beside the names, and the block as a strip above", async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openBoard(page);
  const strip = page.getByRole("group", { name: "Week that is shown" });
  await expect(strip.getByRole("button")).not.toHaveCount(0);
  const weeks = page.getByRole("columnheader").filter({ hasText: /^\d+ / });
  await strip.getByRole("button", { name: /^Week 3/ }).click();
  await expect(weeks.filter({ visible: true })).toHaveCount(1);
  await expect(boardCell(page, BENCH, 3).first()).toBeVisible();
  await expect(boardCell(page, BENCH, 2).first()).toBeHidden();
  const board = page.getByRole("table", { name: "The block, weeks across" });
  const cell = await boardCell(page, BENCH, 3).first().boundingBox();
  expect(cell?.width).toBeGreaterThan(100);
  const box = await board.boundingBox();
  expect((box?.x ?? 0) + (box?.width ?? 0)).toBeLessThanOrEqual(391);
  // What is picked comes into sight.
  await boardCell(page, BENCH, 3).first().click();
  await page.keyboard.press("ArrowRight");
  await expect(boardCell(page, BENCH, 4).first()).toBeVisible();
  await expect(boardCell(page, BENCH, 4).first()).toBeFocused();
});
