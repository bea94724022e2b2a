import type { RackGroup } from "./problem";

/** Where a key moves somebody: in the turn, or to the rack beside. */
export type Step = "earlier" | "later" | "before" | "after";

const without = (groups: readonly RackGroup[], id: string): RackGroup[] =>
  groups.map((group) => ({ ...group, order: group.order.filter((one) => one !== id) }));
const withoutEmpty = (groups: readonly RackGroup[]) =>
  groups.filter((group) => group.order.length > 0);

/**
 * Somebody goes to the end of a rack's group, or before somebody.
 * @returns undefined where nothing changes
 */
export function moveLifter(
  groups: readonly RackGroup[],
  id: string,
  to: { rackId: string } | { beforeId: string },
): RackGroup[] | undefined {
  if ("beforeId" in to && to.beforeId === id) return undefined;
  const left = without(groups, id);
  if ("beforeId" in to) {
    if (!left.some((group) => group.order.includes(to.beforeId))) return undefined;
    return withoutEmpty(
      left.map((group) => {
        const at = group.order.indexOf(to.beforeId);
        return at < 0
          ? group
          : { ...group, order: [...group.order.slice(0, at), id, ...group.order.slice(at)] };
      }),
    );
  }
  const there = left.some((group) => group.rackId === to.rackId);
  const all = there ? left : [...left, { rackId: to.rackId, order: [] }];
  return withoutEmpty(
    all.map((group) =>
      group.rackId === to.rackId ? { ...group, order: [...group.order, id] } : group,
    ),
  );
}

/**
 * One step of somebody: a place earlier or later in the turn, or to the rack before or after.
 * @param rackIds the racks as they stand beside one another
 * @returns undefined where there is no such step
 */
export function stepLifter(
  groups: readonly RackGroup[],
  rackIds: readonly string[],
  id: string,
  step: Step,
): RackGroup[] | undefined {
  const own = groups.find((group) => group.order.includes(id));
  if (!own) return undefined;
  if (step === "before" || step === "after") {
    const at = rackIds.indexOf(own.rackId) + (step === "before" ? -1 : 1);
    const rackId = rackIds[at];
    return rackId === undefined ? undefined : moveLifter(groups, id, { rackId });
  }
  const at = own.order.indexOf(id);
  const to = at + (step === "earlier" ? -1 : 1);
  const other = own.order[to];
  if (other === undefined) return undefined;
  const order = [...own.order];
  order[at] = other;
  order[to] = id;
  return groups.map((group) => (group === own ? { ...group, order } : group));
}
