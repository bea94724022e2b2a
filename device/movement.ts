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

/** A velocity that runs as a cubic from one speed and acceleration to another. */
export interface CurvePiece {
  kind: "curve";
  durationS: number;
  /** Speeds at both ends, m/s, up is positive. */
  fromMps: number;
  toMps: number;
  /** Accelerations at both ends, m/s². */
  fromMps2: number;
  toMps2: number;
}

export type Piece = MovePiece | StillPiece | CurvePiece;

/** Displacement of a piece up to τ (0–1), m. */
export function curveRise(piece: CurvePiece, tau: number): number {
  const { durationS: t, fromMps, toMps, fromMps2, toMps2 } = piece;
  const t2 = tau * tau;
  const t3 = t2 * tau;
  const t4 = t3 * tau;
  return (
    t *
    (fromMps * (tau - t3 + t4 / 2) +
      t * fromMps2 * (t2 / 2 - (2 * t3) / 3 + t4 / 4) +
      toMps * (t3 - t4 / 2) +
      t * toMps2 * (t4 / 4 - t3 / 3))
  );
}

function curveVelocity(piece: CurvePiece, tau: number): number {
  const { durationS: t, fromMps, toMps, fromMps2, toMps2 } = piece;
  const t2 = tau * tau;
  const t3 = t2 * tau;
  return (
    fromMps * (1 - 3 * t2 + 2 * t3) +
    t * fromMps2 * (tau - 2 * t2 + t3) +
    toMps * (3 * t2 - 2 * t3) +
    t * toMps2 * (t3 - t2)
  );
}

function curveAcceleration(piece: CurvePiece, tau: number): number {
  const { durationS: t, fromMps, toMps, fromMps2, toMps2 } = piece;
  return (
    ((toMps - fromMps) * 6 * (tau - tau * tau)) / t +
    fromMps2 * (1 - 4 * tau + 3 * tau * tau) +
    toMps2 * (3 * tau * tau - 2 * tau)
  );
}

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
      if (piece.kind === "curve") height += curveRise(piece, 1);
    }
    heights.push(height);
    this.startsS = starts;
    this.#heights = heights;
    this.durationS = time;
  }

  /** True bar height at a time, m. Before the start and after the end the bar stands. */
  heightAt(timeS: number): number {
    const found = this.#at(timeS);
    if (found === undefined) {
      return this.#heights[timeS <= 0 ? 0 : this.#heights.length - 1] as number;
    }
    const { piece, tau, base } = found;
    if (piece.kind === "still") return base;
    if (piece.kind === "curve") return base + curveRise(piece, tau);
    return base + piece.riseM * doneShare(piece, tau);
  }

  /** True velocity, m/s. */
  velocityAt(timeS: number): number {
    const found = this.#at(timeS);
    if (found === undefined || found.piece.kind === "still") return 0;
    const { piece, tau } = found;
    return piece.kind === "curve" ? curveVelocity(piece, tau) : pieceVelocity(piece, tau);
  }

  /** True acceleration, m/s²; where two pieces meet at a corner, that of the later one. */
  accelerationAt(timeS: number): number {
    const found = this.#at(timeS);
    if (found === undefined || found.piece.kind === "still") return 0;
    const { piece, tau } = found;
    return piece.kind === "curve" ? curveAcceleration(piece, tau) : pieceAcceleration(piece, tau);
  }

  #at(timeS: number): { piece: Piece; tau: number; base: number } | undefined {
    if (timeS <= 0 || timeS >= this.durationS) return undefined;
    let low = 0;
    let high = this.pieces.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.startsS[middle] as number) <= timeS) low = middle;
      else high = middle - 1;
    }
    const piece = this.pieces[low] as Piece;
    const tau = (timeS - (this.startsS[low] as number)) / piece.durationS;
    return { piece, tau: Math.min(1, Math.max(0, tau)), base: this.#heights[low] as number };
  }
}
