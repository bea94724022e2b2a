import { randomUUID } from "node:crypto";
import { lookAt } from "./axe";
import { admin } from "./floor-session";
import { overlapsOn } from "./overlaps";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

/**
 * Groups before the start: proposed, moved by hand, tried with a rack fewer; what was looked at is what
 * stands at the racks. Redone in the middle of the session around what has been done.
 */
test.use({ storageState: stateFile("coach") });
const planId = randomUUID();
const stopped: string[] = [];
test.beforeAll(async () => {
  const rows = await admin`
    UPDATE training_session SET status = 'ended', ended_at = now() WHERE status = 'running'
    RETURNING id`;
  stopped.push(...rows.map((row) => String(row.id)));
  await admin`
    INSERT INTO plan (team_id, id, name, squad_id, athlete_id, room_id, start_date, block, metric,
      rounding, version, updated_by, updated_at)
    SELECT p.team_id, ${planId}, 'Grouped day', p.squad_id, NULL, p.room_id, p.start_date,
      jsonb_set(p.block, '{name}', '"Grouped day"'), p.metric, p.rounding, 1, 'Test', p.updated_at
    FROM plan p JOIN team t ON t.id = p.team_id
    WHERE t.name = 'Skerry Coast' AND p.name = 'Camp day'`;
  await admin`
    INSERT INTO plan_version (team_id, id, plan_id, number, seq, block, loads, entered_by, entered_at)
    SELECT p.team_id, ${randomUUID()}, p.id, 1, 1, p.block,
      (SELECT v.loads FROM plan_version v WHERE v.team_id = p.team_id LIMIT 1), 'Test', p.updated_at
    FROM plan p WHERE p.id = ${planId}`;
});
test.afterAll(async () => {
  await admin`UPDATE plan SET away_on = '2026-03-10' WHERE id = ${planId}`;
  await admin`
    UPDATE training_session SET status = 'ended', ended_at = now()
    WHERE status = 'running' AND plan_id = ${planId}`;
  if (stopped.length > 0)
    await admin`
      UPDATE training_session SET status = 'running', ended_at = NULL WHERE id IN ${admin(stopped)}`;
});

const rack = (page: Page, name: string) =>
  page.getByRole("region", { name: new RegExp(`^Rack ${name},`) });
const names = (page: Page, name: string) =>
  rack(page, name).locator("[data-lifter] span.truncate").allTextContents();

/** A rack on the board whose first lifter has a load. */
async function firstWithLoad(page: Page): Promise<string> {
  for (const name of ["1", "3", "4", "5"]) {
    const first = rack(page, name).locator("[data-lifter]").first();
    if ((await first.count()) > 0 && /\d kg/.test((await first.textContent()) ?? "")) return name;
  }
  throw new Error("Somebody has a load.");
}

async function clean(page: Page): Promise<void> {
  for (const theme of ["chalk", "cellar"]) {
    await page.evaluate((own) => {
      document.documentElement.setAttribute("data-theme", own);
      for (const one of document.getAnimations()) if (one instanceof CSSTransition) one.finish();
    }, theme);
    const { violations } = await lookAt(page).analyze();
    expect(violations.map((one) => `${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
    for (const [width, height] of [
      [1280, 800],
      [1024, 768],
    ] as const) {
      await page.setViewportSize({ width, height });
      expect(await overlapsOn(page), `${width}, ${theme}`).toEqual([]);
    }
  }
}

test("groups are proposed, moved by hand, tried with a rack fewer, and stand at the racks", async ({
  page,
}) => {
  page.setDefaultTimeout(15_000);
  await page.goto("/floor");
  const day = page.getByRole("listitem").filter({ hasText: "Grouped day" }).first();
  await day.getByRole("button", { name: "Look at the groups" }).click();
  await page.waitForURL(/\/floor\/groups/);
  const box = page.getByRole("region", { name: "Box squat, parallel, straight bar" });
  const proposed = box.getByRole("row").filter({ hasText: "as proposed" });
  await expect(proposed).toContainText("shown");
  await expect(box.getByText(/No grouping at these racks takes less than/)).toBeVisible();
  await expect(box.getByText(/Looking/)).toHaveCount(0, { timeout: 20_000 });
  // Fewer changes than by load, and than by name.
  const plates = async (as: string) =>
    Number(
      await box.getByRole("row").filter({ hasText: as }).getByRole("cell").first().textContent(),
    );
  expect(await plates("as proposed")).toBeLessThan(await plates("by load"));
  expect(await plates("by load")).toBeLessThan(await plates("by name"));
  await clean(page);

  // By keys: the first of rack 1 goes to rack 2, then one place earlier.
  const before = [await names(page, "1"), await names(page, "2")] as const;
  const moved = before[0][0] ?? "";
  await rack(page, "1").locator("[data-lifter]").first().focus();
  await page.keyboard.press("ArrowRight");
  await expect.poll(() => names(page, "2")).toEqual([...before[1], moved]);
  await page.keyboard.press("ArrowUp");
  await expect
    .poll(() => names(page, "2"))
    .toEqual([...before[1].slice(0, -1), moved, before[1].at(-1)]);
  await expect(box.getByRole("row").filter({ hasText: "by hand" })).toContainText("shown");
  // By a drag: to the rack's name, behind everybody.
  const chip = rack(page, "2").locator("[data-lifter]").filter({ hasText: moved });
  const from = await chip.boundingBox();
  const to = await rack(page, "1").getByRole("heading").boundingBox();
  if (!from || !to) throw new Error("Both are on the screen.");
  await page.mouse.move(from.x + 30, from.y + 12);
  await page.mouse.down();
  await page.mouse.move(to.x + 40, to.y + 30, { steps: 8 });
  await page.mouse.move(to.x + 40, to.y + 6, { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => names(page, "1")).toContain(moved);

  // A rack fewer: nobody stands at it, and what it costs is said.
  await page.getByRole("checkbox", { name: "6" }).uncheck();
  await expect(rack(page, "6")).toHaveCount(0);
  await expect(box.getByText(/Looking/)).toHaveCount(0, { timeout: 20_000 });
  await expect(page.getByRole("heading", { name: /^The hour that comes of it/ })).toBeVisible();
  // Somebody without a max has no load yet: a rack whose first has one is looked at.
  const loaded = await firstWithLoad(page);
  const shown = await names(page, loaded);
  await page.getByRole("button", { name: "Start with these groups" }).click();
  await page.waitForURL(/\/floor\/[0-9a-f-]{36}$/);

  // What was looked at is what stands there, in this order.
  await page
    .getByRole("link", { name: `Open rack ${loaded}` })
    .first()
    .click();
  await page.getByTestId("load").waitFor();
  const first = (shown[0] ?? "").split(" ")[0] ?? "";
  await expect(page.getByRole("heading", { level: 1 })).toContainText(first);

  // One set is done by eye, then a rack breaks: what is left goes to the others, what is done stays.
  await page.keyboard.press("=");
  await expect(page.getByTestId("verdict")).toHaveText(/^By eye/);
  await expect(page.getByText("saved here and sent")).toBeVisible();
  await page.getByRole("link", { name: "Back to the floor" }).click();
  await page.waitForURL(/\/floor\/[0-9a-f-]{36}$/);
  const progress = page.getByRole("list", { name: "The day" });
  await expect(progress.getByRole("listitem").filter({ hasText: "Box squat" })).toBeVisible();
  await page.getByRole("button", { name: "Make the groups anew" }).click();
  const anew = page.getByRole("region", { name: "Groups anew" });
  await anew.getByRole("checkbox", { name: "2" }).uncheck();
  await expect(anew.getByText(/of changes so, and/)).toBeVisible();
  await expect(anew.getByText(/^Looking/)).toHaveCount(0, { timeout: 20_000 });
  await expect(rack(page, "2")).toHaveCount(0);
  await clean(page);
  await page.setViewportSize({ width: 1280, height: 800 });
  const anewLoaded = await firstWithLoad(page);
  const order = await names(page, anewLoaded);
  await anew.getByRole("button", { name: "Send everybody there" }).click();
  await expect(anew).toHaveCount(0);
  await page
    .getByRole("link", { name: `Open rack ${anewLoaded}` })
    .first()
    .click();
  await page.getByTestId("load").waitFor();
  // Whoever has done the fewest is up: one of those who were sent there.
  const here = order.map((name) => name.split(" ")[0] ?? "");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    new RegExp(`^(${here.join("|")})`),
  );
});
