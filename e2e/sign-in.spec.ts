import { stateFile } from "./people";
import { expect, test } from "./test";

test("a wrong password is said, and the address stays typed", async ({ page }) => {
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill("coach@skerry.example");
  await page.getByLabel("Password").fill("not-the-password");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("Email and password do not match");
  await expect(page.getByLabel("Email")).toHaveValue("coach@skerry.example");
});

test("a malformed form is said field by field", async ({ page }) => {
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill("coach");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByText(/Write your email address/)).toBeVisible();
  await expect(page.getByText("Write your password.")).toBeVisible();
});

test("an expired session leads back to where one was", async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, storageState: stateFile("owner") });
  const page = await context.newPage();
  await page.goto("/gear");
  await expect(page.getByRole("heading", { name: "Gear" })).toBeVisible();
  await context.clearCookies();
  await page.getByRole("link", { name: "Plan" }).click();
  await page.waitForURL(/sign-in\?to=%2Fplan/);
  await expect(page.getByText("Sign in to go on.")).toBeVisible();
  await page.getByLabel("Email").fill("owner@skerry.example");
  await page.getByLabel("Password").fill("skerry-coast-demo");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL(/\/plan$/);
  await context.close();
});

test("sign-in never leads to another site", async ({ page }) => {
  for (const to of ["https://elsewhere.example", "//elsewhere.example", "/\\elsewhere.example"]) {
    await page.goto(`/sign-in?to=${encodeURIComponent(to)}`);
    await expect(page.locator("input[name=to]")).toHaveValue("/");
  }
});

test("works without script", async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto("/sign-in");
  await page.getByLabel("Email").fill("assistant@skerry.example");
  await page.getByLabel("Password").fill("skerry-coast-demo");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Floor" })).toBeVisible();
  await page.goto("/athletes");
  await expect(page.getByRole("link", { name: "Maren Solhaug" })).toBeVisible();
  await context.close();
});

test("a tablet is paired by a code and waits for its rack's session", async ({
  browser,
  baseURL,
}) => {
  const coach = await browser.newContext({ baseURL, storageState: stateFile("coach") });
  const desk = await coach.newPage();
  await desk.goto("/tablets");
  await desk.getByLabel("Rack", { exact: true }).selectOption({ label: "Dojo gym, rack 3" });
  await desk.getByRole("button", { name: "Give me a code" }).click();
  const code = (await desk.getByTestId("pairing-code").textContent()) ?? "";

  const tablet = await browser.newContext({ baseURL, viewport: { width: 1024, height: 768 } });
  const page = await tablet.newPage();
  await page.goto("/pair");
  await page.getByLabel("Code").fill(code.startsWith("AAA") ? "BBB-000000" : "AAA-000000");
  await page.getByRole("button", { name: "Pair" }).click();
  await expect(page.getByText(/This code does not open a rack/)).toBeVisible();
  await page.getByLabel("Code").fill(code);
  await page.getByRole("button", { name: "Pair" }).click();
  await expect(page.getByRole("heading", { name: "This tablet is paired" })).toBeVisible();

  const response = await page.goto("/athletes");
  expect(response?.status()).toBe(403);
  await expect(page.getByText(/Your role does not allow this/)).toBeVisible();

  await desk.reload();
  await desk
    .getByRole("row", { name: /Dojo gym, rack 3/ })
    .getByRole("button", { name: "Take off" })
    .click();
  await expect(desk.getByRole("row", { name: /Dojo gym, rack 3/ })).toContainText("taken off");
  const after = await page.goto("/");
  expect(after?.status()).toBe(403);
  await coach.close();
  await tablet.close();
});

// Last: it uses up the address's tries.
test("too many tries are stopped for a minute", async ({ page }) => {
  await page.goto("/sign-in");
  await expect(async () => {
    await page.getByLabel("Email").fill("coach@skerry.example");
    await page.getByLabel("Password").fill("wrong-wrong-wrong");
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page.getByRole("alert")).toContainText("Too many tries", { timeout: 600 });
  }).toPass({ timeout: 40_000, intervals: [50] });
});
