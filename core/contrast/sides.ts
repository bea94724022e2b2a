/** Reps done to each side. */
export interface Sides {
  left: number;
  right: number;
}

export interface SideRow extends Sides {
  item: string;
  /** Left less right: more than nothing means that the right has some to make up. */
  apart: number;
}

/** Throws, jumps and single-side work by side, and how far apart the two sides are, by item. */
export function sideLedger(done: ReadonlyArray<Sides & { item: string }>): SideRow[] {
  const by = new Map<string, Sides>();
  for (const one of done) {
    const row = by.get(one.item) ?? { left: 0, right: 0 };
    by.set(one.item, { left: row.left + one.left, right: row.right + one.right });
  }
  return [...by].map(([item, row]) => ({ item, ...row, apart: row.left - row.right }));
}

/** What a row of the ledger asks for: "even", "right: 3 to make up". */
export function sideWords({ apart }: Pick<SideRow, "apart">): string {
  if (apart === 0) return "even";
  return `${apart > 0 ? "right" : "left"}: ${Math.abs(apart)} to make up`;
}
