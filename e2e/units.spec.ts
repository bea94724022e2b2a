import { openPart } from "./athlete-part";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

/** One unit where a person reads: who reads pounds meets no computed kilogram, wherever it is. */
test.use({ storageState: stateFile("coach") });
test.describe.configure({ mode: "serial" });

async function readIn(page: Page, unit: "pounds" | "kilograms") {
  await page.getByRole("button", { name: /^Menu of/ }).click();
  // The next page is read when the choice is kept, not while it is on its way.
  await Promise.all([
    page.waitForResponse((answer) => answer.url().includes("/api/unit")),
    page.getByRole("button", { name: `Read loads in ${unit}` }).click(),
  ]);
  await expect(page.getByRole("button", { name: /^Menu of/ })).toBeVisible();
}

/** The open working, with what was entered (the record, bars and plates) left out. */
async function workingWords(page: Page): Promise<string[]> {
  const panel = page.getByRole("region", { name: "Working" });
  await expect(panel).toBeVisible();
  const rows = await panel.locator("dl > div").allInnerTexts();
  return rows.filter(
    (row) => !/^(Tested|Competition|Rep-max|Velocity|Coach|Bar and a side)/.test(row),
  );
}

test("pounds hold in plans, workings, athletes, gear, review and print", async ({ page }) => {
  await page.goto("/plan");
  await readIn(page, "pounds");
  await page.getByRole("link", { name: "Spring block", exact: true }).click();
  await page.getByRole("link", { name: "Numbers", exact: true }).click();
  await page.getByRole("form", { name: "Recipe" }).waitFor();
  const cell = page.getByRole("button", { name: /sets of \d+ at [\d.]+ lb/ }).first();
  await cell.click();
  const words = await workingWords(page);
  expect(words.join("\n")).toMatch(/Nearest here\s+[\d.]+ lb/);
  expect(words.join("\n")).not.toMatch(/\d kg/);

  await page.goto(`${new URL(page.url()).pathname}/print`);
  const sheet = page.getByRole("article", { name: "Wall sheet" });
  await expect(sheet).toContainText(/[\d.]+ lb/);
  expect(await sheet.textContent()).not.toMatch(/\d kg/);

  await page.goto("/athletes");
  await page.getByRole("link", { name: "Joss Harrow", exact: true }).click();
  await page
    .getByRole("button", { name: /^Working max [\d.]+ lb/ })
    .first()
    .click();
  expect((await workingWords(page)).join("\n")).not.toMatch(/\d kg/);
  await openPart(page, "Back squat, straight bar");
  await expect(page.getByRole("img", { name: /at no load to [\d.]+ lb/ }).first()).toBeVisible();

  await page.goto("/gear");
  await expect(page.getByText(/totals, [\d.]+ lb to [\d.]+ lb/).first()).toBeVisible();

  await page.goto("/review");
  await page.locator("main tbody a[href^='/review/']").first().click();
  const table = page.getByRole("region", { name: "Done against planned" });
  await table
    .getByRole("button", { name: /tonnage [\d.]+ lb/ })
    .first()
    .click();
  expect((await workingWords(page)).join("\n")).not.toMatch(/\d kg/);
});

test("a bare number is in the reader's unit, any other is written behind it and kept", async ({
  page,
}) => {
  await page.goto("/athletes");
  await page.getByRole("link", { name: "Joss Harrow", exact: true }).click();
  await openPart(page, "Facts and competitions");
  const mass = page.locator("summary", { hasText: "Add body mass" });
  await mass.click();
  const field = page.getByLabel("Body mass, lb");
  await field.fill("181");
  await field.locator("xpath=ancestor::form").getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText("181 lb").first()).toBeVisible();
  await readIn(page, "kilograms");
  // What was entered reads as it was entered, for everybody.
  await expect(page.getByText("181 lb").first()).toBeVisible();
});

test("who reads pounds keeps a piece as it is, though its numbers are kilograms", async ({
  page,
}) => {
  await page.goto("/gear");
  await readIn(page, "pounds");
  await page.getByRole("link", { name: "Boathouse" }).first().click();
  const facts = async (name: string) =>
    (await page
      .getByRole("row", { name: new RegExp(`^${name}`) })
      .first()
      .textContent()) ?? "";
  for (const name of ["Middle band", "1, 2, 3, 4"]) {
    const before = await facts(name);
    await page
      .getByRole("row", { name: new RegExp(`^${name}`) })
      .getByRole("link")
      .first()
      .click();
    const editor = page.getByRole("complementary", { name: "Margin" });
    await editor.getByRole("button", { name: "Keep the change" }).click();
    await expect(editor.getByText("Kept.")).toBeVisible();
    expect(await facts(name)).toBe(before);
  }
  await readIn(page, "kilograms");
});

test("dates stand in the order of the reader's language, or as the menu was told", async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({
    baseURL,
    locale: "en-US",
    storageState: stateFile("coach"),
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  const MONTH = "(Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)";
  const monthFirst = new RegExp(`^${MONTH} \\d{1,2}, \\d{4}$`);
  const dayFirst = new RegExp(`^\\d{1,2} ${MONTH} \\d{4}$`);
  await page.goto("/review");
  const row = page.getByRole("table").last().locator("tbody tr").first().locator("td");
  const texts = () => row.allTextContents();
  expect((await texts()).filter((text) => monthFirst.test(text.trim()))).toHaveLength(1);
  await page.getByRole("button", { name: /^Menu of/ }).click();
  await page.getByLabel("Dates").selectOption("10 Mar 2026");
  await expect
    .poll(async () => (await texts()).filter((text) => dayFirst.test(text.trim())).length)
    .toBe(1);
  await page.reload();
  expect((await texts()).filter((text) => dayFirst.test(text.trim()))).toHaveLength(1);
  // The board's heads and what goes out as a file: the one is read, the other is kept.
  await page.goto("/plan");
  await page.getByRole("link", { name: "Spring block", exact: true }).click();
  const head = page.getByRole("columnheader").filter({ hasText: /^1 / }).first();
  await expect(head).toContainText(new RegExp(`\\d{1,2} ${MONTH}`));
  const file = await page.request.get(`${new URL(page.url()).pathname}/out/loads.csv`);
  expect(await file.text()).toMatch(/\d{4}-\d{2}-\d{2}/);
  await context.close();
});
