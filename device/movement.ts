/**
 * The true movement of a bar, made of pieces whose displacement is known in closed form. The
 * simulated sensor samples it; tests compare what the core measured with what it was.
 */
export interface MovePiece {
  kind: "move";
  durationS: number;
  /** Signed displacement, m: up is positive. */
  riseM: number;
  /** Second harmonic, −0.45…0.45: positive puts the peak early. */
  skew: number;
  /** Third harmonic, −0.3…0.6: positive makes a sticking point in the middle. */
  sticking: number;
}

export interface StillPiece {
  kind: "still";
  durationS: number;
}

export type Piece = MovePiece | StillPiece;

/** Share of the displacement done at τ (0–1) of a piece. */
export function doneShare(piece: MovePiece, tau: number): number {
  const raw = (x: number) =>
    (1 - Math.cos(Math.PI * x)) / Math.PI +
    (piece.skew * (1 - Math.cos(2 * Math.PI * x))) / (2 * Math.PI) +
    (piece.sticking * (1 - Math.cos(3 * Math.PI * x))) / (3 * Math.PI);
  return raw(tau) / raw(1);
}

/** Velocity at τ of a piece, m/s. */
export function pieceVelocity(piece: MovePiece, tau: number): number {
  const shape =
    Math.sin(Math.PI * tau) +
    piece.skew * Math.sin(2 * Math.PI * tau) +
    piece.sticking * Math.sin(3 * Math.PI * tau);
  const whole = 2 / Math.PI + (2 * piece.sticking) / (3 * Math.PI);
  return ((piece.riseM / piece.durationS) * shape) / whole;
}

/** Acceleration at τ of a piece, m/s². */
export function pieceAcceleration(piece: MovePiece, tau: number): number {
  const shape =
    Math.PI * Math.cos(Math.PI * tau) +
    2 * Math.PI * piece.skew * Math.cos(2 * Math.PI * tau) +
    3 * Math.PI * piece.sticking * Math.cos(3 * Math.PI * tau);
  const whole = 2 / Math.PI + (2 * piece.sticking) / (3 * Math.PI);
  return ((piece.riseM / piece.durationS ** 2) * shape) / whole;
}

export class Movement {
  readonly pieces: readonly Piece[];
  readonly startsS: readonly number[];
  readonly durationS: number;
  readonly #heights: readonly number[];

  constructor(startHeightM: number, pieces: readonly Piece[]) {
    this.pieces = pieces;
    const starts: number[] = [];
    const heights: number[] = [];
    let time = 0;
    let height = startHeightM;
    for (const piece of pieces) {
      starts.push(time);
      heights.push(height);
      time += piece.durationS;
      if (piece.kind === "move") height += piece.riseM;
    }
    heights.push(height);
    this.startsS = starts;
    this.#heights = heights;
    this.durationS = time;
  }

  /** True bar height at a time, m. Before the start and after the end the bar stands. */
  heightAt(timeS: number): number {
    if (timeS <= 0) return this.#heights[0] as number;
    if (timeS >= this.durationS) return this.#heights[this.#heights.length - 1] as number;
    let low = 0;
    let high = this.pieces.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.startsS[middle] as number) <= timeS) low = middle;
      else high = middle - 1;
    }
    const piece = this.pieces[low] as Piece;
    const base = this.#heights[low] as number;
    if (piece.kind === "still") return base;
    const tau = (timeS - (this.startsS[low] as number)) / piece.durationS;
    return base + piece.riseM * doneShare(piece, Math.min(1, Math.max(0, tau)));
  }
}
