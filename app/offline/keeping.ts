/**
 * Entries on their way into this browser's store. One counts as unsent from the tap on, and as
 * kept only once the store has it: a screen that reads the store alone would say "sent" of an
 * entry that is not even written yet. What the store did not take is tried again.
 */
export class Keeping<Entry extends { id: string }> {
  readonly #keep: (entry: Entry) => Promise<void>;
  readonly #writing = new Map<string, Entry>();
  readonly #failed = new Map<string, Entry>();

  constructor(keep: (entry: Entry) => Promise<void>) {
    this.#keep = keep;
  }

  /** @returns whether the store has it now */
  async put(entry: Entry): Promise<boolean> {
    this.#writing.set(entry.id, entry);
    try {
      await this.#keep(entry);
      this.#failed.delete(entry.id);
      return true;
    } catch {
      this.#failed.set(entry.id, entry);
      return false;
    } finally {
      this.#writing.delete(entry.id);
    }
  }

  /** Tries again what the store did not take; whether anything is kept that was not. */
  async again(): Promise<boolean> {
    const tried = [...this.#failed.values()].filter((entry) => !this.#writing.has(entry.id));
    const kept = await Promise.all(tried.map((entry) => this.put(entry)));
    return kept.includes(true);
  }

  /** Ids that are not in the store yet. */
  get notKept(): string[] {
    return [...new Set([...this.#writing.keys(), ...this.#failed.keys()])];
  }

  /** How many the store refused: they live on this page only. */
  get failed(): number {
    return this.#failed.size;
  }
}
