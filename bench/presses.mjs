/**
 * How long a press holds up a page of 200 athletes on a processor four times slower: from the key
 * or the pointer to the frame that answers it, by the browser's own event timing (in steps of
 * 8 ms). The longest of each kind of press, in one run.
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
const SETTLED_MS = 400;

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

/** Presses, one by one, and what the slowest of each kind took. */
async function measure(place, address, ready, kinds) {
  if (only && !place.includes(only)) return;
  const page = await open(address, ready);
  for (const [kind, acts] of Object.entries(kinds)) {
    const took = [];
    for (const act of acts) {
      await page.evaluate(() => {
        window.presses = [];
      });
      try {
        await act(page);
      } catch (error) {
        console.log(`${place}, ${kind}: not pressed (${String(error).split("\n")[0]})`);
        continue;
      }
      await page.waitForTimeout(SETTLED_MS);
      took.push(Math.max(0, ...(await page.evaluate(() => window.presses))));
    }
    const longest = Math.max(...took);
    console.log(
      `${place}, ${kind}: ${longest === 0 ? "under 16" : longest} ms (${took.join(", ")})`,
    );
  }
  await page.context().close();
}

const key = (name) => (page) => page.keyboard.press(name);
const press = (role, name, nth = 0) => (page) =>
  page.getByRole(role, { name }).nth(nth).click();

await measure("athletes", "/athletes", (page) => page.getByRole("table").first().waitFor(), {
  "sort by a column": [
    press("button", /^Name|^Athlete/),
    press("button", /^Squad/),
    press("button", /^Name|^Athlete/),
  ],
  "type in the filter": [
    (page) => page.getByRole("searchbox").first().click(),
    key("s"),
    key("o"),
    key("a"),
    key("Backspace"),
    key("Backspace"),
    key("Backspace"),
  ],
  "find, by Ctrl K": [key("Control+k"), key("s"), key("o"), key("Escape")],
  "hide the margin": [key("m"), key("m")],
});

await measure(
  "numbers",
  `/plan/${planId}?view=numbers`,
  (page) => page.getByRole("form", { name: "Recipe" }).waitFor(),
  {
    "select a figure": [0, 5, 40].map(
      (n) => (page) => page.locator("td button.figure").nth(n).click(),
    ),
    "arrow to the next figure": [key("ArrowDown"), key("ArrowRight"), key("ArrowDown")],
    "open it": [key("Enter"), key("Escape")],
    "type in the recipe": [
      (page) => page.getByLabel("Starts at, %").click(),
      key("End"),
      key("Backspace"),
      key("5"),
      key("Backspace"),
      key("0"),
    ],
    "later weeks": [press("button", "Later weeks"), press("button", "Earlier weeks")],
  },
);

await measure(
  "board",
  `/plan/${planId}`,
  (page) => page.getByRole("table", { name: "The block, weeks across" }).waitFor(),
  {
    "select a cell": [3, 8].map(
      (n) => (page) =>
        page.getByRole("table", { name: "The block, weeks across" }).locator("td button").nth(n).click(),
    ),
    "arrow to the next cell": [key("ArrowRight"), key("ArrowDown"), key("ArrowLeft")],
    "into the bars, and a step": [
      key("Enter"),
      key("ArrowUp"),
      key("ArrowUp"),
      key("ArrowDown"),
      key("ArrowDown"),
      key("Escape"),
    ],
  },
);

await measure(
  "pairing",
  "/floor/pairing",
  (page) => page.getByRole("checkbox").first().waitFor(),
  { "tick an athlete": [0, 3, 6].map((n) => (page) => page.getByRole("checkbox").nth(n).click()) },
);

await measure("library", "/library", (page) => page.getByRole("searchbox").first().waitFor(), {
  "type in the filter": [
    (page) => page.getByRole("searchbox").first().click(),
    key("s"),
    key("q"),
    key("u"),
    key("Backspace"),
  ],
});

await browser.close();
