import { useEffect, useRef } from "react";
import { isSaid, say } from "./said";

/**
 * A call that slid under the finger, or took the keys over, within so long is read by nobody, ms:
 * whoever pressed then meant another. Longer than a second press of a double one, shorter than it
 * takes to read a line.
 */
const READ_MS = 600;
/** Calls that come into view within so long are of one drawing, ms. */
const ONE_DRAWING_MS = 100;

/** The calls in view, each with when it came. */
const inView = new Map<symbol, number>();
let wentAt = Number.NEGATIVE_INFINITY;

/**
 * Whether a call may be taken at this moment: not right after another one went, nor right after it
 * came among others. A press that is not heeded is told why.
 * @param id of the call that is shown
 * @param comesByItself calls come in while somebody looks, as on a floor; where they come only after
 *   an act of the reader's own (an undo), that one is expected
 */
export function useReadFirst(id: string, comesByItself: boolean): () => boolean {
  const cameAt = useRef(Number.NEGATIVE_INFINITY);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another call in the same card is another
  useEffect(() => {
    const own = Symbol();
    const now = performance.now();
    const others = [...inView.values()].some((at) => at < now - ONE_DRAWING_MS);
    cameAt.current = comesByItself && others ? now : Number.NEGATIVE_INFINITY;
    inView.set(own, now);
    return () => {
      inView.delete(own);
      wentAt = performance.now();
    };
  }, [id, comesByItself]);
  return () => {
    const now = performance.now();
    const justCame = now - cameAt.current < READ_MS;
    if (!justCame && now - wentAt >= READ_MS) return true;
    // What this reader decided stands at the page's foot with its way back: nothing is said over it.
    if (justCame || !isSaid()) say("The calls have changed. Look at this one, then press again.");
    return false;
  };
}
