import { expect, type Page } from "./test";

/** Opens a part of an athlete's page in place, by its heading. */
export async function openPart(page: Page, name: string): Promise<void> {
  const heading = page.locator("main").getByRole("link", { name, exact: true });
  await expect(heading).toHaveAttribute("aria-expanded", "false");
  await heading.click();
  await expect(heading).toHaveAttribute("aria-expanded", "true");
}
