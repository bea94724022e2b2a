import { randomUUID } from "node:crypto";
import { lookAt } from "./axe";
import { admin } from "./floor-session";
import { overlapsOn } from "./overlaps";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

/**
 * One athlete on her own phone: a day that her coach published for her is begun from the card, logged
 * without the network and over a reload, ended, and read by the coach like any session.
 */
const planId = randomUUID();
test.beforeAll(async () => {
  await admin`
    INSERT INTO plan (team_id, id, name, squad_id, athlete_id, room_id, start_date, block, metric,
      rounding, version, updated_by, updated_at)
    SELECT p.team_id, ${planId}, 'A day by yourself', NULL, a.id, p.room_id, p.start_date,
      jsonb_set(p.block, '{name}', '"A day by yourself"'), p.metric, p.rounding, 1, 'Test', p.updated_at
    FROM plan p JOIN team t ON t.id = p.team_id
      JOIN athlete a ON a.team_id = p.team_id AND a.name = 'Maren Solhaug'
    WHERE t.name = 'Skerry Coast' AND p.name = 'Camp day'`;
  await admin`
    INSERT INTO plan_version (team_id, id, plan_id, number, seq, block, loads, entered_by, entered_at)
    SELECT p.team_id, ${randomUUID()}, p.id, 1, 1, p.block,
      (SELECT v.loads FROM plan_version v WHERE v.team_id = p.team_id LIMIT 1), 'Test', p.updated_at
    FROM plan p WHERE p.id = ${planId}`;
});
test.afterAll(async () => {
  await admin`UPDATE plan SET away_on = '2026-03-10' WHERE id = ${planId}`;
});

test.use({ storageState: stateFile("maren"), viewport: { width: 390, height: 844 } });

const clean = async (page: Page) => {
  // What is no lift comes a moment after the screen.
  await page.getByRole("heading", { level: 1 }).waitFor();
  for (const theme of ["chalk", "cellar"]) {
    await page.evaluate((own) => {
      document.documentElement.setAttribute("data-theme", own);
      for (const one of document.getAnimations()) if (one instanceof CSSTransition) one.finish();
    }, theme);
    expect(await overlapsOn(page)).toEqual([]);
    const { violations } = await lookAt(page).analyze();
    expect(violations.map((one) => `${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
  }
};

/** Sets by eye, as the phone is tapped. */
async function lift(page: Page, sets: number): Promise<void> {
  for (let i = 0; i < sets; i++) {
    await page.getByTestId("load").waitFor();
    await page.getByRole("button", { name: /^On all/ }).click();
    await expect(page.getByTestId("verdict")).toHaveText(/^By eye/);
    await page
      .getByRole("button", { name: /^(Next|Go on)/ })
      .first()
      .click();
  }
}

/** A set, one without the network, one over a reload: all three arrive. */
async function threeSetsOffline(page: Page, openSquat: () => Promise<void>): Promise<void> {
  await lift(page, 1);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.waitForTimeout(3500);
  await page.context().setOffline(true);
  await lift(page, 1);
  await expect(page.getByText(/no link; \d+ kept here/)).toBeVisible();
  await page.waitForTimeout(2500);
  await page.reload();
  expect(page.url()).toContain("/rack/offline?to=%2Fcard");
  await openSquat();
  await lift(page, 1);
  await page.getByRole("button", { name: "End this training" }).click();
  await expect(page.getByText(/wait on this phone/)).toBeVisible();
  await expect(page.getByRole("button", { name: "End the training" })).toBeDisabled();
  await page.context().setOffline(false);
  await expect(page.getByText("saved here and sent")).toBeVisible({ timeout: 20_000 });
}

const OFFLINE = Boolean(process.env.LONG);

test(`${OFFLINE ? "@long without the network, " : ""}a published day is begun on the card, logged, ended, and reviewed`, async ({
  page,
  browser,
  baseURL,
}) => {
  page.setDefaultTimeout(15_000);
  await page.goto("/card");
  const day = page.getByRole("region", { name: "A day by yourself" });
  await day.getByText("Train it alone").click();
  await expect(day.getByText(/Nobody spots you/)).toBeVisible();
  await clean(page);
  await day.getByRole("button", { name: "Begin alone" }).click();
  await page.waitForURL(/\/card\/[0-9a-f-]{36}/);
  const address = new URL(page.url()).pathname;
  const works = page.getByRole("navigation", { name: "What is done here" });
  // Every slot of the day, whatever station it is done at.
  await expect(works.getByRole("button")).toHaveCount(6);
  await clean(page);

  const openSquat = async () => works.getByRole("button", { name: /box/i }).first().click();
  await openSquat();
  if (OFFLINE) await threeSetsOffline(page, openSquat);
  else {
    await lift(page, 3);
    await page.getByRole("button", { name: "End this training" }).click();
    await expect(page.getByText("saved here and sent")).toBeVisible({ timeout: 20_000 });
  }
  await page.goto("/card");
  await expect(day.getByRole("link", { name: /^Go on: 3 of/ })).toBeVisible({ timeout: 20_000 });
  await day.getByRole("link", { name: /^Go on/ }).click();
  // A server that is slow to answer for 8 s counts as away: the phone's own screen stands in for it.
  await page.waitForURL(
    (url) => url.pathname === address || url.searchParams.get("to") === address,
    { timeout: 30_000 },
  );
  // The end is heard over the stream before the answer to the press is back: the way goes on with it.
  await page.route(
    (url) => url.pathname.startsWith(address),
    async (route) => {
      if (route.request().method() !== "POST") return route.continue();
      const response = await route.fetch();
      await page.getByText("The session has ended.").first().waitFor();
      await route.fulfill({ response });
    },
  );
  await page.getByRole("button", { name: "End this training" }).click();
  await page.getByRole("button", { name: "End the training" }).click();
  await page.waitForURL("/card", { timeout: 30_000 });
  await expect(day.getByText(/Done alone today: 3 of/)).toBeVisible();

  const desk = await browser.newContext({ storageState: stateFile("coach"), baseURL });
  const coach = await desk.newPage();
  await coach.goto("/review");
  const row = coach.getByRole("row").filter({ hasText: "A day by yourself" });
  await expect(row).toContainText("Maren Solhaug alone");
  await row.getByRole("link").click();
  await expect(coach.getByRole("heading", { level: 1 })).toContainText("A day by yourself");
  await expect(coach.locator("main")).toContainText("3 of");
  await desk.close();
});
