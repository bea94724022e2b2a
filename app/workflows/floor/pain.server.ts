import type { EntryBody } from "../../../core/floor/entries";
import { absentOf, peopleOf, slotName } from "../../../core/floor/frozen";
import { addLimit, liftLimit } from "../../../db/queries/person.server";
import { frozenOf } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";
import type { Principal } from "../../platform/rights";

interface Flagged {
  id: string;
  body: EntryBody;
  principal: Principal;
}

/**
 * What a pain that was flagged at a rack leaves behind: a limit on that lift, which holds in every
 * later session until a coach lifts it. Where it hurts becomes the limit's reason, which owner,
 * coaches and the athlete read; the log, the racks and the tablets know only that it is held.
 */
export async function keepPains(
  tx: TeamTransaction,
  sessionId: string,
  entries: readonly Flagged[],
  at: Date,
): Promise<void> {
  const flagged = entries.filter(({ body }) => body.kind === "pain" || body.kind === "pain-over");
  if (flagged.length === 0) return;
  const session = await frozenOf(tx, sessionId);
  if (!session) return;
  for (const { id, body, principal } of flagged) {
    if (body.kind === "pain-over") {
      const on = localDate(session.frozen.zone, at);
      for (const pain of body.of) await liftLimit(tx, pain, { on, by: principal.name });
      continue;
    }
    if (body.kind !== "pain") continue;
    const slot = session.frozen.slots.find((one) => one.slotId === body.slotId);
    const doesIt =
      slot &&
      [...peopleOf(slot), ...absentOf(slot)].some((one) => one.athleteId === body.athleteId);
    if (!slot || !doesIt) continue;
    const entered = { enteredBy: principal.name, enteredAt: at };
    await addLimit(
      tx,
      {
        id,
        athleteId: body.athleteId,
        instruction: `Held by coach: no heavier on ${slotName(slot).toLowerCase()}.`,
        refuses: ["max-test", "heavy-single"],
        ...(slot.kind === "lift" ? { lift: slot.lift } : {}),
        ...entered,
      },
      {
        id,
        kind: "injury",
        reason: `Pain flagged at the rack: ${body.place ?? "place not said"}.`,
        ...entered,
      },
    );
  }
}
