import { uuidv7 } from "uuidv7";
import { addCard, confirmations, confirmCard, newestCard } from "../../../db/queries/box.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { teamDay } from "../lifters/today.server";

/** The team's standard card of cues, and who teaches by it. */
export function readStandardCard(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const card = await newestCard(tx);
    const dayOf = await teamDay(tx);
    const confirmed = card ? await confirmations(tx, card.id) : [];
    return {
      card: card && {
        id: card.id,
        version: card.version,
        cues: card.cues,
        by: card.enteredBy,
        on: dayOf(card.enteredAt),
      },
      confirmed: confirmed.map((one) => ({
        by: one.enteredBy,
        on: dayOf(one.enteredAt),
      })),
      mine: principal.kind === "person" && confirmed.some((one) => one.userId === principal.userId),
    };
  });
}

/** A new version: everybody confirms it anew. */
export function saveStandardCard(
  principal: Principal,
  cues: string[],
): Promise<Outcome<{ version: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const old = await newestCard(tx);
    if (old && old.cues.join("\n") === cues.join("\n"))
      return failed("same", "Nothing changed, so no version was made.");
    const version = (old?.version ?? 0) + 1;
    await addCard(tx, {
      id: uuidv7(),
      version,
      cues,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ version });
  });
}

export function confirmStandardCard(principal: Principal): Promise<Outcome<{ version: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const card = await newestCard(tx);
    if (!card || principal.kind !== "person")
      return failed("no-card", "There is no standard card yet. Write one first.");
    await confirmCard(tx, {
      id: uuidv7(),
      cardId: card.id,
      userId: principal.userId,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ version: card.version });
  });
}
