import { randomUUID } from "node:crypto";
import { request } from "@playwright/test";
import { openPart } from "./athlete-part";
import { admin, endOwnSessions, makeSession } from "./floor-session";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

/** Each sees and does what is theirs: own sign-ins, roles that change, people who come and go. */
test.afterAll(endOwnSessions);

const WORDS = { email: "assistant@skerry.example", password: "skerry-coast-demo", to: "/" };

/** A new sign-in of the assistant: its cookies. */
async function signInAgain(baseURL: string): Promise<string> {
  const context = await request.newContext({ baseURL });
  await context.post("/sign-in", { form: WORDS, maxRedirects: 0 });
  const { cookies } = await context.storageState();
  await context.dispose();
  return cookies.map((one) => `${one.name}=${one.value}`).join("; ");
}

/** Follows a session; gives how to learn when the stream ended, ms after `from`. */
async function follow(baseURL: string, cookie: string, sessionId: string) {
  const answer = await fetch(`${baseURL}/api/live/${sessionId}?after=0`, { headers: { cookie } });
  expect(answer.status).toBe(200);
  const ended = (async () => {
    for await (const _ of answer.body ?? []) {
      // Whatever comes, until it ends.
    }
    return performance.now();
  })().catch(() => performance.now());
  return { ended };
}

test.describe("an open stream ends within a second", () => {
  test.use({ storageState: stateFile("coach") });

  test("when its person ends that sign-in elsewhere", async ({ browser, baseURL }) => {
    const base = baseURL ?? "";
    const session = await makeSession("Rights, signed out");
    const away = await signInAgain(base);
    const stream = await follow(base, away, session.id);
    const nobody = { cookies: [], origins: [] };
    const context = await browser.newContext({ baseURL: base, storageState: nobody });
    const here = await context.newPage();
    await here.goto("/sign-in");
    await here.getByLabel("Email").fill(WORDS.email);
    await here.getByLabel("Password").fill(WORDS.password);
    await here.getByRole("button", { name: "Sign in" }).click();
    await here.waitForURL(/\/floor/);
    await here.getByRole("button", { name: /^Menu of/ }).click();
    await here.getByRole("link", { name: "Your sign-in and teams" }).click();
    const places = here.getByRole("region", { name: "Where you are signed in" });
    await expect(places.getByText("· this one")).toHaveCount(1);
    const rows = await places.getByRole("row").count();
    const [from] = await Promise.all([
      here.waitForResponse(/account/).then(() => performance.now()),
      here.getByRole("button", { name: "End all others" }).click(),
    ]);
    expect((await stream.ended) - from).toBeLessThan(1000);
    await expect(here.getByText(/\d+ ended\. Screens/)).toBeVisible();
    expect(rows).toBeGreaterThan(2);
    await expect(places.getByRole("row")).toHaveCount(2);
    const again = await fetch(`${base}/api/live/${session.id}`, { headers: { cookie: away } });
    expect(again.status).toBe(401);
    await again.body?.cancel();
    await context.close();
    // The other tests are signed in as the assistant with a state of before.
    await restoreAssistant(base);
  });

  test("when its person's role changes, and comes back with the rights of the new one", async ({
    baseURL,
  }) => {
    const base = baseURL ?? "";
    const session = await makeSession("Rights, another role");
    const cookie = await signInAgain(base);
    const stream = await follow(base, cookie, session.id);
    const from = performance.now();
    await admin`UPDATE membership SET role = 'athlete' WHERE name = (
      SELECT m.name FROM membership m JOIN auth."user" u ON u.id = m.user_id WHERE u.email = ${WORDS.email})`;
    try {
      expect((await stream.ended) - from).toBeLessThan(1000);
      const again = await fetch(`${base}/api/live/${session.id}`, { headers: { cookie } });
      // An athlete follows what they train alone: of the squad's it is not said that it is there.
      expect(again.status).toBe(404);
      await again.body?.cancel();
    } finally {
      await admin`UPDATE membership SET role = 'assistant' WHERE user_id = (
        SELECT id FROM auth."user" WHERE email = ${WORDS.email})`;
    }
  });
});

/** Signs the assistant in anew where the tests keep their states. */
async function restoreAssistant(baseURL: string): Promise<void> {
  const context = await request.newContext({ baseURL });
  await context.post("/sign-in", { form: WORDS, maxRedirects: 0 });
  await context.storageState({ path: stateFile("assistant") });
  await context.dispose();
}

test.describe("people who come and go", () => {
  test.use({ storageState: stateFile("owner") });

  async function add(page: Page, name: string): Promise<void> {
    await page.goto("/athletes");
    await page.getByText("Add an athlete").click();
    const form = page.getByRole("group").filter({ has: page.getByLabel("Name", { exact: true }) });
    await form.getByLabel("Name", { exact: true }).fill(name);
    await form.getByRole("button", { name: "Add" }).click();
  }

  test("the same name asks first; archived, brought back, and erased for good", async ({
    page,
    browser,
    baseURL,
  }) => {
    const name = `Jorun Vik${randomUUID().slice(0, 4)}`;
    await add(page, name);
    await expect(page.getByRole("link", { name })).toHaveCount(1);
    await add(page, name.toUpperCase());
    await expect(page.getByText(`${name} is here already`)).toBeVisible();
    await expect(page.getByRole("link", { name })).toHaveCount(1);

    await page.getByRole("link", { name }).click();
    await openPart(page, "Leaving");
    await page.getByRole("button", { name: "Archive" }).click();
    await expect(page.getByText("Archived: on no list and in no new session")).toBeVisible();
    await page.goto("/athletes");
    await expect(page.getByRole("row").filter({ hasText: name })).toHaveCount(0);
    await page.getByRole("link", { name }).click();
    await page.getByRole("button", { name: "Bring back" }).click();
    await openPart(page, "Leaving");
    await expect(page.getByRole("button", { name: "Archive" })).toBeVisible();

    // A coach archives and does not erase.
    const address = page.url();
    const coach = await browser.newContext({
      baseURL: baseURL ?? "",
      storageState: stateFile("coach"),
    });
    const other = await coach.newPage();
    await other.goto(address);
    await expect(other.getByRole("button", { name: "Archive" })).toBeVisible();
    await expect(other.getByText("Erase for good")).toHaveCount(0);
    await coach.close();

    await page.getByText("Erase for good").click();
    await page.getByLabel(`Type the whole name: ${name}`).fill("Jorun");
    await page.getByRole("button", { name: "Erase this person" }).click();
    await expect(page.getByText(`Type the whole name as it stands: ${name}.`)).toBeVisible();
    await page.getByLabel(`Type the whole name: ${name}`).fill(name);
    await page.getByRole("button", { name: "Erase this person" }).click();
    await expect(page.getByRole("heading", { name: "Erased athlete" })).toBeVisible();
    await page.reload();
    expect(await page.content()).not.toContain(name);
    await page.goto("/athletes");
    expect(await page.content()).not.toContain(name);
  });
});
