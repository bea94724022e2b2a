import type { ClockMark } from "../../core/units/clock";

/** The two clocks of a browser, ms. */
export interface ClockSource {
  wallMs(): number;
  /** Never goes back within one page; may stand still while the tablet sleeps. */
  monoMs(): number;
}

/** The wall clock may run away from the monotonic one by this much before it is a new boot, ms. */
export const MOST_DRIFT_MS = 5000;

/**
 * This page's clocks, and what it has learnt of the server's. Monotonic times compare only within
 * one boot: a start of the page, or what comes after a sleep or a clock that was set.
 */
export class DeviceClock {
  readonly #source: ClockSource;
  readonly #newId: () => string;
  readonly #deviceId: string;
  #bootId: string;
  /** Wall clock less monotonic clock when the boot began. */
  #apartMs: number;
  /** Server's clock less the monotonic clock, and the span it may be wrong by. */
  #server: { offsetMs: number; spanMs: number } | undefined;

  constructor(source: ClockSource, newId: () => string, deviceId: string) {
    this.#source = source;
    this.#newId = newId;
    this.#deviceId = deviceId;
    this.#bootId = newId();
    this.#apartMs = source.wallMs() - source.monoMs();
  }

  get bootId(): string {
    this.#lookAtDrift();
    return this.#bootId;
  }

  /** What is told to the server with whatever is sent. */
  reading(): { deviceId: string; bootId: string; monoMs: number; wallMs: number } {
    this.#lookAtDrift();
    return {
      deviceId: this.#deviceId,
      bootId: this.#bootId,
      monoMs: Math.max(0, Math.round(this.#source.monoMs())),
      wallMs: Math.round(this.#source.wallMs()),
    };
  }

  /** Now, as a moment that can be compared with others. */
  mark(): ClockMark {
    const { deviceId, bootId, monoMs } = this.reading();
    return { deviceId, bootId, monoMs, atMs: this.nowMs() };
  }

  /** The server's clock now, ms, as well as it is known; our own where nothing is known. */
  nowMs(): number {
    this.#lookAtDrift();
    const { offsetMs } = this.#server ?? { offsetMs: this.#apartMs };
    return this.#source.monoMs() + offsetMs;
  }

  /** The server said what its clock was, between two readings of our monotonic clock. */
  learn(serverMs: number, fromMonoMs: number, toMonoMs: number): void {
    this.#lookAtDrift();
    const spanMs = Math.max(0, toMonoMs - fromMonoMs);
    if (this.#server && this.#server.spanMs <= spanMs) return;
    this.#server = { offsetMs: serverMs - (fromMonoMs + toMonoMs) / 2, spanMs };
  }

  #lookAtDrift(): void {
    const apartMs = this.#source.wallMs() - this.#source.monoMs();
    const driftMs = apartMs - this.#apartMs;
    if (Math.abs(driftMs) <= MOST_DRIFT_MS) return;
    this.#bootId = this.#newId();
    this.#apartMs = apartMs;
    if (!this.#server) return;
    // Ahead: the tablet slept and its monotonic clock stood still. Back: somebody set the clock.
    const offsetMs = driftMs > 0 ? this.#server.offsetMs + driftMs : this.#server.offsetMs;
    this.#server = { offsetMs, spanMs: Number.POSITIVE_INFINITY };
  }
}
