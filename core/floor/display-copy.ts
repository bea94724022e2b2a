import type { FrozenLifter, FrozenPairingAthlete, FrozenSession, FrozenSlot } from "./frozen";

/**
 * What a session shows of a person: kept beside the frozen session and not in it, so that somebody
 * can be erased while everything that was planned and lifted stays as it was.
 */
export interface DisplayCopy {
  athleteId: string;
  name: string;
  instructions: string[];
  /** Lines of the set-up on the box; undefined where there is none. */
  setup: string[] | undefined;
}

/** Shown where somebody stood who has been erased. */
export const ERASED_NAME = "Erased athlete";

/** Takes what shows a person out of a session. Several copies of one person are one. */
export function takeCopies(session: FrozenSession): {
  frozen: FrozenSession;
  copies: DisplayCopy[];
} {
  const copies = new Map<string, DisplayCopy>();
  const frozen = mapPeople(session, {
    lifter({ setup, ...lifter }) {
      const { athleteId, name, instructions } = lifter;
      copies.set(athleteId, { athleteId, name, instructions, setup });
      return { ...lifter, name: "", instructions: [] };
    },
    athlete(one) {
      const { athleteId, name } = one;
      if (!copies.has(athleteId))
        copies.set(athleteId, { athleteId, name, instructions: [], setup: undefined });
      return { ...one, name: "" };
    },
  });
  return { frozen, copies: [...copies.values()] };
}

/** Puts it back; who has no copy any more has been erased. */
export function putCopies(session: FrozenSession, copies: readonly DisplayCopy[]): FrozenSession {
  const of = new Map(copies.map((copy) => [copy.athleteId, copy]));
  return mapPeople(session, {
    lifter({ setup: _, ...lifter }) {
      const copy = of.get(lifter.athleteId);
      if (!copy) return { ...lifter, name: ERASED_NAME, instructions: [] };
      const { name, instructions, setup } = copy;
      return { ...lifter, name, instructions, ...(setup ? { setup } : {}) };
    },
    athlete: (one) => ({ ...one, name: of.get(one.athleteId)?.name ?? ERASED_NAME }),
  });
}

function mapPeople(
  session: FrozenSession,
  of: {
    lifter: (one: FrozenLifter) => FrozenLifter;
    athlete: (one: FrozenPairingAthlete) => FrozenPairingAthlete;
  },
): FrozenSession {
  const slots = session.slots.map((slot): FrozenSlot => {
    if (slot.kind === "lift")
      return {
        ...slot,
        groups: slot.groups.map((group) => ({ ...group, lifters: group.lifters.map(of.lifter) })),
      };
    return {
      ...slot,
      groups: slot.groups.map((group) => ({ ...group, athletes: group.athletes.map(of.athlete) })),
    };
  });
  return { ...session, slots };
}
