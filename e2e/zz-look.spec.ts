import { stateFile } from "./people";
import { test } from "./test";

test.use({ storageState: stateFile("coach"), viewport: { width: 1280, height: 800 } });
test("look", async ({ page }) => {
  page.setDefaultTimeout(20000);
  await page.goto(`/review/trends`);
  await page.waitForTimeout(2500);
  await page.screenshot({ path: "/tmp/l-trends.png", fullPage: true });
  await page.goto(`/review/week`);
  await page.screenshot({ path: "/tmp/l-week.png" });
  await page.goto(`/review/wave`);
  await page.locator("select").first().selectOption({ index: 9 });
  await page.waitForTimeout(700);
  await page.emulateMedia({ media: "print" });
  await page.setViewportSize({ width: 794, height: 1123 });
  await page.screenshot({ path: "/tmp/l-print.png", fullPage: true });
  await page.emulateMedia({ media: "screen" });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.screenshot({ path: "/tmp/l-phone.png" });
  const o = await page.locator("main").evaluate((m) => m.scrollWidth > m.clientWidth);
  console.log("overflow", o, await page.evaluate(() => document.documentElement.scrollWidth));
});
