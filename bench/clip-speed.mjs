/**
 * How fast a film of 1,080 lines at 60 pictures a second is run through in the browser's one worker: its time
 * against the film's own, and what the browser's processes hold meanwhile. Needs Debian's ffmpeg.
 *
 * `node scripts/with-database.mjs --serve node bench/clip-speed.mjs`
 */
import { spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium } from "@playwright/test";

const base = process.env.BASE_URL;
const folder = mkdtempSync(path.join(tmpdir(), "clip-speed-"));
const file = path.join(folder, "film.mp4");
const made = spawnSync("npx", ["tsx", "e2e/clips/large-clip.ts", file], { encoding: "utf8" });
if (made.status !== 0) throw new Error(made.stderr);
const mark = JSON.parse(made.stdout.trim().split("\n").at(-1));

const server = await chromium.launchServer({
  executablePath: "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-gpu"],
});
const browser = await chromium.connect(server.wsEndpoint());
const page = await browser.newPage({ baseURL: base });

/** Resident memory of the browser's processes, MB, each. */
function memory() {
  const parents = new Map();
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name)))
    try {
      const status = readFileSync(`/proc/${pid}/status`, "utf8");
      const of = (name) => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(status)?.[1] ?? 0);
      parents.set(Number(pid), { parent: of("PPid"), mb: of("RssAnon") / 1024 });
    } catch {
      // It has ended meanwhile.
    }
  const ours = (pid) =>
    pid === server.process().pid || (parents.has(pid) && ours(parents.get(pid).parent));
  return Math.max(...[...parents].filter(([pid]) => ours(pid)).map(([, one]) => one.mb));
}

await page.goto("/sign-in");
await page.getByLabel("Email").fill("coach@skerry.example");
await page.getByLabel("Password").fill("skerry-coast-demo");
await page.getByRole("button", { name: "Sign in" }).click();
await page.waitForURL((url) => !url.pathname.startsWith("/sign-in"));
await page.goto("/lab?tool=video");
await page.getByLabel("A film of the set, from the side").setInputFiles(file);
await page.getByText(/60 a second/).waitFor();
const form = page.getByRole("form", { name: "The film" });
await form.getByLabel("Across, px").fill(String(Math.round(mark.xPx)));
await form.getByLabel("Down, px").fill(String(Math.round(mark.yPx)));
await form.getByLabel("Radius, px").fill(String(Math.round(mark.radiusPx)));
await page.getByLabel(/Everybody in the picture/).check();
await page.getByLabel("The film plays").selectOption("1");
const before = memory();
let most = before;
const watch = setInterval(() => {
  most = Math.max(most, memory());
}, 200);
for (let round = 1; round <= 3; round++) {
  const from = performance.now();
  await page.getByRole("button", { name: "Measure the cut" }).click();
  await page.getByRole("progressbar").waitFor();
  await page.getByRole("progressbar").waitFor({ state: "detached", timeout: 300_000 });
  const tookS = (performance.now() - from) / 1000;
  console.log(
    `round ${round}: a film of ${mark.durationS.toFixed(1)} s in ${tookS.toFixed(1)} s, ${(mark.durationS / tookS).toFixed(2)} times as fast as it plays`,
  );
}
clearInterval(watch);
console.log(
  `largest process: ${before.toFixed(0)} MB before, ${most.toFixed(0)} MB at most; ${await page.getByRole("region", { name: "From video" }).getByRole("heading").textContent()}`,
);
await browser.close();
await server.close();
