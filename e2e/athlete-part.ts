import { expect, type Page } from "./test";

/** Opens an athlete's page from the table; gives the athlete's number. */
export async function openAthlete(page: Page, name: string): Promise<string> {
  await page.goto("/athletes");
  await page.getByRole("link", { name, exact: true }).click();
  await expect(page.getByRole("heading", { level: 1, name })).toBeVisible();
  return page.url().split("/").at(-1)?.split(/[?#]/)[0] ?? "";
}

/** Opens a part of an athlete's page in place, by its heading. */
export async function openPart(page: Page, name: string): Promise<void> {
  const heading = page.locator("main").getByRole("link", { name, exact: true });
  await expect(heading).toHaveAttribute("aria-expanded", "false");
  await heading.click();
  await expect(heading).toHaveAttribute("aria-expanded", "true");
}

/** Begins a profile test of a lift from its athlete's page; gives the athlete's number. */
export async function openProfileTest(page: Page, athlete: string, lift: string): Promise<string> {
  const id = await openAthlete(page, athlete);
  await openPart(page, lift);
  await page
    .getByRole("region", { name: lift })
    .getByRole("link", { name: "Test", exact: true })
    .click();
  await page.waitForURL(/\/lab\/profile\?athlete=/);
  return id;
}
