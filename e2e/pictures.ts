import { type Page, test } from "@playwright/test";
import { boardCell } from "./board";
import { openRack, stateFile } from "./people";

/** One picture a main view, kept in docs/screenshots and linked from the README. */
const DESK = { width: 1280, height: 800 };
const TABLET = { width: 1024, height: 768 };
const PHONE = { width: 390, height: 844 };

interface Shot {
  name: string;
  as: string;
  theme?: "cellar";
  size: { width: number; height: number };
  go: (page: Page) => Promise<void>;
}

const openFloor = async (page: Page) => {
  await page.goto("/floor");
  await page
    .getByRole("link", { name: /Sprint kayak, week 2/ })
    .first()
    .click();
  await page.locator("[data-figure]").first().waitFor();
};

/** The room's racks are free once the kayak session has ended. */
const freeRacks = async (page: Page) => {
  await page.goto("/floor");
  const running = page.getByRole("link", { name: /Sprint kayak, week 2/ }).first();
  const ended = page.getByRole("region", { name: "Running" }).getByRole("link", {
    name: /Sprint kayak, week 2/,
  });
  if ((await ended.count()) === 0) return;
  await running.click();
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "End the session" }).click();
  await page.getByRole("button", { name: "End it as it is" }).click();
  await page.waitForURL(/\/review\//);
};

/** The camp's day, with a first round behind it at some stations. */
const openCamp = async (page: Page) => {
  await page.goto("/floor");
  const running = page.getByRole("link", { name: /Camp day/ }).first();
  if ((await running.count()) > 0) {
    await running.click();
    await page.waitForURL(/\/floor\/[0-9a-f-]{36}$/);
    return;
  }
  await freeRacks(page);
  await page.goto("/floor");
  const row = page.getByRole("listitem").filter({ hasText: "Spring camp: Camp day" }).first();
  await row.getByRole("button", { name: "Start" }).click();
  await row.getByRole("button", { name: "Run as a draft" }).click();
  await page.waitForURL(/\/floor\/[0-9a-f-]{36}$/);
};

const openStation = async (page: Page, name: string) => {
  await openCamp(page);
  await page.getByRole("link", { name }).click();
  await page.waitForURL(/\/rack\//);
  await page.waitForLoadState("networkidle");
};

const openPlan = async (page: Page) => {
  await page.goto("/plan");
  await page.getByRole("link", { name: "Spring block", exact: true }).click();
  await page.getByRole("link", { name: "Numbers", exact: true }).click();
  await page.getByRole("form", { name: "Recipe" }).waitFor();
};

const SHOTS: Shot[] = [
  {
    name: "floor-cellar-tablet",
    as: "coach",
    theme: "cellar",
    size: TABLET,
    go: async (page) => {
      await openFloor(page);
      await page.locator("[data-figure]").nth(3).click();
    },
  },
  {
    name: "first-hour",
    as: "owner",
    size: DESK,
    // A second team of the same owner, an hour old: the demo's own has its first hour behind it.
    go: async (page) => {
      await page.goto("/account");
      await page.waitForLoadState("networkidle");
      await page.getByText("Make another team").click();
      const form = page.getByRole("form", { name: "Another team" });
      await form.getByLabel("Name").fill("Skerry Coast juniors");
      await form.getByRole("button", { name: "Make the team" }).click();
      await page.getByRole("heading", { name: "First hour" }).waitFor();
      await page.getByLabel("New plans start with").selectOption({ index: 4 });
      await page.getByRole("button", { name: "Take this school" }).click();
      await page.locator('[data-step="school"][data-state="done"]').waitFor();
      await page.getByRole("button", { name: "It is right as drawn" }).click();
      await page.locator('[data-step="room"][data-state="set aside"]').waitFor();
    },
  },
  {
    name: "box-card",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/athletes/box");
      await page.getByRole("link", { name: "Hanne Dorset" }).click();
      await page.getByRole("form", { name: "Trial seat" }).waitFor();
    },
  },
  {
    name: "pairing",
    as: "coach",
    theme: "cellar",
    size: TABLET,
    go: async (page) => {
      await page.goto("/floor/pairing");
      await page.waitForLoadState("networkidle");
      await page.getByLabel("Complex").selectOption("Pull, jump, throw");
      await page.getByLabel("Squad").selectOption("Sprint canoe");
      await page.getByRole("row", { name: /Goran Tesk/ }).waitFor();
      const present = await page.locator("input[name=present]").all();
      for (const one of present.slice(4)) await one.uncheck();
      await page.getByRole("button", { name: "Start the pairing" }).click();
      const starts = page.getByRole("button", { name: /^Start: / });
      await starts.first().waitFor();
      await page.waitForLoadState("networkidle");
      // The first has a round behind them, with a height written down; the next is at work.
      const [first, second] = await page.locator("main ul > li[aria-label]").all();
      for (let item = 0; item < 3; item++) {
        await first?.getByRole("button", { name: /^Start/ }).click();
        await first?.getByRole("button", { name: /^Done/ }).click();
        if (item !== 1) continue;
        await first?.getByRole("textbox", { name: /jump height/ }).fill("41.5");
        await page.keyboard.press("Enter");
      }
      await second?.getByRole("button", { name: /^Start/ }).click();
      await first
        ?.getByRole("button", { name: /Explosive pull, \d/ })
        .first()
        .click();
      await page.getByText(/^Next: /).waitFor();
    },
  },
  {
    name: "plan",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await openPlan(page);
      await page
        .getByRole("button", { name: /Finn Aldous, 3 sets/ })
        .nth(4)
        .click();
    },
  },
  {
    name: "board",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/plan");
      await page.getByRole("link", { name: "Spring block", exact: true }).click();
      await boardCell(page, "Bench press, straight bar", 2).first().click();
      await page.keyboard.press("Enter");
      await page.keyboard.press("ArrowUp");
      await page.getByText(/loads of \d+ athletes move/).waitFor();
    },
  },
  {
    name: "athletes",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/athletes");
      await page.locator("[data-figure]").nth(8).click();
    },
  },
  {
    name: "athlete",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/athletes");
      await page.getByRole("link", { name: "Ansel Quist" }).click();
      await page.getByRole("heading", { name: "In force today" }).waitFor();
    },
  },
  {
    name: "gap",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/lab/gap");
      await page
        .getByRole("listitem")
        .filter({ hasText: "best gap" })
        .first()
        .getByRole("link")
        .click();
      await page.getByRole("img", { name: /after each gap/ }).waitFor();
    },
  },
  {
    name: "profile-test",
    as: "coach",
    size: TABLET,
    go: async (page) => {
      await page.goto("/athletes");
      const arno = page.getByRole("link", { name: "Arno Velde" });
      const id = (await arno.getAttribute("href"))?.split("/").at(-1);
      await page.goto(`/lab/profile?athlete=${id}`);
      for (let step = 0; step < 3; step++) {
        await page.getByRole("button", { name: /^Lift \d/ }).click();
        await page.getByRole("button", { name: "Stop" }).waitFor();
        await page.getByRole("button", { name: /^Lift \d/ }).waitFor({ timeout: 30_000 });
        await page.getByRole("button", { name: /^Next load/ }).click();
      }
      await page.evaluate(() => window.scrollTo(0, 0));
    },
  },
  {
    name: "wave",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/review/wave");
      const chooser = page.getByRole("combobox", { name: "Wave", exact: true });
      const names = await chooser.locator("option").allTextContents();
      await chooser.selectOption({
        index: names.findIndex((name) => name.startsWith("2026-02-06 Box doubles")),
      });
      await page.getByRole("button", { name: "Take", exact: true }).waitFor();
    },
  },
  {
    name: "lab",
    as: "coach",
    size: DESK,
    go: (page) =>
      page.goto("/lab?tool=methods&max=145&force=0.7&percent=55&speed=0.8").then(() => {}),
  },
  {
    name: "review",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/review");
      await page
        .getByRole("link", { name: /Sprint kayak, week 1/ })
        .first()
        .click();
      await page
        .getByRole("button", { name: /set 5, best/ })
        .first()
        .click();
    },
  },
  { name: "card-phone", as: "maren", size: PHONE, go: (page) => page.goto("/card").then(() => {}) },
  {
    name: "gear",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await page.goto("/gear");
      await page.getByRole("link", { name: "Boathouse" }).click();
      await page.getByRole("link", { name: "Middle band" }).click();
      await page.getByText("Inspections").waitFor();
    },
  },
  {
    name: "rack",
    as: "coach",
    size: TABLET,
    go: async (page) => {
      await openFloor(page);
      await openRack(page, 2);
      await page.getByRole("button", { name: "Lift (simulated)" }).click();
      await page.getByText(/^Ended by/).waitFor({ timeout: 30_000 });
    },
  },
  // The camp's day last: it takes the racks of everybody else.
  {
    name: "groups",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await freeRacks(page);
      await page.goto("/floor");
      const row = page.getByRole("listitem").filter({ hasText: "Spring camp: Camp day" }).first();
      await row.getByRole("button", { name: "Look at the groups" }).click();
      await page.waitForURL(/\/floor\/groups/);
      await page
        .getByText(/^Looking/)
        .first()
        .waitFor({ state: "detached" });
      await page.waitForTimeout(6000);
    },
  },
  {
    name: "round",
    as: "coach",
    theme: "cellar",
    size: TABLET,
    go: async (page) => {
      await openStation(page, "Open Dumbbell corner");
      await page.getByRole("button", { name: "All did a set" }).first().click();
      await page.getByRole("button", { name: /^Ansel, Side plank, set 1, left/ }).click();
    },
  },
  {
    name: "floor",
    as: "coach",
    size: DESK,
    go: async (page) => {
      await openStation(page, "Open rack 2");
      // Keys are heard once the station's scripts are there.
      await page.getByText("saved here and sent").waitFor();
      for (const key of ["=", "-", "="]) {
        await page.keyboard.press(key);
        await page.getByTestId("verdict").filter({ hasText: "By eye" }).waitFor();
        await page.keyboard.press("n");
        await page.getByTestId("verdict").filter({ hasText: "Ready" }).waitFor();
      }
      await page.getByText("saved here and sent").waitFor();
      await openCamp(page);
      await page.locator("[data-figure]").first().waitFor();
    },
  },
];

for (const shot of SHOTS) {
  test(shot.name, async ({ browser, baseURL }) => {
    const context = await browser.newContext({
      baseURL,
      storageState: stateFile(shot.as),
      viewport: shot.size,
    });
    if (shot.theme)
      await context.addCookies([{ name: "theme", value: shot.theme, url: baseURL ?? "" }]);
    const page = await context.newPage();
    await shot.go(page);
    await page.waitForTimeout(1300);
    await page.screenshot({ path: `docs/screenshots/${shot.name}.png` });
    await context.close();
  });
}
