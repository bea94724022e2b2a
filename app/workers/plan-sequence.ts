import { type Remote, wrap } from "comlink";
import type { LoadingGear } from "../../core/barload/loading-gear";
import type { SequencePlan } from "../../core/barload/sequence";
import type { SequencePort } from "./plan-sequence.worker";

let port: Remote<SequencePort> | undefined;

/** Decompositions of a sequence of loads with the fewest plate moves, worked out in a worker. */
export function sequenceInWorker(
  gear: LoadingGear,
  totalsKg: readonly number[],
): Promise<SequencePlan> {
  port ??= wrap<SequencePort>(
    new Worker(new URL("./plan-sequence.worker.ts", import.meta.url), { type: "module" }),
  );
  return port.plan(gear, [...totalsKg]);
}
