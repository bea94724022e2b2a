import { reduceFloor } from "../../core/floor/state";
import { seededRandom } from "../../core/numeric/random";
import { equalSpeed } from "../../core/review/equal-speed";
import { factsOf } from "../../core/review/session-facts";
import { sumSession } from "../../core/review/session-sum";
import { setFade } from "../../core/review/set-fade";
import { measuredSets, slopeKnown } from "../../core/review/squad-wave";
import { addDays, type LocalDate } from "../../core/units/time";
import { addCall } from "../queries/reviews.server";
import { entriesAfter, frozenOf, sessionIds } from "../queries/sessions.server";
import { keepSum, liftPoints } from "../queries/sums.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";
import { uuidFrom } from "./uuid";

const SEED = 220036;
const COACH = "Callum Reyk";
const SQUAD = "Sprint kayak";

/** The coach's numbers of the review, the sums of what was trained, and what was decided five weeks ago. */
export async function loadReviews(tx: TeamTransaction, now: Date, today: LocalDate): Promise<void> {
  const uuid = uuidFrom(seededRandom(SEED));
  const entered = { enteredBy: COACH, enteredAt: now };
  await tx.insert(schema.coachValue).values(
    Object.entries({ stallExposures: 6, baseStepPercent: 2.5 }).map(([key, value]) => ({
      teamId: tx.teamId,
      id: uuid(),
      key,
      value,
      ...entered,
    })),
  );
  for (const { id } of await sessionIds(tx)) await sumDemo(tx, id, now);
  await decideDemo(tx, uuid, today);
}

async function sumDemo(tx: TeamTransaction, sessionId: string, at: Date): Promise<void> {
  const row = await frozenOf(tx, sessionId);
  if (!row) return;
  const entries = await entriesAfter(tx, sessionId, 0);
  const floor = reduceFloor(row.frozen, entries);
  const sum = sumSession(row.frozen, floor);
  const { planId, week } = row;
  await keepSum(tx, {
    sessionId,
    date: row.date,
    seq: entries.at(-1)?.seq ?? 0,
    at,
    facts: factsOf(row.frozen, floor, sum),
    sum,
    plan: planId !== null && week !== null ? { planId, week } : undefined,
  });
}

const WORDS = [
  { kind: "rest", decision: "taken", reason: "", proposal: "15 s more rest: the last sets fade" },
  {
    kind: "variation",
    decision: "declined",
    reason: "Two more weeks of it first.",
    proposal: "Change the variation: no rise that counts in 9 days of it",
  },
  {
    kind: "hold",
    decision: "taken",
    reason: "",
    proposal: "Hold the load until a coach clears it",
  },
] as const;

/** Three words of the coach at the end of an earlier wave, each with the level of that day. */
async function decideDemo(
  tx: TeamTransaction,
  uuid: () => string,
  today: LocalDate,
): Promise<void> {
  const date = addDays(today, -35);
  const squad = (await tx.select().from(schema.squad)).find((one) => one.name === SQUAD);
  const bench = (await tx.select().from(schema.liftVariant)).find((one) => one.lift === "bench");
  const people = (await tx.select().from(schema.athlete).orderBy(schema.athlete.name))
    .filter((one) => one.squadId === squad?.id)
    .slice(2, 2 + WORDS.length);
  if (!bench) throw new Error("The demo needs its bench press.");
  const points = await liftPoints(tx, {
    athleteIds: people.map((one) => one.id),
    from: addDays(date, -84),
    variantIds: [bench.id],
  });
  for (const [i, person] of people.entries()) {
    const history = points.filter((one) => one.athleteId === person.id && one.date <= date);
    const sets = measuredSets(history);
    const speed = equalSpeed(sets, { slope: slopeKnown(history, undefined) });
    const word = WORDS[i];
    if (!word || !speed.ok) continue;
    const last = sets.filter((set) => set.date === sets.at(-1)?.date);
    const fade = setFade(last, 8);
    await addCall(tx, {
      id: uuid(),
      ...word,
      about: `${word.kind}/${person.id}/earlier`,
      athleteId: person.id,
      variantId: bench.id,
      date,
      evidence: {
        lines: ["As it stood at the end of the wave"],
        level: {
          loadKg: speed.loadKg,
          speedMps: speed.now.estimate,
          sdMps: (speed.now.high - speed.now.low) / 3.29,
          ...(fade.ok ? { fadePercent: fade.percent } : {}),
        },
      },
      effect: { type: "none" },
      enteredBy: COACH,
      enteredAt: new Date(`${date}T18:00:00Z`),
    });
  }
}
