import { ROUTE_RIGHTS } from "../app/platform/rights";
import { lookAt } from "./axe";
import { endOwnSessions, makeSession } from "./floor-session";
import { allSent, stateFile } from "./people";
import { expect, type Page, test } from "./test";

/** axe on every page, in both themes; keyboard, phone and 200 % zoom. */

/** How each page of the table of rights is reached, by whom; the rest answer no page. */
const PAGES: Record<string, { as: string; open: string[] } | "no page"> = {
  "/": "no page",
  "/sign-in": { as: "nobody", open: ["/sign-in"] },
  "/sign-out": "no page",
  "/pair": { as: "nobody", open: ["/pair"] },
  "/first-run": "no page",
  "/join/:token": { as: "nobody", open: ["/join/none"] },
  "/reset/:token": { as: "nobody", open: ["/reset/none"] },
  "/forgot": { as: "nobody", open: ["/forgot"] },
  "/health": "no page",
  "/health/live": "no page",
  "/floor": { as: "coach", open: ["/floor"] },
  "/floor/:sessionId": { as: "coach", open: ["/floor", "li a[href^='/floor/']"] },
  "/floor/pairing": { as: "coach", open: ["/floor/pairing"] },
  "/floor/pairing/:runId": { as: "coach", open: ["/floor/pairing", "button.btn-primary"] },
  "/rack/offline": { as: "nobody", open: ["/rack/offline"] },
  "/floor/offline": { as: "nobody", open: ["/floor/offline"] },
  "/card/offline": { as: "nobody", open: ["/card/offline"] },
  "/rack/:sessionId/:rackId": {
    as: "coach",
    open: ["/floor", "li a[href^='/floor/']", "a[href^='/rack/']"],
  },
  "/plan": { as: "coach", open: ["/plan"] },
  "/plan/:planId": { as: "coach", open: ["/plan", "a[href^='/plan/']"] },
  "/plan/:planId/print": {
    as: "coach",
    open: ["/plan", "a[href^='/plan/']", "a[href$='/print']"],
  },
  "/plan/:planId/out/:planFile": "no page",
  "/feed/:token": "no page",
  "/api/plan/:planId": "no page",
  "/api/unit": "no page",
  "/api/bench/:athleteId/:variantId": "no page",
  "/library/recipes": { as: "coach", open: ["/library/recipes"] },
  "/library/recipes/:recipeFile": "no page",
  "/library/complexes": { as: "coach", open: ["/library/complexes"] },
  "/library/faults": { as: "coach", open: ["/library/faults"] },
  "/library/schools": { as: "coach", open: ["/library/schools"] },
  "/library/coach-set": { as: "coach", open: ["/library/coach-set"] },
  "/athletes": { as: "coach", open: ["/athletes"] },
  "/athletes/:athleteId": { as: "coach", open: ["/athletes", "th a[href^='/athletes/']"] },
  "/athletes/profiles": { as: "coach", open: ["/athletes/profiles"] },
  "/athletes/box": { as: "coach", open: ["/athletes/box"] },
  "/athletes/:athleteId/box": { as: "coach", open: ["/athletes/box", "th a[href$='/box']"] },
  "/athletes/squads": { as: "coach", open: ["/athletes/squads"] },
  "/athletes/add": { as: "coach", open: ["/athletes/add"] },
  "/athletes/testing-day": { as: "coach", open: ["/athletes/testing-day"] },
  "/athletes/:athleteId/profiles/:testId": {
    as: "coach",
    open: ["/athletes/profiles", "td a[href*='/profiles/']"],
  },
  "/lab/gap": { as: "coach", open: ["/lab/gap"] },
  "/lab/profile": { as: "coach", open: ["/lab/profile"] },
  "/library": { as: "coach", open: ["/library?find=squat"] },
  "/library/lifts": { as: "coach", open: ["/library/lifts"] },
  "/library/own-table": { as: "coach", open: ["/library/own-table"] },
  "/data/records": { as: "coach", open: ["/data/records"] },
  "/data/backup": { as: "owner", open: ["/data/backup"] },
  "/data/archive": "no page",
  "/account/archive": "no page",
  "/data/earlier": { as: "coach", open: ["/data/earlier"] },
  "/people": { as: "owner", open: ["/people"] },
  "/first-hour": { as: "coach", open: ["/first-hour"] },
  "/data": { as: "coach", open: ["/data"] },
  "/data/out/:file": "no page",
  "/lab": { as: "coach", open: ["/lab?load=72.5"] },
  "/review": { as: "coach", open: ["/review"] },
  "/review/box": { as: "coach", open: ["/review/box"] },
  "/review/wave": { as: "coach", open: ["/review/wave"] },
  "/review/trends": { as: "coach", open: ["/review/trends"] },
  "/review/block": { as: "coach", open: ["/review/block"] },
  "/review/pays": { as: "coach", open: ["/review/pays"] },
  "/review/week": { as: "coach", open: ["/review/week"] },
  "/review/notes": { as: "coach", open: ["/review/notes"] },
  "/review/week/out/:weekFile": "no page",
  "/review/:sessionId/out/:reviewFile": "no page",
  "/review/:sessionId": {
    as: "coach",
    open: ["/review", "tbody tr:nth-child(4) a[href^='/review/']"],
  },
  "/gear": { as: "coach", open: ["/gear"] },
  "/gear/:roomId": { as: "coach", open: ["/gear", "h2 a[href^='/gear/']"] },
  "/gear/:roomId/out/:roomFile": "no page",
  "/tablets": { as: "coach", open: ["/tablets"] },
  "/card": { as: "maren", open: ["/card"] },
  // Nobody trains alone in the demo: looked at in alone.spec.ts.
  "/card/:sessionId": "no page",
  // What it shows is ticked on the floor page: looked at in groups.spec.ts.
  "/floor/groups": "no page",
  "/api/at-rack": "no page",
  "/api/session/:sessionId": "no page",
  "/account": { as: "coach", open: ["/account"] },
  "/kept": { as: "coach", open: ["/kept"] },
  "/api/log/:sessionId": "no page",
  "/api/live/:sessionId": "no page",
  "/api/sensor": "no page",
  "/api/sensor/:rackId": "no page",
  "/api/find": "no page",
};

/** An address, and what is followed from there. */
async function openBy(tab: Page, [first, ...clicks]: string[]): Promise<void> {
  await tab.goto(first ?? "/");
  for (const click of clicks) {
    const before = new URL(tab.url()).pathname;
    await tab.locator(click).first().click();
    await tab.waitForURL((url) => url.pathname !== before);
  }
  // The address changes a moment before the page does: a page loaded at its own
  // address is the page that is looked at.
  if (clicks.length > 0) await tab.reload();
}

test("every route is in the list of this file", () => {
  expect(Object.keys(PAGES).sort()).toEqual(ROUTE_RIGHTS.map((rule) => rule.path).sort());
});

const THEMES = ["chalk", "cellar"] as const;
/** Looked at every day, in one theme; the others, and the other theme, in the long run. */
const EVERY_DAY = new Set([
  "/sign-in",
  "/pair",
  "/floor",
  "/floor/:sessionId",
  "/floor/pairing/:runId",
  "/rack/:sessionId/:rackId",
  "/plan",
  "/plan/:planId",
  "/plan/:planId/print",
  "/library",
  "/library/recipes",
  "/athletes",
  "/athletes/:athleteId",
  "/athletes/profiles",
  "/athletes/:athleteId/box",
  "/lab",
  "/lab/gap",
  "/review",
  "/review/wave",
  "/review/trends",
  "/review/block",
  "/review/:sessionId",
  "/gear/:roomId",
  "/card",
  "/first-hour",
]);

// The themes differ in colour alone, and axe takes long: each page is looked at whole in one of them
// every time, page by page in turn, and for what colour can break in the other before an issue is closed.
for (const [i, [path, page]] of Object.entries(PAGES).entries()) {
  if (page === "no page") continue;
  test.describe(path, () => {
    test.use({
      storageState: page.as === "nobody" ? { cookies: [], origins: [] } : stateFile(page.as),
    });
    for (const theme of THEMES) {
      const whole = theme === THEMES[i % 2];
      const daily = whole && EVERY_DAY.has(path);
      test(`${daily ? "" : "@long "}${path}: axe finds nothing in ${theme}`, async ({
        page: tab,
        context,
        baseURL,
      }) => {
        await context.addCookies([{ name: "theme", value: theme, url: baseURL ?? "" }]);
        await openBy(tab, page.open);
        await expect(tab.locator("html")).toHaveAttribute("data-theme", theme);
        // The working is part of the page: open one where there are figures.
        const figure = tab.locator("[data-figure]").first();
        if (await figure.count()) await figure.click();
        const axe = whole
          ? lookAt(tab)
          : lookAt(tab).withRules(["color-contrast", "link-in-text-block"]);
        const { violations } = await axe.analyze();
        expect(violations.map((one) => `${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
      });
    }
  });
}

test.describe("what opens over a page", () => {
  test.use({ storageState: stateFile("coach"), viewport: { width: 1024, height: 768 } });
  const clean = async (page: Page) => {
    const result = await lookAt(page).analyze();
    expect(result.violations.map((one) => `${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
  };

  test("the key list, the palette and the menu: axe finds nothing", async ({ page }) => {
    await page.goto("/floor");
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
    await clean(page);
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: /Menu of/ }).click();
    await clean(page);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Control+k");
    await page.getByRole("option").first().waitFor();
    await clean(page);
  });

  test("a lost link leaves the page as it is: the keys are listed, what cannot be looked up is said", async ({
    page,
    context,
  }) => {
    await page.goto("/floor");
    await context.setOffline(true);
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
    await page.keyboard.press("Escape");
    await page.keyboard.press("Control+k");
    await expect(page.getByText(/Nothing can be looked up without a link/)).toBeVisible();
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await context.setOffline(false);
  });

  test("the rack's sheets: axe finds nothing", async ({ page }) => {
    await page.goto("/floor");
    await page.locator("li a[href^='/floor/']").first().click();
    await page.locator("a[href^='/rack/']").first().click();
    await page.getByRole("button", { name: "Fault" }).click();
    await expect(page.getByRole("dialog", { name: "Fault or pain" })).toBeVisible();
    await clean(page);
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Type a speed" }).click();
    await expect(page.getByRole("dialog", { name: "Type a speed" })).toBeVisible();
    await clean(page);
  });
});

test.describe("an assistant", () => {
  test.use({ storageState: stateFile("assistant") });

  test("reads the plan and the athlete, and is offered no change", async ({ page }) => {
    await page.goto("/plan");
    await page.locator("a[href^='/plan/']").first().click();
    // The board is the same picture without handles.
    await expect(page.getByRole("table", { name: "The block, weeks across" })).toBeVisible();
    await expect(page.getByTitle(/^Pull/)).toHaveCount(0);
    await expect(page.getByRole("button", { name: /Put a slot on|Add a day/ })).toHaveCount(0);
    await page.getByRole("link", { name: "Numbers", exact: true }).click();
    await expect(page.getByText("An owner or coach changes the recipe.")).toBeVisible();
    await expect(page.getByRole("button", { name: "Save the recipe" })).toHaveCount(0);
    await expect(page.getByRole("button", { name: /Set a load of your own/ })).toHaveCount(0);
    await page.goto("/athletes");
    await page.getByRole("link", { name: "Roza Timm" }).click();
    await expect(page.getByRole("heading", { name: "Roza Timm" })).toBeVisible();
    await expect(page.getByRole("button", { name: "Keep this record" })).toHaveCount(0);
  });
});

test.describe("a call on the floor", () => {
  test.use({ storageState: stateFile("coach") });

  test("is declined with a reason, and undone", async ({ page }) => {
    await page.goto("/floor");
    await page
      .getByRole("link", { name: /Sprint kayak, week 2/ })
      .first()
      .click();
    const margin = page.getByRole("complementary", { name: "Margin" });
    const calls = margin.getByRole("region", { name: /^Call for/ });
    await expect(calls.first()).toBeVisible();
    const before = await calls.count();
    await calls.first().getByRole("button", { name: "Decline" }).click();
    await margin.getByRole("button", { name: "Looked fast from the side" }).click();
    await expect(calls).toHaveCount(before - 1);
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(calls).toHaveCount(before);
    // The browser of this test goes, and what it had not sent yet with it.
    await expect(margin.getByText("All saved")).toBeVisible();
  });

  test("is taken alone by a double press; one that comes in above takes the keys from nobody", async ({
    page,
    browser,
  }) => {
    const { id, rackId, otherRackId } = await makeSession("Calls", {
      lifters: 3,
      secondRack: true,
    });
    const looksSlow = async (rack: string, sets: number) => {
      const context = await browser.newContext({ storageState: stateFile("coach") });
      const station = await context.newPage();
      await station.goto(`/rack/${id}/${rack}`);
      await station.getByText("saved here and sent").waitFor();
      for (let set = 0; set < sets; set++) {
        await station.keyboard.press("-");
        await station
          .getByText(/looked slow/)
          .first()
          .waitFor();
        if (set === sets - 1) break;
        await station.getByRole("button", { name: /^Next/ }).click();
        await station.getByTestId("verdict").filter({ hasText: "Ready" }).waitFor();
      }
      await allSent(station);
      await context.close();
    };
    try {
      await looksSlow(otherRackId, 1);
      await page.goto(`/floor/${id}`);
      const calls = page.getByRole("region", { name: /^Call for/ });
      const names = () => calls.evaluateAll((all) => all.map((one) => one.ariaLabel));
      await expect(calls).toHaveCount(1);
      const [first] = await names();
      await looksSlow(rackId, 2);
      await expect(calls).toHaveCount(3);
      expect((await names()).indexOf(first ?? "")).toBe(2);
      // The keys are still those of the call that was there before, now the last.
      await page.keyboard.press("t");
      await expect(calls).toHaveCount(2);
      expect(await names()).not.toContain(first);
      await page.waitForTimeout(700);
      // Both presses of a double one fall on a Take, and one call is taken.
      const [second, third] = await names();
      await calls.first().getByRole("button", { name: /^Take/ }).dblclick();
      await expect(calls).toHaveCount(1);
      expect(await names()).toEqual([third]);
      expect(second).not.toBe(third);
      // What was taken stands there still, with its way back.
      await expect(page.getByRole("button", { name: "Undo" })).toBeVisible();
      await page.waitForTimeout(700);
      await page.keyboard.press("t");
      await expect(calls).toHaveCount(0);
    } finally {
      await endOwnSessions();
    }
  });
});

test.describe("by keyboard", () => {
  test.use({ storageState: stateFile("coach") });

  test("g and a letter go to a place, ? lists the keys, Ctrl K finds anybody", async ({ page }) => {
    await page.goto("/floor");
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("g");
    await page.keyboard.press("p");
    await page.waitForURL(/\/plan$/);
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
    await page.keyboard.press("Escape");
    await page.keyboard.press("Control+k");
    await page.getByPlaceholder("A name, a plan, a place …").fill("Roza");
    await page.getByRole("option", { name: /Roza Timm/ }).waitFor();
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/athletes\//);
    await expect(page.getByRole("heading", { name: "Roza Timm" })).toBeVisible();
  });

  test("arrow keys go from figure to figure, Enter opens the working, w closes it", async ({
    page,
  }) => {
    await page.goto("/athletes");
    const figure = page.locator("[data-figure]").first();
    await figure.focus();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowRight");
    const focused = page.locator("[data-figure]:focus");
    await expect(focused).toHaveCount(1);
    await expect(focused).not.toHaveAttribute(
      "data-figure",
      (await figure.getAttribute("data-figure")) ?? "",
    );
    await page.keyboard.press("Enter");
    const working = page.getByRole("region", { name: "Working" });
    await expect(working).toBeVisible();
    await page.keyboard.press("w");
    await expect(working).toBeHidden();
    await page.keyboard.press("w");
    await expect(working).toBeVisible();
  });

  test("single keys can be switched off", async ({ page }) => {
    await page.goto("/floor");
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("?");
    await page.getByLabel(/Single keys work/).uncheck();
    await page.getByRole("button", { name: "Close" }).click();
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("g");
    await page.keyboard.press("p");
    await page.waitForTimeout(300);
    expect(page.url()).toMatch(/\/floor$/);
    await page.getByRole("button", { name: /Menu of/ }).click();
    await page.getByRole("button", { name: "Keys" }).click();
    await page.getByLabel(/Single keys work/).check();
  });

  test("the Lab answers from a pasted address", async ({ page }) => {
    await page.goto("/lab?max=265+lb&load=225+lb");
    await expect(page.getByText(/^each side 25 · 15 · 1\.25/)).toBeVisible();
    await expect(page.getByText("102.5 kg, each side 25 · 15 · 1.25")).toBeVisible();
    await page.getByLabel("Max").fill("120");
    await expect(page).toHaveURL(/max=120/);
    await expect(page.getByRole("row", { name: /^50 %/ })).toContainText("60 kg");
    await page.getByLabel("One load").fill("500");
    await expect(page.getByRole("alert")).toContainText("holds");
  });
});

test.describe("small and large", () => {
  for (const [who, path] of [
    ["maren", "/card"],
    ["coach", "/floor"],
    ["coach", "/athletes"],
  ] as const) {
    test(`${path} on a phone has no sideways scroll of the page`, async ({ browser, baseURL }) => {
      const context = await browser.newContext({
        baseURL,
        storageState: stateFile(who),
        viewport: { width: 360, height: 740 },
      });
      const page = await context.newPage();
      await page.goto(path);
      const over = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect(over).toBeLessThanOrEqual(0);
      await context.close();
    });
  }

  test("at 200 % zoom the floor's decisions can still be reached", async ({ browser, baseURL }) => {
    const context = await browser.newContext({
      baseURL,
      storageState: stateFile("coach"),
      viewport: { width: 640, height: 400 },
    });
    const page = await context.newPage();
    await page.goto("/floor");
    await page.locator("li a[href^='/floor/']").first().click();
    await page.waitForURL(/\/floor\/./);
    const margin = page.getByRole("complementary", { name: "Margin" });
    await margin.getByRole("button", { name: "Decline" }).first().click();
    await expect(margin.getByText("Why not?")).toBeVisible();
    await context.close();
  });

  for (const [path, page] of Object.entries(PAGES)) {
    if (page === "no page") continue;
    test(`@long ${path}: at 200 % zoom nothing leaves the page`, async ({ browser, baseURL }) => {
      const context = await browser.newContext({
        baseURL,
        storageState: page.as === "nobody" ? { cookies: [], origins: [] } : stateFile(page.as),
        viewport: { width: 1280, height: 800 },
      });
      const tab = await context.newPage();
      await openBy(tab, page.open);
      // As the browser zooms: half as many CSS pixels.
      await tab.setViewportSize({ width: 640, height: 400 });
      const over = await tab.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect(over).toBeLessThanOrEqual(0);
      // Everything that is pressed can be brought into sight.
      const lost = await tab.locator("main button:visible, main a:visible").evaluateAll((all) =>
        all.flatMap((one) => {
          one.scrollIntoView({ block: "center", inline: "center" });
          const box = one.getBoundingClientRect();
          const fits =
            box.right > 0 && box.left < innerWidth && box.bottom > 0 && box.top < innerHeight;
          return fits ? [] : [one.textContent];
        }),
      );
      expect(lost).toEqual([]);
      await context.close();
    });
  }

  for (const theme of THEMES)
    test(`a station's figures have AAA contrast in ${theme}`, async ({ browser, baseURL }) => {
      const context = await browser.newContext({
        baseURL,
        storageState: stateFile("coach"),
        viewport: { width: 1024, height: 768 },
      });
      await context.addCookies([{ name: "theme", value: theme, url: baseURL ?? "" }]);
      const tab = await context.newPage();
      const station = PAGES["/rack/:sessionId/:rackId"];
      if (!station || station === "no page") throw new Error("A station is a page.");
      await openBy(tab, station.open);
      await expect(tab.locator("html")).toHaveAttribute("data-theme", theme);
      const { violations } = await lookAt(tab).withRules(["color-contrast-enhanced"]).analyze();
      const under = violations.flatMap((one) =>
        one.nodes.map((node) => `${node.any[0]?.data?.contrastRatio}: ${node.html.slice(0, 120)}`),
      );
      expect(under).toEqual([]);
      await context.close();
    });

  test("the rack screen's script stays under 150 kB compressed", async ({ browser, baseURL }) => {
    const context = await browser.newContext({ baseURL, storageState: stateFile("coach") });
    const page = await context.newPage();
    await page.goto("/floor");
    await page.locator("li a[href^='/floor/']").first().click();
    const href = await page.locator("a[href^='/rack/']").first().getAttribute("href");
    await page.goto("about:blank");
    let bytes = 0;
    const session = await context.newCDPSession(page);
    await session.send("Network.enable");
    await session.send("Network.setCacheDisabled", { cacheDisabled: true });
    const scripts = new Set<string>();
    session.on("Network.responseReceived", (event) => {
      if (event.type === "Script" || event.response.mimeType.includes("javascript")) {
        scripts.add(event.requestId);
      }
    });
    session.on("Network.loadingFinished", (event) => {
      if (scripts.has(event.requestId)) bytes += event.encodedDataLength;
    });
    await page.goto(href ?? "");
    await page.getByRole("button", { name: "Fault" }).waitFor();
    await page.waitForTimeout(500);
    expect(bytes).toBeGreaterThan(50_000);
    expect(bytes).toBeLessThan(150_000);
    await context.close();
  });
});

test.describe("the margin", () => {
  test.use({ storageState: stateFile("coach") });

  test("is put away by a key and stays so, comes back for a working, and is not there without figures", async ({
    page,
  }) => {
    await page.goto("/athletes");
    const margin = page.getByRole("complementary", { name: "Margin" });
    const wide = async () => (await margin.boundingBox())?.width ?? 0;
    expect(await wide()).toBeGreaterThan(300);
    await page.keyboard.press("m");
    expect(await wide()).toBeLessThan(90);
    await page.reload();
    expect(await wide()).toBeLessThan(90);
    await page.locator("[data-figure]").first().click();
    await expect(page.getByRole("region", { name: "Working" })).toBeVisible();
    expect(await wide()).toBeGreaterThan(300);
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Show margin" }).click();
    expect(await wide()).toBeGreaterThan(300);
    await page.goto("/review/week");
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await expect(margin).toBeHidden();
  });
});
