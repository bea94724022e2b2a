import { readdirSync, statSync } from "node:fs";
import { connect } from "node:net";
import { expect, test } from "@playwright/test";
import postgres from "postgres";
import type { RunningServer } from "../scripts/run.mjs";
import { bytes, ownServer, postForm, signInAt } from "./wire";

/** What the server holds whatever it is sent: below the browser, against a server of its own. */

let server: (RunningServer & { base: string }) | undefined;
let base = "";
let cookie = "";
let sessionId = "";
const up = async () =>
  fetch(`${base}/sign-in`)
    .then((response) => response.status === 200)
    .catch(() => false);

test.beforeEach(async () => {
  if (server && (await up())) return;
  // The test before ended it: that is that test's failure, not this one's.
  await server?.stop();
  server = await ownServer(4700);
  base = server.base;
  cookie = await signInAt(base, "coach@skerry.example");
  const client = sql();
  const [running] = await client`
    SELECT s.id FROM training_session s JOIN team t ON t.id = s.team_id
    WHERE t.name = 'Skerry Coast' AND s.status = 'running' AND s.plan_id IS NOT NULL
    ORDER BY s.started_at LIMIT 1`;
  await client.end();
  sessionId = running?.id ?? "";
  expect(sessionId, "the demo has a running session").not.toBe("");
});
test.afterAll(async () => {
  await server?.stop();
});

const sql = () =>
  postgres(
    (process.env.ADMIN_DATABASE_URL ?? "").replace(
      /\/[^/]*$/,
      new URL(process.env.OWNER_DATABASE_URL ?? "").pathname,
    ),
    { max: 1, onnotice: () => {} },
  );

const anAthlete = async () => {
  const html = await (await fetch(`${base}/athletes`, { headers: { cookie } })).text();
  return /\/athletes\/([0-9a-f-]{36})/.exec(html)?.[1] ?? "";
};

test.describe("slow and plain readers", () => {
  test("an asset by another spelling of its address, without compression", async () => {
    const [asset] = readdirSync("build/client/assets")
      .map((name) => ({ name, bytes: statSync(`build/client/assets/${name}`).size }))
      .sort((a, b) => b.bytes - a.bytes)
      .map((file) => file.name);
    const response = await fetch(`${base}/%61ssets/${asset}`, {
      headers: { "accept-encoding": "identity" },
    });
    expect(response.status).toBe(200);
    expect((await response.arrayBuffer()).byteLength).toBeGreaterThan(100);
    expect(await up()).toBe(true);
  });

  test("a page over 16 kB without compression", async () => {
    const response = await fetch(`${base}/library`, {
      headers: { cookie, "accept-encoding": "identity" },
    });
    expect(response.status).toBe(200);
    expect((await response.arrayBuffer()).byteLength).toBeGreaterThan(16 * 1024);
    expect(await up()).toBe(true);
  });

  test("readers of the live stream that are far behind and take nothing", async () => {
    const { hostname, port } = new URL(base);
    const sockets = Array.from({ length: 12 }, () => {
      const socket = connect(Number(port), hostname);
      socket.on("error", () => {});
      socket.pause();
      socket.write(
        `GET /api/live/${sessionId}?after=0 HTTP/1.1\r\nHost: ${hostname}:${port}\r\nCookie: ${cookie}\r\n\r\n`,
      );
      return socket;
    });
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(await up()).toBe(true);
    // And one that reads gets everything, in order.
    const reader = await fetch(`${base}/api/live/${sessionId}?after=0`, { headers: { cookie } });
    const seqsOf = (read: string) =>
      [...read.matchAll(/"seq":(\d+)/g)].map((match) => Number(match[1]));
    const client = sql();
    const [stored] = await client`
      SELECT count(*)::int AS n FROM log_entry WHERE session_id = ${sessionId}`;
    await client.end();
    let text = "";
    for await (const piece of reader.body as unknown as AsyncIterable<Uint8Array>) {
      text += new TextDecoder().decode(piece);
      // They come in as many events as the server likes.
      if (text.endsWith("\n\n") && seqsOf(text).length >= stored?.n) break;
    }
    const seqs = seqsOf(text);
    expect(seqs.length).toBe(stored?.n);
    expect(seqs).toEqual(seqs.map((_, i) => i + 1));
    for (const socket of sockets) socket.destroy();
  });

  test("a person's seventeenth stream takes the place of the first", async () => {
    const streams: Array<{ ended: boolean; stop: () => void }> = [];
    for (let i = 0; i < 17; i++) {
      const stop = new AbortController();
      const response = await fetch(`${base}/api/live/${sessionId}?after=100000`, {
        headers: { cookie },
        signal: stop.signal,
      });
      expect(response.status).toBe(200);
      const stream = { ended: false, stop: () => stop.abort() };
      void (async () => {
        try {
          for await (const _ of response.body as unknown as AsyncIterable<Uint8Array>);
        } catch {
          return;
        }
        stream.ended = true;
      })();
      streams.push(stream);
    }
    await expect.poll(() => streams.map((one) => one.ended).indexOf(true)).toBe(0);
    expect(streams.filter((one) => one.ended)).toHaveLength(1);
    for (const stream of streams) stream.stop();
  });
});

test.describe("sizes and speeds", () => {
  test("a form over 256 kB, a log post over 512 kB: 413 with a sentence, signed in or not", async () => {
    const large = await postForm(base, "/sign-in", { email: "x".repeat(300_000), password: "y" });
    expect(large.status).toBe(413);
    expect(large.text).toContain("larger than the 256 kB");
    expect(large.text.length).toBeLessThan(20_000);

    const sent = await fetch(`${base}/api/log/${sessionId}`, {
      method: "POST",
      headers: { cookie, "content-type": "application/json" },
      body: JSON.stringify({ entries: [{ id: "x".repeat(600_000) }] }),
    });
    expect(sent.status).toBe(413);
    expect(await sent.text()).toContain("512 kB");
  });

  test("a body whose length is not said is broken off at the limit", async () => {
    let pulled = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        pulled++;
        controller.enqueue(new Uint8Array(64 * 1024).fill(97));
        if (pulled > 400) controller.close();
      },
    });
    const response = await fetch(`${base}/sign-in`, {
      method: "POST",
      headers: { "content-type": "application/x-www-form-urlencoded" },
      body: endless,
      duplex: "half",
    } as RequestInit);
    expect(response.status).toBe(413);
  });

  test("over 500 entries at once are refused whole, and said", async () => {
    const response = await fetch(`${base}/api/log/${sessionId}`, {
      method: "POST",
      headers: { cookie, "content-type": "application/json" },
      body: JSON.stringify({ entries: Array.from({ length: 501 }, () => ({})) }),
    });
    expect(response.status).toBe(400);
    expect(await response.text()).toContain("up to 500 entries");
  });

  test("@long headers and bodies that do not come are given up", async () => {
    const { host } = new URL(base);
    const [headers, body] = await Promise.all([
      bytes(base, `GET / HTTP/1.1\r\nHost: ${host}\r\nX-Slow: `, { waitMs: 25_000 }),
      bytes(
        base,
        `POST /sign-in HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: 1000\r\n\r\nemail=`,
        { waitMs: 25_000 },
      ),
    ]);
    expect(headers.closed).toBe(true);
    expect(body.text).toContain("408");
    expect(body.text).toContain("too slowly");
  });

  test("@long 20,000 reps are taken in one import; more are refused with a sentence", async () => {
    const html = await (await fetch(`${base}/athletes`, { headers: { cookie } })).text();
    const athleteId = /\/athletes\/([0-9a-f-]{36})/.exec(html)?.[1];
    const database = sql();
    const [variant] = await database`
      SELECT v.id FROM lift_variant v JOIN team t ON t.id = v.team_id AND t.name = 'Skerry Coast' LIMIT 1`;
    await database.end();
    const send = async (reps: number) => {
      const response = await fetch(`${base}/data.data`, {
        method: "POST",
        headers: { cookie, "content-type": "application/json" },
        body: JSON.stringify({
          kind: "reps",
          fileName: "many.csv",
          metric: "MCV",
          processing: "typed",
          tests: Array.from({ length: reps / 200 }, (_, day) => ({
            athleteId,
            variantId: variant?.id,
            date: new Date(Date.UTC(2024, 0, 1 + day)).toISOString().slice(0, 10),
            addedKg: 0,
            reps: Array.from({ length: 200 }, (_, i) => ({
              loadKg: 40 + (i % 5) * 10,
              velocityMps: 1.2 - (i % 5) / 10 - day / 1000,
            })),
          })),
        }),
      });
      return { status: response.status, text: await response.text() };
    };
    const most = await send(20_000);
    expect(most.status).toBe(200);
    expect(most.text).toContain('"ok",true');
    const over = await send(20_200);
    expect(over.status).toBe(200);
    expect(over.text).toContain("Over 20000 reps in one file");
  });
});

test.describe("malformed input is a sentence, never a 500", () => {
  const READS: Array<[path: string, status: number]> = [
    ["/athletes/not-an-id", 404],
    ["/plan/constructor", 404],
    ["/floor/0", 404],
    ["/floor/pairing/x", 404],
    ["/rack/x/y", 404],
    ["/review/1e308", 404],
    ["/gear/%00", 400],
    ["/athletes/box?squad=x", 200],
    ["/plan/0198c0de-0000-7000-8000-000000000001", 404],
    ["/plan/0198c0de-0000-7000-8000-000000000001/out/constructor", 404],
    ["/library/recipes/x.json", 404],
    ["/lab/profile?athlete=x&variant=%00", 200],
    ["/api/live/x", 404],
    ["/api/log/x?after=-1", 404],
    ["/%E0%A4%A", 400],
    ["/%ff", 400],
  ];
  for (const [path, status] of READS) {
    test(`GET ${path} is ${status}`, async () => {
      const response = await fetch(base + path, { headers: { cookie }, redirect: "manual" });
      expect(response.status).toBe(status);
    });
  }

  const FORMS: Array<[path: string, fields: Record<string, string>, status: number, said: string]> =
    [
      ["/athletes/ATHLETE", { intent: "constructor" }, 400, "does not know"],
      ["/athletes/ATHLETE", { intent: "__proto__" }, 400, "does not know"],
      ["/athletes/ATHLETE", { intent: "nothing" }, 400, "does not know"],
      [
        "/athletes/ATHLETE",
        { intent: "note", date: "2026-03-10", soreness: "9.75" },
        200,
        "whole number",
      ],
      [
        "/athletes/ATHLETE",
        { intent: "note", date: "0000-01-01", soreness: "5" },
        200,
        "year-month-day",
      ],
      [
        "/athletes/ATHLETE",
        { intent: "competition", name: "Cup", date: "9999-12-31" },
        200,
        "year-month-day",
      ],
      ["/athletes/ATHLETE", { intent: "competition", name: "a\0b", date: "2026-09-01" }, 200, ""],
      ["/athletes/ATHLETE", { intent: "end-limit", limitId: "x" }, 200, "lifted already"],
      ["/athletes/ATHLETE", { intent: "drop-answer", answerId: "%" }, 200, ""],
      [
        "/plan/PLAN",
        { intent: "copy", name: "Far", startDate: "9999-12-31", groupId: "" },
        200,
        "A date",
      ],
      ["/plan/PLAN", { intent: "split", athleteId: "x" }, 200, ""],
      ["/library/recipes", { intent: "away", id: "x" }, 200, ""],
      ["/library/complexes", { intent: "copy", id: "x" }, 200, "not in your library"],
      [
        "/gear",
        { intent: "room", name: "Hall 2", zone: "Nowhere/At all", from: "" },
        200,
        "A time zone",
      ],
    ];
  for (const [path, fields, status, said] of FORMS) {
    test(`${path} with ${JSON.stringify(fields)} is ${status}`, async () => {
      const database = sql();
      const [plan] = await database`
        SELECT p.id FROM plan p JOIN team t ON t.id = p.team_id AND t.name = 'Skerry Coast' ORDER BY p.id LIMIT 1`;
      await database.end();
      const address = path.replace("ATHLETE", await anAthlete()).replace("PLAN", String(plan?.id));
      const answer = await postForm(base, address, fields, { cookie });
      expect(answer.status).toBe(status);
      expect(answer.text).toContain(said);
    });
  }

  test("a foreign Origin, also the one called null, is refused; bad content types are 400", async () => {
    for (const origin of ["null", "http://elsewhere.example", "::"]) {
      const answer = await postForm(base, "/api/unit", { unit: "kg" }, { cookie, origin });
      expect(answer.status, origin).toBe(403);
    }
    for (const type of ["text/plain", "multipart/form-data", ";;;"]) {
      const response = await fetch(`${base}/api/unit`, {
        method: "POST",
        body: "x",
        headers: { cookie, "content-type": type },
      });
      expect(response.status, type).toBe(400);
    }
    const json = await fetch(`${base}/api/plan/0198c0de-0000-7000-8000-000000000001`, {
      method: "POST",
      body: `{"id":${"[".repeat(50_000)}`,
      headers: { cookie, "content-type": "application/json" },
    });
    expect(json.status).toBe(400);
  });

  test("a plan cannot be moved to the end of time, and the floor stays", async () => {
    const database = sql();
    const [plan] = await database`
      SELECT p.id FROM plan p JOIN team t ON t.id = p.team_id AND t.name = 'Skerry Coast' ORDER BY p.id LIMIT 1`;
    await database.end();
    const response = await fetch(`${base}/api/plan/${plan?.id}`, {
      method: "POST",
      headers: { cookie, "content-type": "application/json" },
      body: JSON.stringify({
        id: crypto.randomUUID(),
        base: 100000,
        edit: { words: "Moved", sets: [{ path: ["startDate"], value: "9999-12-31" }] },
      }),
    });
    expect(response.status).toBe(409);
    expect((await fetch(`${base}/floor`, { headers: { cookie } })).status).toBe(200);
  });

  test("one entry that cannot be kept refuses itself alone", async () => {
    const database = sql();
    const [athlete] = await database`
      SELECT a.id FROM athlete a JOIN team t ON t.id = a.team_id AND t.name = 'Skerry Coast' LIMIT 1`;
    await database.end();
    const entry = (more: Record<string, unknown>, body: Record<string, unknown> = {}) => ({
      id: crypto.randomUUID(),
      deviceId: crypto.randomUUID(),
      bootId: crypto.randomUUID(),
      deviceSeq: 1,
      monoMs: 1,
      wallTime: "2026-03-10T16:31:00.000Z",
      supersedes: [],
      schemaVersion: 1,
      body: {
        kind: "fault",
        athleteId: athlete?.id,
        slotId: "main",
        setKey: "w2.s1.1",
        fault: "knees-in",
        cut: false,
        ...body,
      },
      ...more,
    });
    const good = entry({});
    const send = async (entries: unknown[]) => {
      const response = await fetch(`${base}/api/log/${sessionId}`, {
        method: "POST",
        headers: { cookie, "content-type": "application/json" },
        body: JSON.stringify({ entries }),
      });
      expect(response.status).toBe(200);
      const { answers } = (await response.json()) as { answers: Array<{ status: string }> };
      return answers.map((one) => one.status).sort();
    };
    expect(
      await send([
        good,
        entry({ deviceSeq: 2 ** 31 }),
        entry({ wallTime: "0000-01-01T00:00:00Z" }),
        entry({}, { fault: "a\0b" }),
        entry({}, { fault: "half \ud800" }),
        good,
      ]),
    ).toEqual(["refused", "refused", "refused", "refused", "stored"]);
  });
});

test.describe("headers", () => {
  test("pages, data and files with personal data are kept by nobody, and pages load only ours", async () => {
    const athlete = await anAthlete();
    for (const path of [
      "/athletes",
      "/athletes.data",
      `/athletes/${athlete}`,
      "/data/out/records.csv",
      `/api/log/${sessionId}?after=0`,
      "/health",
      "/nowhere",
    ]) {
      const { headers } = await fetch(base + path, { headers: { cookie } });
      expect(headers.get("cache-control"), path).toBe("no-store");
      expect(headers.get("permissions-policy"), path).toContain("microphone=()");
      const policy = headers.get("content-security-policy") ?? "";
      expect(policy, path).toContain("default-src 'none'");
      expect(policy, path).not.toMatch(/script-src[^;]*unsafe/);
      expect(headers.get("strict-transport-security"), path).toBeNull();
    }
    const first = (await fetch(`${base}/sign-in`)).headers.get("content-security-policy");
    const second = (await fetch(`${base}/sign-in`)).headers.get("content-security-policy");
    expect(first).toMatch(/'nonce-[\w+/=]{20,}'/);
    expect(first).not.toBe(second);
  });
});

test.describe("sign-in and pairing", () => {
  test("a wrong password is 401, and so many close the account from there, not for all", async () => {
    const own = await ownServer(4720, {
      SIGN_IN_FAILURES_AN_ACCOUNT: "6",
      TRUSTED_PROXIES: "127.0.0.0/8",
    });
    try {
      const email = "assistant@skerry.example";
      const from = (address: string, password: string) =>
        postForm(
          own.base,
          "/sign-in",
          { email, password, to: "/" },
          { "x-forwarded-for": address },
        );
      const wrong = [];
      for (let i = 0; i < 4; i++) wrong.push((await from("203.0.113.5", "wrong")).status);
      expect(wrong).toEqual([401, 401, 401, 429]);
      // From the same address the right one is not looked at either; from another it is.
      expect((await from("203.0.113.5", "skerry-coast-demo")).status).toBe(429);
      expect((await from("203.0.113.6", "skerry-coast-demo")).status).toBe(302);
    } finally {
      await own.stop();
    }
  });

  test("a forged address is not believed, and the log says where tries came from", async () => {
    const own = await ownServer(4740, { SIGN_IN_FAILURES_AN_ACCOUNT: "4", LOG_LEVEL: "warn" });
    let log = "";
    own.child.stdout?.on("data", (piece) => {
      log += String(piece);
    });
    try {
      const statuses = [];
      for (let i = 0; i < 3; i++) {
        const answer = await postForm(
          own.base,
          "/sign-in",
          { email: "owner@skerry.example", password: "wrong", to: "/" },
          { "x-forwarded-for": `203.0.113.${i}`, "x-client-address": `203.0.113.${i}` },
        );
        statuses.push(answer.status);
      }
      expect(statuses).toEqual([401, 401, 429]);
      await expect.poll(() => log.match(/"msg":"sign-in: /g)?.length).toBe(3);
      expect(log.match(/"address":"127\.0\.0\.1"/g)).toHaveLength(3);
      expect(log).not.toContain("203.0.113");
      expect(log).not.toContain("owner@skerry");
    } finally {
      await own.stop();
    }
    const database = sql();
    await database`DELETE FROM auth.rate_limit`;
    await database.end();
  });

  test("pairing tries are limited by address", async () => {
    const own = await ownServer(4760, { PAIRING_FAILURES_AN_ADDRESS: "3" });
    try {
      const statuses = [];
      for (let i = 0; i < 4; i++)
        statuses.push((await postForm(own.base, "/pair", { code: `KTW-00000${i}` })).status);
      expect(statuses).toEqual([401, 401, 401, 429]);
    } finally {
      await own.stop();
    }
    const database = sql();
    await database`DELETE FROM auth.rate_limit`;
    await database.end();
  });
});

test("a form sent twice makes one thing, at the same time too; another form makes another", async () => {
  const athlete = await anAthlete();
  const count = async () => {
    const database = sql();
    const [row] =
      await database`SELECT count(*)::int AS n FROM competition WHERE athlete_id = ${athlete}`;
    await database.end();
    return Number(row?.n);
  };
  const before = await count();
  const once = crypto.randomUUID();
  const fields = { intent: "competition", name: "Harbour cup", date: "2026-08-01", once };
  const answers = await Promise.all(
    Array.from({ length: 4 }, () => postForm(base, `/athletes/${athlete}`, fields, { cookie })),
  );
  expect(answers.map((one) => one.status)).toEqual([200, 200, 200, 200]);
  expect(await count()).toBe(before + 1);
  await postForm(base, `/athletes/${athlete}`, { ...fields, name: "Second cup" }, { cookie });
  await postForm(
    base,
    `/athletes/${athlete}`,
    { ...fields, once: crypto.randomUUID() },
    { cookie },
  );
  expect(await count()).toBe(before + 3);
});

test.describe("@whole it comes back", () => {
  for (const name of ["pages", "floor", "front"]) {
    test(`the process "${name}" is killed and comes back by itself`, async () => {
      const pid = server?.pids()[name];
      expect(pid).toBeGreaterThan(0);
      process.kill(Number(pid), "SIGKILL");
      await expect.poll(() => server?.pids()[name] !== pid && up(), { timeout: 20_000 }).toBe(true);
      const log = await fetch(`${base}/api/log/${sessionId}?after=0`, { headers: { cookie } });
      expect(log.status).toBe(200);
    });
  }

  test("a request that comes while a process is being started waits for it", async () => {
    const pid = server?.pids().pages;
    process.kill(Number(pid), "SIGKILL");
    const [page, log] = await Promise.all([
      fetch(`${base}/floor`, { headers: { cookie } }),
      fetch(`${base}/api/log/${sessionId}?after=0`, { headers: { cookie } }),
    ]);
    expect([page.status, log.status]).toEqual([200, 200]);
  });

  test("health asks the database; whether the process lives does not", async () => {
    expect(await (await fetch(`${base}/health`)).json()).toEqual({ ok: true, database: "answers" });
    expect(await (await fetch(`${base}/health/live`)).json()).toEqual({ ok: true });
  });

  test("told to stop, it answers what runs, and its streams end", async () => {
    const own = await ownServer(4780);
    const stream = await fetch(`${own.base}/api/live/${sessionId}?after=100000`, {
      headers: { cookie },
    });
    const ended = (async () => {
      for await (const _ of stream.body as unknown as AsyncIterable<Uint8Array>);
      return true;
    })().catch(() => "cut off");
    const page = fetch(`${own.base}/library`, { headers: { cookie } });
    await new Promise((resolve) => setTimeout(resolve, 30));
    const [stopped, answered] = await Promise.all([own.stop().then(() => true), page]);
    expect([stopped, answered.status]).toEqual([true, 200]);
    expect((await answered.text()).endsWith("</html>")).toBe(true);
    expect(await ended).toBe(true);
  });

  test("a start refuses a database that is behind, with the command to run", async () => {
    const database = sql();
    const [newest] = await database`
      DELETE FROM drizzle.__drizzle_migrations
      WHERE created_at = (SELECT max(created_at) FROM drizzle.__drizzle_migrations)
      RETURNING hash, created_at`;
    try {
      const { spawnSync } = await import("node:child_process");
      const started = spawnSync(process.execPath, ["scripts/serve.mjs"], {
        encoding: "utf8",
        env: { ...process.env, NODE_ENV: "production", LOG_LEVEL: "silent", PORT: "4790" },
        timeout: 30_000,
      });
      expect(started.status).toBe(1);
      expect(started.stderr.trim()).toMatch(
        /^The database is 1 step behind this version\. .*npm run migrate/,
      );
      // And one that a newer version has changed.
      await database`
        INSERT INTO drizzle.__drizzle_migrations (hash, created_at)
        VALUES (${newest?.hash}, ${newest?.created_at}), ('newer', 4102444800000)`;
      const newer = spawnSync(process.execPath, ["scripts/serve.mjs"], {
        encoding: "utf8",
        env: { ...process.env, NODE_ENV: "production", LOG_LEVEL: "silent", PORT: "4790" },
        timeout: 30_000,
      });
      expect(newer.status).toBe(1);
      expect(newer.stderr.trim()).toMatch(
        /^The database is of a newer version than this one \(1 step ahead\): nothing was started\./,
      );
      const migrated = spawnSync("npx", ["tsx", "scripts/prepare-database.ts"], {
        encoding: "utf8",
        env: { ...process.env, ADMIN_DATABASE_URL: "" },
        timeout: 30_000,
      });
      expect(migrated.status).toBe(1);
      expect(migrated.stderr).toContain("This database is of a newer version of Sprezza");
    } finally {
      await database`
        DELETE FROM drizzle.__drizzle_migrations
        WHERE hash = 'newer' OR created_at = ${newest?.created_at}`;
      await database`
        INSERT INTO drizzle.__drizzle_migrations (hash, created_at)
        VALUES (${newest?.hash}, ${newest?.created_at})`;
      await database.end();
    }
  });

  test("a port that is taken meanwhile is not the end where another will do", async () => {
    const { createServer } = await import("node:net");
    const taken = createServer();
    await new Promise<void>((resolve) => taken.listen(4800, "127.0.0.1", resolve));
    const own = await ownServer(4800);
    try {
      expect(new URL(own.base).port).toBe("4801");
    } finally {
      await own.stop();
      taken.close();
    }
  });
});
