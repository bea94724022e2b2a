import { Z90 } from "../numeric/normal";
import { seededRandom } from "../numeric/random";
import { standardDeviation } from "../numeric/statistics";
import { analyseStream } from "../velocity/analyse";
import type { MeasuredRep, StreamSettings } from "../velocity/stream";
import type { ClipHeights } from "./heights";

/** A rep of a clip, with the half-width of its mean velocity's 90 % interval. */
export interface ClipRep {
  rep: MeasuredRep;
  /** m/s on either side of `rep.mcvMps`. */
  within90Mps: number;
  /** What it is made of, standard deviations in m/s: places, scale, pictures a second. */
  ofPlacesMps: number;
  ofScaleMps: number;
  ofRateMps: number;
}

export interface ClipSpeeds {
  reps: ClipRep[];
  rateHz: number;
}

/** Readings of the same clip with its places' scatter put on once more. */
const TRIES = 24;
/** The scatter of a rim's edges counts so much: measured on 30 clips, of which it said too much. */
const PLACES_SHARE = 0.8;
/** Trials of one rep end within this of one another, s. */
const SAME_REP_S = 0.4;
/** The camera reads a picture line by line: the way of the bar is run through in up to this, s. */
const READOUT_S = 0.02;

/**
 * What the processing itself is off by at a rate of pictures, m/s (standard deviation), on streams
 * without noise: docs/sources.md has the measurement.
 */
export function rateErrorMps(rateHz: number): number {
  if (!(rateHz > 0)) return 0.03;
  return Math.min(0.03, 0.0011 + 0.0009 * (30 / rateHz) ** 2);
}

/**
 * The reps of a clip: the one processing that every stream goes through, and how far each rep's
 * mean velocity may be off. The places' own scatter is put on again some two dozen times, the
 * scale's error and the rate's come to it.
 *
 * @param viewM height of the picture at the plate, m: what a reading line by line takes its time for
 */
export function clipSpeeds(
  heights: Pick<ClipHeights, "timesS" | "heightsM" | "sdM" | "sdScale">,
  settings: Partial<StreamSettings>,
  viewM: number,
): ClipSpeeds {
  const { timesS, heightsM, sdM, sdScale } = heights;
  const { reps, runs } = analyseStream({ timesS, heightsM }, settings);
  const rateHz = runs[0]?.rateHz ?? 0;
  const again: number[][] = reps.map(() => []);
  const random = seededRandom(20260101);
  for (let k = 0; k < TRIES && reps.length > 0; k++) {
    const shaken = heightsM.map((h, i) => h + (sdM[i] ?? 0) * random.normal());
    const tried = analyseStream({ timesS, heightsM: shaken }, settings).reps;
    reps.forEach((rep, i) => {
      const same = tried.find((one) => Math.abs(one.endS - rep.endS) < SAME_REP_S);
      if (same) again[i]?.push(same.mcvMps);
    });
  }
  return {
    rateHz,
    reps: reps.map((rep, i) => {
      const ofPlacesMps = PLACES_SHARE * (standardDeviation(again[i] ?? []) ?? 0);
      // Evenly spread between no time and the longest: its spread is a root of twelve smaller.
      const read = (READOUT_S * rep.rangeM) / Math.max(0.2, viewM) / rep.concentricS;
      const ofScaleMps = rep.mcvMps * Math.hypot(sdScale, read / Math.sqrt(12));
      const ofRateMps = rateErrorMps(rateHz);
      return {
        rep,
        within90Mps: Z90 * Math.hypot(ofPlacesMps, ofScaleMps, ofRateMps),
        ofPlacesMps,
        ofScaleMps,
        ofRateMps,
      };
    }),
  };
}
