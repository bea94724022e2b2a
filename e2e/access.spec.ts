import { createHash } from "node:crypto";
import { readdirSync } from "node:fs";
import { request } from "@playwright/test";
import postgres from "postgres";
import { ROUTE_RIGHTS } from "../app/platform/rights";
import { secondTeam, stateFile } from "./people";
import { expect, test } from "./test";

/**
 * Signs in as another team, and as every role, and tries every route of the table of rights. The
 * table itself is compared with app/routes.ts in scripts/layout.test.ts, so a route that is added
 * uncovered fails there or here.
 */
const admin = postgres(
  (process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_browser"),
  { max: 1 },
);
test.afterAll(() => admin.end());

/** Streams that never end. */
const ENDLESS = ["/api/live/:sessionId", "/api/sensor/:rackId"];

/** A followed calendar of ours, made for this test: open to whoever has its address. */
const FEED_TOKEN = "a-calendar-that-is-followed";

/** Ids of Skerry Coast for the parameters of an address. */
async function skerryIds(): Promise<Record<string, string>> {
  const [session] = await admin`
    SELECT s.id, s.frozen->'stations'->0->>'id' AS rack FROM training_session s
    JOIN team t ON t.id = s.team_id WHERE t.name = 'Skerry Coast' AND s.status = 'running' AND s.plan_id IS NOT NULL LIMIT 1`;
  const [athlete] = await admin`
    SELECT a.id FROM athlete a JOIN team t ON t.id = a.team_id WHERE t.name = 'Skerry Coast' LIMIT 1`;
  const [plan] = await admin`
    SELECT p.id FROM plan p JOIN team t ON t.id = p.team_id WHERE t.name = 'Skerry Coast' LIMIT 1`;
  const [test] = await admin`
    SELECT p.id FROM profile_test p JOIN team t ON t.id = p.team_id
    WHERE t.name = 'Skerry Coast' AND p.athlete_id = ${athlete?.id ?? ""} LIMIT 1`;
  const [room] = await admin`
    SELECT r.id FROM room r JOIN team t ON t.id = r.team_id WHERE t.name = 'Skerry Coast' LIMIT 1`;
  const [variant] = await admin`
    SELECT v.id FROM lift_variant v JOIN team t ON t.id = v.team_id WHERE t.name = 'Skerry Coast' LIMIT 1`;
  const [recipe] = await admin`
    SELECT r.id FROM team_recipe r JOIN team t ON t.id = r.team_id WHERE t.name = 'Skerry Coast' LIMIT 1`;
  const [run] = await admin`
    SELECT s.id FROM training_session s JOIN team t ON t.id = s.team_id
    WHERE t.name = 'Skerry Coast' AND s.plan_id IS NULL LIMIT 1`;
  const hash = createHash("sha256").update(FEED_TOKEN).digest("hex");
  await admin`
    INSERT INTO calendar_feed (team_id, id, plan_id, token_hash, entered_by, entered_at)
    SELECT p.team_id, gen_random_uuid(), p.id, ${hash}, 'test', now() FROM plan p
    WHERE p.id = ${plan?.id ?? ""} AND NOT EXISTS (SELECT 1 FROM calendar_feed WHERE token_hash = ${hash})`;
  return {
    token: `${FEED_TOKEN}.ics`,
    variantId: variant?.id,
    recipeFile: `${recipe?.id}.json`,
    planFile: "loads.csv",
    roomFile: "room.csv",
    roomId: room?.id,
    testId: test?.id,
    runId: run?.id,
    file: "records.csv",
    weekFile: "week.md",
    reviewFile: "sets.csv",
    sessionId: session?.id,
    rackId: session?.rack,
    athleteId: athlete?.id,
    planId: plan?.id,
  };
}

const fill = (pattern: string, ids: Record<string, string>) =>
  pattern.replace(/:(\w+)/g, (_, name: string) => ids[name] ?? "missing");

const NAMES = ["Maren Solhaug", "Cato Brekke", "Skerry Coast", "Noor Halden", "Boathouse"];

test("another team gets nothing of ours from any route", async ({ baseURL }) => {
  const ids = await skerryIds();
  const stranger = await request.newContext({ baseURL, storageState: stateFile("second") });
  for (const rule of ROUTE_RIGHTS) {
    const address = fill(rule.path, ids);
    for (const path of [address, `${address === "/" ? "/_root" : address}.data`]) {
      if (ENDLESS.includes(rule.path) && path.endsWith(".data")) continue;
      const response = await stranger.get(path, { maxRedirects: 0 });
      const body = await response.text();
      for (const name of NAMES) expect(body, `${path} shows ${name}`).not.toContain(name);
      // Another team's own files have the same names.
      const own = [
        "/data/out/:file",
        "/review/week/out/:weekFile",
        "/feed/:token",
        "/join/:token",
        "/reset/:token",
      ].includes(rule.path);
      if (rule.path.includes(":") && !own) expect(response.status(), path).not.toBe(200);
    }
    if (rule.write && rule.path.includes(":")) {
      const response = await stranger.post(address, {
        form: { intent: "override", athleteId: ids.athleteId ?? "", setKey: "w1.s1.1", load: "60" },
        maxRedirects: 0,
      });
      const body = await response.text();
      for (const name of NAMES) expect(body, `POST ${address} shows ${name}`).not.toContain(name);
    }
  }
  const [changed] = await admin`
    SELECT (SELECT count(*)::int FROM plan p JOIN team t ON t.id = p.team_id,
              jsonb_object_keys(p.block -> 'overrides') AS k
            WHERE t.name = 'Skerry Coast' AND k LIKE '%w1.s1.1') AS overrides,
           (SELECT count(*)::int FROM training_session s JOIN team t ON t.id = s.team_id
            WHERE t.name = 'Skerry Coast' AND s.status = 'running' AND s.id = ${ids.sessionId ?? ""}) AS running`;
  expect(changed).toEqual({ overrides: 0, running: 1 });
  await stranger.dispose();
});

test("nobody who is not signed in gets past the open doors", async ({ baseURL }) => {
  const ids = await skerryIds();
  const nobody = await request.newContext({ baseURL });
  for (const rule of ROUTE_RIGHTS) {
    const address = fill(rule.path, ids);
    const response = await nobody.get(address, { maxRedirects: 0 });
    if (rule.read === "anyone") expect(response.status(), address).toBeLessThan(400);
    else if (address.startsWith("/api/")) expect(response.status(), address).toBe(401);
    else {
      expect(response.status(), address).toBe(302);
      expect(response.headers().location).toContain("/sign-in");
    }
  }
  await nobody.dispose();
});

for (const [person, role] of [
  ["assistant", "assistant"],
  ["maren", "athlete"],
  ["coach", "coach"],
] as const) {
  test(`a ${role} reads and writes what the table says, and no more`, async ({ baseURL }) => {
    const ids = await skerryIds();
    const context = await request.newContext({ baseURL, storageState: stateFile(person) });
    for (const rule of ROUTE_RIGHTS) {
      if (ENDLESS.includes(rule.path) || rule.path === "/sign-out") continue;
      const address = fill(rule.path, ids);
      const mayRead = rule.read === "anyone" || rule.read.includes(role);
      const read = await context.get(address, { maxRedirects: 0 });
      // Of sessions an athlete gets their own: of the squad's it is not even said that they are there.
      if (role === "athlete" && mayRead && rule.path.includes(":sessionId"))
        expect(read.status(), `GET ${address}`).toBe(404);
      else if (mayRead) expect(read.status(), `GET ${address}`).toBeLessThan(400);
      else expect(read.status(), `GET ${address}`).toBe(403);

      const mayWrite =
        rule.write !== undefined && (rule.write === "anyone" || rule.write.includes(role));
      if (!mayWrite) {
        const write = await context.post(address, { form: { intent: "x" }, maxRedirects: 0 });
        expect([403, 405], `POST ${address}`).toContain(write.status());
      }
    }
    await context.dispose();
  });
}

test("a change from another site is not taken", async ({ baseURL }) => {
  const ids = await skerryIds();
  const context = await request.newContext({ baseURL, storageState: stateFile("coach") });
  for (const address of [`/api/log/${ids.sessionId}`, `/floor/${ids.sessionId}`, "/sign-out"]) {
    const response = await context.post(address, {
      headers: { origin: "https://elsewhere.example" },
      data: { entries: [{}] },
      maxRedirects: 0,
    });
    expect(response.status(), address).toBeGreaterThanOrEqual(400);
  }
  const still = await context.get("/floor", { maxRedirects: 0 });
  expect(still.status()).toBe(200);
  await context.dispose();
});

test("an unknown address says so, in words", async ({ page }) => {
  const response = await page.goto("/nowhere");
  expect(response?.status()).toBe(404);
  await expect(page.getByRole("heading", { name: "Not here" })).toBeVisible();
  expect(await page.content()).not.toMatch(/at \w+ \(.*:\d+:\d+\)/);
});

test("another team's address says so, in words, with a way on", async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, storageState: stateFile("coach") });
  const page = await context.newPage();
  await page.goto(`/athletes/${secondTeam().athleteId}`);
  await expect(page.getByText("This athlete is not in your team. Open the list.")).toBeVisible();
  await page.getByRole("link", { name: "Go to the start" }).click();
  await expect(page.getByRole("heading", { name: "Floor" })).toBeVisible();
  await context.close();
});

test("every route module is a file of the routes folder that some rule covers", () => {
  const places = readdirSync("app/routes", { withFileTypes: true })
    .filter((one) => one.isDirectory())
    .map((one) => one.name)
    .sort();
  expect(places).toEqual([
    "api",
    "athletes",
    "card",
    "data",
    "floor",
    "frame",
    "gear",
    "home",
    "lab",
    "library",
    "people",
    "plan",
    "rack",
    "review",
    "sign-in",
    "start",
    "tablets",
  ]);
});
