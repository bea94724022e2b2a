import { expose } from "comlink";
import type { Sizes } from "../../core/racks/lift-problem";
import type { OpenProblem } from "../../core/racks/problem";
import { type Proposal, proposeGroups, type SlotTimes } from "../../core/racks/propose";

/** What is looked for: a slot's groups over the numbers of racks that may be used. */
export interface GroupsAsked {
  problem: OpenProblem;
  sizes: readonly Sizes[];
  slot: SlotTimes;
}

/** Groups at racks, off the page's own thread. */
const port = {
  async look(
    { problem, sizes, slot }: GroupsAsked,
    tell: (found: Proposal) => Promise<void> | void,
  ): Promise<void> {
    for (const found of proposeGroups(problem, sizes, slot)) await tell(found);
  },
};
export type GroupsPort = typeof port;
expose(port);
