/**
 * `npm run fuzz`: inputs thrown at a server of its own, see e2e/fuzz/run.ts. FUZZ_COUNT (default
 * 100,000 in rounds of 10,000, each on a new database), FUZZ_SEED (default 1).
 */
import { appendFileSync, existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { ensureBuild } from "./build.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { runAlong } from "./run.mjs";
import { testDatabase, testServer } from "./with-database.mjs";

const ROUND = 10_000;

/** What a round complained of, a line each. */
const SAID = "test-results/fuzz-said.txt";
export const fuzzSaid = () =>
  existsSync(SAID) ? readFileSync(SAID, "utf8").trim().split("\n").slice(0, 20) : [];

/** One round; gives 0, or how much of it failed. */
export async function fuzzRound({ count, seed, apart, port, env: more = {} }) {
  mkdirSync("test-results", { recursive: true });
  rmSync(SAID, { force: true });
  const database = await testDatabase("sprezza_fuzz", apart);
  try {
    const server = await testServer(
      {
        ...database.env,
        SIGN_IN_TRIES_A_MINUTE: "100000",
        PAIRING_FAILURES_AN_ADDRESS: "100000",
        LOG_LEVEL: "fatal",
        ...more,
      },
      port,
    );
    try {
      await new Promise((resolve) => setTimeout(resolve, 300));
      const before = JSON.stringify(server.pids());
      const env = {
        ...process.env,
        ...database.env,
        BASE_URL: server.base,
        FUZZ_SEED: String(seed),
      };
      const run = (args, own = {}) =>
        runAlong("tsx", ["e2e/fuzz/run.ts", ...args], { ...env, ...own });
      let code = await run(["--seeds"]);
      code += await run(["--matrix"]);
      code += await run([], { FUZZ_COUNT: String(count) });
      const after = JSON.stringify(server.pids());
      if (before !== after) {
        const line = `A process ended and was started again: ${before} became ${after}.`;
        console.log(line);
        appendFileSync(SAID, `${line}\n`);
        code++;
      }
      return code;
    } finally {
      await server.stop();
    }
  } finally {
    database.stop();
  }
}

if (process.argv[1]?.endsWith("fuzz.mjs")) {
  await orSentence(async () => {
    ensurePackages();
    ensureBuild();
    const count = Number(process.env.FUZZ_COUNT ?? 100_000);
    let failed = 0;
    for (
      let done = 0, seed = Number(process.env.FUZZ_SEED ?? 1);
      done < count;
      done += ROUND, seed++
    ) {
      const round = Math.min(ROUND, count - done);
      failed += await fuzzRound({ count: round, seed, apart: "fuzz", port: 4600 });
    }
    console.log(failed === 0 ? "1 passed, 0 failed" : `0 passed, ${failed} failed`);
    process.exit(failed === 0 ? 0 : 1);
  });
}
