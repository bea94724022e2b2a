import { uuidv7 } from "uuidv7";
import type { BlockEdit } from "../../../core/plan/edits";
import type { EditAnswer } from "./setup-edit";

/** An edit on its way, with the edit number of the page it was drawn up on. */
export interface WaitingEdit {
  id: string;
  edit: BlockEdit;
  base: number;
  /** Its own number, once the server has it; it shows until the page has loaded that number. */
  seq: number | undefined;
}

export interface EditQueueState {
  edits: readonly WaitingEdit[];
  problem: string | undefined;
}

/** Sends one edit; undefined where no answer came, so that it may be there or not. */
export type SendEdit = (
  one: Pick<WaitingEdit, "id" | "edit">,
  base: number,
) => Promise<EditAnswer | undefined>;

const RETRY_MS = 2000;
const AWAY = "The server could not be reached. Your edit waits here, and is sent again.";

/**
 * Edits of one plan, sent one after the other, apart from the page's own loading: a click on
 * another tab of the plan, or away from it, does not cut one off. Without an answer an edit is
 * sent again under its number, and counts once.
 */
export class EditQueue {
  readonly #send: SendEdit;
  /** Called each time the queue has run empty. */
  readonly #emptied: () => void;
  readonly #watchers = new Set<() => void>();
  readonly #answered = new Map<string, (answer: EditAnswer) => void>();
  /** Own edits since a base count as seen; anybody else's in between does not. */
  readonly #own = new Set<number>();
  readonly #queue: WaitingEdit[] = [];
  #sending = false;
  #state: EditQueueState = { edits: [], problem: undefined };

  constructor(send: SendEdit, emptied: () => void) {
    this.#send = send;
    this.#emptied = emptied;
  }

  /** How many wait for an answer, the one under way included. */
  get length(): number {
    return this.#queue.length;
  }

  subscribe(watch: () => void): () => void {
    this.#watchers.add(watch);
    return () => this.#watchers.delete(watch);
  }

  state(): EditQueueState {
    return this.#state;
  }

  /** Takes an edit that was made on what edit number `base` left; resolves with its answer. */
  put(edit: BlockEdit, base: number): Promise<EditAnswer> {
    const one: WaitingEdit = { id: uuidv7(), edit, base, seq: undefined };
    const answer = new Promise<EditAnswer>((answered) => this.#answered.set(one.id, answered));
    this.#queue.push(one);
    this.#change({ edits: [...this.#state.edits, one] });
    void this.#pump();
    return answer;
  }

  async #pump(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    for (let one = this.#queue[0]; one; one = this.#queue[0]) {
      let { base } = one;
      while (this.#own.has(base + 1)) base++;
      const answer = await this.#send(one, base);
      if (!answer) {
        this.#change({ problem: AWAY });
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        continue;
      }
      this.#queue.shift();
      this.#settle(one, answer);
    }
    this.#sending = false;
    this.#emptied();
  }

  #settle({ id }: WaitingEdit, answer: EditAnswer): void {
    const seq = answer.ok ? answer.value.seq : undefined;
    if (seq !== undefined) this.#own.add(seq);
    this.#change({
      problem: answer.ok ? undefined : answer.message,
      // One that was refused shows no more; one that was taken shows until the page has it.
      edits: this.#state.edits.flatMap((other) =>
        other.id !== id ? [other] : seq === undefined ? [] : [{ ...other, seq }],
      ),
    });
    this.#answered.get(id)?.(answer);
    this.#answered.delete(id);
  }

  #change(change: Partial<EditQueueState>): void {
    this.#state = { ...this.#state, ...change };
    for (const watch of [...this.#watchers]) watch();
  }
}
