import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { useBeforeUnload, useRevalidator } from "react-router";
import { uuidv7 } from "uuidv7";
import type { Block } from "../../../core/plan/block";
import { applyEdit, type BlockEdit } from "../../../core/plan/edits";
import { BlockSchema } from "../../forms/block";
import type { Edit, EditAnswer } from "./setup-edit";

/** An edit on its way, with the edit number of the page it was drawn up on. */
interface Waiting {
  id: string;
  edit: BlockEdit;
  base: number;
  answered: (answer: EditAnswer) => void;
  /** Its own number, once the server has it; it shows until the page has loaded that number. */
  seq?: number;
}

const RETRY_MS = 2000;
const AWAY = "The server could not be reached. Your edit waits here, and is sent again.";

const EditContext = createContext<Edit>(() => {
  throw new Error("usePlanEdit stands outside of PlanEdits.");
});
export const PlanEdits = EditContext.Provider;

/** What takes an edit made on what this page shows to the server. */
export const usePlanEdit = (): Edit => useContext(EditContext);

/** The block as it will be when the edits are through; one that cannot be kept is left out. */
function withEdits(block: Block, waiting: readonly Waiting[]): Block {
  let now = block;
  for (const { edit } of waiting) {
    const next = applyEdit(now, edit);
    if (next.ok && BlockSchema.safeParse(next.block).success) now = next.block;
  }
  return now;
}

/** Sends one edit; undefined where no answer came, so that it may be there or not. */
async function send(planId: string, one: Waiting, base: number): Promise<EditAnswer | undefined> {
  try {
    const response = await fetch(`/api/plan/${planId}`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ id: one.id, base, edit: one.edit }),
      // Goes on when the page is left.
      keepalive: true,
    });
    if (response.status >= 500) return undefined;
    return (await response.json()) as EditAnswer;
  } catch {
    return undefined;
  }
}

/**
 * Sends edits one after the other, apart from the page's own loading: a click on another tab of
 * the plan, or away from it, does not cut one off. What is on its way shows at once; without an
 * answer it is sent again, and counts once.
 * @param version number of the newest edit the page has loaded
 */
export function usePlanEdits(planId: string, version: number, block: Block) {
  const { revalidate, state: loading } = useRevalidator();
  const [edits, setEdits] = useState<Waiting[]>([]);
  const [problem, setProblem] = useState<string>();
  const queue = useRef<Waiting[]>([]);
  const sending = useRef(false);
  // Own edits since a base count as seen; anybody else's in between does not.
  const own = useRef(new Set<number>());

  const pump = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    for (let one = queue.current[0]; one; one = queue.current[0]) {
      const { id } = one;
      let { base } = one;
      while (own.current.has(base + 1)) base++;
      const answer = await send(planId, one, base);
      if (!answer) {
        setProblem(AWAY);
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        continue;
      }
      queue.current.shift();
      setProblem(answer.ok ? undefined : answer.message);
      one.answered(answer);
      if (answer.ok) own.current.add(answer.value.seq);
      const seq = answer.ok ? answer.value.seq : undefined;
      setEdits((all) =>
        all.flatMap((other) =>
          other.id !== id ? [other] : seq === undefined ? [] : [{ ...other, seq }],
        ),
      );
    }
    sending.current = false;
    void revalidate();
  }, [planId, revalidate]);

  const edit = useCallback<Edit>(
    async (made, base = version) => {
      if (!made) return undefined;
      return new Promise<EditAnswer>((answered) => {
        const one = { id: uuidv7(), edit: made, base, answered };
        queue.current.push(one);
        setEdits((all) => [...all, one]);
        void pump();
      });
    },
    [version, pump],
  );
  const waiting = useMemo(
    () => edits.filter((one) => one.seq === undefined || one.seq > version),
    [edits, version],
  );
  useBeforeUnload(
    useCallback((event) => {
      if (queue.current.length > 1) event.preventDefault();
    }, []),
  );
  // A tab that was opened meanwhile may have kept the page from loading what was made.
  const behind = waiting.length > 0 && waiting.every((one) => one.seq !== undefined);
  useEffect(() => {
    if (!behind || loading !== "idle") return;
    const again = setTimeout(() => void revalidate(), RETRY_MS);
    return () => clearTimeout(again);
  }, [behind, loading, revalidate]);
  const shown = useMemo(() => withEdits(block, waiting), [block, waiting]);
  return { block: shown, edit, problem, busy: waiting.length > 0 };
}
