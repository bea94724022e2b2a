import { execFileSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium, type Page } from "@playwright/test";
import { CHROMIUM } from "../playwright.config";
import { freePort } from "../scripts/cluster.mjs";
import { startServer } from "../scripts/run.mjs";
import { entriesOf, makeSession } from "./floor-session";
import { expect, test } from "./test";

/**
 * A tablet on the local network, over HTTPS, whose server goes away: it is loaded anew, restarted,
 * and lifts on; when the server is back, everything is there once.
 */
test("@long a tablet without its server is loaded anew, restarted, lifts on, and loses nothing", async () => {
  const folder = mkdtempSync(path.join(tmpdir(), "sprezza-offline-"));
  const [key, cert] = [path.join(folder, "key.pem"), path.join(folder, "cert.pem")];
  const asked = ["req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "1"];
  const named = ["-subj", "/CN=127.0.0.1", "-addext", "subjectAltName=IP:127.0.0.1"];
  execFileSync("openssl", [...asked, ...named, "-keyout", key, "-out", cert], { stdio: "ignore" });
  const port = String(await freePort(4480));
  const start = () =>
    startServer({
      ...process.env,
      PORT: port,
      NODE_ENV: "production",
      TLS_KEY: key,
      TLS_CERT: cert,
    });
  const tablet = () =>
    chromium.launchPersistentContext(path.join(folder, "profile"), {
      ...CHROMIUM,
      // A service worker's script is fetched by rules of its own: the option of a context is not enough.
      args: [...CHROMIUM.args, "--ignore-certificate-errors"],
      ignoreHTTPSErrors: true,
      baseURL: `https://127.0.0.1:${port}`,
      viewport: { width: 1024, height: 768 },
    });
  const session = await makeSession("Offline, a tablet", { sets: 6 });
  const rackPath = `/rack/${session.id}/${session.rackId}`;
  const liftOne = async (page: Page) => {
    await page.getByTestId("load").waitFor();
    // The key does nothing to a set that is done: it is pressed until the page takes keys.
    await expect(async () => {
      await page.keyboard.press("=");
      await expect(page.getByTestId("verdict")).toHaveText(/^By eye/, { timeout: 1000 });
    }).toPass();
    await page.keyboard.press("n");
    await expect(page.getByTestId("verdict")).toHaveText(/^Ready/);
  };

  let server = start();
  await server.address;
  let context = await tablet();
  let page = context.pages()[0] ?? (await context.newPage());
  try {
    await page.goto("/floor");
    await page.getByLabel("Email").fill("coach@skerry.example");
    await page.getByLabel("Password").fill("skerry-coast-demo");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL(/\/floor/);
    const cookie = (await context.cookies()).find((one) => one.name.includes("session_token"));
    expect(cookie).toMatchObject({ secure: true, httpOnly: true, sameSite: "Lax" });
    expect(await page.evaluate(() => window.isSecureContext)).toBe(true);
    await page.goto(`/floor/${session.id}`);
    await expect(page.getByText(/0 of 18 sets/)).toBeVisible();
    await page.waitForTimeout(1000);
    await page.goto(rackPath);
    await liftOne(page);
    await expect(page.getByText("saved here and sent")).toBeVisible();
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await page.waitForTimeout(3000);

    await server.stop();
    await liftOne(page);
    await page.reload();
    await liftOne(page);
    await expect(page.getByText(/no link; \d+ kept here/)).toBeVisible();
    expect(page.url()).toContain("/rack/offline?to=");

    // Switched off and on again.
    await context.close();
    context = await tablet();
    page = context.pages()[0] ?? (await context.newPage());
    await page.goto(rackPath);
    await liftOne(page);
    await expect(page.getByRole("heading", { level: 1 })).toContainText("set 2 of 6");

    // The floor too, with what waits here; another page says what it needs.
    await page.goto(`/floor/${session.id}`);
    await expect(page.getByText(/4 of 18 sets/)).toBeVisible();
    await expect(page.getByRole("button", { name: "End the session" })).toHaveCount(0);
    await page.goto("/plan");
    await expect(page.getByRole("heading", { name: "This page needs the network" })).toBeVisible();
    await expect(page.getByRole("link", { name: /Offline, a tablet: rack/ })).toBeVisible();

    // What the browser's cache holds shows nobody.
    const cached = await page.evaluate(async () => {
      const texts: string[] = [];
      for (const name of await caches.keys())
        for (const request of await (await caches.open(name)).keys())
          texts.push(await ((await caches.match(request))?.text() ?? ""));
      return texts;
    });
    expect(cached.length).toBeGreaterThan(50);
    for (const name of [...session.names, "Skerry Coast", "Callum"])
      expect(cached.filter((text) => text.includes(name))).toEqual([]);

    await page.goto("/plan");
    server = start();
    await server.address;
    // What was asked for, and not what stands in for it.
    await page.getByRole("button", { name: "Try again" }).click();
    await page.waitForURL("/plan");
    await page.goto(rackPath);
    await expect(page.getByText("saved here and sent")).toBeVisible({ timeout: 20_000 });
    expect(page.url()).not.toContain("offline");
    const setsDone = async () =>
      (await entriesOf(session.id)).filter((one) => one.kind === "set-done").length;
    await expect.poll(setsDone, { timeout: 20_000 }).toBe(4);
    const entries = await entriesOf(session.id);
    expect(new Set(entries.map((one) => one.id)).size).toBe(entries.length);
    expect(entries.filter((one) => one.doubt !== null)).toEqual([]);
  } finally {
    await context.close().catch(() => {});
    await server.stop();
  }
});
