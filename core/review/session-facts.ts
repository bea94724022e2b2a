import type { FrozenSession } from "../floor/frozen";
import type { FloorState } from "../floor/state";
import { type HeavyBest, heavyBests } from "./heavy";
import type { SessionSum, SlotHead } from "./session-sum";

/** What a session's review asks for besides the work of its athletes; nameless. */
export interface SessionFacts {
  slots: SlotHead[];
  callsWaiting: number;
  callsDecided: number;
  roomName: string;
  planVersion: number;
  /** Best sets of heavy slots. */
  heavy: Array<Omit<HeavyBest, "name">>;
  /** Calls with their decisions; why stands with the entry's words. */
  decided: Array<{
    entryId: string;
    athleteId: string;
    setKey: string;
    call: string;
    decision: "take" | "change" | "decline";
    toKg: number | undefined;
    addS: number | undefined;
  }>;
  conflicts: number;
  setAside: { count: number; reason: string };
}

/** What a review asks for besides the lines. */
export function factsOf(
  frozen: FrozenSession,
  floor: FloorState,
  sum: Pick<SessionSum, "slots" | "callsWaiting" | "callsDecided">,
): SessionFacts {
  return {
    slots: sum.slots,
    callsWaiting: sum.callsWaiting,
    callsDecided: sum.callsDecided,
    roomName: frozen.roomName,
    planVersion: frozen.planVersion,
    heavy: heavyBests(frozen, floor).map(({ name: _, ...best }) => best),
    decided: floor.decided.map((one) => ({
      entryId: one.entryId,
      athleteId: one.athleteId,
      setKey: one.setKey,
      call: one.call,
      decision: one.decision,
      toKg: one.action.type === "load" ? one.action.toKg : undefined,
      addS: one.action.type === "rest" ? one.action.addS : undefined,
    })),
    conflicts: floor.conflicts.length,
    setAside: { count: floor.setAside.length, reason: floor.setAside[0]?.reason ?? "" },
  };
}
