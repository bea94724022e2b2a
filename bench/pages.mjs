/**
 * Pages of two running servers against each other, in one run: each page is asked of one and then
 * of the other, over and over, so that the machine's moods fall on both. Prints the ratio of the
 * medians, and of the fastest answers, per page.
 *
 * `node bench/pages.mjs BASE_BEFORE BASE_NOW`, both with the demo's data; PAGES_ROUNDS (30).
 */
const [before, now] = process.argv.slice(2);
if (!before || !now) throw new Error("Two addresses are needed: before and now.");
const ROUNDS = Number(process.env.PAGES_ROUNDS ?? 30);
const WARM_UP = 5;

async function signIn(base) {
  const body = new URLSearchParams({
    email: "coach@skerry.example",
    password: "skerry-coast-demo",
    to: "/",
  });
  const answer = await fetch(`${base}/sign-in`, { method: "POST", body, redirect: "manual" });
  return answer.headers
    .getSetCookie()
    .map((one) => one.split(";")[0])
    .join("; ");
}

async function ask(base, cookie, path) {
  const startedAt = performance.now();
  const answer = await fetch(base + path, { headers: { cookie } });
  const text = await answer.text();
  if (answer.status !== 200) throw new Error(`${base}${path}: ${answer.status}`);
  return { ms: performance.now() - startedAt, text };
}

/** The first address on a page that begins with `start`, and is that of a page. */
const firstOn = (text, start) =>
  new RegExp(`href="(${start}[0-9a-f-]{36})["?#]`).exec(text)?.[1] ?? undefined;

async function pagesOf(base, cookie) {
  const on = async (path, start) => firstOn((await ask(base, cookie, path)).text, start);
  const athlete = await on("/athletes", "/athletes/");
  const found = {
    athletes: "/athletes",
    "box ladder": "/athletes/box",
    "profiles of the squad": "/athletes/profiles",
    athlete,
    "athlete's box": `${athlete}/box`,
    plans: "/plan",
    plan: await on("/plan", "/plan/"),
    "plan, checks": `${await on("/plan", "/plan/")}?view=checks`,
    floor: "/floor",
    pairing: "/floor/pairing",
    review: await on("/review", "/review/"),
    "box cycle": "/review/box",
    gear: await on("/gear", "/gear/"),
    exercises: "/library",
    recipes: "/library/recipes",
    complexes: "/library/complexes",
    lab: "/lab?tool=plates",
    "lab, profile": "/lab/profile",
    data: "/data",
  };
  return Object.fromEntries(
    Object.entries(found).filter(([, path]) => path && !/undefined/.test(path)),
  );
}

const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];
const sides = await Promise.all(
  [before, now].map(async (base) => {
    const cookie = await signIn(base);
    return { base, cookie, pages: await pagesOf(base, cookie) };
  }),
);
console.log("page: before ms, now ms; ratio of medians, ratio of the fastest");
let worst = 0;
for (const name of Object.keys(sides[0].pages)) {
  if (!(name in sides[1].pages)) continue;
  const times = [[], []];
  for (let round = 0; round < WARM_UP + ROUNDS; round++)
    // Turn about, so that neither always has the other's leavings.
    for (const side of round % 2 ? [1, 0] : [0, 1]) {
      const { base, cookie, pages } = sides[side];
      const { ms } = await ask(base, cookie, pages[name]);
      if (round >= WARM_UP) times[side].push(ms);
    }
  const [a, b] = times.map(median);
  const ratio = b / a;
  worst = Math.max(worst, ratio);
  const fastest = Math.min(...times[1]) / Math.min(...times[0]);
  console.log(
    `${name.padEnd(22)} ${a.toFixed(1).padStart(7)} ${b.toFixed(1).padStart(7)}  ${ratio.toFixed(2)}  ${fastest.toFixed(2)}`,
  );
}
console.log(`slowest against before: ${worst.toFixed(2)} ×`);
