import type { Block, BlockPairing } from "./block";

export interface PairingChange {
  complexId: string;
  dayId: string;
  kind: "put on" | "taken off" | "another day" | "another week";
}

/** What became of a block's pairings since a publication. */
export function changedPairings(
  before: Pick<Block, "pairings">,
  now: Pick<Block, "pairings">,
): PairingChange[] {
  const old = before.pairings ?? {};
  const own = now.pairings ?? {};
  const said = ({ complexId, dayId }: BlockPairing, kind: PairingChange["kind"]) => [
    { complexId, dayId, kind },
  ];
  return [...new Set([...Object.keys(old), ...Object.keys(own)])].sort().flatMap((id) => {
    const [was, is] = [old[id], own[id]];
    if (!is) return was ? said(was, "taken off") : [];
    if (!was || was.complexId !== is.complexId) return said(is, "put on");
    if (was.dayId !== is.dayId) return said(is, "another day");
    return was.fromWeek === is.fromWeek ? [] : said(is, "another week");
  });
}
