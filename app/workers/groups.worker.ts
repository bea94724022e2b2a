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

/** A better answer is told so often at the most: each is drawn. */
const TELL_EVERY_MS = 300;

/** Groups at racks, off the page's own thread. */
const port = {
  async look(
    { problem, sizes, slot }: GroupsAsked,
    tell: (found: Proposal) => Promise<void> | void,
  ): Promise<void> {
    let told = 0;
    let last: Proposal | undefined;
    for (const found of proposeGroups(problem, sizes, slot)) {
      last = found;
      if (performance.now() - told < TELL_EVERY_MS) continue;
      told = performance.now();
      void tell(found);
      last = undefined;
    }
    if (last) await tell(last);
  },
};
export type GroupsPort = typeof port;
expose(port);
