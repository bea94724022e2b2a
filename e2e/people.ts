import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import type { SecondTeam } from "../db/fixtures/second-team";

/** Signed-in states belong to one application: each part of the tests has its own. */
export const STATES = `test-results/states-${process.env.BROWSER_PART ?? "all"}`;

export const SECOND_TEAM_FILE = `${STATES}/second-team.json`;

export const stateFile = (name: string) => `${STATES}/${name}.json`;

export const secondTeam = (): SecondTeam => JSON.parse(readFileSync(SECOND_TEAM_FILE, "utf8"));

/** Starts today's session of a squad from the floor, if it is not running yet. */
export async function startSquad(page: Page, squad: string): Promise<string> {
  await page.goto("/floor");
  const row = page
    .getByRole("listitem")
    .filter({ hasText: `${squad}:` })
    .first();
  await row.getByRole("button", { name: "Start" }).click();
  await page.waitForURL(/\/floor\/[0-9a-f-]{36}$/);
  return page.url().split("/").at(-1) ?? "";
}

/** Opens a rack's screen from the floor. */
export async function openRack(page: Page, rack: number): Promise<void> {
  await page.getByRole("link", { name: `Open rack ${rack}` }).click();
  await page.waitForURL(/\/rack\//);
  await page.getByTestId("load").waitFor();
}

/** Waits until everything this page logged is acknowledged. */
export async function allSent(page: Page): Promise<void> {
  await page.getByText("saved here and sent").waitFor();
}

/** Types one rep's speed at the rack. */
export async function typeSpeeds(page: Page, speeds: string[]): Promise<void> {
  await page.getByRole("button", { name: "Type a speed" }).click();
  const field = page.getByRole("dialog").getByRole("textbox");
  for (const speed of speeds) {
    await field.fill(speed);
    await field.press("Enter");
  }
  // It closes by itself when a rule ends the set.
  const sheet = page.getByRole("dialog", { name: "Type a speed" });
  if (await sheet.isVisible()) await page.keyboard.press("Escape");
  await sheet.waitFor({ state: "hidden" });
}
