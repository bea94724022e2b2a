import { freePort, startCluster } from "../scripts/cluster.mjs";
import { startServer } from "../scripts/run.mjs";
import { openPart } from "./athlete-part";
import { allSent, stateFile, typeSpeeds } from "./people";
import { type Browser, expect, type Page, test } from "./test";

/**
 * What is acknowledged is never lost: the application is killed between two sets, the network
 * drops, the database dies; and nothing typed disappears from the screen.
 */
test.describe.configure({ mode: "serial" });

interface Running {
  base: string;
  stop: () => Promise<void>;
  kill: () => Promise<void>;
}

async function ownServer(port: number): Promise<Running> {
  const server = startServer({ ...process.env, PORT: String(port), NODE_ENV: "production" });
  const base = await server.address;
  return {
    base,
    stop: () => server.stop(),
    kill: () => server.kill(),
  };
}

async function rackPage(browser: Browser, baseURL: string, rack: number): Promise<Page> {
  const context = await browser.newContext({
    baseURL,
    storageState: stateFile("coach"),
    viewport: { width: 1024, height: 768 },
  });
  const page = await context.newPage();
  await page.goto("/floor");
  await page
    .getByRole("link", { name: /Sprint kayak, week 2/ })
    .first()
    .click();
  await page.getByRole("link", { name: `Open rack ${rack}` }).click();
  await page.getByTestId("load").waitFor();
  return page;
}

/** One typed set of three reps; stays on its verdict. */
async function typedSet(page: Page, speeds: string[]): Promise<void> {
  await typeSpeeds(page, speeds);
  await expect(page.getByText(/^Ended by/)).toBeVisible();
}

const setsDone = async (page: Page) => {
  const text = (await page.getByText(/\d+ of 108 sets/).textContent()) ?? "";
  return Number(/(\d+) of 108/.exec(text)?.[1]);
};

test("@long killing the application between two sets loses nothing acknowledged", async ({
  browser,
}) => {
  const port = await freePort(4300);
  let server = await ownServer(port);
  const page = await rackPage(browser, server.base, 1);
  const desk = await page.context().newPage();
  await desk.goto("/floor");
  await desk
    .getByRole("link", { name: /Sprint kayak, week 2/ })
    .first()
    .click();
  const before = await setsDone(desk);
  await typedSet(page, ["82", "81", "80"]);
  await allSent(page);

  await server.kill();
  // The next set is done while nobody answers: it is kept on the tablet.
  await page.keyboard.press("n");
  await typedSet(page, ["79", "78", "77"]);
  await expect(page.getByText(/no link; \d+ kept here/)).toBeVisible();

  server = await ownServer(port);
  await allSent(page);
  // The desk's stream comes back by itself, a few seconds after the server.
  await expect.poll(() => setsDone(desk), { timeout: 25_000 }).toBe(before + 2);

  // Each is there once, also for a page that starts from nothing.
  await desk.reload();
  expect(await setsDone(desk)).toBe(before + 2);
  await server.stop();
  await page.context().close();
});

test("@long the network drops in the middle of a set: reps go on, and are sent once it is back", async ({
  browser,
  baseURL,
}) => {
  const page = await rackPage(browser, baseURL ?? "", 2);
  // The sensor comes a moment after the screen.
  await page.waitForTimeout(3000);
  await page.context().setOffline(true);
  await page.getByRole("button", { name: "Lift (simulated)" }).click();
  await expect(page.getByText(/^Ended by/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/no link; \d+ kept here/)).toBeVisible();
  await page.context().setOffline(false);
  await allSent(page);
  await page.reload();
  await page.getByTestId("load").waitFor();
  await expect(page.getByRole("list", { name: "Who is next" })).toContainText("set 6");
  await page.context().close();
});

test("two tabs share one outbox: both know when it is empty, and nothing is stored twice", async ({
  browser,
  baseURL,
}) => {
  const page = await rackPage(browser, baseURL ?? "", 1);
  const desk = await page.context().newPage();
  await desk.goto("/floor");
  await desk
    .getByRole("link", { name: /Sprint kayak, week 2/ })
    .first()
    .click();
  const before = await setsDone(desk);
  // Only the rack's own tab is cut off: the floor's tab sends for it.
  await page.route("**/api/log/**", (route) => route.abort());
  await typedSet(page, ["81", "80", "79"]);
  await expect.poll(() => setsDone(desk)).toBe(before + 1);
  await allSent(page);
  await page.context().close();
});

test("entries that wait survive a reload of the page", async ({ browser, baseURL }) => {
  const page = await rackPage(browser, baseURL ?? "", 3);
  // The log's address is cut off; the pages still load.
  await page.route("**/api/log/**", (route) => route.abort());
  await typedSet(page, ["70", "69", "68"]);
  await expect(page.getByText(/no link; \d+ kept here/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/no link; \d+ kept here/)).toBeVisible();
  await expect(page.getByRole("list", { name: "Who is next" })).toContainText("set 6");
  await page.unroute("**/api/log/**");
  await allSent(page);
  await page.context().close();
});

test("@long the database dies: a sentence, the typed text stays, and it goes on when it is back", async ({
  browser,
  baseURL,
}) => {
  const cluster = await startCluster(process.env.CLUSTER_DATA ?? "", 54420);
  const context = await browser.newContext({ baseURL, storageState: stateFile("coach") });
  const page = await context.newPage();
  await page.goto("/athletes");
  await page.getByRole("link", { name: "Liv Estrand" }).click();
  await page.getByRole("link", { name: "Add a record" }).click();
  const form = page.getByRole("form", { name: "New record" });
  await form.getByLabel("Load").fill("84");
  await form.getByLabel("Note").fill("typed before the crash");
  const rack = await rackPage(browser, baseURL ?? "", 2);

  cluster.crash();
  try {
    await form.getByRole("button", { name: "Keep this record" }).click();
    await expect(form.getByText(/Nothing you typed is lost/)).toBeVisible();
    await expect(form.getByLabel("Note")).toHaveValue("typed before the crash");
    await typedSet(rack, ["88", "87", "86"]);
    await expect(rack.getByText(/no link; \d+ kept here/)).toBeVisible();

    const fresh = await context.newPage();
    const response = await fresh.goto("/plan");
    expect(response?.status()).toBe(503);
    await expect(
      fresh.getByRole("heading", { name: "The database does not answer" }),
    ).toBeVisible();
    const shown = (await fresh.locator("main").textContent()) ?? "";
    expect(shown).toMatch(/request [0-9a-f-]{36}/);
    expect(response?.headers()["x-request-id"]).toBe(/request ([0-9a-f-]{36})/.exec(shown)?.[1]);
    expect(shown).not.toMatch(/ECONN|postgres|\.ts:\d+/);
  } finally {
    cluster.start();
  }
  await form.getByLabel("Lift").selectOption("Bench press, straight bar");
  await form.getByRole("button", { name: "Keep this record" }).click();
  await expect(page.getByText("Kept. Its lift's line opens")).toBeVisible();
  await openPart(page, "Bench press, straight bar");
  await expect(page.getByRole("row").filter({ hasText: "typed before the crash" })).toBeVisible();
  await allSent(rack);
  await context.close();
  await rack.context().close();
});

test("@long a port in use, and a database that is away at the start, are said in one sentence", async ({
  baseURL,
}) => {
  const port = new URL(baseURL ?? "").port;
  const run = async (env: Record<string, string>) => {
    const { spawnSync } = await import("node:child_process");
    return spawnSync(process.execPath, ["scripts/serve.mjs"], {
      encoding: "utf8",
      env: { ...process.env, LOG_LEVEL: "silent", ...env },
      timeout: 30_000,
    });
  };
  const taken = await run({ PORT: port });
  expect(taken.status).toBe(1);
  expect(taken.stderr.trim()).toBe(`Port ${port} on 127.0.0.1 is in use. Set PORT to a free one.`);

  const free = String(await freePort(4350));
  const away = await run({ PORT: free, DATABASE_URL: "postgres://sprezza_app:x@127.0.0.1:1/none" });
  expect(away.status).toBe(1);
  expect(away.stderr.trim()).toMatch(/^The database does not answer at 127\.0\.0\.1:1\. /);
  expect(away.stderr).not.toMatch(/at \w+ \(/);

  const missing = await run({ PORT: free, SESSION_SECRET: "short" });
  expect(missing.status).toBe(1);
  expect(missing.stderr).toContain("SESSION_SECRET");
  expect(missing.stderr).not.toMatch(/at \w+ \(/);
});
