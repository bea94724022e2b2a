import type { LiftStart } from "./stream";

/**
 * Finds the visits to the bottom in a running height signal, sample by sample. One visit to the
 * bottom is one rep: from a top H the bar is lowered by D, and what it does until it is back at
 * the top, or has turned back for good, is judged by heights alone (docs/decisions/velocity.md).
 */
export interface Visit {
  outcome: "counted" | "failed";
  /** Where the bar leaves its top; undefined where no lowering was seen. */
  leaveTop: number | undefined;
  /** Nothing of the visit lies before it. */
  from: number;
  /** Where the drive's own stay at the bottom begins: after the last rock. */
  stayFrom: number;
  /** The lowest sample of that stay. */
  bottom: number;
  /** The highest sample of the drive. */
  top: number;
  /** At which sample this was certain. */
  decided: number;
  /** Largest fall inside the drive that went on, m; 0 where none. */
  fallBackM: number;
  /** Rise of the drive as seen here, m. */
  riseM: number;
  /** How far the bar was lowered, m; the rise where no lowering was seen. */
  loweredM: number;
}

/** A turn needs this much movement back: noise and wobble are less, m. */
export const TURN_HYSTERESIS_M = 0.02;
/** The top is reached within this share of the lowering, or this, m. */
export const TOP_SHARE = 0.15;
export const TOP_M = 0.06;
/** The bottom band over the lowest point: this share of the lowering, or this, m. */
export const BOTTOM_SHARE = 0.15;
export const BOTTOM_M = 0.03;
/** From this share of the lowering on a rise that turns back was a try. */
export const TRY_SHARE = 1 / 3;
/** A fall of this, m, or of half the rise, ends a try. */
export const TRY_FALL_M = 0.1;
/** A top this close to the one before is the lockout, m. */
const LOCKOUT_M = 0.02;
/** The bar rests at the lockout when it has not risen this much, m … */
const CREEP_M = 0.005;
/** … for this long; short of the lockout it may yet go on, s. */
const REST_S = 0.15;
const REST_SHORT_S = 0.5;
/** After a failed rep a new lowering counts from a top again, or after so long, s. */
const CLOSED_S = 12;
/** Samples before the bar is seen to leave its top, s. */
const BEFORE_LEAVING_S = 0.5;
/** A stay longer than this is not kept whole, s. */
export const LONGEST_VISIT_S = 60;

interface OpenVisit {
  topM: number;
  leaveTop: number | undefined;
  from: number;
  lowestM: number;
  /** Rising since `bottom`, or falling since `high`. */
  rising: boolean;
  stayFrom: number;
  bottom: number;
  bottomM: number;
  high: number;
  highM: number;
  low: number;
  lowM: number;
  fallBackM: number;
  /** The rise before the present fall was a rock, noted once. */
  rocked: boolean;
  /** Once the top is reached: the height it rests at, and since when. */
  rest: { heightM: number; since: number } | undefined;
}

export class Segmenter {
  readonly #rateHz: number;
  readonly #start: LiftStart;
  readonly #leastM: number;
  readonly #heightAt: (index: number) => number;
  #index = -1;
  /** Between visits: the last local top, and the lowest since it. */
  #up = true;
  #high = 0;
  #highM = Number.NEGATIVE_INFINITY;
  #low = 0;
  #lowM = Number.POSITIVE_INFINITY;
  #visit: OpenVisit | undefined;
  #closed: { levelM: number; until: number } | undefined;
  #usualTopM: number | undefined;

  /** @param heightAt the sample of an index, kept for `LONGEST_VISIT_S` */
  constructor(
    rateHz: number,
    settings: { start: LiftStart; leastDisplacementM: number; usualTopM?: number | undefined },
    heightAt: (index: number) => number,
  ) {
    this.#rateHz = rateHz;
    this.#start = settings.start;
    this.#leastM = settings.leastDisplacementM;
    this.#usualTopM = settings.usualTopM;
    this.#heightAt = heightAt;
  }

  get usualTopM(): number | undefined {
    return this.#usualTopM;
  }

  /** Samples before this one are not needed again. */
  get needsFrom(): number {
    return this.#visit ? this.#visit.from : Math.min(this.#high, this.#index);
  }

  /** Takes the next sample; gives the visit that became certain with it. */
  push(heightM: number): Visit | undefined {
    this.#index++;
    if (this.#visit) return this.#inVisit(this.#visit, heightM);
    return this.#between(heightM);
  }

  /** No sample follows: a drive that has reached its top is a rep all the same. */
  finish(): Visit | undefined {
    const visit = this.#visit;
    return visit?.rest ? this.#close(visit, "counted") : undefined;
  }

  #between(h: number): undefined {
    const i = this.#index;
    const closed = this.#closed;
    if (closed) {
      if (h < closed.levelM && i < closed.until) return;
      this.#closed = undefined;
      this.#restart(h);
    }
    if (this.#start === "bottom" && this.#usualTopM === undefined) {
      // The bar lies low, and how high it will go is not known yet.
      if (h < this.#lowM + TURN_HYSTERESIS_M / 2) {
        this.#low = i;
        this.#lowM = Math.min(this.#lowM, h);
      } else if (h > this.#lowM + TURN_HYSTERESIS_M) this.#openLow();
      return;
    }
    if (this.#up) {
      if (h >= this.#highM) {
        this.#high = i;
        this.#highM = h;
      } else if (h < this.#highM - TURN_HYSTERESIS_M) {
        this.#up = false;
        this.#lowM = h;
      }
    } else if (h < this.#lowM) {
      this.#lowM = h;
    } else if (h > this.#lowM + TURN_HYSTERESIS_M) {
      this.#restart(h);
      return;
    }
    if (this.#highM - h >= this.#leastM) this.#openFromTop();
  }

  #restart(h: number): void {
    this.#up = true;
    this.#high = this.#index;
    this.#highM = h;
    this.#low = this.#index;
    this.#lowM = h;
  }

  #openFromTop(): void {
    const i = this.#index;
    let leave = i;
    while (leave > this.#high && this.#heightAt(leave) < this.#highM - TURN_HYSTERESIS_M) leave--;
    const h = this.#heightAt(i);
    const from = Math.max(this.#high, leave - Math.ceil(BEFORE_LEAVING_S * this.#rateHz));
    this.#visit = this.#opened(this.#highM, leave, from, i, h, false);
  }

  /** A lift that starts low, of which no top is known yet. */
  #openLow(): void {
    const low = this.#low;
    const from = Math.max(0, low - Math.ceil(BEFORE_LEAVING_S * this.#rateHz));
    const visit = this.#opened(Number.NaN, undefined, from, low, this.#lowM, true);
    visit.high = this.#index;
    visit.highM = this.#heightAt(this.#index);
    this.#visit = visit;
  }

  #opened(
    topM: number,
    leaveTop: number | undefined,
    from: number,
    low: number,
    lowM: number,
    rising: boolean,
  ): OpenVisit {
    return {
      topM,
      leaveTop,
      from,
      lowestM: lowM,
      rising,
      stayFrom: leaveTop ?? from,
      bottom: low,
      bottomM: lowM,
      high: low,
      highM: lowM,
      low,
      lowM,
      fallBackM: 0,
      rocked: true,
      rest: undefined,
    };
  }

  #inVisit(visit: OpenVisit, h: number): Visit | undefined {
    const i = this.#index;
    const longest = LONGEST_VISIT_S * this.#rateHz;
    if (i - visit.from > longest) {
      // Too long ago to be measured; the drive still is.
      visit.from = i - Math.floor(longest / 2);
      visit.stayFrom = Math.max(visit.stayFrom, visit.from);
      if ((visit.leaveTop ?? 0) < visit.from) visit.leaveTop = undefined;
      if (visit.bottom < visit.from) {
        visit.bottom = i;
        visit.bottomM = h;
      }
    }
    return visit.rising ? this.#rising(visit, h) : this.#falling(visit, h);
  }

  #falling(visit: OpenVisit, h: number): Visit | undefined {
    const i = this.#index;
    if (h < visit.lowM) {
      visit.low = i;
      visit.lowM = h;
    }
    visit.lowestM = Math.min(visit.lowestM, h);
    const lowered = visit.topM - visit.lowestM;
    const rise = visit.highM - visit.lowestM;
    if (!visit.rocked) {
      const tried = rise >= TRY_SHARE * lowered;
      if (h <= visit.lowestM + Math.max(BOTTOM_M, BOTTOM_SHARE * lowered)) {
        if (tried) return this.#close(visit, "failed");
        visit.rocked = true;
        visit.stayFrom = visit.high;
      } else if (tried && visit.highM - h >= Math.max(TRY_FALL_M, rise / 2)) {
        return this.#close(visit, "failed");
      }
    }
    if (h > visit.lowM + TURN_HYSTERESIS_M) {
      if (visit.rocked) {
        visit.bottom = visit.low;
        visit.bottomM = visit.lowM;
        visit.fallBackM = 0;
      } else {
        visit.fallBackM = Math.max(visit.fallBackM, visit.highM - visit.lowM);
      }
      visit.rising = true;
      visit.high = i;
      visit.highM = h;
    }
    return undefined;
  }

  #rising(visit: OpenVisit, h: number): Visit | undefined {
    const i = this.#index;
    if (h > visit.highM) {
      visit.high = i;
      visit.highM = h;
    }
    const rise = visit.highM - visit.lowestM;
    const lowered = visit.topM - visit.lowestM;
    // Of a first pull no top is known: a full rise that comes to rest is one.
    const known = Number.isFinite(visit.topM);
    const reached = known
      ? visit.highM >= visit.topM - Math.max(TOP_M, TOP_SHARE * lowered)
      : rise >= this.#leastM;
    if (reached) {
      const rest = visit.rest;
      if (rest === undefined || h > rest.heightM + CREEP_M) visit.rest = { heightM: h, since: i };
      const locked = known && visit.highM >= visit.topM - LOCKOUT_M;
      const wait = (locked ? REST_S : REST_SHORT_S) * this.#rateHz;
      if (h < visit.highM - TURN_HYSTERESIS_M || i - (visit.rest?.since ?? i) >= wait) {
        return this.#close(visit, "counted");
      }
      return undefined;
    }
    if (h < visit.highM - TURN_HYSTERESIS_M) {
      if (!known) {
        // The bar was only lifted a little and set down again.
        this.#visit = undefined;
        this.#restart(h);
        return undefined;
      }
      visit.rising = false;
      visit.rocked = false;
      visit.low = i;
      visit.lowM = h;
    }
    return undefined;
  }

  #close(visit: OpenVisit, outcome: Visit["outcome"]): Visit {
    this.#visit = undefined;
    const i = this.#index;
    const known = Number.isFinite(visit.topM);
    const riseM = visit.highM - visit.bottomM;
    const loweredM = known ? visit.topM - visit.lowestM : riseM;
    if (outcome === "counted") {
      this.#usualTopM = visit.highM;
      this.#up = true;
      this.#high = visit.high;
      this.#highM = visit.highM;
      this.#low = i;
      this.#lowM = this.#heightAt(i);
    } else {
      this.#closed = {
        levelM: visit.topM - Math.max(TOP_M, TOP_SHARE * loweredM),
        until: i + CLOSED_S * this.#rateHz,
      };
      this.#restart(this.#heightAt(i));
    }
    return {
      outcome,
      leaveTop: visit.leaveTop,
      from: visit.from,
      stayFrom: visit.stayFrom,
      bottom: visit.bottom,
      top: visit.high,
      decided: i,
      fallBackM: visit.fallBackM,
      riseM,
      loweredM,
    };
  }
}
