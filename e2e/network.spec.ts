import { execFileSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { freePort } from "../scripts/cluster.mjs";
import { startServer } from "../scripts/run.mjs";
import { allSent } from "./people";
import { expect, test } from "./test";

/** Tablets on the local network: HTTPS, Secure cookies, and a drop of the link in between. */
test("a tablet over HTTPS goes on without a link and sends when it is back", async ({
  browser,
}) => {
  test.setTimeout(90_000);
  const folder = mkdtempSync(path.join(tmpdir(), "sprezza-tls-"));
  const key = path.join(folder, "key.pem");
  const cert = path.join(folder, "cert.pem");
  const asked = ["req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "1"];
  const named = ["-subj", "/CN=127.0.0.1", "-addext", "subjectAltName=IP:127.0.0.1"];
  execFileSync("openssl", [...asked, ...named, "-keyout", key, "-out", cert], { stdio: "ignore" });
  const server = startServer({
    ...process.env,
    PORT: String(await freePort(4400)),
    NODE_ENV: "production",
    TLS_KEY: key,
    TLS_CERT: cert,
  });
  const base = await server.address;
  expect(base).toMatch(/^https:/);
  try {
    const context = await browser.newContext({
      baseURL: base,
      ignoreHTTPSErrors: true,
      viewport: { width: 1024, height: 768 },
    });
    const page = await context.newPage();
    await page.goto("/floor");
    await page.getByLabel("Email").fill("coach@skerry.example");
    await page.getByLabel("Password").fill("skerry-coast-demo");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL(/\/floor/);
    const cookie = (await context.cookies()).find((one) => one.name.includes("session_token"));
    expect(cookie).toMatchObject({ secure: true, httpOnly: true, sameSite: "Lax" });
    expect(await page.evaluate(() => window.isSecureContext)).toBe(true);

    await page
      .getByRole("link", { name: /Sprint kayak, week 2/ })
      .first()
      .click();
    await page.getByRole("link", { name: "Open rack 3" }).click();
    await page.getByTestId("load").waitFor();
    // The sensor comes a moment after the screen.
    await page.waitForTimeout(3000);
    await context.setOffline(true);
    await page.getByRole("button", { name: "Lift (simulated)" }).click();
    await expect(page.getByText(/^Ended by/)).toBeVisible({ timeout: 30_000 });
    await expect(page.getByText(/no link; \d+ kept here/)).toBeVisible();
    await context.setOffline(false);
    await allSent(page);
    await context.close();
  } finally {
    await server.stop();
  }
});
