import { openPart } from "./athlete-part";
import { allSent, openRack, startSquad, stateFile, typeSpeeds } from "./people";
import { expect, test } from "./test";

/**
 * The whole way: squad → athlete's max → recipe → today's session → rack screen with measured
 * reps → call → review.
 */
test.use({ storageState: stateFile("coach") });
test.describe.configure({ mode: "serial" });

test("an athlete's record becomes the working max, and opens to its working", async ({ page }) => {
  await page.goto("/athletes");
  await page.getByRole("link", { name: "Cato Brekke" }).click();
  await expect(page.getByRole("heading", { name: "Cato Brekke" })).toBeVisible();

  await page.getByRole("link", { name: "Add a record" }).click();
  const form = page.getByRole("form", { name: "New record" });
  await form.getByLabel("Lift").selectOption("Bench press, straight bar");
  await form.getByLabel("Load").fill("heavy");
  await form.getByRole("button", { name: "Keep this record" }).click();
  await expect(form.getByText("That is not a load. Write 120, 120 kg or 225 lb.")).toBeVisible();

  await form.getByLabel("Load").fill("170");
  await form.getByRole("button", { name: "Keep this record" }).click();
  await expect(form.getByText(/From 137.5 kg to 170 kg is 24 %\. Look twice/)).toBeVisible();

  await form.getByLabel("Load").fill("142.5");
  await form.getByLabel("Kind").selectOption("competition");
  await form.getByLabel("Note").fill("Winter open");
  await form.getByRole("button", { name: /^Keep it all the same|^Keep this record/ }).click();
  await openPart(page, "Bench press, straight bar");
  const row = page.getByRole("row").filter({ hasText: "Winter open" });
  await expect(row).toContainText("142.5 kg");

  await row.getByText("Use this").click();
  await row.getByRole("button", { name: "Use" }).click();
  const max = page.getByRole("button", { name: "Working max 135.4 kg", exact: true });
  await max.click();
  const working = page.getByRole("region", { name: "Working" });
  await expect(working).toContainText("142.5 kg");
  await expect(working).toContainText("× 0.95");
  await expect(working).toContainText("135.38 kg");
});

test("a recipe's change changes everybody's loads; a fault in it is named", async ({ page }) => {
  await page.goto("/plan");
  await page
    .getByRole("row")
    .filter({ hasText: "Sprint canoe" })
    .filter({ hasText: "2026-03-03" })
    .getByRole("link")
    .click();
  await page.getByRole("link", { name: "Numbers", exact: true }).click();
  const cato = page.getByRole("row").filter({ hasText: "Cato Brekke" });
  await expect(cato.getByRole("button", { name: /3 sets of 3 at 60 kg/ }).first()).toBeVisible();

  const form = page.getByRole("form", { name: "Recipe" });
  await form.getByLabel("Starts at, %").fill("lots");
  await form.getByRole("button", { name: "Save the recipe" }).click();
  await expect(form.getByRole("alert")).toContainText("Nothing was saved");
  await expect(form.getByLabel("Starts at, %")).toHaveValue("lots");

  await form.getByLabel("Starts at, %").fill("45");
  await form.getByRole("button", { name: "Save the recipe" }).click();
  await expect(form.getByText("Saved. Everybody's numbers follow.")).toBeVisible();
  await expect(cato.getByRole("button", { name: /3 sets of 3 at 67.5 kg/ }).first()).toBeVisible();

  await cato
    .getByRole("button", { name: /at 67.5 kg/ })
    .first()
    .click();
  await expect(page.getByRole("region", { name: "Working" })).toContainText("50 % of it");

  await cato
    .getByRole("button", { name: "Set a load of your own for Cato Brekke" })
    .first()
    .click();
  const bar = page.getByRole("form", { name: /Own load for Cato Brekke/ });
  await bar.getByRole("textbox").fill("900");
  await bar.getByRole("button", { name: "Set this load" }).click();
  await expect(page.getByRole("alert")).toContainText("holds 320 kg at most");
  await cato
    .getByRole("button", { name: "Set a load of your own for Cato Brekke" })
    .first()
    .click();
  await bar.getByRole("textbox").fill("72.5");
  await bar.getByRole("button", { name: "Set this load" }).click();
  await expect(cato.getByRole("button", { name: /a coach's own load/ })).toBeVisible();
});

test.describe("at the rack, a tablet", () => {
  test.use({ viewport: { width: 1024, height: 768 } });

  test("reps come from the simulated sensor, the rule ends the set, a second browser follows", async ({
    page,
    browser,
    baseURL,
  }) => {
    const sessionId = await startSquad(page, "Sprint canoe");
    const other = await browser.newContext({ storageState: stateFile("assistant"), baseURL });
    const watcher = await other.newPage();
    await watcher.goto(`/floor/${sessionId}`);
    await expect(watcher.getByText(/0 of 72 sets/)).toBeVisible();

    await openRack(page, 4);
    await expect(page.getByTestId("verdict")).toHaveText(/^Ready\./);
    const name =
      ((await page.getByRole("heading", { level: 1 }).textContent()) ?? "").split(/\s/)[0] ?? "";
    await page.getByRole("button", { name: "Lift (simulated)" }).click();
    await expect(page.getByRole("img", { name: "Bar height, live" })).toBeVisible();
    await expect(page.getByRole("img", { name: /^Reps \d\.\d\d m\/s/ })).toBeVisible({
      timeout: 15_000,
    });
    await expect(page.getByText(/^Ended by (all reps done|velocity loss)/)).toBeVisible({
      timeout: 30_000,
    });
    await allSent(page);
    await expect(watcher.getByText(/1 of 72 sets/)).toBeVisible({ timeout: 1000 });

    await page.keyboard.press("n");
    await expect(page.getByRole("heading", { level: 1 })).not.toContainText(name);
    await expect(page.getByTestId("change")).toBeVisible();
    await expect(page.getByRole("list", { name: "Who is next" })).toContainText(/0:\d\d/);
    await other.close();
  });

  test("the same by keys: space begins, and the set can be ended by hand", async ({ page }) => {
    await page.goto("/floor");
    await page
      .getByRole("link", { name: /Sprint canoe/ })
      .first()
      .click();
    await openRack(page, 5);
    await page.keyboard.press("Space");
    await expect(page.getByRole("img", { name: /^Reps \d/ })).toBeVisible({ timeout: 15_000 });
    await page.keyboard.press("Space");
    await expect(page.getByText(/^Ended by hand, cut short/)).toBeVisible();
    await allSent(page);
  });

  test("typed speeds: the rules speak after each rep, the call is taken by one key", async ({
    page,
  }) => {
    await startSquad(page, "Judo");
    await openRack(page, 1);
    const load = (await page.getByTestId("load").textContent()) ?? "";

    expect(load).toMatch(/lb/);
    await page.getByRole("button", { name: "Type a speed" }).click();
    const field = page.getByRole("dialog").getByRole("textbox");
    await field.fill("fast");
    await field.press("Enter");
    await expect(page.getByText("A speed from 0.05 to 4 m/s: 82 or 0.82.")).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toBeHidden();

    // A digit opens the same sheet, as soon as the page takes keys again.
    const dialog = page.getByRole("dialog");
    await expect(async () => {
      if (!(await dialog.isVisible())) await page.keyboard.press("5");
      await expect(dialog).toBeVisible({ timeout: 1000 });
    }).toPass();
    await dialog.getByRole("textbox").fill("50");
    await page.keyboard.press("Enter");
    await page.keyboard.press("Escape");
    await expect(page.getByTestId("verdict")).toHaveText("Go on.");
    await typeSpeeds(page, ["49"]);
    await expect(page.getByTestId("verdict")).toHaveText("One more.");
    await typeSpeeds(page, ["0.48"]);
    await expect(page.getByTestId("verdict")).toContainText("Under the wanted speed: best 0.50");
    await expect(page.getByText("Ended by all reps done")).toBeVisible();

    const call = page.getByRole("region", { name: /^Call for/ });
    await expect(call).toContainText("Lighten to");
    await expect(call).toContainText("The own line gives");
    await page.keyboard.press("t");
    await expect(call).toBeHidden();
    await allSent(page);

    // Everybody else has a turn; then the same lifter's next set stands lower than it was.
    const first = (await page.getByRole("heading", { level: 1 }).textContent()) ?? "";
    const queue = page.getByRole("list", { name: "Who is next" });
    const others = await queue.getByRole("listitem").count();
    for (let i = 0; i < others; i++) {
      await page.keyboard.press("n");
      await page.keyboard.press("9");
      await page.getByRole("dialog").getByRole("textbox").fill("99");
      await page.keyboard.press("Enter");
      await page.keyboard.press("Escape");
      await page.getByRole("button", { name: "End the set" }).click();
      await expect(page.getByText(/^Ended by hand/)).toBeVisible();
    }
    await page.keyboard.press("n");
    await expect(page.getByRole("heading", { level: 1 })).toContainText(
      first.split(/\s/)[0] ?? "nobody",
    );
    expect(Number.parseFloat((await page.getByTestId("load").textContent()) ?? "")).toBeLessThan(
      Number.parseFloat(load),
    );
    // This browser closes with its store: what it holds must be away.
    await allSent(page);
  });

  test("a slow rep ends the set by velocity loss; undo takes it back; a fault is tagged", async ({
    page,
  }) => {
    await page.goto("/floor");
    await page.getByRole("link", { name: /Judo/ }).first().click();
    await openRack(page, 2);
    await typeSpeeds(page, ["90", "60"]);
    await expect(
      page.getByText(
        "Ended by velocity loss, cut short · last 33 % under the best rep, 10 % allowed",
      ),
    ).toBeVisible();
    const undo = page.getByRole("button", { name: /^Undo/ });
    await expect(undo).toHaveAccessibleName("Undo: the end of the set (velocity loss, 105 lb)");
    await page.keyboard.press("u");
    await expect(page.getByText(/Ended by/)).toBeHidden();
    await expect(undo).toHaveAccessibleName("Undo: rep 2, 0.60 m/s");
    await page.keyboard.press("u");
    await expect(page.getByRole("button", { name: "Redo: rep 2, 0.60 m/s" })).toBeVisible();
    await page.keyboard.press("Shift+U");
    await expect(undo).toHaveAccessibleName("Undo: rep 2, 0.60 m/s");
    await page.keyboard.press("u");
    await expect(page.getByRole("img", { name: /^Reps 0\.90 m\/s/ })).toBeVisible();
    await page.keyboard.press("f");
    await page.getByRole("button", { name: "Uneven lockout" }).click();
    await expect(page.getByText(/fault: Uneven lockout/)).toBeVisible();
    await typeSpeeds(page, ["88", "89"]);
    await expect(page.getByText(/Ended by all reps done/)).toBeVisible();
    await allSent(page);
  });
});

test("the review sets done against planned, with every set on its strip", async ({ page }) => {
  await page.goto("/floor");
  await page.getByRole("link", { name: /Judo/ }).first().click();
  await page.getByRole("button", { name: "End the session" }).click();
  await expect(page.getByText(/^6[67] sets not done/)).toBeVisible();
  await page.getByRole("button", { name: "End it as it is" }).click();
  await page.waitForURL(/\/review\//);
  await expect(page.getByText(/^[5-6] of 72$/)).toBeVisible();
  await expect(page.getByText(/Faults: Uneven lockout/)).toBeVisible();
  await expect(page.getByRole("complementary", { name: "Margin" })).toContainText(
    "lighten, taken to",
  );
  const strip = page.getByRole("img", { name: /set 1\. Reps 0\.50, 0\.49, 0\.48 m\/s/ });
  await expect(strip).toBeVisible();
  await page
    .getByRole("button", { name: /tonnage/ })
    .first()
    .focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: "Working" })).toContainText("Tonnage");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("region", { name: "Working" })).toBeHidden();
});
