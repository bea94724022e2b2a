import { readFileSync } from "node:fs";
import { COACH_VALUES } from "../core/settings/coach-values";
import { boardCell, boardRow, openBlock, putSlot } from "./board";
import { secondTeam, stateFile } from "./people";
import { expect, type Page, test } from "./test";

/** Blocks: from an empty plan list to a published, printed block; edits, undo, two coaches. */

const openSpring = async (page: Page, view = "Numbers") => {
  await page.goto("/plan");
  await page.getByRole("link", { name: "Spring block", exact: true }).click();
  await page.getByRole("table", { name: "The block, weeks across" }).waitFor();
  const views = page.getByRole("navigation", { name: "Views of the plan" });
  if (view !== "Board") await views.getByRole("link", { name: view }).click();
};
const undo = (page: Page) => page.getByRole("button", { name: "Undo" }).click();

test.describe("a block from nothing, in one walk", () => {
  test.use({ storageState: stateFile("second") });

  test("made, filled, published; an own load and a new max are seen as changes; printed", async ({
    page,
  }) => {
    await page.goto("/plan");
    const make = page.getByRole("form", { name: "New block" });
    await make.getByRole("button", { name: "Make the block" }).click();
    await expect(make.getByText("Give it a name.")).toBeVisible();
    await make.getByLabel("Name").fill("Autumn");
    await make.getByLabel("Starts on").fill("2026-04-06");
    await make.getByLabel("Weeks").fill("4");
    await make.getByRole("button", { name: "Make the block" }).click();
    await page.waitForURL(/view=board/);
    await putSlot(page, { work: "Bench", recipe: "Eight triples" });
    await page.getByRole("button", { name: "Add a day" }).click();
    await expect(page.getByRole("button", { name: "Put a slot on Day 2" })).toBeVisible();

    await page.getByRole("link", { name: "Numbers", exact: true }).click();
    const athlete = page.getByRole("row").filter({ hasText: "Second Athlete" });
    // 10 kg pairs on a 20 kg bar: 50 % of 100 kg lies between 40 and 60, a tie goes down.
    await expect(
      athlete.getByRole("button", { name: /8 sets of 3 at 40 kg/ }).first(),
    ).toBeVisible();

    // A few athletes may stand side by side, the weeks below one another.
    const column = page.getByLabel("A column is");
    await column.selectOption("athletes");
    const loads = page.getByRole("region", { name: "Everybody's numbers" });
    await expect(loads.getByRole("columnheader", { name: /^Second Athlete/ })).toBeVisible();
    await expect(loads.getByRole("row", { name: /^Week \d/ })).toHaveCount(4);
    const first = loads.getByRole("row", { name: /^Week 1/ });
    await first.getByRole("button", { name: /8 sets of 3 at 40 kg/ }).click();
    await expect(page.getByRole("region", { name: "Working" })).toContainText("40 kg");
    await column.selectOption("weeks");

    // The numbers follow while the recipe is typed, and go back when it is not kept.
    const recipe = page.getByRole("form", { name: "Recipe" });
    await recipe.getByLabel("Starts at, %").fill("60");
    await expect(page.getByText("As typed, not saved yet.")).toBeVisible();
    await expect(
      athlete.getByRole("button", { name: /8 sets of 3 at 60 kg/ }).first(),
    ).toBeVisible();
    await recipe.getByLabel("Starts at, %").fill("50");

    await page.getByRole("button", { name: "Publish" }).click();
    await expect(page.getByText(/published 1,/)).toBeVisible();
    await expect(page.getByText("Nothing changed: athletes see these loads.")).toBeVisible();

    await page
      .getByRole("button", { name: "Set a load of your own for Second Athlete" })
      .first()
      .click();
    const own = page.getByRole("form", { name: /Own load for Second Athlete/ });
    await own.getByRole("textbox").fill("80");
    await own.getByRole("button", { name: "Set this load" }).click();
    const since = page.getByRole("region", { name: "Since version 1" });
    await expect(since).toContainText("1 changed");

    // A new working max: everybody it concerns is named.
    const address = page.url();
    await page.goto(`/athletes/${secondTeam().athleteId}?form=record`);
    const record = page.getByRole("form", { name: "New record" });
    await record.getByLabel("Load").fill("109");
    await record.getByRole("button", { name: "Keep it, and percentages stand on it" }).click();
    await expect(page.getByRole("button", { name: /^Working max 109 kg/ })).toBeVisible();
    await page.goto(address);
    await expect(since).toContainText(/\d+ changed/);
    await expect(since).not.toContainText("1 changed");

    // Paper says what is lifted: the version that was published, until there is another.
    await page.getByRole("link", { name: "Print" }).click();
    const sheet = page.getByRole("article", { name: "Wall sheet" });
    await expect(sheet).toContainText("Autumn, Squad, week 1 of");
    await expect(page.getByText(/The plan was changed since/)).toBeVisible();
    await expect(sheet).not.toContainText("80 · 60");
    await page.goto(address);
    await page.getByRole("button", { name: "Publish" }).click();
    await expect(page.getByText(/published 2,/)).toBeVisible();
    await page.getByRole("link", { name: "Print" }).click();
    await expect(sheet).toContainText("80 · 60");
    await expect(page.getByText(/The plan was changed since/)).toHaveCount(0);
    await page.getByLabel("What", { exact: true }).selectOption("cards");
    const card = page.getByRole("article", { name: "Second Athlete" });
    await expect(card).toContainText("80 kg");
    await expect(card.getByRole("listitem")).toHaveCount(8);
  });

  test("a block file with faults is named, nothing is made", async ({ page }) => {
    await page.goto("/plan");
    const form = page.getByRole("form", { name: "Block from a file" });
    await form
      .getByRole("textbox")
      .fill('{"format":"sprezza-block","version":1,"block":{"weeks":0}}');
    await form.getByRole("button", { name: "Make the block" }).click();
    await expect(form.getByText("Nothing was made: this file has faults.")).toBeVisible();
    await expect(form.getByText(/block › weeks/)).toBeVisible();
  });
});

test.describe("edits of a block", () => {
  test.use({ storageState: stateFile("coach") });

  test("are undone and redone by button and key, and listed with who made them", async ({
    page,
  }) => {
    await openSpring(page);
    const form = page.getByRole("form", { name: "Recipe" });
    await form.getByLabel("Starts at, %").fill("42.5");
    await form.getByRole("button", { name: "Save the recipe" }).click();
    await expect(form.getByText("Saved.")).toBeVisible();
    await undo(page);
    await expect(page.getByRole("form", { name: "Recipe" }).getByLabel("Starts at, %")).toHaveValue(
      "40",
    );
    await page.getByRole("heading", { level: 1 }).click();
    await page.keyboard.press("Control+Shift+z");
    await expect(form.getByLabel("Starts at, %")).toHaveValue("42.5");
    await page.keyboard.press("Control+z");
    await expect(form.getByLabel("Starts at, %")).toHaveValue("40");
    await page.getByRole("link", { name: "Days to time" }).click();
    await expect(page.getByRole("region", { name: "Edits" })).toContainText(
      "Taken back: Recipe changed",
    );
  });

  test("wait while the network is away, and are made once when it is back", async ({
    page,
    context,
  }) => {
    await openSpring(page, "Board");
    await openBlock(page);
    const name = page.getByRole("region", { name: "The block", exact: true }).getByLabel("Name");
    await context.setOffline(true);
    await name.fill("Spring block, offline");
    await name.blur();
    // It shows at once, the page says that it waits, and what stands on all edits waits too.
    await expect(page.getByRole("heading", { level: 1 })).toContainText("offline");
    await expect(page.getByRole("alert")).toContainText("Your edit waits here");
    await expect(page.getByRole("button", { name: "Publish" })).toBeDisabled();
    await context.setOffline(false);
    await expect(page.getByRole("button", { name: "Publish" })).toBeEnabled();
    await expect(page.getByRole("alert")).toHaveCount(0);
    await page.getByRole("link", { name: "Days to time" }).click();
    const made = page.getByRole("region", { name: "Edits" }).getByText("Spring block, offline");
    await expect(made).toHaveCount(1);
    await undo(page);
    await expect(page.getByRole("heading", { level: 1 })).not.toContainText("offline");
  });

  test("of two coaches at once lose nothing, and each sees the other's", async ({
    page,
    browser,
    baseURL,
  }) => {
    const context = await browser.newContext({ storageState: stateFile("owner"), baseURL });
    const owner = await context.newPage();
    await openSpring(page);
    await openSpring(owner, "Board");
    await openBlock(owner);
    // The first keystroke in a field, while what reads the form has not come yet.
    let come = () => {};
    const coming = new Promise<void>((resolve) => {
      come = resolve;
    });
    let held = 0;
    await page.reload();
    await page.route("**/assets/*.js", async (route) => {
      held++;
      await coming;
      await route.continue();
    });
    const mine = page.getByRole("form", { name: "Recipe" });
    await mine.getByLabel("Starts at, %").fill("44");
    const name = owner.getByRole("region", { name: "The block", exact: true }).getByLabel("Name");
    await name.fill("Spring block, longer");
    await name.blur();
    await expect(owner.getByRole("heading", { level: 1 })).toContainText("longer");
    // Without a reload, the coach's page takes it in.
    await expect(page.getByRole("heading", { level: 1 })).toContainText("longer", {
      timeout: 15_000,
    });
    // A page loaded anew takes nothing out of a field that is being typed in.
    expect(held).toBeGreaterThan(0);
    come();
    await expect(page.getByText("As typed, not saved yet.")).toBeVisible();
    await expect(mine.getByLabel("Starts at, %")).toHaveValue("44");
    // Both change the same recipe: the second is told, and keeps what was typed.
    await owner.getByRole("link", { name: "Numbers", exact: true }).click();
    const theirs = owner.getByRole("form", { name: "Recipe" });
    await theirs.getByLabel("Starts at, %").fill("46");
    await mine.getByRole("button", { name: "Save the recipe" }).click();
    await expect(mine.getByText("Saved.")).toBeVisible();
    await theirs.getByRole("button", { name: "Save the recipe" }).click();
    await expect(theirs.getByRole("alert").or(theirs.getByText("Saved."))).toBeVisible();
    const told = await theirs.getByRole("alert").count();
    if (told > 0) {
      await expect(theirs.getByRole("alert")).toContainText("Callum Reyk changed the same place");
      await expect(theirs.getByLabel("Starts at, %")).toHaveValue("46");
    }
    await page.reload();
    await undo(page);
    await owner.reload();
    await undo(owner);
    await expect(owner.getByRole("heading", { level: 1 })).not.toContainText("longer");
    await context.close();
  });

  test("on the stave, from the keyboard: rest and order; the day's length follows", async ({
    page,
  }) => {
    await openSpring(page, "Days to time");
    const day = page.getByRole("region", { name: /^Day 1/ });
    const before = await day.getByRole("heading").textContent();
    const line = day.getByRole("button", { name: /^Bench press, straight bar/ });
    await line.focus();
    await page.keyboard.press("ArrowRight");
    await expect(
      day.getByRole("button", { name: /^Bench press, straight bar: 9 sets, rest 65/ }),
    ).toBeVisible();
    await expect(day.getByRole("heading")).not.toHaveText(before ?? "");
    await undo(page);
    await expect(day.getByRole("heading")).toHaveText(before ?? "");
    const plank = day.getByRole("button", { name: /^Side plank/ });
    await plank.focus();
    await page.keyboard.press("Alt+ArrowUp");
    await expect(day.getByRole("button").nth(3)).toHaveAccessibleName(/^Side plank/);
    await undo(page);
    await expect(day.getByRole("button").nth(3)).toHaveAccessibleName(/^Bench pull/);
  });

  test("a rest is dragged on the stave", async ({ page }) => {
    await openSpring(page, "Days to time");
    const day = page.getByRole("region", { name: /^Day 1/ });
    const gap = day.locator("rect.cursor-ew-resize").nth(4);
    const box = await gap.boundingBox();
    if (!box) throw new Error("no gap");
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 6, box.y + box.height / 2, { steps: 4 });
    await page.mouse.up();
    await expect(
      page
        .getByRole("region", { name: "Edits" })
        .getByText(/^Rest of/)
        .first(),
    ).toBeVisible();
    await undo(page);
    await expect(page.getByRole("region", { name: "Edits" })).toContainText("Taken back: Rest of");
  });

  test("a week put in moves what comes later; somebody is away; a slot goes and comes back", async ({
    page,
  }) => {
    await openSpring(page, "Board");
    await openBlock(page);
    const insert = page.getByRole("form", { name: "Insert a week" });
    await insert.getByLabel("Before week").fill("2");
    await insert.getByLabel("A week of").selectOption("off");
    await insert.getByRole("button", { name: "Insert" }).click();
    const marks = page.getByRole("region", { name: "Weeks of their own" });
    await expect(marks).toContainText("Week 2: off");
    await expect(marks).toContainText("Week 6: deload");
    await undo(page);
    await expect(marks).toContainText("Week 5: deload");
    const away = page.getByRole("form", { name: "Somebody is away" });
    await away.getByLabel("From").fill("2026-04-10");
    await away.getByLabel("To").fill("2026-04-01");
    await away.getByRole("button", { name: "Note it" }).click();
    await expect(page.getByText("The first day comes first.")).toBeVisible();
    const row = boardRow(page, "Sprint 20 m");
    await boardCell(page, "Sprint 20 m", 1).click();
    await page.getByRole("button", { name: "Take out Sprint 20 m" }).click();
    await expect(row).toHaveCount(0);
    await undo(page);
    await expect(row).toHaveCount(1);
  });
});

test.describe("checks by school", () => {
  test.use({ storageState: stateFile("coach") });

  test("two schools give two lists side by side; an answer takes a reason", async ({ page }) => {
    await openSpring(page, "Checks");
    const own = page.getByRole("region", { name: "Checks by Percent waves, short rest" });
    await expect(own.getByText("The deload's factors are not set")).toBeVisible();
    await page.getByLabel("Beside it, the same plan under").selectOption("Strength and volume");
    const other = page.getByRole("region", { name: "Checks by Strength and volume" });
    await expect(other.getByText(/which this school leaves out/).first()).toBeVisible();
    await expect(own.getByText(/which this school leaves out/)).toHaveCount(0);
    await expect(page.getByRole("region", { name: "Where the two differ" })).toContainText(
      "speed work",
    );

    const one = page.getByRole("region", { name: "On one athlete" });
    await page.getByLabel("Beside it, the same plan under").selectOption("Velocity-led");
    await one.getByLabel("Athlete", { exact: true }).selectOption("Ansel Quist");
    const speed = one.getByRole("row").filter({ hasText: "3 × 3 at 45 %" }).first();
    await expect(speed.getByRole("cell").nth(0)).toContainText("rest 30 to 75 s · ends by fixed");
    await expect(speed.getByRole("cell").nth(1)).toContainText("m/s");
    await expect(speed.getByRole("cell").nth(1)).toContainText("ends at 10 % loss");
    await speed.getByRole("cell").nth(1).getByRole("button").click();
    await expect(page.getByRole("region", { name: "Working" })).toContainText(
      "Max by the own line",
    );
    await page.getByLabel("Beside it, the same plan under").selectOption("Strength and volume");

    const item = own.getByRole("listitem").filter({ hasText: "The deload's factors" });
    await item.getByRole("button", { name: "Keep it, with a reason" }).click();
    await item.getByLabel("Reason").fill("By feel that week.");
    await item.getByRole("button", { name: "Keep it", exact: true }).click();
    await expect(item).toContainText("answered: By feel that week.");
    await item.getByRole("button", { name: "Take the answer back" }).click();
    await expect(item).not.toContainText("answered");
  });

  test("weeks add up: sets, mean percentage, tonnage of one athlete, fast against slow", async ({
    page,
  }) => {
    await openSpring(page, "Board");
    await page.getByText("Each week by lift and muscle").click();
    const bench = page.getByRole("row").filter({ hasText: "9 sets, 27 reps" }).first();
    await expect(bench).toContainText("Bench press, straight bar");
    await expect(bench).toContainText("45 % · 1755 kg");
    await expect(page.getByRole("row").filter({ hasText: "Sprint metres" })).toContainText(
      "dose not set",
    );
  });
});

test.describe("the plan's library", () => {
  test.use({ storageState: stateFile("coach") });

  test("a recipe is copied, saved as a new version, taken out and in; a fault is named", async ({
    page,
  }) => {
    await page.goto("/library/recipes");
    await page.getByRole("link", { name: "Eight triples" }).click();
    await page.getByRole("button", { name: "Copy Eight triples" }).click();
    const form = page.getByRole("form", { name: "Recipe" });
    await expect(form.getByLabel("Name")).toHaveValue("Eight triples, own");
    await form.getByLabel("Starts at, %").fill("52,5");
    await form.getByRole("button", { name: "Save the recipe" }).click();
    const row = page.getByRole("listitem").filter({ hasText: "Eight triples, own" });
    await expect(row).toContainText("8 × 3 @ 52.5 %");
    await expect(row).toContainText("version 2");
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Take it out as JSON" }).click();
    const text = readFileSync(await (await download).path(), "utf8");
    await page.getByText("Recipe from a file").click();
    const file = page.getByRole("form", { name: "Recipe from a file" });
    await file.getByRole("textbox").fill(text.replace(/"reps": 3/, '"reps": 0'));
    await file.getByRole("button", { name: "Add it" }).click();
    await expect(file.getByText(/recipe › steps › 0 › reps: At least 1/)).toBeVisible();
    await page.getByRole("button", { name: "Put it away" }).click();
    await expect(page.getByRole("region", { name: "Put away" })).toContainText(
      "Eight triples, own",
    );
  });

  test("a coach-set value is unset, out of range, set, and unset again", async ({ page }) => {
    await page.goto("/library/coach-set");
    const form = page.getByRole("form", { name: "Load in a deload, of the load" });
    // Some the demo's coach has set.
    const said = (await page.getByText(/\d+ of \d+ not set/).textContent()) ?? "";
    const unset = Number(/(\d+) of/.exec(said)?.[1]);
    await form.getByRole("textbox").fill("8");
    await form.getByRole("button", { name: "Keep" }).click();
    await expect(form.getByText("between 0.3 and 1")).toBeVisible();
    await form.getByRole("textbox").fill("0.8");
    await form.getByRole("button", { name: "Keep" }).click();
    await expect(page.getByText(`${unset - 1} of ${COACH_VALUES.length} not set`)).toBeVisible();
    await form.getByRole("textbox").fill("");
    await form.getByRole("button", { name: "Keep" }).click();
    await expect(page.getByText(`${unset} of ${COACH_VALUES.length} not set`)).toBeVisible();
  });

  test("schools are compared, and a second day is proposed with its reasons", async ({ page }) => {
    await page.goto("/library/schools");
    await page.getByRole("link", { name: "Velocity-led" }).click();
    await page.waitForURL(/school=/);
    await page
      .getByLabel("Against", { exact: true })
      .selectOption({ label: "Strength and volume" });
    await expect(page.getByRole("row").filter({ hasText: "what sets the load" })).toContainText(
      "a speed on the own line",
    );
    const chooser = page.getByRole("region", { name: "A second day?" });
    await expect(chooser).toContainText("a speed wave");
    await chooser.getByLabel("Training, years").fill("0.5");
    await expect(chooser).toContainText("a volume wave");
  });
});

test("an athlete sees the published block on a phone, every slot of the day", async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({
    storageState: stateFile("maren"),
    baseURL,
    viewport: { width: 390, height: 844 },
  });
  const page = await context.newPage();
  await page.goto("/card");
  await expect(page.getByRole("heading", { level: 2 }).first()).toContainText("week");
  await expect(page.getByRole("region", { name: /^My sets/ }).first()).toBeVisible();
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(390);
  await context.close();
});

test.describe("a pairing on a plan's day", () => {
  test.use({ storageState: stateFile("coach") });

  test("is put on, stands on the stave with its week's loads, and is run from the floor", async ({
    page,
  }) => {
    await page.goto("/plan");
    await page.getByRole("link", { name: "Box squat cycle", exact: true }).click();
    const openDay = () => page.getByRole("button", { name: /^Day 1/ }).click();
    await openDay();
    const pairings = page.getByRole("list", { name: /^Pairings of/ });
    await expect(pairings.getByText("Pull, jump, throw")).toBeVisible();
    await page.getByLabel(/^Complex for/).selectOption("Peak-power jump ladder");
    await page.getByRole("button", { name: /^Pair it on/ }).click();
    await expect(pairings.getByText("Peak-power jump ladder")).toBeVisible();

    // Its jumps are loaded with a fifth of body mass, five points less a week.
    await page.getByRole("link", { name: "Days to time" }).click();
    await page.getByLabel("Week", { exact: true }).selectOption("5");
    await expect(page.getByRole("img", { name: /^Pull, jump, throw to time/ })).toBeVisible();
    await expect(page.getByText(/Loaded jump × 3 at 15 %/)).toBeVisible();
    await expect(page.getByRole("img", { name: /^Peak-power jump ladder to time/ })).toBeVisible();
    await page.getByLabel("Week", { exact: true }).selectOption("6");
    await expect(page.getByText(/Loaded jump × 3 at 10 %/)).toBeVisible();

    // The squat is not in this block, and still it is known how strong they are.
    await page.getByRole("link", { name: /^Checks/ }).click();
    await expect(page.getByText(/came back there with Goran Tesk/)).toBeVisible();
    await expect(page.getByText(/No squat max over body mass/)).toHaveCount(0);

    // The wall sheet has it too, with the same week's load.
    const plan = page.url();
    await page.getByRole("link", { name: "Print" }).click();
    await page.waitForURL(/\/print/);
    await page.getByLabel("Week", { exact: true }).selectOption("6");
    const onWall = page.getByRole("region", { name: "Pull, jump, throw" });
    await expect(onWall).toContainText("Loaded jump × 3");
    // A tenth of the body mass, which other tests weigh anew.
    await expect(onWall.getByRole("row").filter({ hasText: "Cato Brekke" })).toContainText(
      /117\.5 kg[78](\.5)? kg4 kg/,
    );
    await page.goto(plan);

    await page.getByRole("link", { name: "Board" }).click();
    await openDay();
    await pairings
      .getByRole("listitem")
      .filter({ hasText: "Peak-power jump ladder" })
      .getByRole("button", { name: "Take it off" })
      .click();
    await expect(pairings.getByText("Peak-power jump ladder")).toHaveCount(0);
    await undo(page);
    await expect(pairings.getByText("Peak-power jump ladder")).toBeVisible();

    await page.goto("/floor/pairing");
    const planned = page.getByRole("region", { name: "In the plans" });
    await planned
      .getByRole("listitem")
      .filter({ hasText: "its week 3" })
      .getByRole("link", { name: "Pull, jump, throw, Sprint canoe" })
      .click();
    await page.waitForURL(/week=3/);
    await expect(page.getByText(/Week 3 of it: jumps go down over the block/)).toBeVisible();
    await expect(page.getByLabel("Complex")).toHaveValue(/.+/);
  });
});
