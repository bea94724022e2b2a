/**
 * Part of `npm run soak`: the camp day of 28 lifted to its end at all its stations at once, while
 * the application is killed 20 times and the database crashes 5 times. Two racks are without a link
 * meanwhile, for half an hour by their clocks, and send their sets afterwards. Then every acknowledged
 * entry must be there once, under its number, and the review must have every set that was planned.
 * By itself: `node scripts/day-soak.mjs`; SOAK_KILLS, SOAK_CRASHES.
 */
import path from "node:path";
import postgres from "postgres";
import { ensureBuild } from "./build.mjs";
import { adminUrl, bodiesOfDay, sendEntries, startCamp, tablet } from "./camp-day.mjs";
import { freePort, startCluster } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { startServer } from "./run.mjs";
import { signIn } from "./soak-client.mjs";
import { testDatabase } from "./with-database.mjs";

const KILLS = Number(process.env.SOAK_KILLS ?? 20);
const CRASHES = Number(process.env.SOAK_CRASHES ?? 5);
const OFFLINE_MINUTES = 30;
const BATCH = 50;
const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Sends what waits until it is acknowledged, as a tablet's outbox does. */
async function sendAll(at, entries, clock, run) {
  for (let i = 0; i < entries.length; i += BATCH) {
    const batch = entries.slice(i, i + BATCH);
    for (;;) {
      const answers = await sendEntries(at, batch, clock()).catch(() => undefined);
      if (answers) {
        for (const answer of answers)
          if (answer.status === "stored") run.acknowledged.set(answer.id, answer.seq);
          else run.refused.push(answer.reason);
        break;
      }
      // Killed in the middle: the same entries are sent again.
      await sleep(300);
    }
  }
}

/** A station: set after set, each sent when it is done. */
async function station(at, bodies, run) {
  const { deviceId, bootId, stamp } = tablet();
  const sets = [];
  for (const body of bodies) {
    sets.push(body);
    if (body.kind !== "set-done" && body.kind !== "work" && body.kind !== "item-done") continue;
    const entries = sets.splice(0).map((one) => stamp(one, performance.now(), Date.now()));
    const clock = () => ({ deviceId, bootId, monoMs: performance.now(), wallMs: Date.now() });
    await sendAll(at, entries, clock, run);
    await sleep(run.paceMs);
  }
}

/** A rack without a link: everything is lifted within half an hour, then it is sent at once. */
async function cutOff(at, bodies, run) {
  const { deviceId, bootId, stamp } = tablet();
  const beganMs = performance.now();
  const stepMs = (OFFLINE_MINUTES * 60_000) / bodies.length;
  const entries = bodies.map((body, i) =>
    stamp(body, beganMs + i * stepMs, Date.now() - OFFLINE_MINUTES * 60_000 + i * stepMs),
  );
  await run.linkBack;
  const clock = () => ({
    deviceId,
    bootId,
    monoMs: beganMs + OFFLINE_MINUTES * 60_000 + performance.now() - beganMs,
    wallMs: Date.now(),
  });
  await sendAll(at, entries, clock, run);
  return bodies.filter((body) => body.kind === "set-done").length;
}

await orSentence(async () => {
  ensurePackages();
  ensureBuild();
  const { env, stop } = await testDatabase("sprezza_soak");
  const port = await freePort(4500);
  const settings = { ...env, NODE_ENV: "production", PORT: String(port), LOG_LEVEL: "silent" };
  let server = startServer(settings);
  const base = await server.address;
  const home = path.resolve(process.env.SPREZZA_DATA ?? ".sprezza", "test");
  const cluster = await startCluster(home, 54420);
  let failures = 0;
  const fail = (what, n) => {
    if (n > 0) console.log(`FAILED: ${n} ${what}`);
    failures += n;
  };
  try {
    const cookie = await signIn(base);
    const sql = postgres(adminUrl(env), { max: 1, onnotice: () => {} });
    const session = await startCamp(base, cookie, sql);
    await sql.end();
    const at = { base, cookie, session };
    const works = [...bodiesOfDay(session.frozen)].filter(([, bodies]) => bodies.length > 0);
    const racks = session.frozen.stations.filter((one) => one.kind === "rack");
    const alone = new Set(racks.slice(-2).map((one) => one.id));
    let linkBack = () => {};
    const run = {
      acknowledged: new Map(),
      refused: [],
      paceMs: 1200,
      linkBack: new Promise((resolve) => {
        linkBack = resolve;
      }),
    };
    const online = works
      .filter(([id]) => !alone.has(id))
      .map(([, bodies]) => station(at, bodies, run));
    const offline = Promise.all(
      works.filter(([id]) => alone.has(id)).map(([, bodies]) => cutOff(at, bodies, run)),
    );
    let [kills, crashes] = [KILLS, CRASHES];
    const each = Math.max(1, Math.ceil((KILLS + CRASHES) / Math.max(1, CRASHES)));
    for (let i = 1; kills + crashes > 0; i++) {
      await sleep(1500);
      if (crashes > 0 && (i % each === 0 || kills === 0)) {
        cluster.crash();
        await sleep(600);
        cluster.start();
        crashes--;
      } else {
        await server.kill();
        server = startServer(settings);
        await server.address;
        kills--;
        // Half of the blows fall while the rack sends what it kept.
        if (kills === KILLS >> 1) linkBack();
      }
    }
    linkBack();
    run.paceMs = 0;
    await Promise.all(online);
    const offlineSets = (await offline).reduce((sum, sets) => sum + sets, 0);

    const response = await fetch(`${base}/api/log/${session.id}?after=0`, { headers: { cookie } });
    const { entries } = await response.json();
    const seqs = new Map();
    for (const { id, seq } of entries) seqs.set(id, [...(seqs.get(id) ?? []), seq]);
    const sent = works.reduce((n, [, bodies]) => n + bodies.length, 0);
    const lost = [...run.acknowledged.keys()].filter((id) => !seqs.has(id)).length;
    const twice = [...seqs.values()].filter((one) => one.length !== 1).length;
    const renumbered = [...run.acknowledged].filter(
      ([id, seq]) => seqs.has(id) && seqs.get(id)[0] !== seq,
    ).length;
    const review = await (
      await fetch(`${base}/review/${session.id}`, { headers: { cookie } })
    ).text();
    const [, done, planned] = />(\d+) of (\d+)</.exec(review) ?? [];
    console.log(
      `the day of 28 at ${works.length} stations, ${KILLS} kills, ${CRASHES} crashes, two racks ${OFFLINE_MINUTES} min without a link with ${offlineSets} sets: ${sent} entries made, ${run.acknowledged.size} acknowledged, ${entries.length} in the log, lost ${lost}, stored twice ${twice}, renumbered ${renumbered}, refused ${run.refused.length}; the review has ${done} of ${planned} sets`,
    );
    fail("lost", lost);
    fail("stored twice", twice);
    fail("renumbered", renumbered);
    fail(`refused: ${run.refused[0]}`, run.refused.length);
    fail("made and not acknowledged", sent - run.acknowledged.size);
    fail("in the log that nobody made", Math.abs(entries.length - sent));
    fail("sets missing in the review", done === planned && Number(planned) > 0 ? 0 : 1);
  } finally {
    await server.stop();
    stop();
  }
  console.log(failures === 0 ? "1 passed, 0 failed" : `0 passed, ${failures} failed`);
  process.exit(failures === 0 ? 0 : 1);
});
