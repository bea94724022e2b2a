import { analyseStream } from "./analyse";
import type { MeasuredRep, StreamSettings } from "./stream";

/**
 * Reps as they happen. The stream of the running set is kept and measured again with every
 * batch of samples by the same code that measures a stored stream: one detector decides. A rep
 * is confirmed once enough of what follows it has been seen that its figures have settled.
 */
export const CONFIRM_AFTER_S = 0.2;

export class LiveSet {
  readonly #settings: Partial<StreamSettings>;
  readonly #timesS: number[] = [];
  readonly #heightsM: number[] = [];
  #confirmedUntilS = Number.NEGATIVE_INFINITY;

  constructor(settings: Partial<StreamSettings> = {}) {
    this.#settings = settings;
  }

  /** Adds samples and returns the reps that became certain with them, in order. */
  push(samples: ReadonlyArray<{ timeS: number; heightM: number }>): MeasuredRep[] {
    for (const { timeS, heightM } of samples) {
      this.#timesS.push(timeS);
      this.#heightsM.push(heightM);
    }
    const newest = this.#timesS[this.#timesS.length - 1];
    if (newest === undefined) return [];
    const { reps } = analyseStream(
      { timesS: this.#timesS, heightsM: this.#heightsM },
      this.#settings,
    );
    const fresh = reps.filter(
      (rep) => rep.startS > this.#confirmedUntilS && rep.endS <= newest - CONFIRM_AFTER_S,
    );
    const last = fresh[fresh.length - 1];
    if (last !== undefined) this.#confirmedUntilS = last.endS;
    return fresh;
  }

  /** Heights of the last seconds, for a trace on the screen. */
  recentHeights(seconds: number): Array<{ timeS: number; heightM: number }> {
    const newest = this.#timesS[this.#timesS.length - 1];
    if (newest === undefined) return [];
    const out: Array<{ timeS: number; heightM: number }> = [];
    for (let i = this.#timesS.length - 1; i >= 0; i--) {
      const timeS = this.#timesS[i] as number;
      if (timeS < newest - seconds) break;
      out.push({ timeS, heightM: this.#heightsM[i] as number });
    }
    return out.reverse();
  }
}
