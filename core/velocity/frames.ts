import { median } from "../numeric/statistics";

/**
 * What a sensor sends is not yet a signal: stamps repeat, jump and go back, frames come in packets
 * under one stamp, single heights are spikes. Here each such thing is named and bounded, and what
 * follows it is kept. Nothing looks further ahead than two frames, so a running set and a stored
 * one are read the same.
 */
export type FrameFault =
  /** Not a number, or none that a clock or a bar can have. */
  | "not-a-number"
  /** The stamp of the frame before; two readings of one moment. */
  | "repeated"
  /** A stamp from before the last one. */
  | "back"
  /** A stamp from the future: what followed it came before it. */
  | "ahead"
  /** The clock was set back: what follows is taken on from here. */
  | "clock-set"
  /** Frames in packets under one stamp: spread evenly over the time between stamps. */
  | "packets"
  /** More than 1,000 frames a second. */
  | "too-fast"
  /** One height far from both its neighbours. */
  | "spike"
  /** The height jumps faster than any bar and stays there. */
  | "jump";

export interface Frame {
  timeS: number;
  heightM: number;
  /** What the caller knows it by: a line of a file. */
  tag: number;
}

/** What was found, at which frame; `beforeS` is the stamp of the frame before. */
export type FaultListener = (fault: FrameFault, frame: Frame, before: Frame | undefined) => void;

export interface FrameSink {
  /** A good frame of the running run; times rise. */
  frame(timeS: number, heightM: number): void;
  /** The run is over: what follows begins a new one. */
  gap(fromS: number, toS: number, tag: number): void;
}

/** A signal is split at longer gaps than this, s … */
export const LONGEST_GAP_S = 0.1;
/** … or than this many intervals, whichever is longer. */
export const LONGEST_GAP_INTERVALS = 2.5;
/** The step between frames is the median of this many intervals at the beginning. */
export const STEP_INTERVALS = 50;
export const MOST_RATE_HZ = 1000;
/** Beyond these a number is no stamp (thousands of years, s) and no height in any unit. */
const MOST_TIME_S = 1e11;
const MOST_HEIGHT_M = 1e6;
/** Faster between two frames than any bar, m/s. */
export const JUMP_MPS = 15;
/** No bar turns harder than this, m/s²; with room for noise it tells a spike from a turn. */
const MOST_TURN_MPS2 = 100;
const SPIKE_ROOM_M = 0.02;
/** So many frames in order from before the last one: the clock was set back. */
const CLOCK_SET_FRAMES = 10;
/** From this share of equal stamps at the beginning on, frames come in packets. */
const PACKET_SHARE = 0.3;

export class FrameIntake {
  readonly #sink: FrameSink;
  readonly #fault: FaultListener;
  #head: Frame[] | undefined = [];
  /** Known after the first intervals, s. */
  #stepS = 0;
  #longestS = LONGEST_GAP_S;
  #packet: Frame[] | undefined;
  #packetBeforeS: number | undefined;
  /** Taken off each stamp since the clock was last set back, s. */
  #shiftS = 0;
  #last: Frame | undefined;
  #suspect: Frame | undefined;
  #backs: Frame[] = [];
  /** Accepted by its stamp, its height not yet judged. */
  #held: Frame | undefined;
  #beforeHeld: Frame | undefined;

  constructor(sink: FrameSink, fault: FaultListener = () => {}) {
    this.#sink = sink;
    this.#fault = fault;
  }

  /** Median interval of the beginning, s; 0 until it is known. */
  get stepS(): number {
    return this.#stepS;
  }

  push(timeS: number, heightM: number, tag = 0): void {
    const frame = { timeS, heightM, tag };
    if (!(Math.abs(timeS) < MOST_TIME_S) || !(Math.abs(heightM) < MOST_HEIGHT_M)) {
      this.#fault("not-a-number", frame, this.#last);
      return;
    }
    if (this.#head) {
      this.#head.push(frame);
      if (this.#head.length > STEP_INTERVALS) this.#begin();
      return;
    }
    this.#take(frame);
  }

  /** No frame follows. */
  finish(): void {
    if (this.#head) this.#begin();
    if (this.#packet) this.#spread(this.#packet);
    this.#packet = undefined;
    const suspect = this.#suspect;
    this.#suspect = undefined;
    if (suspect) this.#across(suspect);
    for (const frame of this.#backs) this.#fault("back", frame, this.#last);
    this.#backs = [];
    if (this.#held) this.#emit(this.#held);
    this.#held = undefined;
  }

  #begin(): void {
    const head = this.#head ?? [];
    this.#head = undefined;
    const intervals: number[] = [];
    for (let i = 1; i < head.length; i++) {
      intervals.push((head[i] as Frame).timeS - (head[i - 1] as Frame).timeS);
    }
    const rising = intervals.filter((one) => one > 0);
    const equal = intervals.filter((one) => one === 0).length;
    this.#stepS = median(rising) ?? 0;
    const first = head[0];
    if (first && rising.length > 0 && equal >= PACKET_SHARE * intervals.length) {
      this.#stepS = (this.#stepS * rising.length) / intervals.length;
      this.#packet = [];
      this.#fault("packets", first, undefined);
    }
    if (this.#stepS > 0 && this.#stepS < (1 / MOST_RATE_HZ) * 0.99 && first) {
      this.#fault("too-fast", first, undefined);
    }
    this.#longestS = Math.max(LONGEST_GAP_S, LONGEST_GAP_INTERVALS * this.#stepS) + 1e-9;
    for (const frame of head) this.#take(frame);
  }

  #take(frame: Frame): void {
    const packet = this.#packet;
    if (packet === undefined) {
      this.#stamp(frame);
      return;
    }
    const stamp = packet[0]?.timeS;
    if (stamp === undefined || stamp === frame.timeS) {
      packet.push(frame);
      // A packet that does not end is let go in pieces of a second.
      if (packet.length * this.#stepS < 1 || packet.length < 2) return;
    }
    this.#spread(packet);
    this.#packet = stamp === frame.timeS ? [] : [frame];
  }

  /** The frames of a packet were taken evenly between the stamp before and its own. */
  #spread(packet: Frame[]): void {
    const last = packet[packet.length - 1];
    if (!last) return;
    const usual = packet.length * this.#stepS;
    const before = this.#packetBeforeS ?? last.timeS - usual;
    const span = last.timeS - before;
    const lengthS = span > 0 && span <= 2 * usual ? span : usual;
    packet.forEach((frame, i) => {
      this.#stamp({
        ...frame,
        timeS: last.timeS - (lengthS * (packet.length - 1 - i)) / packet.length,
      });
    });
    this.#packetBeforeS = last.timeS;
  }

  #stamp(raw: Frame): void {
    const frame = this.#shiftS === 0 ? raw : { ...raw, timeS: raw.timeS + this.#shiftS };
    const last = this.#last;
    if (last === undefined) {
      this.#accept(frame);
      return;
    }
    if (frame.timeS <= last.timeS) {
      this.#behind(frame, last);
      return;
    }
    const suspect = this.#suspect;
    if (suspect) {
      this.#suspect = undefined;
      if (frame.timeS >= suspect.timeS) this.#across(suspect);
      else this.#fault("ahead", suspect, last);
    }
    if (this.#backs.length > 0) {
      for (const back of this.#backs) this.#fault("back", back, last);
      this.#backs = [];
    }
    const since = frame.timeS - (this.#last as Frame).timeS;
    if (since > this.#longestS) this.#suspect = frame;
    else if (since > 0) this.#accept(frame);
    else this.#fault("repeated", frame, this.#last);
  }

  /** A frame that is not after the last one. */
  #behind(frame: Frame, last: Frame): void {
    if (frame.timeS === last.timeS) {
      this.#fault("repeated", frame, last);
      return;
    }
    const before = this.#backs[this.#backs.length - 1];
    if (before && frame.timeS <= before.timeS) {
      for (const back of this.#backs) this.#fault("back", back, last);
      this.#backs = [];
    }
    this.#backs.push(frame);
    if (this.#backs.length < CLOCK_SET_FRAMES) return;
    // The clock was set back. What follows goes on a gap later.
    const again = this.#backs;
    this.#backs = [];
    this.#suspect = undefined;
    const first = again[0] as Frame;
    this.#fault("clock-set", first, last);
    const shift = last.timeS + 2 * this.#longestS - first.timeS;
    this.#shiftS += shift;
    for (const [i, back] of again.entries()) {
      const moved = { ...back, timeS: back.timeS + shift };
      if (i === 0) this.#across(moved);
      else if (moved.timeS - (this.#last as Frame).timeS > this.#longestS) this.#across(moved);
      else this.#accept(moved);
    }
  }

  /** A frame on the far side of a gap. */
  #across(frame: Frame): void {
    const last = this.#last;
    this.#letGo();
    if (last) this.#sink.gap(last.timeS, frame.timeS, frame.tag);
    this.#accept(frame);
  }

  #letGo(): void {
    if (this.#held) this.#emit(this.#held);
    this.#held = undefined;
    this.#beforeHeld = undefined;
  }

  #accept(frame: Frame): void {
    this.#last = frame;
    const held = this.#held;
    if (held === undefined) {
      this.#held = frame;
      return;
    }
    const before = this.#beforeHeld;
    if (before) {
      const inS = held.timeS - before.timeS;
      const outS = frame.timeS - held.timeS;
      const into = held.heightM - before.heightM;
      const outOf = frame.heightM - held.heightM;
      const least = Math.min(Math.abs(into), Math.abs(outOf));
      const across = Math.abs(frame.heightM - before.heightM);
      const room = SPIKE_ROOM_M + (MOST_TURN_MPS2 / 2) * Math.max(inS, outS) ** 2;
      if (into * outOf < 0 && least > room && across < least / 2) {
        this.#fault("spike", held, before);
        this.#held = frame;
        return;
      }
      if (Math.abs(into) > JUMP_MPS * inS && Math.abs(into) > SPIKE_ROOM_M) {
        this.#fault("jump", held, before);
        this.#sink.gap(before.timeS, held.timeS, held.tag);
      }
    }
    this.#emit(held);
    this.#beforeHeld = held;
    this.#held = frame;
  }

  #emit(frame: Frame): void {
    this.#sink.frame(frame.timeS, frame.heightM);
  }
}
