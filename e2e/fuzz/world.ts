import type postgres from "postgres";

/** What stands in the database that is thrown at: ids that exist, and whole things to send back. */
export interface World {
  athletes: string[];
  squads: string[];
  members: string[];
  rooms: string[];
  racks: string[];
  variants: string[];
  boxVariants: string[];
  plans: string[];
  sessions: string[];
  running: string[];
  complexes: string[];
  runs: string[];
  recipes: string[];
  schools: string[];
  exercises: string[];
  records: string[];
  profileTests: string[];
  points: string[];
  physicalTests: string[];
  limits: string[];
  competitions: string[];
  gear: string[];
  bands: string[];
  tablets: string[];
  feeds: string[];
  answers: string[];
  /** Of another team: never to be seen or changed. */
  foreign: string[];
  recipe: Record<string, unknown>;
  complex: Record<string, unknown>;
  block: Record<string, unknown>;
  school: Record<string, unknown>;
  rep: { athleteId: string; testId: string; repId: string };
  record: { athleteId: string; variantId: string; recordId: string };
  piece: { roomId: string; id: string };
  band: { roomId: string; id: string };
  athleteName: string;
  /** The plan with the most edits, and how many it has. */
  edited: { planId: string; seq: number };
  slotId: string;
  setKey: string;
  boxSlot: { planId: string; slotId: string; athleteId: string } | undefined;
  today: string;
}

/** On the list, and no older version of what is. */
const newest = (table: string) => `away_on IS NULL AND NOT EXISTS (
  SELECT 1 FROM ${table} later WHERE later.team_id = ${table}.team_id
    AND later.lineage_id = ${table}.lineage_id AND later.version > ${table}.version)`;

/** Somebody whose place may be taken and given back: nobody signs in as them. */
async function spareMember(sql: postgres.Sql, teamId: string): Promise<string> {
  const [row] = await sql`
    INSERT INTO membership (team_id, id, user_id, name, role)
    VALUES (${teamId}, ${crypto.randomUUID()}, 'spare', 'Spare Card', 'athlete')
    ON CONFLICT (team_id, user_id) DO UPDATE SET removed_at = NULL RETURNING id`;
  return row?.id as string;
}

export async function readWorld(sql: postgres.Sql, today: string): Promise<World> {
  // By its coach: an owner may call the team by another name.
  const [team] = await sql`
    SELECT m.team_id AS id FROM membership m JOIN auth."user" u ON u.id = m.user_id
    WHERE u.email = 'coach@skerry.example'`;
  const teamId = team?.id as string;
  const ids = async (table: string, where = "true"): Promise<string[]> =>
    (
      await sql.unsafe(
        `SELECT id FROM ${table} WHERE team_id = '${teamId}' AND ${where} ORDER BY random() LIMIT 12`,
      )
    ).map((row) => String(row.id));
  const of = async (table: string, column: string, where = "true") => {
    const [row] = await sql.unsafe(
      `SELECT ${column} AS value FROM ${table} WHERE team_id = '${teamId}' AND ${where} ORDER BY id LIMIT 1`,
    );
    return (row?.value ?? {}) as Record<string, unknown>;
  };
  const [box] = await sql`
    SELECT p.id AS plan_id, s.key AS slot_id, a.id AS athlete_id
    FROM plan p CROSS JOIN LATERAL jsonb_each(p.block->'slots') s
      JOIN athlete a ON a.team_id = p.team_id AND a.squad_id = p.squad_id
    WHERE p.team_id = ${teamId} AND s.value ? 'box' LIMIT 1`;
  const foreign = await sql`
    SELECT id FROM athlete WHERE team_id <> ${teamId} UNION ALL
    SELECT id FROM plan WHERE team_id <> ${teamId} UNION ALL
    SELECT id FROM training_session WHERE team_id <> ${teamId} LIMIT 6`;
  const one = async <T>(text: string): Promise<T> => {
    const [row] = await sql.unsafe(text.replaceAll("TEAM", `'${teamId}'`));
    return { ...row } as T;
  };
  const rep = await one<World["rep"]>(`
    SELECT t.athlete_id AS "athleteId", t.id AS "testId", p.id AS "repId"
    FROM profile_test t JOIN profile_point p ON p.team_id = t.team_id AND p.test_id = t.id
    WHERE t.team_id = TEAM ORDER BY random() LIMIT 1`);
  const record = await one<World["record"]>(`
    SELECT athlete_id AS "athleteId", variant_id AS "variantId", id AS "recordId"
    FROM max_record WHERE team_id = TEAM ORDER BY random() LIMIT 1`);
  const pieceOf = (where: string) =>
    one<World["piece"]>(`SELECT room_id AS "roomId", id FROM gear_piece
      WHERE team_id = TEAM AND ${where} ORDER BY random() LIMIT 1`);
  const { name } = await one<{ name: string }>(
    // One who is there, and is alone with the name: an import asks about any other.
    `SELECT min(name) AS name FROM athlete
     WHERE team_id = TEAM AND archived_at IS NULL AND name NOT LIKE 'Thrown%'
     GROUP BY lower(name) HAVING count(*) = 1 ORDER BY random() LIMIT 1`,
  );
  const edited = await one<World["edited"]>(`
    SELECT p.id AS "planId", coalesce(max(e.seq), 0)::int AS seq
    FROM plan p LEFT JOIN plan_edit e ON e.team_id = p.team_id AND e.plan_id = p.id
    WHERE p.team_id = TEAM GROUP BY p.id ORDER BY 2 DESC, p.id LIMIT 1`);
  return {
    rep,
    record,
    piece: await pieceOf("kind <> 'band'"),
    band: await pieceOf("kind = 'band'"),
    athleteName: name,
    edited,
    athletes: await ids("athlete", "archived_at IS NULL"),
    squads: await ids(
      "squad",
      "archived_at IS NULL AND (SELECT count(*) FROM athlete a WHERE a.squad_id = squad.id) > 5",
    ),
    members: [await spareMember(sql, teamId)],
    rooms: await ids("room"),
    racks: await ids("rack"),
    variants: await ids("lift_variant"),
    boxVariants: await ids("lift_variant", "lift = 'box-squat'"),
    plans: await ids("plan"),
    sessions: await ids("training_session", "plan_id IS NOT NULL AND own_of IS NULL"),
    running: await ids("training_session", "plan_id IS NOT NULL AND status = 'running'"),
    complexes: await ids("team_complex", newest("team_complex")),
    runs: await ids("training_session", "plan_id IS NULL"),
    recipes: await ids("team_recipe", newest("team_recipe")),
    schools: await ids("team_school"),
    exercises: await ids("exercise"),
    records: await ids("max_record"),
    profileTests: await ids("profile_test"),
    points: await ids("profile_point"),
    physicalTests: await ids("physical_test"),
    limits: await ids("athlete_limit"),
    competitions: await ids("competition"),
    gear: await ids("gear_piece"),
    bands: await ids("gear_piece", "kind = 'band'"),
    tablets: await ids("rack_device"),
    feeds: await ids("calendar_feed"),
    answers: await ids("lab_answer"),
    foreign: foreign.map((row) => String(row.id)),
    recipe: await of("team_recipe", "recipe"),
    complex: await of("team_complex", "complex"),
    block: await of("plan", "block", "block->'slots' <> '{}'"),
    school: await of("team_school", "school"),
    slotId: "main",
    setKey: "w2.s1.1",
    boxSlot: box
      ? {
          planId: String(box.plan_id),
          slotId: String(box.slot_id),
          athleteId: String(box.athlete_id),
        }
      : undefined,
    today,
  };
}
