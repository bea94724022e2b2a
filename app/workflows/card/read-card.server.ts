import { addDays, type LocalDate } from "../../../core/units/time";
import { listVariants } from "../../../db/queries/maxes.server";
import { instructionsOn } from "../../../db/queries/person.server";
import { athleteById } from "../../../db/queries/squads.server";
import { liftPoints } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readNextDays } from "../lifters/next-days.server";
import { overSums } from "../lifters/session-sums.server";

/** Weeks and days that a card looks back. */
const PAST_WEEKS = 8;
const PAST_DAYS = 6;

/** What an athlete's newest days came to, a line a lift: their own, and nobody else's. */
async function lastDays(tx: TeamTransaction, athleteId: string, today: LocalDate) {
  const [points, variants] = await Promise.all([
    liftPoints(tx, { athleteIds: [athleteId], from: addDays(today, -7 * PAST_WEEKS) }),
    listVariants(tx),
  ]);
  const done = points.filter((one) => one.points.setsDone > 0);
  const dates = [...new Set(done.map((one) => one.date))].slice(-PAST_DAYS);
  return done
    .filter((one) => dates.includes(one.date))
    .reverse()
    .map(({ date, sessionId, variantId, points: sum }) => ({
      key: `${sessionId}/${variantId}`,
      date,
      lift: variants.find((one) => one.id === variantId)?.name ?? "a lift",
      sets: sum.setsDone,
      cut: sum.cut,
      topKg: sum.topKg,
      bestMps: sum.sets.length > 0 ? Math.max(...sum.sets.map(([, , mps]) => mps)) : undefined,
    }));
}

/** An athlete's own next session, and nobody else's. */
export function readCard(principal: Principal) {
  return overSums(principal, async (tx) => {
    const athleteId = principal.kind === "person" ? principal.athleteId : undefined;
    const person = athleteId ? await athleteById(tx, athleteId) : undefined;
    if (!person) {
      return failed("no-card", "Your sign-in has no athlete yet. Ask your coach to connect it.");
    }
    const read = await readNextDays(tx, person);
    if (!read.ok) return read;
    const { today, days } = read.value;
    const instructions = (await instructionsOn(tx, () => today, person.id)).get(person.id) ?? [];
    const [next, ...also] = days;
    const past = await lastDays(tx, person.id, today);
    return done({ name: person.name, instructions, next, also, past });
  });
}
