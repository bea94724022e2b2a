import type {
  FrozenExerciseAthlete,
  FrozenLifter,
  FrozenPairingAthlete,
  FrozenSession,
  FrozenSlot,
} from "./frozen";

/**
 * What a session shows of a person: kept beside the frozen session and not in it, so that somebody
 * can be erased while everything that was planned and lifted stays as it was.
 */
export interface DisplayCopy {
  athleteId: string;
  name: string;
  instructions: string[];
  /** Lines of the set-up by slot, where there are any. */
  setups: Record<string, string[]>;
  /** Of sessions of one slot, from before a session was a day. */
  setup?: string[] | undefined;
}

/** Shown where somebody stood who has been erased. */
export const ERASED_NAME = "Erased athlete";

/** Takes what shows a person out of a session. Several copies of one person are one. */
export function takeCopies(session: FrozenSession): {
  frozen: FrozenSession;
  copies: DisplayCopy[];
} {
  const copies = new Map<string, DisplayCopy>();
  const copyOf = (one: { athleteId: string; name: string; instructions?: string[] }) => {
    const { athleteId, name } = one;
    const copy = copies.get(athleteId) ?? { athleteId, name, instructions: [], setups: {} };
    copies.set(athleteId, copy);
    for (const text of one.instructions ?? [])
      if (!copy.instructions.includes(text)) copy.instructions.push(text);
    return copy;
  };
  const frozen = mapPeople(session, {
    lifter({ setup, ...lifter }, slotId) {
      const copy = copyOf(lifter);
      if (setup) copy.setups[slotId] = setup;
      return { ...lifter, name: "", instructions: [] };
    },
    exerciser(one) {
      copyOf(one);
      return { ...one, name: "", instructions: [] };
    },
    athlete(one) {
      copyOf(one);
      return { ...one, name: "" };
    },
  });
  return { frozen, copies: [...copies.values()] };
}

/** Puts it back; who has no copy any more has been erased. */
export function putCopies(session: FrozenSession, copies: readonly DisplayCopy[]): FrozenSession {
  const of = new Map(copies.map((copy) => [copy.athleteId, copy]));
  return mapPeople(session, {
    lifter({ setup: _, ...lifter }, slotId) {
      const copy = of.get(lifter.athleteId);
      if (!copy) return { ...lifter, name: ERASED_NAME, instructions: [] };
      const { name, instructions } = copy;
      const setup = copy.setups[slotId] ?? copy.setup;
      return { ...lifter, name, instructions, ...(setup ? { setup } : {}) };
    },
    exerciser(one) {
      const copy = of.get(one.athleteId);
      return { ...one, name: copy?.name ?? ERASED_NAME, instructions: copy?.instructions ?? [] };
    },
    athlete: (one) => ({ ...one, name: of.get(one.athleteId)?.name ?? ERASED_NAME }),
  });
}

function mapPeople(
  session: FrozenSession,
  of: {
    lifter: (one: FrozenLifter, slotId: string) => FrozenLifter;
    exerciser: (one: FrozenExerciseAthlete) => FrozenExerciseAthlete;
    athlete: (one: FrozenPairingAthlete) => FrozenPairingAthlete;
  },
): FrozenSession {
  const slots = session.slots.map((slot): FrozenSlot => {
    if (slot.kind === "lift") {
      const each = (lifters: FrozenLifter[]) => lifters.map((one) => of.lifter(one, slot.slotId));
      return {
        ...slot,
        groups: slot.groups.map((group) => ({ ...group, lifters: each(group.lifters) })),
        ...(slot.absent ? { absent: each(slot.absent) } : {}),
      };
    }
    if (slot.kind === "exercise")
      return {
        ...slot,
        groups: slot.groups.map((group) => ({
          ...group,
          athletes: group.athletes.map(of.exerciser),
        })),
        ...(slot.absent ? { absent: slot.absent.map(of.exerciser) } : {}),
      };
    return {
      ...slot,
      groups: slot.groups.map((group) => ({ ...group, athletes: group.athletes.map(of.athlete) })),
    };
  });
  return { ...session, slots };
}
