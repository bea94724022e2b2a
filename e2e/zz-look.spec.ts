import { stateFile } from "./people";
import { test } from "./test";

test.use({ storageState: stateFile("coach"), viewport: { width: 1280, height: 800 } });
test("look", async ({ page }) => {
  page.setDefaultTimeout(20000);
  const t = Date.now();
  await page.goto("/review/wave");
  await page.locator("select").first().selectOption({ index: 5 });
  await page.waitForTimeout(800);
  console.log("first", Date.now() - t, page.url());
  await page.screenshot({ path: "/tmp/wave1.png" });
  const opts = await page.locator("select").first().locator("option").allTextContents();
  console.log(opts.slice(0, 30).join("\n"));
  for (let i = 0; i < 4; i++) {
    const t2 = Date.now();
    await page.reload();
    console.log("again", Date.now() - t2);
  }
  await page.screenshot({ path: "/tmp/wave2.png", fullPage: true });
});
