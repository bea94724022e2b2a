/**
 * Two tasks of a coach by the keystroke-level model: the page's own events are recorded while the task is
 * done, and its operators counted by one rule (`hand.mjs`).
 *
 * `node scripts/with-database.mjs --serve node bench/keystrokes.mjs`; UI=before does the same tasks on
 * the pages that were there before the board (commit 6a1fe03).
 */
import { handAtPage, operators, typeInto } from "./hand.mjs";

const before = process.env.UI === "before";
const { browser, page, recorded } = await handAtPage();

async function newBlock(name) {
  await page.goto("/plan");
  const make = page.getByRole("form", { name: "New block" });
  await make.getByLabel("Name").fill(name);
  await make.getByLabel("For", { exact: true }).selectOption("Sprint kayak");
  await make.getByLabel("Starts on").fill("2026-06-01");
  await make.getByLabel("Weeks").fill("8");
  await make.getByRole("button", { name: "Make the block" }).click();
  await page.waitForURL(/\?view=/);
  await page.waitForLoadState("networkidle");
}

/** Two days, nine slots: what is trained, as typed, its section, its recipe, as typed. */
const DAYS = [
  [
    ["Box jump", "box j", "Power and contrast", "Loaded jumps, contacts counted", "loa"],
    ["Bench press, straight bar", "ben p", "Main lift", "Ladder, three grips, flat end", "lad"],
    ["Back squat, straight bar", "ba s", "Second lift", "Squat doubles, up five a week", "squ d"],
    ["Bench pull", "ben pul", "Accessories", "Three sets of twelve, load follows", "thr"],
    ["Side plank", "sid", "Accessories", "Three sets of twelve, load follows", "thr"],
  ],
  [
    ["Sprint 20 m", "spr", "Power and contrast", "Sprints, 5 × 20 m", "spr"],
    ["Back squat, straight bar", "ba s", "Main lift", "Up to a top triple", "up tri"],
    ["Bench press, wide grip", "ben w", "Second lift", "A set more a week", "set m"],
    ["Pull-up", "pul u", "Accessories", "Repeated submaximal fours", "rep"],
  ],
];
const recipeName = async (field, wished) => {
  const all = await field.locator("option").allTextContents();
  return all.find((one) => one === wished) ?? all.find((one) => one.startsWith(wished.slice(0, 6)));
};

async function putTogether() {
  await newBlock("Nine slots");
  recorded.length = 0;
  await page.getByRole("button", { name: "Add a day" }).click();
  for (const [d, slots] of DAYS.entries()) {
    if (before) {
      const day = page.getByRole("region", { name: `Day ${d + 1}` });
      for (const [name, , section, recipe] of slots) {
        const form = day.getByRole("form", { name: "New slot" });
        if ((await form.count()) === 0) await day.getByText(/^Put a slot on/).click();
        const asked = form.getByLabel("Section");
        const now = await asked.evaluate((one) => one.selectedOptions[0].textContent);
        if (now !== section) await asked.selectOption({ label: section });
        await form.getByLabel("Lift or exercise").selectOption({ label: name });
        const list = form.getByLabel("Recipe");
        const label = await recipeName(list, recipe);
        if ((await list.evaluate((one) => one.selectedOptions[0]?.textContent)) !== label)
          await list.selectOption({ label });
        await form.getByRole("button", { name: "Put it on" }).click();
        await page.waitForTimeout(500);
      }
    } else {
      const form = page.getByRole("form", { name: "New slot" });
      await page.getByRole("button", { name: `Put a slot on Day ${d + 1}` }).click();
      const line = form.getByLabel("Type it: lift, recipe");
      for (const [, typed, section, , recipe] of slots) {
        await page.keyboard.type(`${typed}, ${recipe}`);
        const asked = form.getByLabel("Section");
        const now = await asked.evaluate((one) => one.selectedOptions[0].textContent);
        if (now !== section) {
          await asked.selectOption({ label: section });
          await form.getByRole("button", { name: "Put it on" }).click();
        } else await page.keyboard.press("Enter");
        await page.waitForTimeout(500);
        if ((await line.inputValue()) !== "") throw new Error(`${typed}, ${recipe}: not put on`);
      }
    }
  }
  // A deload as week 4, then a week later.
  if (before) {
    const insert = page.getByRole("form", { name: "Insert a week" });
    await typeInto(page, insert.getByLabel("Before week"), "4");
    await insert.getByRole("button", { name: "Insert" }).click();
    const marks = page.getByRole("region", { name: "Weeks of their own" });
    await marks.getByRole("button", { name: "Take out" }).click();
    await page.waitForTimeout(500);
    await typeInto(page, insert.getByLabel("Before week"), "5");
    await insert.getByRole("button", { name: "Insert" }).click();
  } else {
    await page.locator("#week-4").click();
    await page.getByRole("button", { name: "A deload week here" }).click();
    await page.getByRole("button", { name: "A week later" }).click();
  }
  await page.waitForTimeout(1000);
  const slots = before
    ? await page.getByRole("button", { name: /^Take out / }).count()
    : await page.locator("tbody th[scope=row] [title^='Pull to another']").count();
  if (slots !== 9) throw new Error(`${slots} slots are there, not nine`);
  return operators(recorded);
}

/** Ten kilograms more in each of the three steps of week 2 for one athlete, and the week's tonnage read. */
async function changeForOne() {
  await page.goto("/plan");
  await page.getByRole("link", { name: "Spring block", exact: true }).click();
  await page.waitForLoadState("networkidle");
  await page.waitForTimeout(1000);
  recorded.length = 0;
  if (before) {
    await page.getByRole("link", { name: "Numbers" }).click();
    // One press changes one set: nine sets of three loads.
    for (let i = 0; i < 9; i++) {
      const row = page.getByRole("row").filter({ hasText: "Ansel Quist" });
      const cell = row.locator("td").nth(2);
      const pencils = cell.getByRole("button", { name: /^Set a load of your own/ });
      const figures = cell.locator("span > button[aria-pressed], span > [data-figure]");
      const labels = await figures.evaluateAll((all) =>
        all.map((one) => one.getAttribute("aria-label")),
      );
      const next = labels.findIndex((one) => !one?.includes("own load"));
      await pencils.nth(Math.max(0, Math.min(next, (await pencils.count()) - 1))).click();
      await typeInto(
        page,
        page.getByRole("form", { name: /^Own load/ }).getByRole("textbox"),
        "70",
      );
      await page.keyboard.press("Enter");
      await page.waitForTimeout(600);
    }
    await page.getByRole("link", { name: "Week by week" }).click();
    await page.getByLabel("Tonnage of").selectOption("Ansel Quist");
  } else {
    await page
      .getByRole("button", { name: /^Week 2, Bench press, straight bar/ })
      .first()
      .click();
    await page.getByLabel("Athlete whose loads are shown").selectOption("Ansel Quist");
    const loads = page.getByLabel(/^Load of 3 sets of 3/);
    for (const [i, kg] of ["75", "82.5", "90"].entries()) {
      await typeInto(page, loads.nth(i), kg);
      await page.keyboard.press("Enter");
      await page.waitForTimeout(600);
    }
    await page.getByRole("row").filter({ hasText: "Tonnage" }).waitFor();
  }
  return operators(recorded);
}

for (const [name, task] of [
  ["nine slots put together, the deload moved", putTogether],
  ["one athlete's wave changed, its totals read", changeForOne],
]) {
  const found = await task();
  console.log(
    `${before ? "before" : "board"}: ${name}: ${found.seconds} s (K ${found.K}, P ${found.P}, B ${found.B}, H ${found.H}, M ${found.M})`,
  );
}
await browser.close();
process.exit(0);
