/** A size read now is its own by this share, beside how it lies along the way. */
const SIZE_SD = 0.008;
/** A plate's size changes by at most about so much over its own radius of way (share, one sd). */
const SLOPE_SD = 0.02;
/** A clear mark's size holds for the pictures after it; of an unclear one another ring may be followed. */
const MARK_SD = { clear: 0.004, unclear: 0.06 };
/** One reading says so much: neighbours err alike, so each counts for little. */
const READING_SD = 0.06;

/**
 * What a plate's size must be at a height, by the pictures before: where it was marked it is about
 * what it was marked, and nearer or farther it runs straight with the way. Without it the fit creeps
 * onto a ring within the rim where the rim stands out little, a step in each picture.
 */
export class SizeAlong {
  /** Normal equations of size = own + slope · way: what is known of both, and what it pulls to. */
  #a: number;
  #b = 0;
  #c = 1 / SLOPE_SD ** 2;
  #own: number;
  #slope = 0;

  /** @param clear whether the rim stood out where it was marked */
  constructor(clear: boolean) {
    this.#a = 1 / (clear ? MARK_SD.clear : MARK_SD.unclear) ** 2;
    this.#own = this.#a;
  }

  /**
   * @param radii way from where it was marked, in plate radii
   * @returns the size against the marked one, with one standard deviation
   */
  at(radii: number): { scale: number; sd: number } {
    const under = this.#a * this.#c - this.#b ** 2;
    const own = (this.#c * this.#own - this.#b * this.#slope) / under;
    const slope = (this.#a * this.#slope - this.#b * this.#own) / under;
    const variance = (this.#c - 2 * this.#b * radii + this.#a * radii ** 2) / under;
    return { scale: own + slope * radii, sd: Math.hypot(SIZE_SD, Math.sqrt(variance)) };
  }

  read(radii: number, scale: number): void {
    const weight = 1 / READING_SD ** 2;
    this.#a += weight;
    this.#b += weight * radii;
    this.#c += weight * radii ** 2;
    this.#own += weight * scale;
    this.#slope += weight * radii * scale;
  }
}
