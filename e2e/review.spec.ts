import { DEMO_PASSWORD } from "../db/demo/people";
import { admin } from "./floor-session";
import { overlapsOn } from "./overlaps";
import { stateFile } from "./people";
import { expect, type Page, test } from "./test";
import { ownServer } from "./wire";

/**
 * A wave is reviewed in the browser: two calls are taken, one is declined, the plan's loads follow at
 * once, one is taken back; four weeks later what became of them stands there. What the tests change of
 * the demo they give back.
 */
test.use({ storageState: stateFile("coach") });

const SQUAD = "Sprint canoe";
let planId = "";

test.beforeAll(async () => {
  const [row] = await admin`
    SELECT p.id FROM plan p JOIN squad s ON s.id = p.squad_id AND s.team_id = p.team_id
      JOIN team t ON t.id = p.team_id
    WHERE t.name = 'Skerry Coast' AND s.name = ${SQUAD} AND p.name = 'Box squat cycle'`;
  planId = String(row?.id);
});

test.afterAll(async () => {
  await admin`DELETE FROM review_call WHERE entered_by = 'Callum Reyk' AND date >= '2026-03-10'`;
  await admin`DELETE FROM working_max_choice WHERE record_id IN
    (SELECT id FROM max_record WHERE note = 'From the review')`;
  await admin`DELETE FROM max_record WHERE note = 'From the review'`;
  await admin`DELETE FROM note WHERE words LIKE 'Review test%'`;
});

const wavePage = (athlete = "") =>
  `/review/wave?plan=${planId}&slot=main&run=1${athlete ? `&athlete=${athlete}` : ""}`;

/** The loads of an athlete, as the plan's file has them. */
async function loadsOf(page: Page, name: string): Promise<string[]> {
  const text = await (await page.request.get(`/plan/${planId}/out/loads.csv`)).text();
  return text.split(/\r?\n/).filter((row) => row.includes(name));
}

test("a wave's calls are taken and declined by keys, the plan follows, and one is taken back", async ({
  page,
}) => {
  await page.goto(wavePage());
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Box doubles");
  // The squad's mean with its interval, and who responds.
  await expect(page.getByText(/The squad by this wave alone:/)).toBeVisible();
  await expect(page.getByText(/3 respond: Bela, Dag, Sanne/)).toBeVisible();
  const before = await loadsOf(page, "Bela Sandor-Wynn");
  const margin = page.getByRole("complementary", { name: "Margin" });
  await expect(margin.getByRole("heading", { level: 2, name: "Bela Sandor-Wynn" })).toBeVisible();
  await expect(margin.getByText("Raise the base from 105 kg to 107.5 kg")).toBeVisible();
  await page.keyboard.press("t");
  await expect(margin.getByText(/Raise the base, taken at 107.5 kg/)).toBeVisible();
  const after = await loadsOf(page, "Bela Sandor-Wynn");
  expect(after).not.toEqual(before);

  await page.getByRole("button", { name: "Sanne Kuiper-Lind" }).click();
  await margin.getByText("Raise the base from 72.5 kg to 74.5 kg").waitFor();
  await page.keyboard.press("c");
  await margin.getByLabel("Base, kg").fill("75");
  await margin.getByRole("button", { name: "Change" }).click();
  await expect(margin.getByText(/Raise the base, changed at 75 kg/)).toBeVisible();

  await page.getByRole("button", { name: "Dag Ollerton" }).click();
  await margin.getByText("Raise the base from 112.5 kg to 115.5 kg").waitFor();
  await page.keyboard.press("d");
  await margin.getByLabel("Why not?").fill("Knees first, then load.");
  await margin.getByRole("button", { name: "Decline" }).click();
  await expect(margin.getByText(/declined by Callum Reyk.*Knees first/)).toBeVisible();

  // The decision is undone: the loads are as they were, and the call waits again.
  await page.getByRole("button", { name: "Bela Sandor-Wynn" }).click();
  await margin.getByText(/taken at 107.5 kg/).waitFor();
  await page.keyboard.press("u");
  await expect(margin.getByRole("button", { name: "Take", exact: true })).toBeVisible();
  expect(await loadsOf(page, "Bela Sandor-Wynn")).toEqual(before);
  // Taken again, for what becomes of it; not in the moment in which another call may have gone.
  await page.waitForTimeout(700);
  await margin.getByRole("button", { name: "Take", exact: true }).click();
  await expect(margin.getByText(/taken at 107.5 kg/)).toBeVisible();
  const rows = page.getByRole("table").filter({ hasText: "Since" }).getByRole("row");
  await expect(rows.filter({ hasText: "Dag Ollerton" })).toContainText("too early");
});

test("four weeks later what became of the calls stands there", async ({ browser }) => {
  // Two sessions four weeks on: Bela at the speed of the newest day and more, the others as they were.
  await admin`
    INSERT INTO training_session (team_id, id, plan_id, week, slot_id, date, room_id, status, frozen,
      last_seq, started_at, ended_at, started_by)
    SELECT s.team_id, gen_random_uuid(), s.plan_id, 100 + n, s.slot_id, s.date + 21 + 7 * n, s.room_id,
      'ended', s.frozen, s.last_seq, s.started_at, s.ended_at, 'Review test'
    FROM training_session s, generate_series(0, 1) n
    WHERE s.plan_id = ${planId} AND s.week = 5`;
  await admin`
    INSERT INTO session_person (team_id, session_id, athlete_id, name, instructions, setups, setup)
    SELECT n.team_id, n.id, p.athlete_id, p.name, p.instructions, p.setups, p.setup
    FROM training_session n
      JOIN training_session s ON s.plan_id = n.plan_id AND s.week = 5
      JOIN session_person p ON p.session_id = s.id AND p.team_id = s.team_id
    WHERE n.started_by = 'Review test'`;
  await admin`
    INSERT INTO log_entry (team_id, id, session_id, seq, device_id, boot_id, device_seq, mono_ms,
      wall_time, received_at, supersedes, schema_version, kind, body, author)
    SELECT e.team_id, gen_random_uuid(), n.id, e.seq, e.device_id, e.boot_id, e.device_seq, e.mono_ms,
      e.wall_time, e.received_at, e.supersedes, e.schema_version, e.kind,
      CASE WHEN e.kind = 'rep' AND e.athlete_id =
        (SELECT id FROM athlete WHERE name = 'Bela Sandor-Wynn' AND team_id = e.team_id)
        THEN jsonb_set(e.body, '{mcvMps}', to_jsonb(round(((e.body->>'mcvMps')::numeric + 0.15), 3)))
        ELSE e.body END, e.author
    FROM training_session n
      JOIN training_session s ON s.plan_id = n.plan_id AND s.week = 5
      JOIN log_entry e ON e.session_id = s.id AND e.team_id = s.team_id
    WHERE n.started_by = 'Review test'`;
  const later = await ownServer(4700, { SPREZZA_NOW: "2026-04-07T16:30:00Z" });
  try {
    const context = await browser.newContext({ baseURL: later.base, storageState: undefined });
    const page = await context.newPage();
    await page.goto("/sign-in");
    await page.getByLabel("Email").fill("coach@skerry.example");
    await page.getByLabel("Password").fill(DEMO_PASSWORD);
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL(/\/floor/);
    await page.goto(wavePage());
    const table = page.getByRole("table").filter({ hasText: "Since" });
    const bela = table.getByRole("row").filter({ hasText: "Bela Sandor-Wynn" });
    await expect(bela).toContainText("faster since");
    const dag = table.getByRole("row").filter({ hasText: "Dag Ollerton" });
    await expect(dag).toContainText("Knees first, then load.");
    await expect(dag).toContainText("no clear change");
    await context.close();
  } finally {
    await later.stop();
    await admin`DELETE FROM work_sum WHERE session_id IN
      (SELECT id FROM training_session WHERE started_by = 'Review test')`;
    await admin`DELETE FROM session_sum WHERE session_id IN
      (SELECT id FROM training_session WHERE started_by = 'Review test')`;
    await admin.begin(async (tx) => {
      await tx`SET LOCAL session_replication_role = replica`;
      await tx`DELETE FROM log_entry WHERE session_id IN
        (SELECT id FROM training_session WHERE started_by = 'Review test')`;
      await tx`DELETE FROM session_person WHERE session_id IN
        (SELECT id FROM training_session WHERE started_by = 'Review test')`;
      await tx`DELETE FROM training_session WHERE started_by = 'Review test'`;
    });
  }
});

test("two coaches who decide at once decide once, and an assistant decides nothing", async ({
  browser,
}) => {
  const one = await (await browser.newContext({ storageState: stateFile("coach") })).newPage();
  const two = await (await browser.newContext({ storageState: stateFile("coach") })).newPage();
  for (const page of [one, two]) {
    await page.goto("/review");
    await page.getByLabel("Squad").selectOption({ label: "Judo" });
    await page.getByRole("button", { name: /Sol Averin/ }).click();
  }
  await one.keyboard.press("t");
  await expect(one.getByRole("heading", { name: "To be done" })).toBeVisible();
  await two.keyboard.press("t");
  await expect(two.getByText(/This call waits no more|To be done/).first()).toBeVisible();
  const [row] = await admin`
    SELECT count(*)::int AS n FROM review_call c JOIN athlete a ON a.id = c.athlete_id
    WHERE a.name = 'Sol Averin' AND c.undone_at IS NULL AND c.date >= '2026-03-10'`;
  expect(row?.n).toBe(1);
  const helper = await (
    await browser.newContext({ storageState: stateFile("assistant") })
  ).newPage();
  await helper.goto("/review");
  await expect(helper.getByRole("button", { name: "Take", exact: true })).toHaveCount(0);
  for (const page of [one, two, helper]) await page.context().close();
});

test("the pages of the place stand at a desk and on a phone, and nothing lies over anything", async ({
  page,
}) => {
  for (const path of ["", "/wave", "/trends", "/block", "/pays", "/week", "/notes"]) {
    await page.goto(`/review${path}`);
    for (const width of [1280, 390]) {
      await page.setViewportSize({ width, height: 800 });
      expect(await overlapsOn(page), `${path} at ${width}`).toEqual([]);
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
        `${path} at ${width}`,
      ).toBeLessThanOrEqual(0);
    }
    await page.setViewportSize({ width: 1280, height: 800 });
  }
});

test("notes are found by their words, but those on health are not, nor in the week's file", async ({
  page,
}) => {
  await page.goto("/review/notes");
  const write = async (kind: string, words: string) => {
    await page
      .getByRole("region", { name: "Write a note" })
      .getByLabel("About")
      .selectOption({ label: "Arno Velde" });
    await page.getByLabel("Kind").selectOption({ label: kind });
    await page.getByLabel("Words", { exact: true }).fill(words);
    await page.getByRole("button", { name: "Keep the note" }).click();
  };
  await write("Hand-over to a skill coach", "Review test: blade entry first, legs are fresh.");
  await expect(page.getByText("Review test: blade entry first")).toBeVisible();
  await write("On health", "Review test: sore elbow.");
  await expect(page.getByLabel("Words", { exact: true })).toHaveValue("");
  // What is being written stays when another note goes.
  await write("Note", "Review test: to be taken away.");
  const gone = page.getByRole("listitem").filter({ hasText: "to be taken away" });
  await expect(gone).toBeVisible();
  await page.getByLabel("Words", { exact: true }).fill("Review test: half a sentence");
  await gone.getByRole("button", { name: "Take away" }).click();
  await expect(gone).toHaveCount(0);
  await expect(page.getByLabel("Words", { exact: true })).toHaveValue(
    "Review test: half a sentence",
  );
  await page.getByLabel("With these words").fill("review test");
  await page.getByRole("button", { name: "Find", exact: true }).click();
  await expect(page.getByText("Review test: blade entry first")).toBeVisible();
  await expect(page.getByText("sore elbow")).toHaveCount(0);
  await page.getByLabel("About").first().selectOption({ label: "Arno Velde" });
  await expect(page.getByText("sore elbow")).toBeVisible();
  const kayak = await admin`SELECT id FROM squad WHERE name = 'Sprint kayak'`;
  const file = await page.request.get(
    `/review/week/out/week.md?group=${kayak[0]?.id}&on=2026-03-10`,
  );
  const text = await file.text();
  expect(text).toContain("blade entry first");
  expect(text).not.toContain("sore elbow");
});

test("what a trial needs is worked out as typed, with its working", async ({ page }) => {
  await page.goto("/review/pays");
  await expect(page.getByText("This is no experiment.")).toBeVisible();
  await page.getByLabel("Weeks").fill("18");
  await page.getByRole("button", { name: "Work it out" }).click();
  const answer = page.getByText(/athletes each way for 18 weeks|each way for 18 weeks/);
  await expect(answer).toBeVisible();
  await page.getByRole("button", { name: /^\d+ athletes$/ }).click();
  await expect(page.getByText("noncentral t")).toBeVisible();
});
