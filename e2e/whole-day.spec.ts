import type { Page } from "@playwright/test";
import { admin } from "./floor-session";
import { overlapsOn } from "./overlaps";
import { stateFile } from "./people";
import { expect, test } from "./test";

/**
 * The demo's camp day: 28 athletes, throws, a pairing, the box at six racks, the bench, a round;
 * three browsers (the floor and two stations, one of which loses its link and is loaded anew).
 * `npm run soak` lifts every set of it (FULL_DAY=1); here each station does its first round.
 */
test.use({ storageState: stateFile("coach") });

const FULL = process.env.FULL_DAY === "1";
const LATE = "Yara Coste";
const BOX = "Box squat, parallel, straight bar";
const BENCH = "Bench press, straight bar";

/** Presses what is up until nobody is, or so many sets: seen by eye, on to the next. */
async function liftByEye(page: Page, sets: number): Promise<number> {
  const finished = page.getByRole("heading", { name: /^All sets/ });
  const load = page.getByTestId("load");
  for (let done = 0; done < sets; done++) {
    if (await finished.isVisible()) return done;
    const put = page.getByRole("region", { name: "What to put on" });
    await load.or(put).or(finished).first().waitFor();
    if (await finished.isVisible()) return done;
    if (await put.isVisible()) await put.getByRole("button").first().click();
    await load.waitFor();
    // The key does nothing to a set that is done: it is pressed until the page takes keys.
    await expect(async () => {
      await page.keyboard.press("=");
      await expect(page.getByTestId("verdict")).toHaveText(/^By eye: on speed/, { timeout: 1000 });
    }).toPass();
    await page.keyboard.press("n");
    await expect(page.getByTestId("verdict").or(finished).first()).not.toHaveText(/^By eye/);
  }
  return sets;
}

/** Clicks what matches, as fast as the page draws it, until there is none left or so often. */
async function tapAll(page: Page, name: RegExp, most: number): Promise<number> {
  let taps = 0;
  for (; taps < most; taps++) {
    const button = page.getByRole("button", { name }).and(page.locator(":enabled")).first();
    if ((await button.count()) === 0) break;
    await button.click();
  }
  return taps;
}

const progress = (page: Page, slot: string) =>
  page.getByRole("list", { name: "The day" }).getByRole("listitem").filter({ hasText: slot });

/** On a phone, two tablets and a desk, in both themes: no words over others, no sideways scroll. */
async function nothingOverlaps(floor: Page, stations: Page[]): Promise<void> {
  for (const [name, shown] of [
    ["floor", floor],
    ...stations.map((one) => [one.url(), one]),
  ] as const)
    for (const [width, height] of [
      [390, 844],
      [800, 1280],
      [1024, 768],
      [1280, 800],
    ] as const) {
      const page = shown as Page;
      await page.setViewportSize({ width, height });
      for (const theme of ["chalk", "cellar"]) {
        await page.evaluate(
          (own) => document.documentElement.setAttribute("data-theme", own),
          theme,
        );
        if ((await overlapsOn(page)).length > 0)
          await page.screenshot({ path: `test-results/overlap-${width}-${theme}.png` });
        await expect
          .poll(() => overlapsOn(page), { message: `${String(name)} at ${width}, ${theme}` })
          .toEqual([]);
      }
    }
  await floor.setViewportSize({ width: 1280, height: 800 });
}

const stoppedIds: string[] = [];
test.afterAll(async () => {
  if (stoppedIds.length > 0)
    await admin`
      UPDATE training_session SET status = 'running', ended_at = NULL
      WHERE id IN ${admin(stoppedIds)}`;
});

test("@whole a camp day of 28 is planned, run by taps at its stations, and reviewed", async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(FULL ? 600_000 : 180_000);
  page.setDefaultTimeout(20_000);
  // The racks are wanted: whatever runs stands still until this day is over.
  const stopped = await admin`
    UPDATE training_session SET status = 'ended', ended_at = now() WHERE status = 'running'
    RETURNING id`;
  stopped.forEach((session) => {
    stoppedIds.push(session.id);
  });

  await page.goto("/plan");
  await page.getByRole("row").filter({ hasText: "Camp day" }).getByRole("link").first().click();
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByText(/published 1,/)).toBeVisible();

  await page.goto("/floor");
  const row = page.getByRole("listitem").filter({ hasText: "Spring camp: Camp day" }).first();
  await expect(row).toContainText(/Two-hand throw, forwards, .*First pairing.*Side plank/s);
  await row.getByText("Who is here: 28 of the squad, change").click();
  await row.getByLabel(LATE).uncheck();
  await row.getByRole("button", { name: "Start" }).click();
  await page.waitForURL(/\/floor\/[0-9a-f-]{36}$/);
  const floor = page.url();
  await expect(progress(page, "Two-hand throw")).toContainText("0 of 27 through");
  await expect(progress(page, BOX)).toBeVisible();
  expect(await page.getByRole("link", { name: /^Open rack \d/ }).count()).toBe(6);

  const station = async (name: string) => {
    const context = await browser.newContext({
      storageState: stateFile("coach"),
      viewport: { width: 1024, height: 768 },
      ...(baseURL ? { baseURL } : {}),
    });
    const tablet = await context.newPage();
    tablet.setDefaultTimeout(20_000);
    await tablet.goto(floor);
    await tablet.getByRole("link", { name }).click();
    await tablet.waitForURL(/\/rack\//);
    return tablet;
  };
  const go = async (tablet: Page, name: string) => {
    await tablet.goto(floor);
    await tablet.getByRole("link", { name }).click();
    await tablet.waitForURL(/\/rack\//);
  };
  const a = await station("Open rack 1");
  const b = await station("Open Throwing wall");

  // The primer: everybody throws at once; one throw is measured.
  await b.getByRole("button", { name: "All did a set" }).click();
  await b.getByRole("button", { name: /^Maren, Two-hand throw, forwards, set 2 done/ }).click();
  await b.getByRole("button", { name: "Type throw, m" }).click();
  await b.getByRole("dialog").getByRole("textbox").fill("9,4");
  await b.keyboard.press("Enter");
  await expect(b.getByText(/5 reps, 9.4 m/)).toBeVisible();
  await b.getByRole("button", { name: "All did a set" }).click();
  await expect(b.getByRole("heading", { name: /^All sets/ })).toBeVisible();
  await expect(progress(page, "Two-hand throw")).toContainText("27 of 27 through");

  // The pairing at the strip.
  await go(b, "Open Jump strip");
  await b.getByRole("button", { name: /^Start: Ansel/ }).waitFor();
  expect(await tapAll(b, /^(Start|Done): Ansel/, FULL ? 12 : 4)).toBeGreaterThan(2);
  if (FULL) {
    await tapAll(b, /^(Start|Done): /, 28 * 12);
    await expect(progress(page, "First pairing")).toContainText("27 of 27 through");
  }
  await expect(b.getByText(/saved here and sent/)).toBeVisible();

  // The box at six racks, by eye. A note reaches every station; one loses its link meanwhile.
  await page.getByLabel("A note for every station").fill("Knees out.");
  await page.getByRole("button", { name: "Say it" }).click();
  await expect(a.getByText("Knees out.")).toBeVisible();
  const perRack = FULL ? 100 : 3;
  await liftByEye(a, 2);
  await a.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await expect
    .poll(() => a.evaluate(() => indexedDB.databases().then((all) => all.map((one) => one.name))))
    .toContain("sprezza-screens");
  await a.context().setOffline(true);
  await liftByEye(a, 1);
  await expect(a.getByText(/no link; \d+ kept here/)).toBeVisible();
  await a.waitForTimeout(2500);
  await a.reload();
  await a.getByTestId("load").waitFor();
  expect(a.url()).toContain("/rack/offline?to=");
  await liftByEye(a, FULL ? 4 : 1);
  await a.context().setOffline(false);
  await expect(a.getByText("saved here and sent")).toBeVisible({ timeout: 20_000 });
  await liftByEye(a, perRack);

  await go(b, "Open rack 2");
  await b.getByTestId("load").waitFor();
  await b.getByRole("button", { name: "More" }).click();
  await b.getByRole("dialog").getByRole("button", { name: LATE }).click();
  await expect(progress(page, BOX)).toContainText(/of 28 through/);
  for (const rack of [2, 3, 4, 5, 6]) {
    await go(b, `Open rack ${rack}`);
    await liftByEye(b, perRack);
  }
  if (FULL) await expect(progress(page, BOX)).toContainText("28 of 28 through");

  // The bench over three grips: what is done at a rack is chosen at it.
  for (const rack of FULL ? [1, 2, 3, 4, 5, 6] : [3]) {
    await go(b, `Open rack ${rack}`);
    const works = b.getByRole("navigation", { name: "What is done here" });
    const bench = works.getByRole("button", { name: new RegExp(BENCH) });
    await works.waitFor();
    if ((await bench.count()) === 0) continue;
    await bench.click();
    await expect(b.getByText(/close grip|middle grip|wide grip/).first()).toBeVisible();
    await liftByEye(b, perRack);
  }
  if (FULL) await expect(progress(page, BENCH)).toContainText("28 of 28 through");

  // The round in the corner: a tap a set, left and right counted apart.
  await go(b, "Open Dumbbell corner");
  for (const exercise of ["Chest-supported row", "Side plank"]) {
    const column = b.getByRole("columnheader").filter({ hasText: exercise });
    await column.getByRole("button", { name: "All did a set" }).click();
    if (FULL) await column.getByRole("button", { name: "All did a set" }).click();
  }
  if (FULL) await expect(progress(page, "Side plank")).toContainText("28 of 28 through");
  else await b.getByRole("button", { name: /^Maren, Side plank, set 2, left/ }).click();
  await expect(b.getByText("saved here and sent")).toBeVisible();

  // Stations say that their tablets are there, with their batteries.
  await expect(page.getByTitle(/^Its tablet was heard of/).first()).toBeVisible({
    timeout: 25_000,
  });

  // What was logged wrong at a place is put right from the floor, and stays in the log.
  await page
    .getByRole("region", { name: "Dumbbell corner" })
    .getByRole("button", { name: "Maren" })
    .click();
  const sheet = page.getByRole("dialog", { name: /^Correct / });
  const firstSet = sheet.getByRole("form").first();
  await firstSet.getByLabel(/^(reps|metres)$/).fill("7");
  await firstSet.getByRole("button", { name: "Keep" }).click();
  await expect(firstSet.getByRole("alert")).toHaveText(/^Say why/);
  await sheet.getByLabel(/^Why/).fill("Typed wrong");
  await firstSet.getByRole("button", { name: "Keep" }).click();
  await expect(
    sheet
      .getByRole("form")
      .first()
      .getByLabel(/^(reps|metres)$/),
  ).toHaveValue("7");
  await sheet.getByRole("button", { name: "Close" }).click();
  await expect(page.getByText("All saved")).toBeVisible();
  const [corrected] = await admin`
    SELECT count(*)::int AS n FROM log_entry WHERE session_id = ${floor.split("/").at(-1) ?? ""}
      AND kind = 'work' AND supersedes <> '{}' AND body->>'reps' = '7'`;
  expect(corrected?.n).toBe(1);
  if (!FULL) {
    // A whole group goes to another rack with what it has left.
    await page.getByLabel("Group at").selectOption(`Rack 6: ${BOX}`);
    await page.getByLabel("goes to").selectOption("Rack 5");
    await page.getByRole("button", { name: "Move 4" }).click();
    const five = page.getByRole("region", { name: "Rack 5" });
    await expect(five.getByRole("listitem")).toHaveCount(8);
  }
  await nothingOverlaps(page, [a, b]);

  // Nothing disagrees, and the review has every slot.
  await expect(page.getByText(/Entries that disagree/)).toHaveCount(0);
  const [log] = await admin`
    SELECT count(*)::int AS entries, count(DISTINCT e.id)::int AS ids FROM log_entry e
    WHERE e.session_id = ${floor.split("/").at(-1) ?? ""}`;
  expect(log?.entries).toBe(log?.ids);
  await page.bringToFront();
  await page.getByRole("button", { name: "End the session" }).click();
  // Who came in late has not thrown and did no pairing.
  await page.getByRole("button", { name: "End it as it is" }).click();
  await page.waitForURL(/\/review\//);
  for (const slot of ["Two-hand throw, forwards", "First pairing", BOX, BENCH, "Side plank"])
    await expect(page.getByRole("heading", { name: slot }).first()).toBeVisible();
  await a.context().close();
  await b.context().close();
});
