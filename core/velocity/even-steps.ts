import { cubicBetween } from "../numeric/resample";

/** Frames above this rate are averaged into steps of about 5 ms: a bar has nothing faster. */
const FINEST_STEP_S = 0.004;
const AVERAGED_STEP_S = 0.005;
const MOST_BIN = 1e6;

/**
 * Even steps out of uneven frames, one frame behind them. Between frames runs a cubic through four
 * neighbours, which keeps the curvature that a straight line would cut off.
 */
export class EvenSteps {
  readonly stepS: number;
  readonly #each: (heightM: number) => void;
  readonly #bin: number;
  #binFromS = 0;
  #binCount = 0;
  #binTimeS = 0;
  #binHeightM = 0;
  /** The last three points: the interval between b and c is drawn when the next is known. */
  #points = 0;
  #aS = 0;
  #aM = 0;
  #bS = 0;
  #bM = 0;
  #cS = 0;
  #cM = 0;
  #startS: number | undefined;
  #emitted = 0;

  /** @param frameStepS usual interval of the frames, s, over 0 */
  constructor(frameStepS: number, each: (heightM: number) => void) {
    this.#bin = frameStepS < FINEST_STEP_S ? Math.round(AVERAGED_STEP_S / frameStepS) : 1;
    // Stamps that hardly move are no clock: then the average's own step is as good as any.
    this.stepS = this.#bin < MOST_BIN ? frameStepS * this.#bin : AVERAGED_STEP_S;
    this.#each = each;
  }

  /** Time of the first even sample, s; undefined before it. */
  get startS(): number | undefined {
    return this.#startS;
  }

  frame(timeS: number, heightM: number): void {
    if (this.#bin === 1) {
      this.#point(timeS, heightM);
      return;
    }
    if (this.#binCount > 0 && timeS >= this.#binFromS + this.stepS - 1e-9) this.#closeBin();
    if (this.#binCount === 0) this.#binFromS = timeS;
    this.#binCount++;
    this.#binTimeS += timeS;
    this.#binHeightM += heightM;
  }

  #closeBin(): void {
    const count = this.#binCount;
    if (count === 0) return;
    const timeS = this.#binTimeS / count;
    const heightM = this.#binHeightM / count;
    this.#binCount = 0;
    this.#binTimeS = 0;
    this.#binHeightM = 0;
    this.#point(timeS, heightM);
  }

  #point(timeS: number, heightM: number): void {
    this.#startS ??= timeS;
    if (this.#points >= 2) this.#draw(timeS, heightM, false);
    this.#aS = this.#bS;
    this.#aM = this.#bM;
    this.#bS = this.#cS;
    this.#bM = this.#cM;
    this.#cS = timeS;
    this.#cM = heightM;
    this.#points++;
  }

  /** The rest of the run, which ends with its last frame. */
  finish(): void {
    this.#closeBin();
    if (this.#points >= 2) this.#draw(this.#cS, this.#cM, true);
    else if (this.#points === 1) this.#each(this.#cM);
    this.#points = 0;
  }

  /** The even samples between b and c, d being the point after them. */
  #draw(dS: number, dM: number, toEnd: boolean): void {
    const start = this.#startS as number;
    // The first interval has no point before it.
    const [aS, aM] = this.#points === 2 ? [this.#bS, this.#bM] : [this.#aS, this.#aM];
    for (;;) {
      const at = start + this.#emitted * this.stepS;
      if (toEnd ? at > this.#cS + 1e-6 * this.stepS : at >= this.#cS) return;
      this.#emitted++;
      this.#each(cubicBetween(aS, aM, this.#bS, this.#bM, this.#cS, this.#cM, dS, dM, at));
    }
  }
}
