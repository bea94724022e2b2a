import type { Block } from "../../core/plan/block";

/**
 * Blocks of plans as this process last read them: most pages ask for every plan of the team, and their
 * blocks are most of what the database would send. Only who may read a plan's row learns its stamp, and
 * a row that was written since has another one.
 */
interface Kept {
  stamp: string;
  block: Block;
  usedAt: number;
}

const kept = new Map<string, Kept>();

/** What nobody asked for in this time is let go, ms: a plan that was erased too. */
const KEPT_MS = 10 * 60_000;
const MOST_KEPT = 2000;
const LOOKED_EVERY_MS = 60_000;

/** A plan's block, where its row has not been written since it was read. */
export function keptBlock(planId: string, stamp: string): Block | undefined {
  letGo();
  const there = kept.get(planId);
  if (there?.stamp !== stamp) return undefined;
  there.usedAt = Date.now();
  return there.block;
}

/** Keeps a block as read under a stamp, and freezes it: it is shared. */
export function keepBlock(planId: string, stamp: string, block: Block): Block {
  kept.set(planId, { stamp, block: frozen(block), usedAt: Date.now() });
  return block;
}

let lookedAt = 0;

/** Whoever asks for any plan lets go what nobody asked for. */
function letGo(): void {
  const at = Date.now();
  if (at - lookedAt < LOOKED_EVERY_MS && kept.size <= MOST_KEPT) return;
  lookedAt = at;
  for (const [id, one] of kept)
    if (at - one.usedAt > KEPT_MS || kept.size > MOST_KEPT) kept.delete(id);
}

function frozen<T>(value: T): T {
  if (typeof value !== "object" || value === null || Object.isFrozen(value)) return value;
  for (const part of Object.values(value)) frozen(part);
  return Object.freeze(value);
}
