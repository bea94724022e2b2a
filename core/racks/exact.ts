import type { GroupCosts } from "./group-cost";
import type { RackGroup } from "./problem";

/** Up to so many lifters every grouping is looked at. */
export const EVERY_GROUPING = 11;

/**
 * The cheapest of all groupings, by the best use of the first racks for every subset of lifters; what
 * is asked across groups (together, stock) is not looked at, so that the cost is a bound in any case.
 * @returns undefined where no grouping keeps the sizes
 */
export function exactGroups(costs: GroupCosts): { cost: number; groups: RackGroup[] } | undefined {
  const { lifters, racks, use, least, most } = costs.problem;
  const n = lifters.length;
  if (n > EVERY_GROUPING) return undefined;
  const full = (1 << n) - 1;
  const members = Array.from({ length: full + 1 }, (_, mask) =>
    lifters.flatMap((_, i) => (mask & (1 << i) ? [i] : [])),
  );
  const sized = members.flatMap((own, mask) =>
    own.length >= least && own.length <= most ? [mask] : [],
  );
  // So far: by racks used and subset, the cost and the group of the last rack.
  let so = new Map<number, { cost: number; groups: Array<{ rack: number; mask: number }> }>([
    [key(0, 0), { cost: 0, groups: [] }],
  ]);
  for (const rack of racks.keys()) {
    const next = new Map(so);
    const own = sized.flatMap((mask) => {
      const { cost, broken } = costs.of(rack, members[mask] ?? []);
      return broken > 0 ? [] : [{ mask, cost }];
    });
    for (const [state, { cost, groups }] of so) {
      const used = state >> n;
      const taken = state & full;
      if (used === use) continue;
      // The lowest who has no group yet would give each set of alike racks once; racks may differ.
      for (const one of own) {
        if (one.mask & taken) continue;
        const to = key(used + 1, taken | one.mask);
        const sum = cost + one.cost;
        const known = next.get(to);
        if (!known || sum < known.cost - 1e-9)
          next.set(to, { cost: sum, groups: [...groups, { rack, mask: one.mask }] });
      }
    }
    so = next;
  }
  const found = so.get(key(use, full));
  return (
    found && {
      cost: found.cost,
      groups: found.groups.map(({ rack, mask }) => ({
        rackId: racks[rack]?.id ?? "",
        order: costs.of(rack, members[mask] ?? []).order.map((i) => lifters[i]?.id ?? ""),
      })),
    }
  );

  function key(used: number, taken: number): number {
    return (used << n) | taken;
  }
}
