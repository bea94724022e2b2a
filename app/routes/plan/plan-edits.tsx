import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from "react";
import { useBeforeUnload, useRevalidator } from "react-router";
import type { Block } from "../../../core/plan/block";
import { applyEdit } from "../../../core/plan/edits";
import { EditQueue, type SendEdit, type WaitingEdit } from "./edit-queue";
import type { Edit, EditAnswer } from "./setup-edit";

const LOAD_AGAIN_MS = 2000;

const EditContext = createContext<Edit>(() => {
  throw new Error("usePlanEdit stands outside of PlanEdits.");
});
export const PlanEdits = EditContext.Provider;

/** What takes an edit made on what this page shows to the server. */
export const usePlanEdit = (): Edit => useContext(EditContext);

/** Whether a block can be kept. Comes with the first edit: who only reads is spared it. */
let keepable: ((block: Block) => boolean) | undefined;
async function rulesOfBlocks(): Promise<void> {
  if (keepable) return;
  const { BlockSchema } = await import("../../forms/block");
  keepable = (block) => BlockSchema.safeParse(block).success;
}

/** The block as it will be when the edits are through; one that cannot be kept is left out. */
function withEdits(block: Block, waiting: readonly WaitingEdit[]): Block {
  let now = block;
  for (const { edit } of waiting) {
    const next = applyEdit(now, edit);
    if (next.ok && keepable?.(next.block)) now = next.block;
  }
  return now;
}

const sendTo =
  (planId: string): SendEdit =>
  async ({ id, edit }, base) => {
    try {
      const response = await fetch(`/api/plan/${planId}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ id, base, edit }),
        // Goes on when the page is left.
        keepalive: true,
      });
      if (response.status >= 500) return undefined;
      return (await response.json()) as EditAnswer;
    } catch {
      return undefined;
    }
  };

/**
 * A plan's queue of edits on this page: what is on its way shows at once.
 * @param version number of the newest edit the page has loaded
 */
export function usePlanEdits(planId: string, version: number, block: Block) {
  const { revalidate, state: loading } = useRevalidator();
  const load = useRef(revalidate);
  load.current = revalidate;
  const [queue] = useState(() => new EditQueue(sendTo(planId), () => void load.current()));
  const { edits, problem } = useSyncExternalStore(
    useCallback((watch) => queue.subscribe(watch), [queue]),
    () => queue.state(),
    () => queue.state(),
  );
  const edit = useCallback<Edit>(
    async (made, base = version) => {
      if (!made) return undefined;
      // Without a link they do not come: the edit waits as ever, and is drawn once it is kept.
      await rulesOfBlocks().catch(() => {});
      return queue.put(made, base);
    },
    [version, queue],
  );
  const waiting = useMemo(
    () => edits.filter((one) => one.seq === undefined || one.seq > version),
    [edits, version],
  );
  useBeforeUnload(
    useCallback(
      (event) => {
        if (queue.length > 1) event.preventDefault();
      },
      [queue],
    ),
  );
  // Whoever presses anything here may be about to edit.
  useEffect(() => {
    const begin = () => void rulesOfBlocks().catch(() => {});
    const once = { once: true };
    window.addEventListener("pointerdown", begin, once);
    window.addEventListener("keydown", begin, once);
    return () => {
      window.removeEventListener("pointerdown", begin);
      window.removeEventListener("keydown", begin);
    };
  }, []);
  // A tab that was opened meanwhile may have kept the page from loading what was made.
  const behind = waiting.length > 0 && waiting.every((one) => one.seq !== undefined);
  useEffect(() => {
    if (!behind || loading !== "idle") return;
    const again = setTimeout(() => void revalidate(), LOAD_AGAIN_MS);
    return () => clearTimeout(again);
  }, [behind, loading, revalidate]);
  const shown = useMemo(() => withEdits(block, waiting), [block, waiting]);
  return { block: shown, edit, problem, busy: waiting.length > 0 };
}
