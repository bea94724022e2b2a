import { expect, type Page } from "./test";

/** Puts a slot on a new block's day from the board's margin. */
export async function putSlot(page: Page, of: { work: string; recipe: string }): Promise<void> {
  const slot = page.getByRole("form", { name: "New slot" });
  await slot.getByLabel("Lift or exercise").selectOption({ label: of.work });
  await slot.getByLabel("Find one").fill(of.recipe);
  await slot.getByRole("radio", { name: new RegExp(`^${of.recipe}`) }).check();
  await slot.getByRole("button", { name: "Put it on" }).click();
  await page.getByRole("button", { name: "Open it" }).click();
  await expect(boardRow(page, of.work)).toBeVisible();
}

/** A slot's row on the board. */
export const boardRow = (page: Page, name: string) =>
  page
    .getByRole("table", { name: "The block, weeks across" })
    .getByRole("row")
    .filter({ has: page.getByRole("rowheader", { name }) });

/** A slot in one week. */
export const boardCell = (page: Page, name: string, week: number) =>
  page.getByRole("button", { name: new RegExp(`^Week ${week}, ${name}`) });

/** What the margin says of the whole block. */
export async function openBlock(page: Page): Promise<void> {
  await page.getByRole("button", { name: /^The block: start/ }).click();
  await expect(page.getByRole("region", { name: "The block", exact: true })).toBeVisible();
}
