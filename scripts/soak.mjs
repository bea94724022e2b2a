/**
 * `npm run soak`: the long runs that `npm test` leaves out. Many racks log at once while the
 * application is killed and the database dies again and again; afterwards every acknowledged
 * entry must be there once. Also the server's own times under that load, with the machine's
 * baseline beside them. SOAK_RACKS (default 40), SOAK_ROUNDS (default 6).
 */
import { randomUUID } from "node:crypto";
import path from "node:path";

import { ensureBuild } from "./build.mjs";
import { freePort, startCluster } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { enlargePlan } from "./large-plan.mjs";
import { startServer } from "./run.mjs";
import { runningSession, signIn } from "./soak-client.mjs";
import { testDatabase } from "./with-database.mjs";

const RACKS = Number(process.env.SOAK_RACKS ?? 40);
const ROUNDS = Number(process.env.SOAK_ROUNDS ?? 6);
const ROUND_MS = 6000;
/** Answers before the measured ones, and those measured, a page. */
const WARM_UP = 20;
const ASKED = 60;

const p95 = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? 0;
const p50 = (values) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** A fixed piece of work, ms: what this machine is like now. */
function baseline() {
  const startedAt = performance.now();
  let sum = 0;
  for (let i = 0; i < 2e7; i++) sum = (sum + i * 31) % 1000003;
  return Math.round(performance.now() - startedAt) + (sum < 0 ? 1 : 0);
}

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
  try {
    const cookie = await signIn(base);
    const session = await runningSession(base, cookie);
    const acknowledged = new Map();
    const times = [];
    let writing = true;
    const racks = Array.from({ length: RACKS }, (_, rack) =>
      writer(rack, base, cookie, session, acknowledged, times, () => writing),
    );
    console.log(`${RACKS} racks log; baseline ${baseline()} ms`);
    for (let round = 0; round < ROUNDS; round++) {
      await sleep(ROUND_MS);
      if (round % 2 === 0) {
        await server.kill();
        server = startServer(settings);
        await server.address;
        console.log(
          `round ${round + 1}: application killed and started; ${acknowledged.size} acknowledged`,
        );
      } else {
        cluster.crash();
        await sleep(800);
        cluster.start();
        console.log(
          `round ${round + 1}: database crashed and started; ${acknowledged.size} acknowledged`,
        );
      }
    }
    await sleep(ROUND_MS);
    writing = false;
    await Promise.all(racks);

    const response = await fetch(`${base}/api/log/${session.id}?after=0`, { headers: { cookie } });
    const { entries } = await response.json();
    const stored = new Map();
    for (const entry of entries) stored.set(entry.id, (stored.get(entry.id) ?? 0) + 1);
    const lost = [...acknowledged.keys()].filter((id) => !stored.has(id));
    const twice = [...stored.values()].filter((count) => count !== 1);
    const wrongSeq = entries.filter(
      (entry) => acknowledged.has(entry.id) && acknowledged.get(entry.id) !== entry.seq,
    );
    failures += lost.length + twice.length + wrongSeq.length + (acknowledged.size === 0 ? 1 : 0);
    console.log(
      `acknowledged ${acknowledged.size}, lost ${lost.length}, stored twice ${twice.length}, renumbered ${wrongSeq.length}`,
    );
    console.log(
      `logging: p95 ${Math.round(p95(times))} ms over ${times.length} answers under ${RACKS} racks; baseline ${baseline()} ms`,
    );

    const athlete = `/athletes/${session.sets[0].athleteId}`;
    const pages = [
      "/floor",
      "/athletes",
      athlete,
      "/athletes/profiles",
      `/lab/profile?athlete=${session.sets[0].athleteId}`,
      "/library",
      `/floor/${session.id}`,
    ];
    const plan = await enlargePlan(env.ADMIN_DATABASE_URL.replace(/\/postgres$/, "/sprezza_soak"));
    pages.push(
      "/review",
      "/review/box",
      "/plan",
      `/plan/${plan}`,
      `/plan/${plan}.data`,
      "/lab",
      "/gear",
      "/library/recipes",
    );
    // The server was started anew a moment ago: the first answer is said by itself, and the 95th
    // percentile is of a server that has answered for a while, as it does all day.
    const ask = async (page) => {
      const startedAt = performance.now();
      await (await fetch(base + page, { headers: { cookie } })).text();
      return performance.now() - startedAt;
    };
    for (const page of pages) {
      const first = await ask(page);
      for (let i = 0; i < WARM_UP; i++) await ask(page);
      const own = [];
      for (let i = 0; i < ASKED; i++) own.push(await ask(page));
      console.log(
        `${page.replace(/[0-9a-f-]{36}/, "…")}: first ${Math.round(first)} ms, then p50 ${Math.round(p50(own))}, p95 ${Math.round(p95(own))} ms`,
      );
    }
    console.log(`baseline ${baseline()} ms`);
  } finally {
    await server.stop();
    stop();
  }
  console.log(failures === 0 ? "1 passed, 0 failed" : `0 passed, ${failures} failed`);
  process.exit(failures === 0 ? 0 : 1);
});

/** One rack: batches of entries, each sent again until it is acknowledged. */
async function writer(rack, base, cookie, session, acknowledged, times, goesOn) {
  const deviceId = randomUUID();
  const bootId = randomUUID();
  let deviceSeq = 0;
  while (goesOn()) {
    const set = session.sets[(rack + deviceSeq) % session.sets.length];
    const entries = Array.from({ length: 3 }, () => ({
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
        source: "typed",
      },
    }));
    for (;;) {
      const startedAt = performance.now();
      try {
        const response = await fetch(`${base}/api/log/${session.id}`, {
          method: "POST",
          headers: { "content-type": "application/json", cookie },
          body: JSON.stringify({ entries }),
          signal: AbortSignal.timeout(10_000),
        });
        if (response.ok) {
          const { answers } = await response.json();
          for (const answer of answers)
            if (answer.status === "stored") acknowledged.set(answer.id, answer.seq);
          times.push(performance.now() - startedAt);
          break;
        }
      } catch {
        // Killed in the middle: the same entries are sent again.
      }
      await sleep(300);
    }
    await sleep(700 + 300 * Math.random());
  }
}
