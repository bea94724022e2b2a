import { type ChildProcess, spawn } from "node:child_process";
import { createHash, randomUUID } from "node:crypto";
import { admin } from "./floor-session";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";

/**
 * A sensor process at each of six racks, by the open protocol: one dies, one was started for another
 * rack, two are at one rack, one loses frames. What is said, and that every rack lifts on.
 */
test.use({ storageState: stateFile("coach"), viewport: { width: 1024, height: 768 } });

const stopped: string[] = [];
const processes: ChildProcess[] = [];
const tokens = new Map<number, string>();
let sessionId = "";
let racks: Array<{ id: string; number: number }> = [];

test.beforeAll(async () => {
  const rows = await admin`
    UPDATE training_session SET status = 'ended', ended_at = now() WHERE status = 'running'
    RETURNING id`;
  stopped.push(...rows.map((row) => String(row.id)));
  await admin`
    UPDATE gear_piece SET values = jsonb_set(values, '{by}', '"cord"')
    WHERE kind = 'sensor' AND team_id IN (SELECT id FROM team WHERE name = 'Skerry Coast')`;
  // The demo's newest session with six racks, in a week that its plan does not have.
  const [row] = await admin`
    SELECT s.team_id, s.plan_id, s.room_id, s.frozen, s.date::text AS date, s.id FROM training_session s
      JOIN team t ON t.id = s.team_id
    WHERE t.name = 'Skerry Coast' AND s.frozen->>'title' LIKE '%kayak, week 2%'
      AND s.plan_id IS NOT NULL ORDER BY s.started_at DESC LIMIT 1`;
  if (!row) throw new Error("The demo has a kayak session.");
  const found = await admin`
    SELECT id, number FROM rack WHERE team_id = ${row.team_id} AND room_id = ${row.room_id}
    ORDER BY number LIMIT 6`;
  racks = found.map((one) => ({ id: String(one.id), number: Number(one.number) }));
  const frozen = row.frozen;
  const [slot] = frozen.slots;
  const lifters = slot.groups.flatMap((group: { lifters: object[] }) => group.lifters);
  const [station] = frozen.stations;
  frozen.stations = racks.map((one) => ({ ...station, id: one.id, name: String(one.number) }));
  slot.groups = racks.map((one, i) => ({
    stationId: one.id,
    lifters: lifters.filter((_: object, at: number) => at % racks.length === i),
  }));
  frozen.title = "Six sensors";
  sessionId = randomUUID();
  await admin`
    INSERT INTO training_session (team_id, id, plan_id, week, slot_id, date, room_id, status, frozen,
      last_seq, started_at, started_by)
    VALUES (${row.team_id}, ${sessionId}, ${row.plan_id}, ${900_000 + Math.floor(Math.random() * 9e4)},
      ${slot.slotId}, ${row.date}, ${row.room_id}, 'running',
      ${admin.json(JSON.parse(JSON.stringify(frozen)))}, 0, '2026-03-10T16:30:00Z', 'test')`;
  await admin`
    INSERT INTO session_person (team_id, session_id, athlete_id, name, instructions, setup, setups)
    SELECT team_id, ${sessionId}, athlete_id, name, instructions, setup, setups FROM session_person
    WHERE session_id = ${row.id}`;
  for (const one of racks) {
    const token = randomUUID();
    tokens.set(one.number, token);
    await admin`
      INSERT INTO rack_device (team_id, id, room_id, rack_id, kind, name, token_hash, paired_at)
      VALUES (${row.team_id}, ${randomUUID()}, ${row.room_id}, ${one.id}, 'sensor', 'Test',
        ${createHash("sha256").update(token).digest("hex")}, now())`;
  }
});
test.afterAll(async () => {
  for (const one of processes) one.kill();
  await admin`UPDATE training_session SET status = 'ended', ended_at = now() WHERE id = ${sessionId}`;
  await admin`UPDATE rack_device SET revoked_at = now() WHERE kind = 'sensor' AND revoked_at IS NULL`;
  await admin`
    UPDATE gear_piece SET values = jsonb_set(values, '{by}', '"simulated"')
    WHERE kind = 'sensor' AND team_id IN (SELECT id FROM team WHERE name = 'Skerry Coast')`;
  if (stopped.length > 0)
    await admin`
      UPDATE training_session SET status = 'running', ended_at = NULL WHERE id IN ${admin(stopped)}`;
});

/** Starts a sensor's process; what it says comes along. */
function sensor(url: string, rack: number, of: number, ...more: string[]): { said: () => string } {
  const args = ["--rack", String(rack), "--url", url, "--token", tokens.get(of) ?? "", ...more];
  // One process each, so that killing it ends it.
  const script = ["--import", "tsx", "scripts/sensor.ts", "--pause", "3"];
  const child = spawn(process.execPath, [...script, ...args]);
  let said = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (chunk) => {
      said += String(chunk);
    });
  processes.push(child);
  return { said: () => said };
}

const rackPage = (number: number) =>
  `/rack/${sessionId}/${racks.find((one) => one.number === number)?.id}`;

/** Begins a set; its reps come from the sensor until a rule ends it. */
async function lift(page: Page): Promise<void> {
  await page.getByTestId("load").waitFor();
  // Once: a second press would end the set.
  await page.keyboard.press(" ");
  await expect(page.getByTestId("verdict")).not.toHaveText(/^Ready/, { timeout: 25_000 });
  await expect(page.getByTestId("verdict")).toContainText(/best|Ended|speed/i, { timeout: 30_000 });
}

test("@whole six sensors: each rack has its own; a death, a wrong rack, a second one and gaps are said and survived", async ({
  page,
  context,
  baseURL,
}) => {
  test.setTimeout(180_000);
  page.setDefaultTimeout(20_000);
  const url = baseURL ?? "";
  const own = [
    sensor(url, 1, 1),
    sensor(url, 2, 2, "--die-after", "9000"),
    sensor(url, 5, 3),
    sensor(url, 4, 4),
    sensor(url, 5, 5, "--gap", "0.3"),
    sensor(url, 6, 6),
  ];
  await expect.poll(() => own[0]?.said()).toContain("sending");

  // Rack 1: the set's reps are measured, and stand as a sensor's.
  await page.goto(rackPage(1));
  await expect(page.getByText("The sensor sends.")).toBeVisible();
  await lift(page);
  await expect
    .poll(async () => {
      const rows = await admin`
        SELECT body->>'source' AS source, (body->>'mcvMps')::float8 AS mps FROM log_entry
        WHERE session_id = ${sessionId} AND kind = 'rep'`;
      return rows.filter((one) => one.source === "sensor" && one.mps > 0.1).length;
    })
    .toBeGreaterThan(0);

  // The sensor for rack 5 that holds rack 3's token: told in words, and rack 3 hears nothing.
  await expect.poll(() => own[2]?.said()).toContain("This token is rack 3's");
  const third = await context.newPage();
  await third.goto(rackPage(3));
  await expect(third.getByText(/has not sent yet/)).toBeVisible();
  await third.keyboard.press("=");
  await expect(third.getByTestId("verdict")).toHaveText(/^By eye/);
  await third.close();

  // A second sensor at rack 4: the first goes on, both sides are told.
  const second = sensor(url, 4, 4);
  await expect.poll(() => second.said()).toContain("Another sensor sends for this rack");
  const fourth = await context.newPage();
  await fourth.goto(rackPage(4));
  await expect(fourth.getByText(/Two sensors send for this rack/)).toBeVisible();
  await lift(fourth);
  await fourth.close();

  // Frames that are lost in the middle: the set goes on and ends.
  const fifth = await context.newPage();
  await fifth.goto(rackPage(5));
  await lift(fifth);
  await fifth.close();

  // A sensor that dies is said within seconds; the rack lifts on by eye, and no other rack is touched.
  processes[1]?.kill("SIGKILL");
  const other = await context.newPage();
  await other.goto(rackPage(2));
  await expect(other.getByText(/is silent|has not sent yet/)).toBeVisible({ timeout: 15_000 });
  await other.keyboard.press("=");
  await expect(other.getByTestId("verdict")).toHaveText(/^By eye/);
  await other.goto(rackPage(6));
  await expect(other.getByText("The sensor sends.")).toBeVisible();
  await other.close();
});

test("a coach makes a token for a rack; a wrong one takes nothing", async ({ page, request }) => {
  await page.goto("/tablets");
  await page.getByLabel("Rack", { exact: true }).selectOption({ index: 0 });
  await page.getByRole("button", { name: "A sensor's token" }).click();
  const token = await page.getByTestId("sensor-token").textContent();
  const send = (bearer: string, data: string) =>
    request.post("/api/sensor?boot=t", {
      headers: { authorization: `Bearer ${bearer}`, "content-type": "application/x-ndjson" },
      data,
    });
  for (const one of processes) one.kill();
  // Taken as soon as the sensor of the test before is silent.
  await expect(async () => {
    const lines = '{"t":1,"h":0.8}\nrubbish\n{"t":1.01,"h":"x"}\n';
    const taken = await send(token?.trim() ?? "", lines);
    expect(await taken.json()).toEqual({ ok: true, taken: 1, bad: 2 });
  }).toPass({ timeout: 10_000 });
  const wrong = await send("nobody", '{"t":1,"h":0.8}');
  expect(wrong.status()).toBe(401);
  expect((await wrong.json()).message).toContain("sends for no rack");
});
