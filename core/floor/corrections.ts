/**
 * Which corrections act. A correction names the entries whose place it takes; a void puts nothing
 * there. The corrections are walked in the log's order:
 *
 * - one that wants an entry which another correction in force already holds is refused as a whole
 *   and reported: all its targets or none;
 * - a void of a correction gives the correction's targets back; a void of a void puts what it had
 *   voided in force again;
 * - a correction of a correction takes its place, and what was corrected stays replaced.
 *
 * Only valid corrections come here: one that is set aside holds nothing.
 */
export interface Correction {
  id: string;
  targets: readonly string[];
  isVoid: boolean;
}

export interface DoubleCorrection {
  of: string;
  kept: string;
  other: string;
}

export interface Corrections {
  /** Which correction in force hides an entry. */
  hiddenBy: ReadonlyMap<string, string>;
  /** Corrections that do not act: neither they nor their bodies count. */
  refused: ReadonlySet<string>;
  conflicts: DoubleCorrection[];
}

/** @param corrections valid ones, each once, in the log's order */
export function applyCorrections(corrections: readonly Correction[]): Corrections {
  const byId = new Map(corrections.map((one) => [one.id, one]));
  const order = new Map(corrections.map((one, i) => [one.id, i]));
  const heldBy = new Map<string, string>();
  const refused = new Map<string, DoubleCorrection[]>();
  const seen = new Set<string>();

  /** Whether a correction would, by way of what is held, take its own place. */
  const closesCircle = (one: Correction): boolean => {
    for (let at: string | undefined = one.id; at !== undefined; at = heldBy.get(at))
      if (one.targets.includes(at)) return true;
    return false;
  };
  const holdTargets = (one: Correction): boolean => {
    const taken = one.targets.flatMap((of) => {
      const kept = heldBy.get(of);
      return kept === undefined || kept === one.id ? [] : [{ of, kept, other: one.id }];
    });
    if (taken.length > 0 || closesCircle(one)) {
      refused.set(one.id, taken);
      return false;
    }
    refused.delete(one.id);
    for (const target of one.targets) heldBy.set(target, one.id);
    return true;
  };
  /** Gives back what some corrections held; gives what voids among them had voided. */
  const release = (undone: readonly Correction[]): string[] =>
    undone.flatMap((one) => {
      const freed = one.targets.filter((target) => heldBy.get(target) === one.id);
      for (const target of freed) heldBy.delete(target);
      return one.isVoid ? freed : [];
    });
  /** Puts a correction in force, where it is one, was reached, and is not void. */
  const act = (id: string): void => {
    const one = byId.get(id);
    if (!one || !seen.has(id)) return;
    const holder = byId.get(heldBy.get(id) ?? "");
    if (holder?.isVoid) return;
    if (!holdTargets(one) || !one.isVoid) return;
    // All of it is given back first, for one that acts again may want any of it; then those that
    // act again do so in the log's order.
    const again = release(one.targets.flatMap((target) => byId.get(target) ?? []));
    again.sort((x, y) => (order.get(x) ?? 0) - (order.get(y) ?? 0));
    for (const target of again) act(target);
  };
  for (const one of corrections) {
    seen.add(one.id);
    act(one.id);
  }
  return {
    hiddenBy: heldBy,
    refused: new Set(refused.keys()),
    // Who takes a refused correction back has settled it.
    conflicts: [...refused].flatMap(([id, taken]) => (heldBy.has(id) ? [] : taken)),
  };
}
