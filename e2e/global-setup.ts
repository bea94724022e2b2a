import { mkdirSync, writeFileSync } from "node:fs";
import { chromium } from "@playwright/test";
import { DEMO_PASSWORD } from "../db/demo/people";
import { makeSecondTeam, SECOND_PASSWORD } from "../db/fixtures/second-team";
import { CHROMIUM } from "../playwright.config";
import { SECOND_TEAM_FILE, STATES, stateFile } from "./people";

/** Makes the second team and signs everybody in once, through the page. */
export default async function setup(): Promise<void> {
  mkdirSync(STATES, { recursive: true });
  const ownerUrl = process.env.OWNER_DATABASE_URL;
  const baseURL = process.env.BASE_URL;
  if (!ownerUrl || !baseURL) throw new Error("Run through scripts/with-database.mjs --serve.");
  const second = await makeSecondTeam(ownerUrl);
  writeFileSync(SECOND_TEAM_FILE, JSON.stringify(second));

  const browser = await chromium.launch(CHROMIUM);
  const people: Array<[name: string, email: string, password: string]> = [
    ["owner", "owner@skerry.example", DEMO_PASSWORD],
    ["coach", "coach@skerry.example", DEMO_PASSWORD],
    ["assistant", "assistant@skerry.example", DEMO_PASSWORD],
    ["maren", "maren@skerry.example", DEMO_PASSWORD],
    ["second", second.email, SECOND_PASSWORD],
  ];
  for (const [name, email, password] of people) {
    const context = await browser.newContext({ baseURL });
    const page = await context.newPage();
    await page.goto("/sign-in");
    await page.getByLabel("Email").fill(email);
    await page.getByLabel("Password").fill(password);
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL((url) => !url.pathname.startsWith("/sign-in"));
    // The sign-in alone: each test's browser is a device of its own.
    const { cookies } = await context.storageState();
    writeFileSync(stateFile(name), JSON.stringify({ cookies, origins: [] }));
    await context.close();
  }
  await browser.close();
}
