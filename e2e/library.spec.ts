import { stateFile } from "./people";
import { expect, test } from "./test";

test.use({ storageState: stateFile("coach") });

test("an exercise is added, changed, put away; its steps never run in a circle", async ({
  page,
}) => {
  await page.goto("/library");
  const form = page.getByRole("form", { name: "Exercise" });
  await form.getByLabel("Name").fill("Box squat, chains");
  await form.getByRole("button", { name: "Add the exercise" }).click();
  await expect(form.getByText("Choose at least one main muscle.")).toBeVisible();
  await form.getByRole("group", { name: "Main muscles" }).getByLabel("glutes").check();
  await form.getByLabel("Easier one").selectOption("Box squat");
  await form.getByRole("button", { name: "Add the exercise" }).click();
  await expect(page.getByRole("row", { name: /^Box squat, chains/ })).toContainText("↓ Box squat");

  await page.getByLabel("Find").fill("box squat");
  await page.getByRole("link", { name: "Box squat", exact: true }).click();
  await expect(form.getByRole("heading", { name: "Box squat" })).toBeVisible();
  await form.getByLabel("Easier one").selectOption("Box squat, chains");
  await form.getByRole("button", { name: "Keep the change" }).click();
  await expect(form.getByText("Box squat, chains is a harder version of this one")).toBeVisible();

  await page.getByRole("link", { name: "Box squat, chains", exact: true }).click();
  await expect(form.getByRole("heading", { name: "Box squat, chains" })).toBeVisible();
  await page.getByRole("button", { name: "Put away" }).click();
  await expect(page.getByRole("link", { name: "Box squat, chains", exact: true })).toHaveCount(0);
  await page.getByLabel("put away").check();
  await expect(page.getByRole("link", { name: "Box squat, chains", exact: true })).toBeVisible();
});

test("a lift's max by ratio reaches the athlete's page, with the chain in the margin", async ({
  page,
}) => {
  await page.goto("/library/lifts");
  await page.getByRole("link", { name: "Box squat, parallel, straight bar" }).click();
  const form = page.getByRole("form", { name: "Lift variant" });
  await expect(form.getByRole("heading", { name: "Box squat, parallel" })).toBeVisible();
  await form.getByLabel("Ratio").fill("most");
  await form.getByRole("button", { name: "Keep the change" }).click();
  await expect(form.getByText("A ratio between 0.1 and 2, for example 0.7.")).toBeVisible();
  await form.getByLabel("Ratio").fill("0,7");
  await form.getByRole("button", { name: "Keep the change" }).click();
  await expect(form.getByText("Kept.")).toBeVisible();

  await page.goto("/athletes");
  await page.getByRole("link", { name: "Ilse Brandvik" }).click();
  // 0.7 × 107.5 kg.
  await page.getByRole("button", { name: "75.3 kg" }).click();
  const working = page.getByRole("region", { name: "Working" });
  await expect(working).toContainText("Tested in training");
  await expect(working).toContainText("× 0.7");
  await expect(working).toContainText("ratio set by a coach");

  // A base that leads back is refused.
  await page.goto("/library/lifts");
  await page.getByRole("link", { name: "Back squat, straight bar", exact: true }).click();
  await expect(form.getByRole("heading", { name: "Back squat" })).toBeVisible();
  await form.getByLabel("Max from").selectOption("the same max as another lift");
  await form.getByLabel("Of", { exact: true }).selectOption("Box squat, parallel, straight bar");
  await form.getByRole("button", { name: "Keep the change" }).click();
  await expect(form.getByText("The base of this lift leads back to it.")).toBeVisible();
});

test("a usual number is the team's to change, shows what it decides, and comes back", async ({
  page,
}) => {
  await page.goto("/library/coach-set");
  await page.waitForLoadState("networkidle");
  await expect(page.getByText("All stand as shipped.")).toBeVisible();
  const share = page.getByRole("form", { name: /^Share of a group that opens the gate/ });
  await expect(page.getByText(/Usual: 80 %, coaching practice/).first()).toBeVisible();
  await share.getByLabel("%").fill("180");
  await share.getByRole("button", { name: "Keep" }).click();
  await expect(share.getByText(/between 1 and 100 %/)).toBeVisible();
  await share.getByLabel("%").fill("50");
  await share.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText("Your own: 1.")).toBeVisible();

  await page.goto("/athletes/box");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("Squad").selectOption("Judo");
  const gate = page.getByRole("region", { name: "The gate to heavy work" });
  await expect(gate).toContainText("4 needed (50 %, rounded up) and 2 weeks");

  await page.goto("/library/coach-set");
  await page.waitForLoadState("networkidle");
  await share.getByLabel("%").fill("");
  await share.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText("All stand as shipped.")).toBeVisible();
});
