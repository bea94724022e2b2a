/**
 * How long a press holds up a page of 200 athletes on a processor four times slower: from the key
 * or the pointer to the frame that answers it, by the browser's own event timing (in steps of
 * 8 ms), each press of a kind in turn.
 *
 * `node scripts/with-database.mjs --serve node bench/presses.mjs [kind]`
 */
import { chromium } from "@playwright/test";
import { enlargePlan } from "../scripts/large-plan.mjs";
import { signIn } from "../scripts/soak-client.mjs";

const base = process.env.BASE_URL;
const url = process.env.ADMIN_DATABASE_URL.replace(
  /\/postgres$/,
  `/${process.env.DATABASE_NAME ?? "sprezza_browser"}`,
);
const only = process.argv[2];
const SLOWED = 4;
const SETTLED_MS = 700;

const planId = process.env.PLAN_ID ?? (await enlargePlan(url));
const cookie = await signIn(base);
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-gpu"],
});

async function open(address, ready) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    locale: "en-SE",
  });
  await context.addCookies(
    cookie.split("; ").map((pair) => {
      const [name, ...value] = pair.split("=");
      return { name, value: value.join("="), url: base };
    }),
  );
  const page = await context.newPage();
  await page.goto(base + address);
  await ready(page);
  await page.waitForTimeout(3000);
  await page.evaluate(() => {
    window.presses = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries())
        if (entry.interactionId) window.presses.push(entry.duration);
    }).observe({ type: "event", durationThreshold: 16 });
  });
  const session = await context.newCDPSession(page);
  await session.send("Emulation.setCPUThrottlingRate", { rate: SLOWED });
  return page;
}

/**
 * Presses, one by one. What is pressed by the pointer is looked for first and pressed where it
 * stands, so that the looking is not counted.
 */
async function measure(place, address, ready, kinds) {
  if (only && !place.includes(only)) return;
  const page = await open(address, ready);
  for (const [kind, acts] of Object.entries(kinds)) {
    const took = [];
    for (const act of acts) {
      const box = act.at && (await act.at(page).boundingBox());
      if (act.at && !box) throw new Error(`${place}, ${kind}: nothing to press.`);
      if (box) await page.mouse.move(box.x + Math.min(30, box.width / 2), box.y + box.height / 2);
      await page.waitForTimeout(SETTLED_MS);
      await page.evaluate(() => {
        window.presses = [];
      });
      if (box) {
        await page.mouse.down();
        await page.mouse.up();
      } else await act(page);
      await page.waitForTimeout(SETTLED_MS);
      took.push(Math.max(0, ...(await page.evaluate(() => window.presses))));
    }
    console.log(
      `${place}, ${kind}: ${took.map((ms) => (ms === 0 ? "under 16" : ms)).join(", ")} ms`,
    );
  }
  await page.context().close();
}

const key = (name) => (page) => page.keyboard.press(name);
const at = (find) => ({ at: find });
const button = (name) => at((page) => page.getByRole("button", { name }).first());
const TABLE = { name: "The block, weeks across" };
const cell = (n) => at((page) => page.getByRole("table", TABLE).locator("td button").nth(n));
const figure = (n) => at((page) => page.locator("td button.figure").nth(n));

await measure("athletes", "/athletes", (page) => page.getByRole("table").first().waitFor(), {
  "sort by a column": [button(/^Athlete/), button(/^Squad/), button(/^Athlete/)],
  "find, by Ctrl K": [key("Control+k"), key("s"), key("o"), key("Escape")],
  "hide the margin": [key("m"), key("m")],
});

await measure(
  "numbers",
  `/plan/${planId}?view=numbers`,
  (page) => page.getByRole("form", { name: "Recipe" }).waitFor(),
  {
    "select a figure": [figure(0), figure(5), figure(40)],
    "arrow to the next figure": [key("ArrowDown"), key("ArrowRight"), key("ArrowDown")],
    "later weeks": [button("Later weeks"), button("Earlier weeks")],
  },
);

await measure("board", `/plan/${planId}`, (page) => page.getByRole("table", TABLE).waitFor(), {
  "select a cell": [cell(3), cell(8), cell(3)],
  "arrow to the next cell": [key("ArrowRight"), key("ArrowDown"), key("ArrowUp")],
  "into the bars, two steps, and back": [
    key("Enter"),
    key("ArrowUp"),
    key("ArrowUp"),
    key("Escape"),
  ],
});

await measure("pairing", "/floor/pairing", (page) => page.getByRole("checkbox").first().waitFor(), {
  "tick an athlete": [0, 3, 6].map((n) => at((page) => page.getByRole("checkbox").nth(n))),
});

await browser.close();
