import { stateFile } from "./people";
import { test } from "./test";

test.use({ storageState: stateFile("coach"), viewport: { width: 1280, height: 800 } });
test("look", async ({ page }) => {
  page.setDefaultTimeout(20000);
  const t = Date.now();
  await page.goto("/review");
  console.log("first", Date.now() - t, page.url());
  const groups = await page.locator("select").first().locator("option").allTextContents();
  console.log(groups.join(", "));
  for (const g of groups) {
    await page.locator("select").first().selectOption({ label: g });
    await page.waitForTimeout(500);
    console.log(
      g,
      "|",
      await page.locator("main h2").allTextContents(),
      (await page.locator("main li button").allTextContents()).join(" / "),
    );
    if (g === "Sprint canoe") await page.screenshot({ path: "/tmp/rev1.png", fullPage: true });
    if (g === "Sprint kayak") await page.screenshot({ path: "/tmp/rev2.png", fullPage: true });
  }
  await page.goto("/review/wave");
  await page.waitForTimeout(300);
  const o = await page.locator("select").first().locator("option").allTextContents();
  console.log(o.slice(0, 8));
  await page
    .locator("select")
    .first()
    .selectOption({ index: o.findIndex((x) => x.startsWith("2026-02-06")) });
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/wave2.png" });
});
