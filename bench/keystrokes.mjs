/**
 * Two tasks of a coach by the keystroke-level model (Card, Moran & Newell 1980): the page's own events
 * are recorded while the task is done, and its operators counted by one rule. K 0.28 s a key, P 1.1 s to
 * point, B 0.1 s to press or let go, H 0.4 s from hand to hand, M 1.35 s before each command and each
 * thing that is typed. Choosing from a list that opens is two points and two presses.
 *
 * `node scripts/with-database.mjs --serve node bench/keystrokes.mjs`; UI=before does the same tasks on
 * the pages that were there before the board (commit 6a1fe03).
 */
import { chromium } from "@playwright/test";

const before = process.env.UI === "before";
const baseURL = process.env.BASE_URL;
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-gpu"],
});
const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
const page = await context.newPage();

/** Everything that a hand does, in order. */
const recorded = [];
await page.exposeFunction("recordHand", (what) => recorded.push(what));
await page.addInitScript(() => {
  const tell = (what) => window.recordHand(what);
  addEventListener("pointerdown", () => tell("down"), true);
  addEventListener("pointerup", () => tell("up"), true);
  addEventListener("pointermove", (event) => event.buttons && tell("pull"), true);
  addEventListener("keydown", (event) => tell(`key ${event.key}`), true);
  addEventListener(
    "change",
    (event) => event.target instanceof HTMLSelectElement && tell("chosen"),
    true,
  );
});

/** Operators of what was recorded. */
function operators(all) {
  const count = { K: 0, P: 0, B: 0, H: 0, M: 0 };
  let hand = "mouse";
  let typing = false;
  let pulled = false;
  const go = (to) => {
    if (hand !== to) count.H++;
    hand = to;
  };
  for (const what of all) {
    if (what === "down" || what === "chosen") {
      go("mouse");
      count.M++;
      count.P += what === "chosen" ? 2 : 1;
      count.B += what === "chosen" ? 4 : 1;
      typing = false;
      pulled = false;
    } else if (what === "pull") pulled = true;
    else if (what === "up") {
      if (pulled) count.P++;
      count.B++;
    } else if (what.startsWith("key ")) {
      go("keys");
      // A thing that is typed is thought of once; so is each command by a key.
      // Enter that only ends what was typed is not thought of by itself (the model's fourth rule).
      const command = what.length > 5;
      if (command ? !(what === "key Enter" && typing) : !typing) count.M++;
      count.K++;
      typing = !command;
    }
  }
  const seconds = 0.28 * count.K + 1.1 * count.P + 0.1 * count.B + 0.4 * count.H + 1.35 * count.M;
  return { ...count, seconds: Math.round(10 * seconds) / 10 };
}

await page.goto("/sign-in");
await page.getByLabel("Email").fill("coach@skerry.example");
await page.getByLabel("Password").fill("skerry-coast-demo");
await page.getByRole("button", { name: "Sign in" }).click();
await page.waitForURL((url) => !url.pathname.startsWith("/sign-in"));

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

async function typeInto(field, text) {
  await field.click();
  await page.keyboard.press("Control+a");
  await page.keyboard.type(text);
}

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
    await typeInto(insert.getByLabel("Before week"), "4");
    await insert.getByRole("button", { name: "Insert" }).click();
    const marks = page.getByRole("region", { name: "Weeks of their own" });
    await marks.getByRole("button", { name: "Take out" }).click();
    await page.waitForTimeout(500);
    await typeInto(insert.getByLabel("Before week"), "5");
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
      await typeInto(page.getByRole("form", { name: /^Own load/ }).getByRole("textbox"), "70");
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
      await typeInto(loads.nth(i), kg);
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
