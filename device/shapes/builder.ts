import { type CurvePiece, curveRise, Movement, type MovePiece, type Piece } from "../movement";
import { type RepMarks, type TrueRep, truthOf } from "./truth";

/** A set of known truth: the movement, and what a perfect reading of it would say. */
export interface ShapeSet {
  movement: Movement;
  reps: TrueRep[];
  /** Whether the lift starts with the bar high or low. */
  start: "top" | "bottom";
}

/** How a drive or a lowering runs; times that are not shares are in s. */
export interface LegShape {
  /** Range, m, over 0; a lowering is turned downwards by its caller. */
  rangeM: number;
  /** The whole leg, s. */
  durationS: number;
  /** In this time the acceleration grows from nothing at the beginning, s. */
  onsetS: number;
  /** In this time it dies away at the end, s. */
  lockS: number;
  /** Share of the time between at which the speed is greatest. */
  peakShare: number;
  /** Speed in the dip of a sticking point, as a share of the first peak; none where undefined. */
  stick?: number;
}

/** Puts pieces together and keeps the moments that the truth is taken at. */
export class ShapeBuilder {
  readonly #pieces: Piece[] = [];
  readonly #marks: RepMarks[] = [];
  #timeS = 0;

  get timeS(): number {
    return this.#timeS;
  }

  add(piece: Piece): void {
    if (piece.durationS <= 0) return;
    this.#pieces.push(piece);
    this.#timeS += piece.durationS;
  }

  still(durationS: number): void {
    this.add({ kind: "still", durationS });
  }

  /** A smooth small movement: half a wave. */
  move(riseM: number, durationS: number): void {
    this.add({ kind: "move", riseM, durationS, skew: 0, sticking: 0 } satisfies MovePiece);
  }

  /** Even speed with short ramps: what drift on the box does. */
  drift(riseM: number, durationS: number): void {
    const v = riseM / (durationS * 0.8);
    const ramp = { kind: "curve", fromMps2: 0, toMps2: 0 } as const;
    this.add({ ...ramp, durationS: durationS * 0.2, fromMps: 0, toMps: v });
    this.add({ ...ramp, durationS: durationS * 0.6, fromMps: v, toMps: v });
    this.add({ ...ramp, durationS: durationS * 0.2, fromMps: v, toMps: 0 });
  }

  /** A leg of the given shape; `direction` −1 turns it downwards. */
  leg(shape: LegShape, direction: 1 | -1 = 1): void {
    for (const piece of legPieces(shape)) {
      this.add({
        ...piece,
        fromMps: direction * piece.fromMps,
        toMps: direction * piece.toMps,
        fromMps2: direction * piece.fromMps2,
        toMps2: direction * piece.toMps2,
      });
    }
  }

  mark(rep: RepMarks): void {
    this.#marks.push(rep);
  }

  build(topM: number, start: "top" | "bottom"): ShapeSet {
    const movement = new Movement(topM, this.#pieces);
    return { movement, start, reps: this.#marks.map((marks) => truthOf(movement, marks)) };
  }
}

/** Pieces of a leg: ramp, rise to the peak, dip and second peak where it sticks, fall, end. */
function legPieces(shape: LegShape): CurvePiece[] {
  const { rangeM, durationS, stick } = shape;
  const onsetS = Math.min(shape.onsetS, 0.3 * durationS);
  const lockS = Math.min(shape.lockS, 0.3 * durationS);
  const middleS = durationS - onsetS - lockS;
  const riseS = middleS * shape.peakShare;
  const fallS = middleS - riseS;
  // In units of the peak speed; scaled to the range below.
  const upMps2 = 1.6 / (riseS + onsetS / 2);
  const downMps2 = -1.6 / (fallS + lockS / 2);
  const atRampEnd = (upMps2 * onsetS) / 2;
  const atLock = (-downMps2 * lockS) / 2;
  const pieces: CurvePiece[] = [];
  const add = (durationS: number, from: [number, number], to: [number, number]) => {
    if (durationS <= 0) return;
    pieces.push({
      kind: "curve",
      durationS,
      fromMps: from[0],
      fromMps2: from[1],
      toMps: to[0],
      toMps2: to[1],
    });
  };
  add(onsetS, [0, 0], [atRampEnd, upMps2]);
  if (stick === undefined) {
    add(riseS, [atRampEnd, upMps2], [1, 0]);
    add(fallS, [1, 0], [atLock, downMps2]);
  } else {
    const part = middleS / 4;
    add(part, [atRampEnd, upMps2], [1, 0]);
    add(part, [1, 0], [stick, 0]);
    add(part, [stick, 0], [0.9, 0]);
    add(part, [0.9, 0], [atLock, downMps2]);
  }
  add(lockS, [atLock, downMps2], [0, 0]);
  const unit = pieces.reduce((sum, piece) => sum + curveRise(piece, 1), 0);
  const scale = rangeM / unit;
  return pieces.map((piece) => ({
    ...piece,
    fromMps: piece.fromMps * scale,
    toMps: piece.toMps * scale,
    fromMps2: piece.fromMps2 * scale,
    toMps2: piece.toMps2 * scale,
  }));
}
