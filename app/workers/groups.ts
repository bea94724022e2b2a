import { proxy, type Remote, wrap } from "comlink";
import type { Proposal } from "../../core/racks/propose";
import type { GroupsAsked, GroupsPort } from "./groups.worker";

/**
 * Looks for a slot's groups in a worker of its own; tells of each better answer as it comes.
 * @returns how to stop
 */
export function lookForGroups(asked: GroupsAsked, tell: (found: Proposal) => void): () => void {
  const worker = new Worker(new URL("./groups.worker.ts", import.meta.url), { type: "module" });
  const port: Remote<GroupsPort> = wrap<GroupsPort>(worker);
  let over = false;
  const stop = () => {
    over = true;
    worker.terminate();
  };
  void port
    .look(
      asked,
      proxy((found: Proposal) => {
        if (!over) tell(found);
      }),
    )
    .then(stop, stop);
  return stop;
}
