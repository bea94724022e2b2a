import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync } from "node:fs";
import https from "node:https";
import path from "node:path";
import postgres from "postgres";
import { DEMO_PASSWORD } from "../db/demo/people";
import { openArchive } from "../db/kept/archive-import.server";
import { migrateTo } from "../db/kept/steps.server";
import { startCluster } from "../scripts/cluster.mjs";
import { makeRoles } from "../scripts/roles";
import { openPart } from "./athlete-part";
import { lookAt } from "./axe";
import { npmRun, npmStart, npmStop, type Started } from "./npm-start";
import { allSent, openRack, typeSpeeds } from "./people";
import { type Browser, expect, type Page, test } from "./test";

/**
 * What is kept for years: the running demo is backed up, comes back on another cluster, people sign
 * in there over a certificate of its own and train on; the team leaves as an archive and comes in
 * again; a database of before this turn answers after its upgrade.
 */
test.describe.configure({ mode: "serial" });
test.setTimeout(240_000);

const root = path.join("/var/tmp", `sprezza-kept-${process.pid}`);
const home = path.join(root, "home");
const old = path.join(root, "old");
const backups = path.join(root, "backups");
const file = path.join(root, "whole.zip");
const shift = process.env.BROWSER_PART === "b" ? 40 : 0;
const PORT = 5010 + shift;
const TRUST_PORT = PORT + 20;
const TOKEN = "a-token-for-the-collector-only";
const clock = { SPREZZA_NOW: process.env.SPREZZA_NOW ?? "", SPREZZA_DEMO: "1" };
let started: Started | undefined;

test.beforeAll(() => {
  rmSync(root, { recursive: true, force: true });
  mkdirSync(backups, { recursive: true });
});
test.afterAll(async () => {
  if (started) await npmStop(home, started);
  rmSync(root, { recursive: true, force: true });
});

async function signedIn(browser: Browser, address: string, email: string): Promise<Page> {
  const context = await browser.newContext({
    baseURL: address,
    storageState: { cookies: [], origins: [] },
    viewport: { width: 1280, height: 800 },
    ignoreHTTPSErrors: true,
  });
  const page = await context.newPage();
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill(email);
  await page.getByLabel("Password").fill(DEMO_PASSWORD);
  await page.getByRole("button", { name: "Sign in", exact: true }).click();
  await page.waitForURL(/\/floor/);
  return page;
}

test("@whole a backup while people train, and back on another cluster", async () => {
  expect(npmRun("backup", [], {}).said).toContain("Where to?");
  const none = npmRun("backup", [file], { SPREZZA_DATA: path.join(root, "nothing") });
  expect(none.status).toBe(1);
  expect(none.said).toContain("Whose data?");
  const kept = npmRun("backup", [file], { BACKUP_DATABASE_URL: process.env.BACKUP_DATABASE_URL });
  expect(kept.said).toMatch(/^Kept \d+ rows of \d+ tables in .*Read back and compared\.$/);
  expect(statSync(file).mode & 0o077).toBe(0);
  const again = npmRun("backup", [file], { BACKUP_DATABASE_URL: process.env.BACKUP_DATABASE_URL });
  expect(again.said).toBe(`${file} is there already. Name a file that is not.`);

  const back = npmRun("restore", [file], { SPREZZA_DATA: home });
  expect(back.said).toMatch(/^Restored \d+ rows of \d+ tables/);
  expect(back.said).toContain("npm start serves it; everybody signs in as before.");
  expect(npmRun("restore", [], { SPREZZA_DATA: home }).said).toContain("Which backup?");
  const strange = npmRun("restore", [file], {
    SPREZZA_DATA: home,
    DATABASE_URL: "postgres://x@127.0.0.1:1/x",
  });
  expect(strange.said).toContain("set ADMIN_DATABASE_URL");
});

test("@whole over a certificate of its own people sign in there and log a set", async ({
  browser,
}) => {
  const made = npmRun("certificate", ["gym.local", "127.0.0.1"], { SPREZZA_DATA: home });
  expect(made.status).toBe(0);
  const print = /^(([0-9A-F]{2} ){7}[0-9A-F]{2}\n?){4}/m.exec(made.said)?.[0].trim() ?? "";
  started = await npmStart(home, {
    ...clock,
    PORT: String(PORT),
    TRUST_PORT: String(TRUST_PORT),
    METRICS_TOKEN: TOKEN,
    BACKUP_FOLDER: backups,
    BACKUP_KEEP: "2",
  });
  expect(started.address).toBe(`https://127.0.0.1:${PORT}`);
  // The terminal's fingerprint and the page's are the same, and the file that it gives is enough.
  const trust = await (await fetch(`http://127.0.0.1:${TRUST_PORT}/`)).text();
  expect(print).not.toBe("");
  expect(trust).toContain(print);
  const ca = await (await fetch(`http://127.0.0.1:${TRUST_PORT}/sprezza-authority.crt`)).text();
  const health = await new Promise<number>((resolve, reject) => {
    https
      .get(`${started?.address}/health`, { ca }, (answer) => {
        answer.resume();
        resolve(answer.statusCode ?? 0);
      })
      .on("error", reject);
  });
  expect(health).toBe(200);

  const coach = await signedIn(browser, started.address, "coach@skerry.example");
  await coach.getByRole("link", { name: /kayak/i }).first().click();
  await coach.waitForURL(/\/floor\/[0-9a-f-]{36}/);
  await openRack(coach, 1);
  const said = await coach.getByTestId("load").textContent();
  expect(said).toMatch(/\d/);
  await typeSpeeds(coach, ["0.84", "0.83", "0.82"]);
  await allSent(coach);
  await coach.context().close();
});

test("@whole figures for a collector, behind a token", async () => {
  const ask = (at: string, token?: string) =>
    new Promise<{ status: number; text: string }>((resolve, reject) => {
      https
        .get(
          `${started?.address}${at}`,
          {
            rejectUnauthorized: false,
            headers: token ? { authorization: `Bearer ${token}` } : {},
          },
          (answer) => {
            let text = "";
            answer.on("data", (piece) => {
              text += String(piece);
            });
            answer.on("end", () => resolve({ status: answer.statusCode ?? 0, text }));
          },
        )
        .on("error", reject);
    });
  for (const at of ["/metrics", "/metrics/floor"]) {
    expect((await ask(at)).status).toBe(401);
    expect((await ask(at, `${TOKEN}x`)).status).toBe(401);
  }
  const pages = await ask("/metrics", TOKEN);
  expect(pages.status).toBe(200);
  expect(pages.text).toMatch(
    /^sprezza_request_seconds_count\{process="pages",method="POST",route="\/sign-in",status="20[02]"\} [1-9]/m,
  );
  expect(pages.text).toMatch(/^sprezza_database_up\{process="pages"\} 1$/m);
  expect(pages.text).toMatch(/^nodejs_eventloop_lag_p99_seconds/m);
  // No id, no name, no token is a label.
  expect(pages.text).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}/);
  const floor = await ask("/metrics/floor", TOKEN);
  expect(floor.text).toMatch(/^sprezza_log_entries_total\{process="floor"\} [1-9]/m);
  expect(floor.text).toMatch(/^sprezza_live_streams\{process="floor"\} \d/m);
  // Every line is a comment or a figure with its value: what a collector reads.
  for (const line of `${pages.text}${floor.text}`.split("\n"))
    expect(line).toMatch(/^(#.*|[a-zA-Z_:][\w:]*(\{[^}]*\})? (-?[\d.e+-]+|\+?Inf|NaN)|)$/);
});

test("@whole the daily backup is kept, and its page says when", async ({ browser }) => {
  await expect.poll(() => readdirSync(backups), { timeout: 60_000 }).toHaveLength(1);
  const owner = await signedIn(browser, started?.address ?? "", "owner@skerry.example");
  await expect(async () => {
    await owner.goto("/data/backup");
    await expect(owner.getByRole("row", { name: /Last good one/ })).not.toContainText("none", {
      timeout: 1000,
    });
  }).toPass({ timeout: 30_000 });
  await expect(owner.getByRole("row", { name: /It holds/ })).toContainText(/sprezza-.*\.zip/);
  await expect(owner.getByRole("row", { name: /Daily/ })).toContainText("the newest 2 are kept");
  const found = await lookAt(owner).analyze();
  expect(found.violations).toEqual([]);
  // Somebody is erased: noted beside the backups at once, by ids alone.
  await owner.goto("/athletes");
  await owner.getByRole("link", { name: "Cato Brekke" }).click();
  await owner.waitForURL(/\/athletes\/[0-9a-f-]{36}/);
  const erasedId = owner.url().split("/").at(-1) ?? "";
  await openPart(owner, "Leaving");
  await owner.getByText("Erase for good").click();
  const erasing = owner.locator("form").filter({ hasText: "Erase this person" });
  await erasing.getByRole("textbox").fill("Cato Brekke");
  await erasing.getByRole("button", { name: "Erase this person" }).click();
  const list = path.join(backups, "erasures.jsonl");
  const noted = () => (existsSync(list) ? readFileSync(list, "utf8") : "");
  await expect.poll(noted).toContain(erasedId);
  expect(noted()).not.toContain("Brekke");
  await owner.context().close();
});

test("@whole the team leaves as an archive and comes in again as another, the same", async ({
  browser,
}) => {
  const owner = await signedIn(browser, started?.address ?? "", "owner@skerry.example");
  const take = async (name: string) => {
    await owner.goto("/data/backup");
    const [download] = await Promise.all([
      owner.waitForEvent("download"),
      owner.getByRole("link", { name: "Take the archive" }).click(),
    ]);
    const to = path.join(root, name);
    await download.saveAs(to);
    return to;
  };
  const first = await take("first.zip");
  const { reader, manifest, people } = await openArchive(first);
  reader.close();
  expect(manifest.files.map((one) => one.path)).toContain("tables/sets.csv");

  await owner.goto("/account");
  await owner.getByText("A team from its archive").click();
  const form = owner.getByRole("form", { name: "A team from its archive" });
  await form.getByLabel("Archive").setInputFiles(first);
  await form.getByRole("button", { name: "Bring it in" }).click();
  await expect(
    owner.getByText("is one of your teams already. Give this one another"),
  ).toBeVisible();
  await form.getByLabel("Called here").fill("Skerry Moved");
  await form.getByRole("button", { name: "Bring it in" }).click();
  await owner.waitForURL(/\/people/, { timeout: 60_000 });
  await expect(owner.getByText("no link yet")).toHaveCount(people.length - 1);
  // The others come in by links of their own.
  await owner.getByRole("button", { name: "Make a link for Callum Reyk" }).click();
  const link = await owner.getByTestId("handed-link").inputValue();
  const coach = await (
    await browser.newContext({
      baseURL: started?.address,
      ignoreHTTPSErrors: true,
      storageState: { cookies: [], origins: [] },
    })
  ).newPage();
  await coach.goto(link);
  await coach.getByLabel("Email").fill("moved@skerry.example");
  await coach.getByLabel("Choose a password").fill("four words in a row");
  await coach.getByRole("button", { name: /^Join / }).click();
  await coach.waitForURL(/\/floor/);
  await coach.goto("/review");
  await expect(coach.locator('a[href^="/review/"]').first()).toBeVisible();
  await coach.context().close();

  const again = await openArchive(await take("again.zip"));
  again.reader.close();
  const files = (of: typeof manifest) =>
    of.files.filter(
      (one) => one.path !== "people.json" && one.path !== "data/membership_change.json",
    );
  expect(files(again.manifest)).toEqual(files(manifest));
  expect(again.manifest.settings).toEqual(manifest.settings);
  expect(again.manifest.team.name).toBe("Skerry Moved");

  // Half an archive: one sentence, and no team.
  await owner.goto("/account");
  await owner.getByText("A team from its archive").click();
  await form.getByLabel("Archive").setInputFiles({
    name: "half.zip",
    mimeType: "application/zip",
    buffer: readFileSync(first).subarray(0, 100_000),
  });
  await form.getByRole("button", { name: "Bring it in" }).click();
  await expect(owner.getByText(/is no archive of a team, or is not whole/)).toBeVisible();
  await expect(owner.getByRole("row", { name: /Skerry/ })).toHaveCount(2);
  await owner.context().close();
});

test("@whole nothing is put aside unless told to; who was erased since is erased again", async () => {
  const running = npmRun("restore", [file, "--replace"], { SPREZZA_DATA: home });
  expect(running.status).toBe(1);
  expect(running.said).toContain("is in use: nothing was changed. Stop the server");
  if (started) await npmStop(home, started);
  const size = statSync(file).size;
  const print = createHash("sha256").update(readFileSync(file)).digest("hex");
  const refused = npmRun("restore", [file], { SPREZZA_DATA: home });
  expect(refused.said).toContain("nothing was changed. To put it aside");
  // The folder of the daily backups knows whom to erase again.
  const list = path.join(backups, "erasures.jsonl");
  const back = npmRun("restore", [file, "--replace", "--erasures", list], { SPREZZA_DATA: home });
  expect(back.said).toContain("1 person who had been erased since was erased again.");
  expect(back.said).toMatch(/What was there before is kept as the database sprezza_before_\d+/);
  expect([
    statSync(file).size,
    createHash("sha256").update(readFileSync(file)).digest("hex"),
  ]).toEqual([size, print]);
});

test("@whole a database of an earlier version: its floor, plan and review answer", async ({
  browser,
}) => {
  const back = npmRun("restore", ["db/fixtures/installations/step-16.zip"], { SPREZZA_DATA: old });
  expect(back.said).toMatch(/^Restored \d+ rows of 58 tables/);
  started = await npmStart(old, { ...clock, PORT: String(PORT) });
  const coach = await signedIn(browser, started.address, "coach@skerry.example");
  await coach.getByRole("link", { name: /kayak/i }).first().click();
  await coach.waitForURL(/\/floor\/[0-9a-f-]{36}/);
  await expect(coach.getByRole("link", { name: "Open rack 1" })).toBeVisible();
  await openRack(coach, 1);
  await typeSpeeds(coach, ["0.84"]);
  await allSent(coach);
  await coach.goto("/plan");
  await coach.locator('a[href^="/plan/"]').first().click();
  await coach.waitForURL(/\/plan\/[0-9a-f-]{36}/);
  await coach.getByRole("link", { name: "Numbers", exact: true }).click();
  await expect(coach.locator("[data-figure]").first()).toBeVisible();
  await coach.goto("/review");
  await coach.locator("main tbody a[href^='/review/']").first().click();
  await coach.waitForURL(/\/review\/[0-9a-f-]{36}/);
  await expect(coach.getByRole("heading", { level: 1 })).toBeVisible();
  await expect(coach.locator("[data-figure]").first()).toBeVisible();
  await coach.goto("/athletes");
  await expect(coach.getByRole("link", { name: "Cato Brekke" })).toBeVisible();
  await coach.context().close();
  await npmStop(old, started);
  started = undefined;
});

test("@whole npm start brings an older database up to date, with a backup first", async () => {
  const up = path.join(root, "up");
  const cluster = await startCluster(path.join(up, "own"), 55_010 + shift, { kept: true });
  const admin = postgres(cluster.url("postgres", "postgres"), { max: 1, onnotice: () => {} });
  await makeRoles(admin, cluster.roles, "known");
  await admin.unsafe("CREATE DATABASE sprezza OWNER sprezza_owner");
  await admin.end();
  const owner = postgres(cluster.url("sprezza_owner", "sprezza"), { max: 1, onnotice: () => {} });
  await migrateTo(owner, 16);
  await owner.end();
  const all = postgres(cluster.url("postgres", "sprezza"), { max: 1 });
  await all`INSERT INTO team (id, name) VALUES (gen_random_uuid(), 'From Before')`;
  await all.end();
  cluster.stop();
  started = await npmStart(up, { PORT: String(PORT) });
  expect(started.said()).toMatch(/Brought up to date by \d+ steps\. As it was before \(1 row\): /);
  const [kept] = readdirSync(path.join(up, "upgrades"));
  expect(kept).toMatch(/^sprezza-before-step-17-\d+\.zip$/);
  await npmStop(up, started);
  started = undefined;
  const back = npmRun("restore", [path.join(up, "upgrades", kept ?? ""), "--replace"], {
    SPREZZA_DATA: up,
  });
  expect(back.said).toMatch(/^Restored 1 row of \d+ tables/);
});
