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

/** A plan's block, where its row has not been written since it was read. */
export function keptBlock(planId: string, stamp: string): Block | undefined {
  const there = kept.get(planId);
  if (there?.stamp !== stamp) return undefined;
  there.usedAt = Date.now();
  return there.block;
}

/** Keeps a block as read under a stamp, and freezes it: it is shared. */
export function keepBlock(planId: string, stamp: string, block: Block): Block {
  const at = Date.now();
  for (const [id, one] of kept)
    if (at - one.usedAt > KEPT_MS || kept.size > MOST_KEPT) kept.delete(id);
  kept.set(planId, { stamp, block: frozen(block), usedAt: at });
  return block;
}

function frozen<T>(value: T): T {
  if (typeof value !== "object" || value === null || Object.isFrozen(value)) return value;
  for (const part of Object.values(value)) frozen(part);
  return Object.freeze(value);
}
