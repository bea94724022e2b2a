/**
 * The camp day with a long log, in one run: floor, rack and review against a bare query for the
 * log's rows (asked turn about, the ratio of medians), their sizes, and when each is ready on a
 * processor slowed four times (headless Chromium).
 *
 * `node scripts/with-database.mjs --serve node bench/long-session.mjs`; ENTRIES (5000), ROUNDS (20).
 */
import { chromium } from "@playwright/test";
import postgres from "postgres";
import { adminUrl, bodiesOfDay, sendEntries, startCamp, tablet } from "../scripts/camp-day.mjs";
import { signIn } from "../scripts/soak-client.mjs";

const ENTRIES = Number(process.env.ENTRIES ?? 5000);
const ROUNDS = Number(process.env.ROUNDS ?? 20);
const WARM_UP = 4;
const SLOWED = 4;
const base = process.env.BASE_URL;
const sql = postgres(adminUrl(process.env), { max: 1, onnotice: () => {} });
const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

const cookie = await signIn(base);
const session = await startCamp(base, cookie, sql);
const count = (repsEach) =>
  [...bodiesOfDay(session.frozen, { repsEach }).values()].reduce((n, list) => n + list.length, 0);
let repsEach = 1;
while (count(repsEach) < ENTRIES) repsEach++;
const bodies = [...bodiesOfDay(session.frozen, { repsEach }).values()].flat().slice(0, ENTRIES);
const one = tablet();
for (let i = 0; i < bodies.length; i += 100) {
  const entries = bodies
    .slice(i, i + 100)
    .map((body, j) => one.stamp(body, 1000 * (i + j), Date.now()));
  const { deviceId, bootId } = one;
  const clock = { deviceId, bootId, monoMs: 1000 * ENTRIES, wallMs: Date.now() };
  const answers = await sendEntries({ base, cookie, session }, entries, clock);
  const refused = answers?.find((answer) => answer.status !== "stored");
  if (!answers || refused) throw new Error(`Refused: ${JSON.stringify(refused)}`);
}
const rack = session.frozen.stations.find((station) => station.kind === "rack");
const pages = {
  floor: `/floor/${session.id}`,
  rack: `/rack/${session.id}/${rack.id}`,
  review: `/review/${session.id}`,
};

const times = { query: [], floor: [], rack: [], review: [] };
const bytes = {};
for (let round = 0; round < WARM_UP + ROUNDS; round++) {
  const ask = async (name, run) => {
    const startedAt = performance.now();
    await run();
    if (round >= WARM_UP) times[name].push(performance.now() - startedAt);
  };
  await ask(
    "query",
    () => sql`SELECT * FROM log_entry WHERE session_id = ${session.id} ORDER BY seq`,
  );
  for (const [name, path] of Object.entries(pages))
    await ask(name, async () => {
      const answer = await fetch(base + path, { headers: { cookie } });
      bytes[name] = (await answer.text()).length;
      if (answer.status !== 200) throw new Error(`${path} answered ${answer.status}.`);
    });
}
const query = median(times.query);
console.log(`${bodies.length} entries, ${repsEach} reps a set; bare query ${query.toFixed(1)} ms`);
for (const name of Object.keys(pages))
  console.log(
    `${name}: ${median(times[name]).toFixed(1)} ms, ${(median(times[name]) / query).toFixed(1)} × the query; ${bytes[name]} characters`,
  );

const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
});
for (const [name, path] of Object.entries(pages)) {
  const ready = [];
  for (let i = 0; i < 5; i++) {
    const context = await browser.newContext({
      viewport: name === "rack" ? { width: 1024, height: 768 } : { width: 1280, height: 800 },
    });
    const [key, ...value] = cookie.split("=");
    await context.addCookies([{ name: key, value: value.join("="), url: base }]);
    const page = await context.newPage();
    // What every visit has: the scripts are in the browser's cache.
    await page.goto(`${base}/floor`);
    await page.goto(base + path);
    await page.waitForLoadState("networkidle");
    const client = await context.newCDPSession(page);
    await client.send("Emulation.setCPUThrottlingRate", { rate: SLOWED });
    await page.goto(base + path, { waitUntil: "commit" });
    // Ready: React answers, told by the props that it hangs on what it has taken over.
    await page.waitForFunction(() =>
      Object.keys(document.querySelector("main button, main a, main") ?? {}).some((one) =>
        one.startsWith("__reactProps"),
      ),
    );
    ready.push(await page.evaluate(() => performance.now()));
    await context.close();
  }
  console.log(
    `${name}, ready on a processor slowed ${SLOWED} ×: ${Math.round(median(ready))} ms (${ready.map(Math.round).join(", ")})`,
  );
}
await browser.close();
await sql.end();
