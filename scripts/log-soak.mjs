/**
 * Part of `npm run soak`: the log alone. First ten racks log while the application is killed 20
 * times and the database crashes 5 times; then forty racks log a rep a second for ten minutes,
 * and ten other screens follow. Afterwards every acknowledged entry must be there once, under its
 * number, and a rep must stand on other screens within 250 ms of its confirmation (95th
 * percentile; printed beside the machine's baseline, failed over twice that). By itself:
 * `node scripts/log-soak.mjs`; SOAK_KILLS, SOAK_CRASHES and SOAK_MINUTES make it shorter.
 */
import { randomUUID } from "node:crypto";
import path from "node:path";
import { ensureBuild } from "./build.mjs";
import { freePort, startCluster } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { startServer } from "./run.mjs";
import { runningSession, signIn } from "./soak-client.mjs";
import { testDatabase } from "./with-database.mjs";

const KILLS = Number(process.env.SOAK_KILLS ?? 20);
const CRASHES = Number(process.env.SOAK_CRASHES ?? 5);
const MINUTES = Number(process.env.SOAK_MINUTES ?? 10);
const FEW = 10;
const MANY = 40;
const SCREENS = 10;
const WANTED_MS = 250;

const quantile = (values, q) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length * q)] ?? Number.NaN;
const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

function baseline() {
  const startedAt = performance.now();
  let sum = 0;
  for (let i = 0; i < 2e7; i++) sum = (sum + i * 31) % 1000003;
  return Math.round(performance.now() - startedAt) + (sum < 0 ? 1 : 0);
}

/** One rack: a rep at a time, sent again until it is acknowledged. */
async function rack(n, at, run) {
  const deviceId = randomUUID();
  const bootId = randomUUID();
  let deviceSeq = 0;
  await sleep(1000 * Math.random());
  while (run.going) {
    const set = at.session.sets[(n + deviceSeq) % at.session.sets.length];
    const entry = {
      id: randomUUID(),
      deviceId,
      bootId,
      deviceSeq: ++deviceSeq,
      monoMs: performance.now(),
      wallTime: new Date().toISOString(),
      supersedes: [],
      schemaVersion: 1,
      body: {
        kind: "rep",
        athleteId: set.athleteId,
        slotId: set.slotId,
        setKey: set.setKey,
        rep: 1,
        mcvMps: 0.8,
        outcome: "counted",
        source: "sensor",
      },
    };
    for (;;) {
      const startedAt = performance.now();
      try {
        const response = await fetch(`${at.base}/api/log/${at.session.id}`, {
          method: "POST",
          headers: { "content-type": "application/json", cookie: at.cookie },
          body: JSON.stringify({
            entries: [entry],
            clock: { deviceId, bootId, monoMs: performance.now(), wallMs: Date.now() },
          }),
          signal: AbortSignal.timeout(10_000),
        });
        const answer = response.ok ? (await response.json()).answers[0] : undefined;
        if (answer?.status === "stored") {
          run.acknowledged.set(entry.id, { seq: answer.seq, atMs: performance.now() });
          run.times.push(performance.now() - startedAt);
          break;
        }
        if (answer) throw new Error(`refused: ${answer.reason}`);
      } catch (error) {
        if (String(error).includes("refused")) {
          run.refused++;
          break;
        }
        // Killed in the middle: the same entry is sent again.
      }
      await sleep(300);
    }
    await sleep(run.everyMs * (0.8 + 0.4 * Math.random()));
  }
}

/** Another screen: follows the stream, and writes down when it saw each entry. */
async function screen(at, run) {
  let after = 0;
  const seen = new Map();
  run.screens.push(seen);
  while (run.following) {
    try {
      const response = await fetch(`${at.base}/api/live/${at.session.id}?after=${after}`, {
        headers: { cookie: at.cookie },
        signal: run.stop.signal,
      });
      let text = "";
      for await (const chunk of response.body) {
        text += Buffer.from(chunk).toString("utf8");
        const parts = text.split("\n\n");
        text = parts.pop() ?? "";
        for (const part of parts) {
          const data = /^data: (\[.*\])$/m.exec(part)?.[1];
          if (!data) continue;
          for (const entry of JSON.parse(data)) {
            after = Math.max(after, entry.seq);
            if (!seen.has(entry.id)) seen.set(entry.id, performance.now());
          }
        }
      }
    } catch {
      // Broken off: it comes back with its cursor.
    }
    if (run.following) await sleep(500);
  }
}

/** Every acknowledged entry is there once, under the number that it was told. */
async function count(at, run) {
  const response = await fetch(`${at.base}/api/log/${at.session.id}?after=0`, {
    headers: { cookie: at.cookie },
  });
  const { entries } = await response.json();
  const stored = new Map();
  for (const entry of entries) stored.set(entry.id, [...(stored.get(entry.id) ?? []), entry.seq]);
  const ids = [...run.acknowledged];
  return {
    acknowledged: ids.length,
    lost: ids.filter(([id]) => !stored.has(id)).length,
    twice: [...stored.values()].filter((seqs) => seqs.length !== 1).length,
    renumbered: ids.filter(([id, { seq }]) => stored.has(id) && stored.get(id)[0] !== seq).length,
  };
}

const newRun = (everyMs) => ({
  going: true,
  following: true,
  everyMs,
  acknowledged: new Map(),
  times: [],
  refused: 0,
  screens: [],
  stop: new AbortController(),
});

await orSentence(async () => {
  ensurePackages();
  ensureBuild();
  const { env, stop } = await testDatabase("sprezza_soak");
  const port = await freePort(4500);
  const settings = { ...env, NODE_ENV: "production", PORT: String(port), LOG_LEVEL: "silent" };
  let server = startServer(settings);
  const base = await server.address;
  const cluster = await startCluster(
    path.resolve(process.env.SPREZZA_DATA ?? ".sprezza", "test"),
    54420,
  );
  let failures = 0;
  const fail = (what, n) => {
    if (n > 0) console.log(`FAILED: ${n} ${what}`);
    failures += n;
  };
  try {
    const cookie = await signIn(base);
    const at = { base, cookie, session: await runningSession(base, cookie) };

    const few = newRun(700);
    const racks = Array.from({ length: FEW }, (_, n) => rack(n, at, few));
    // A crash after every few kills.
    const each = Math.max(1, Math.ceil((KILLS + CRASHES) / Math.max(1, CRASHES)));
    let kills = KILLS;
    let crashes = CRASHES;
    for (let i = 1; kills + crashes > 0; i++) {
      await sleep(2500);
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
      }
    }
    await sleep(4000);
    few.going = false;
    await Promise.all(racks);
    const blown = await count(at, few);
    console.log(
      `${FEW} racks, ${KILLS} kills, ${CRASHES} crashes: acknowledged ${blown.acknowledged}, lost ${blown.lost}, stored twice ${blown.twice}, renumbered ${blown.renumbered}, refused ${few.refused}`,
    );
    fail("lost", blown.lost);
    fail("stored twice", blown.twice);
    fail("renumbered", blown.renumbered);
    fail("refused", few.refused);
    fail("runs without an acknowledged entry", blown.acknowledged === 0 ? 1 : 0);

    const many = newRun(1000);
    const screens = Array.from({ length: SCREENS }, () => screen(at, many));
    await sleep(1500);
    const before = baseline();
    const lines = Array.from({ length: MANY }, (_, n) => rack(n, at, many));
    await sleep(MINUTES * 60_000);
    many.going = false;
    await Promise.all(lines);
    await sleep(1500);
    many.following = false;
    many.stop.abort();
    await Promise.allSettled(screens);
    const steady = await count(at, many);
    const late = many.screens.flatMap((seen) =>
      [...many.acknowledged].map(([id, { atMs }]) => Math.max(0, (seen.get(id) ?? 1e9) - atMs)),
    );
    const p95 = quantile(late, 0.95);
    console.log(
      `${MANY} racks, a rep a second each, ${MINUTES} min, ${SCREENS} screens: acknowledged ${steady.acknowledged}, lost ${steady.lost}, stored twice ${steady.twice}, renumbered ${steady.renumbered}; confirmed p50 ${quantile(many.times, 0.5).toFixed(0)}, p95 ${quantile(many.times, 0.95).toFixed(0)} ms; on other screens after that p50 ${quantile(late, 0.5).toFixed(0)}, p95 ${p95.toFixed(0)} ms (wanted ${WANTED_MS}); baseline ${before} before, ${baseline()} ms after`,
    );
    fail("lost", steady.lost);
    fail("stored twice", steady.twice);
    fail("renumbered", steady.renumbered);
    fail("too late on other screens", p95 > 2 * WANTED_MS ? 1 : 0);
  } finally {
    await server.stop();
    stop();
  }
  console.log(failures === 0 ? "1 passed, 0 failed" : `0 passed, ${failures} failed`);
  process.exit(failures === 0 ? 0 : 1);
});
