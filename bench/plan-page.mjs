/**
 * The plan's page with 200 athletes and 12 weeks, in one run with what it is held against: a bare
 * server's one indexed query (the page at most 10 times of it, by the medians), and, on a
 * processor four times slower, how long a typed digit and an opened working hold up the page.
 *
 * `node scripts/with-database.mjs --serve node bench/plan-page.mjs`; ROUNDS (40).
 */
import http from "node:http";
import { chromium } from "@playwright/test";
import postgres from "postgres";
import { enlargePlan } from "../scripts/large-plan.mjs";
import { signIn } from "../scripts/soak-client.mjs";

const ROUNDS = Number(process.env.ROUNDS ?? 40);
const WARM_UP = 10;
const KEYS = 12;
const base = process.env.BASE_URL;
const url = process.env.ADMIN_DATABASE_URL.replace(
  /\/postgres$/,
  `/${process.env.DATABASE_NAME ?? "sprezza_browser"}`,
);
const p50 = (values) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

const planId = await enlargePlan(url);
const cookie = await signIn(base);

const sql = postgres(url, { max: 4, onnotice: () => {} });
const [one] = await sql`SELECT team_id, id FROM athlete LIMIT 1`;
const bare = http.createServer(async (_, answer) => {
  const rows =
    await sql`SELECT name FROM athlete WHERE team_id = ${one.team_id} AND id = ${one.id}`;
  answer.setHeader("content-type", "application/json");
  answer.end(JSON.stringify(rows));
});
await new Promise((resolve) => bare.listen(0, "127.0.0.1", resolve));
const bareUrl = `http://127.0.0.1:${bare.address().port}/`;

async function ask(address) {
  const startedAt = performance.now();
  const answer = await fetch(address, { headers: { cookie } });
  await answer.text();
  if (answer.status !== 200) throw new Error(`${address}: ${answer.status}`);
  return performance.now() - startedAt;
}

const pages = {
  plan: `${base}/plan/${planId}`,
  "plan, as data": `${base}/plan/${planId}.data`,
  floor: `${base}/floor`,
};
const times = { bare: [] };
for (const name of Object.keys(pages)) times[name] = [];
for (let round = 0; round < WARM_UP + ROUNDS; round++) {
  for (const [name, address] of [["bare", bareUrl], ...Object.entries(pages)]) {
    const ms = await ask(address);
    if (round >= WARM_UP) times[name].push(ms);
  }
}
const bareMs = p50(times.bare);
console.log(`bare indexed query: p50 ${bareMs.toFixed(2)} ms`);
for (const name of Object.keys(pages)) {
  const ms = p50(times[name]);
  console.log(`${name}: p50 ${ms.toFixed(1)} ms, ${(ms / bareMs).toFixed(1)} × the bare query`);
}

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-gpu"],
});
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
await context.addCookies(
  cookie.split("; ").map((pair) => {
    const [name, ...value] = pair.split("=");
    return { name, value: value.join("="), url: base };
  }),
);
const page = await context.newPage();
await page.goto(pages.plan);
await page.getByRole("form", { name: "Recipe" }).waitFor();
await page.waitForTimeout(3000);
const cdp = await context.newCDPSession(page);
await cdp.send("Emulation.setCPUThrottlingRate", { rate: 4 });
/** From an event until the frame that shows it has been painted, ms. */
const painted = (act) =>
  page.evaluate(
    ([kind, selector, key]) =>
      new Promise((resolve) => {
        const element = document.querySelector(selector);
        const startedAt = performance.now();
        if (kind === "click") element.click();
        else {
          const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
          set.call(element, key);
          element.dispatchEvent(new Event("input", { bubbles: true }));
        }
        requestAnimationFrame(() =>
          // A message comes after the frame was painted.
          {
            const channel = new MessageChannel();
            channel.port1.onmessage = () => resolve(performance.now() - startedAt);
            channel.port2.postMessage(undefined);
          },
        );
      }),
    act,
  );
const typed = [];
for (let i = 0; i < KEYS; i++) {
  typed.push(await painted(["type", "input[name=start]:not([type=hidden])", String(50 + (i % 7))]));
  await page.waitForTimeout(1200);
}
const opened = [];
const figures = await page.locator("[data-figure]").count();
for (let i = 0; i < KEYS; i++) {
  const id = await page
    .locator("[data-figure]")
    .nth(5 + 7 * i)
    .getAttribute("data-figure");
  opened.push(await painted(["click", `[data-figure="${id}"]`, ""]));
  await page.waitForTimeout(300);
}
const elements = await page.evaluate(() => document.querySelectorAll("*").length);
console.log(
  `4 × slower: a digit p50 ${p50(typed).toFixed(0)} ms, worst ${Math.max(...typed).toFixed(0)}; a working p50 ${p50(opened).toFixed(0)} ms, worst ${Math.max(...opened).toFixed(0)}; ${elements} elements, ${figures} figures`,
);
await browser.close();
await sql.end();
bare.close();
