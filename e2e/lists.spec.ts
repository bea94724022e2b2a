import { openPart } from "./athlete-part";
import { stateFile } from "./people";
import { expect, test } from "./test";

/** Many at once: athletes, squads, a coach's own sheets; each question asked once, all or nothing. */
test.use({ storageState: stateFile("coach") });

test("a list of athletes: faults by line, the question about a name, columns set by hand", async ({
  page,
}) => {
  await page.goto("/athletes/add");
  const list = page.getByLabel(/^The list/);
  await page.getByRole("button", { name: "Check the list" }).click();
  await expect(page.getByText("Paste the list first")).toBeVisible();
  await list.fill(
    "Who\tYear\tSquad\nMaren Solhaug\t2001\tSprint kayak\nLista Nord\t1066\tSprint kayak\nListb Nord\t2004\tSprint kanoe",
  );
  await page.getByRole("button", { name: "Check the list" }).click();
  // "Who" and "Year" are no titles that are known: the names stand where they always may.
  await page.getByLabel("Who", { exact: true }).or(page.getByLabel("Column 1")).first().waitFor();
  await list.fill(
    "Name\tYear\tSquad\nMaren Solhaug\t2001\tSprint kayak\nLista Nord\t1066\tSprint kayak\nListb Nord\t2004\tSprint kanoe",
  );
  await page.getByRole("button", { name: "Check the list" }).click();
  await page.getByLabel("Year", { exact: true }).selectOption({ label: "Birth year or date" });
  await page.getByRole("button", { name: "Check the list" }).click();
  await expect(page.getByText('"1066" holds no year')).toBeVisible();
  await expect(page.getByText('nearly "Sprint canoe"')).toBeVisible();
  const maren = page.getByRole("row").filter({ hasText: "Maren Solhaug" });
  await expect(maren).toContainText("up to date");
  await maren.getByRole("button", { name: "another person" }).click();
  await page.getByLabel("Who is Maren Solhaug, line 2").selectOption({ label: "choose …" });
  // Nothing is kept by halves unless that is asked for.
  await expect(page.getByRole("button", { name: /^Keep all/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Keep the 1 good lines, leave 2" }).click();
  await expect(page.getByText("Kept: 0 added, 1 brought up to date")).toBeVisible();
  await page.getByRole("button", { name: "Put them below to be mended" }).click();
  await expect(list).toHaveValue(/^Name\tYear\tSquad\nLista Nord.*\nListb Nord/);
});

test("ten thousand lines with three hundred faults", async ({ page }) => {
  const lines = Array.from({ length: 10_000 }, (_, i) =>
    i % 33 === 0 && i < 9900 ? `Crowd ${i}\tlong ago` : `Crowd ${i}\t2001`,
  );
  await page.goto("/athletes/add");
  const choose = (rows: string[]) =>
    page.getByLabel("From a file (CSV or text)").setInputFiles({
      name: "everybody.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(["Name\tBorn", ...rows].join("\n")),
    });
  await choose(lines);
  await expect(page.getByText("10,001 lines of everybody.csv")).toBeVisible();
  await page.getByRole("button", { name: "Check the list" }).click();
  await expect(page.getByText("10000 lines: 9700 new, 300 to mend")).toBeVisible({
    timeout: 30_000,
  });
  // The faults stand first, and the page does not draw ten thousand rows.
  await expect(page.locator("tbody tr").first()).toContainText("holds no year");
  expect(await page.locator("tbody tr").count()).toBeLessThanOrEqual(300);
  await expect(page.getByText("9700 more lines are not shown")).toBeVisible();
  // One line too many is one sentence.
  await choose([...lines, "One more\t2001"]);
  await page.getByRole("button", { name: "Check the list" }).click();
  await expect(page.getByText("10000 at most are taken at once")).toBeVisible({ timeout: 30_000 });
});

test("several athletes are changed at once", async ({ page }) => {
  await page.goto("/athletes?find=Ryland");
  await page.getByRole("button", { name: "Change several" }).click();
  await page.getByRole("checkbox", { name: /^Mark Tova Ryland/ }).check();
  const form = page.getByRole("form", { name: "Change several" });
  await form.getByLabel("Season phase").selectOption({ label: "Peak" });
  await form.getByRole("button", { name: "Change 1" }).click();
  await expect(page.getByText("Changed: 1.")).toBeVisible();
  await expect(page.getByRole("row").filter({ hasText: "Tova Ryland" })).toContainText("Peak");
  await form.getByLabel("Season phase").selectOption({ label: "not set" });
  await form.getByRole("button", { name: "Change 1" }).click();
  await expect(page.getByRole("row").filter({ hasText: "Tova Ryland" })).not.toContainText("Peak");
});

test("a squad is made, moved, renamed, and ends when nobody trains with it", async ({ page }) => {
  await page.goto("/athletes/squads");
  const make = page.getByRole("form", { name: "New squad" });
  await make.getByRole("button").click();
  await expect(page.getByText("Name the squad.")).toBeVisible();
  await make.getByLabel("Name").fill("judo");
  await make.getByRole("button").click();
  await expect(page.getByText("Judo is there already")).toBeVisible();
  await make.getByLabel("Name").fill("Evening group");
  await make.getByRole("button").click();
  const names = () => page.locator("tbody th").allInnerTexts();
  await expect.poll(names).toContain("Evening group");
  const last = (await names()).indexOf("Evening group");
  await page.getByRole("button", { name: "Evening group one up" }).click();
  await expect.poll(async () => (await names()).indexOf("Evening group")).toBe(last - 1);
  await page.getByRole("button", { name: "Change Judo" }).click();
  await page.getByRole("button", { name: "Archive Judo" }).click();
  await expect(page.getByText(/train with Judo\. Move them first/)).toBeVisible();
  await page.getByRole("button", { name: "Change Evening group" }).click();
  await page.getByRole("form", { name: "Facts of Evening group" }).getByLabel("Name").fill("Late");
  await page.getByRole("button", { name: "Keep the facts of Evening group" }).click();
  await expect.poll(names).toContain("Late");
  await page.getByRole("button", { name: "Archive Late" }).click();
  await expect(page.getByRole("region", { name: "Train no more" })).toContainText("Late");
  await page.getByRole("button", { name: "Bring Late back" }).click();
  await expect.poll(names).toContain("Late");
  await page.getByRole("button", { name: "Change Late" }).click();
  await page.getByRole("button", { name: "Archive Late" }).click();
  await expect(page.getByRole("region", { name: "Train no more" })).toContainText("Late");
});

test("a sheet of earlier sessions: asked once, kept once, and seen on the athlete's page", async ({
  page,
}) => {
  const rows = [
    "Date,Who,Lift,Sets,Reps,Weight,Speed",
    "3/4/2025,Leif Andvik,Bench,5,3,70,0.71",
    "5/4/2025,Leif Andvik,Bench,5x2,,75,",
  ];
  await page.goto("/athletes");
  const name = (await page.locator("tbody th").first().textContent()) ?? "";
  await page.goto("/data/earlier");
  await page.getByLabel(/^The sheet/).fill(rows.join("\n").replaceAll("Leif Andvik", name));
  await page.getByRole("button", { name: "Check the sheet" }).click();
  await expect(page.getByText("Asked once, for all lines")).toBeVisible();
  await page.getByLabel('"Bench" is').selectOption({ label: "Bench press, straight bar" });
  await page.getByLabel(/the first number is/).selectOption({ label: "the day" });
  await page.getByRole("button", { name: "Check the sheet" }).click();
  await page.getByRole("button", { name: "Keep all 2 lines" }).click();
  await expect(page.getByText("Kept: 2 lines.")).toBeVisible();
  // The same sheet again adds nothing.
  await page.getByRole("button", { name: "Check the sheet" }).click();
  await page.getByRole("button", { name: "Keep all 2 lines" }).click();
  await expect(page.getByText("Kept: 0 lines, 2 were here already.")).toBeVisible();
  await page.goto("/athletes");
  await page.getByRole("link", { name, exact: true }).click();
  await openPart(page, "History");
  const before = page.getByRole("list", { name: "Before Sprezza" });
  await expect(before).toContainText("2025-04-03");
  await expect(before).toContainText("5 × 3 @ 70");
  const csv = await (await page.request.get("/data/out/earlier.csv")).text();
  expect(csv).toContain(`${name},"Bench press, straight bar",2025-04-03,5,3,70,kg,70,0.71`);
});

test("a coach's own table: the question first, then a recipe with these very sets", async ({
  page,
}) => {
  await page.goto("/library/own-table");
  const table = page.getByLabel("The table, a week a line");
  await table.fill("4x2 45/50/55");
  await expect(page.getByText("what does the list of percentages mean?")).toBeVisible();
  await expect(page.getByRole("button", { name: "Keep it as a recipe" })).toHaveCount(0);
  await page.getByLabel(/^4 x 2 a week: 45, 50, 55 % in weeks 1 to 3/).click();
  await expect(page.getByText("3 weeks read")).toBeVisible();
  await page.getByLabel("Name of the recipe").fill("Doubles from my board");
  await page.getByRole("button", { name: "Keep it as a recipe" }).click();
  await page.waitForURL(/\/library\/recipes\?recipe=/);
  await expect(page.getByText("4 × 2 @ 45 % · 4 × 2 @ 50 % · 4 × 2 @ 55 %")).toBeVisible();
  await page.goto("/library/own-table");
  await table.fill("3x3 40, 2x2 50\n2x2 40, 3x3 50");
  await expect(page.getByText(/^Line 2: .*goes another way/)).toBeVisible();
});

test("what is chosen before a page's scripts are there counts once they are", async ({ page }) => {
  await page.goto("/gear");
  let letGo = () => {};
  const held = new Promise<void>((done) => {
    letGo = done;
  });
  await page.route(/\/assets\/.*\.js$/, async (route) => {
    await held;
    await route.continue();
  });
  // The document alone; the test's own waiting would wait for the scripts.
  await page.evaluate(() => location.assign("/floor/pairing"));
  // A press of the hand: what a browser puts back by itself is not said again.
  await page.getByRole("heading", { level: 1 }).click();
  await page.getByLabel("Complex").selectOption("Rotation both ways");
  await page.getByLabel("Squad").selectOption("Sprint canoe");
  letGo();
  await expect(page).toHaveURL(/complex=.*&squad=|squad=.*&complex=/);
  await expect(page.getByLabel("Squad").locator("option:checked")).toHaveText("Sprint canoe");
  await expect(page.getByLabel("Complex").locator("option:checked")).toHaveText(
    "Rotation both ways",
  );
});
