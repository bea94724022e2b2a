/**
 * Trend and review pages against a bare server's one indexed query, in one run: the sums of so many reps
 * are filled in first (these pages read sums and no log), then each page and the bare query are asked
 * turn about; the ratios of the medians are printed.
 *
 * `node scripts/with-database.mjs --serve node bench/review-pages.mjs`; REPS (5,000,000), ROUNDS (25).
 */
import { createServer } from "node:http";
import postgres from "postgres";
import { adminUrl } from "../scripts/camp-day.mjs";
import { signIn } from "../scripts/soak-client.mjs";

const REPS = Number(process.env.REPS ?? 5_000_000);
const ROUNDS = Number(process.env.ROUNDS ?? 25);
const WARM_UP = 5;
const REPS_A_DAY = 27;
const base = process.env.BASE_URL;
const sql = postgres(adminUrl(process.env), { max: 1, onnotice: () => {} });
const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

// Athletes of squads of thirty, three years of weekly days each, made of the demo's own sums.
const [team] = await sql`SELECT id FROM team WHERE name = 'Skerry Coast'`;
const rows = Math.ceil(REPS / REPS_A_DAY);
const days = 156;
const athletes = Math.ceil(rows / days);
await sql.unsafe("SET session_replication_role = replica");
const startedAt = Date.now();
await sql`
  INSERT INTO squad (team_id, id, name, sport, room_id, position)
  SELECT ${team.id}, gen_random_uuid(), 'Load ' || n, 'canoe', s.room_id, 100 + n
  FROM generate_series(1, ${Math.ceil(athletes / 30)}) n,
    (SELECT room_id FROM squad WHERE team_id = ${team.id} AND room_id IS NOT NULL LIMIT 1) s`;
await sql`
  INSERT INTO athlete (team_id, id, name, squad_id)
  SELECT ${team.id}, gen_random_uuid(), 'Load ' || q.name || ' ' || n, q.id
  FROM squad q, generate_series(1, 30) n
  WHERE q.team_id = ${team.id} AND q.name LIKE 'Load %'`;
await sql`
  INSERT INTO work_sum (team_id, session_id, slot_id, athlete_id, date, kind, plan_id, plan_slot_id, week,
    variant_id, sum, points)
  SELECT ${team.id}, gen_random_uuid(), 'main', a.id, DATE '2026-03-10' - 7 * n, 'lift', NULL, NULL, NULL,
    w.variant_id, w.sum, w.points
  FROM (SELECT id, row_number() OVER (ORDER BY id) AS i FROM athlete
    WHERE team_id = ${team.id} AND name LIKE 'Load %') a,
    generate_series(1, ${days}) n,
    LATERAL (SELECT * FROM (SELECT w.*, row_number() OVER (ORDER BY session_id, athlete_id) AS j
      FROM work_sum w WHERE w.team_id = ${team.id} AND w.kind = 'lift' LIMIT 60) x
      WHERE x.j = 1 + (a.i + n) % 60) w`;
await sql.unsafe("SET session_replication_role = origin");
await sql.unsafe("ANALYZE work_sum; ANALYZE athlete; ANALYZE squad");
const [{ n, bytes }] = await sql`
  SELECT count(*)::int AS n, pg_total_relation_size('work_sum')::bigint AS bytes FROM work_sum`;
console.log(
  `${n} lifts' days of ${athletes} athletes: the sums of ${Math.round((n * REPS_A_DAY) / 1e5) / 10} million reps, ${Math.round(Number(bytes) / 1e6)} MB, filled in ${Math.round((Date.now() - startedAt) / 1000)} s`,
);
const [loaded] =
  await sql`SELECT id FROM athlete WHERE team_id = ${team.id} AND name LIKE 'Load %' LIMIT 1`;
const [plan] = await sql`
  SELECT p.id FROM plan p WHERE p.team_id = ${team.id} AND p.name = 'Rising ladder, speed bench'
  ORDER BY p.start_date DESC OFFSET 3 LIMIT 1`;
const [session] = await sql`
  SELECT id FROM training_session WHERE team_id = ${team.id} AND status = 'ended'
  ORDER BY date DESC, id LIMIT 1`;

// The bare server: one indexed query under the team's isolation, its rows as JSON.
const app = postgres(process.env.DATABASE_URL, { max: 4, onnotice: () => {} });
const bare = createServer(async (_, answer) => {
  const found = await app.begin(async (tx) => {
    await tx`SELECT set_config('app.team', ${team.id}, true)`;
    return tx`SELECT date, points FROM work_sum
      WHERE athlete_id = ${loaded.id} AND date >= '2025-03-10' AND kind = 'lift' ORDER BY date`;
  });
  answer.setHeader("content-type", "application/json").end(JSON.stringify(found));
});
await new Promise((ready) => bare.listen(0, "127.0.0.1", ready));
const bareUrl = `http://127.0.0.1:${bare.address().port}/`;

const cookie = await signIn(base);
const pages = {
  "bare query": bareUrl,
  trends: `${base}/review/trends?athlete=${loaded.id}`,
  wave: `${base}/review/wave?plan=${plan.id}&slot=main&run=1`,
  calls: `${base}/review`,
  session: `${base}/review/${session.id}`,
  block: `${base}/review/block?plan=${plan.id}`,
  week: `${base}/review/week`,
  "what pays": `${base}/review/pays`,
  "box cycle": `${base}/review/box`,
};
const times = Object.fromEntries(Object.keys(pages).map((name) => [name, []]));
for (let round = 0; round < WARM_UP + ROUNDS; round++)
  for (const [name, url] of Object.entries(pages)) {
    const at = performance.now();
    const answer = await fetch(url, { headers: { cookie } });
    await answer.text();
    if (answer.status !== 200) throw new Error(`${url} answered ${answer.status}.`);
    if (round >= WARM_UP) times[name].push(performance.now() - at);
  }
const query = median(times["bare query"]);
for (const name of Object.keys(pages))
  console.log(
    `${name}: p50 ${median(times[name]).toFixed(1)} ms, ${(median(times[name]) / query).toFixed(1)} ×`,
  );
bare.close();
await app.end();
await sql.end();
