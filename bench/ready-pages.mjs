/**
 * Main pages cold on a processor four times slower, in one run: when the last long task ends, how long all
 * of them take, and the script that comes with a page, compressed. Machines differ: hold one run's figures
 * against one another.
 *
 * `node scripts/with-database.mjs --serve node bench/ready-pages.mjs [page]`; N (3), LIST=1 names the files.
 */
import { chromium } from "@playwright/test";

const base = process.env.BASE_URL;
const [only] = process.argv.slice(2);
const rounds = Number(process.env.N ?? 3);
const SLOWED = 4;
const LOOKED_AT_MS = 3500;
const viewport = { width: 1280, height: 800 };
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-gpu"],
});

const first = await browser.newContext({ baseURL: base, viewport });
const desk = await first.newPage();
await desk.goto("/sign-in");
await desk.getByLabel("Email").fill("coach@skerry.example");
await desk.getByLabel("Password").fill("skerry-coast-demo");
await desk.getByRole("button", { name: "Sign in" }).click();
await desk.waitForURL((url) => !url.pathname.startsWith("/sign-in"));
const storageState = await first.storageState();
/** The address behind the first link of a page that fits. */
async function linked(path, fits) {
  await desk.goto(path);
  const all = await desk
    .locator("a[href]")
    .evaluateAll((links) => links.map((one) => one.pathname));
  return all.find((href) => fits.test(href));
}
const ID = "[0-9a-f-]{36}";
await desk.goto("/plan");
const plan = await desk
  .getByRole("link", { name: "Spring block", exact: true })
  .getAttribute("href");
const floor = await linked("/floor", new RegExp(`^/floor/${ID}$`));
const PAGES = {
  floor: "/floor",
  "floor session": floor,
  rack: await linked(floor, /^\/rack\//),
  plans: "/plan",
  board: plan,
  numbers: `${plan}?view=numbers`,
  athletes: "/athletes",
  athlete: await linked("/athletes", new RegExp(`^/athletes/${ID}$`)),
  profiles: "/athletes/profiles",
  lab: "/lab",
  review: "/review",
  wave: "/review/wave",
  trends: "/review/trends",
  block: "/review/block",
  gear: "/gear",
  library: "/library",
  pairing: "/floor/pairing",
  data: "/data",
};
await first.close();

/** One cold load: long tasks, and what of script came. */
async function look(path) {
  const context = await browser.newContext({ baseURL: base, storageState, viewport });
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send("Network.enable");
  await session.send("Emulation.setCPUThrottlingRate", { rate: SLOWED });
  const names = new Map();
  const files = [];
  session.on("Network.responseReceived", ({ requestId, type, response }) => {
    if (type === "Script" || /\.js(\?|$)/.test(response.url)) names.set(requestId, response.url);
  });
  session.on("Network.loadingFinished", ({ requestId, encodedDataLength }) => {
    const name = names.get(requestId);
    if (name) files.push({ name: name.split("/").pop(), kB: encodedDataLength / 1000 });
  });
  await page.addInitScript(() => {
    window.longTasks = [];
    new PerformanceObserver((list) => {
      for (const { startTime, duration } of list.getEntries())
        window.longTasks.push([startTime, duration]);
    }).observe({ type: "longtask", buffered: true });
  });
  await page.goto(path);
  await page.waitForTimeout(LOOKED_AT_MS);
  const tasks = await page.evaluate(() => window.longTasks);
  await context.close();
  return {
    readyMs: Math.max(0, ...tasks.map(([at, ms]) => at + ms)),
    longMs: tasks.reduce((sum, [, ms]) => sum + ms, 0),
    files,
  };
}

for (const [name, path] of Object.entries(PAGES)) {
  if (!path || (only && only !== name)) continue;
  const all = [];
  for (let i = 0; i < rounds; i++) all.push(await look(path));
  const { readyMs, longMs, files } = all.sort((a, b) => a.readyMs - b.readyMs)[all.length >> 1];
  const kB = files.reduce((sum, one) => sum + one.kB, 0);
  console.log(
    `${name.padEnd(14)} ready ${readyMs.toFixed(0)} ms, long tasks ${longMs.toFixed(0)} ms, script ${kB.toFixed(0)} kB`,
  );
  if (process.env.LIST)
    for (const one of files.sort((a, b) => b.kB - a.kB).slice(0, 12))
      console.log(`  ${one.kB.toFixed(1)} kB ${one.name}`);
}
await browser.close();
