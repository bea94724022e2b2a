import postgres from "postgres";

/**
 * Makes the demo's block one of 200 athletes and 12 weeks, each athlete with their maxes, and
 * answers with its id. @param url of the database, as one who may write every table
 */
export async function enlargePlan(url) {
  const sql = postgres(url, { max: 1, onnotice: () => {} });
  const [plan] = await sql`
    UPDATE plan SET block = jsonb_set(block, '{weeks}', '12') WHERE name = 'Spring block'
    RETURNING id, team_id, squad_id`;
  await sql`
    INSERT INTO athlete (team_id, id, name, squad_id)
    SELECT ${plan.team_id}, gen_random_uuid(), 'Soak ' || n, ${plan.squad_id}
    FROM generate_series(1, 188) AS n`;
  await sql`
    INSERT INTO max_record (team_id, id, athlete_id, variant_id, load, date, kind, entered_by, entered_at)
    SELECT a.team_id, gen_random_uuid(), a.id, v.id, '{"amount": 100, "unit": "kg"}', '2026-02-01', 'tested', 'soak', now()
    FROM athlete a JOIN lift_variant v ON v.team_id = a.team_id AND v.lift IN ('bench', 'squat')
    WHERE a.name LIKE 'Soak %'`;
  await sql`
    INSERT INTO working_max_choice (team_id, id, athlete_id, variant_id, record_id, chosen_by, chosen_at)
    SELECT team_id, gen_random_uuid(), athlete_id, variant_id, id, 'soak', now()
    FROM max_record WHERE entered_by = 'soak'`;
  // What a running database does by itself within minutes of so many new rows.
  await sql`ANALYZE`;
  await sql.end();
  return plan.id;
}
