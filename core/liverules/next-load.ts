import { type BarLoading, loadBar, stepFrom } from "../barload/load";
import { loadableTable } from "../barload/loadable";
import type { LoadingGear } from "../barload/loading-gear";
import { isFirstTime } from "../maxes/records";
import { grainsToKg } from "../units/mass";
import { formatVelocity } from "../units/velocity";
import { say, type Text, written } from "../units/written";
import type { Eye } from "./eye";
import { isSpeed, LINE_GRACE_MPS } from "./rep";

/** A set on the way up, as it was lifted. */
export interface RampSet {
  loadKg: number;
  /** Counted and measured reps, m/s. */
  velocities: readonly number[];
  eye: Eye | undefined;
  /** A rep was lost. */
  failed: boolean;
}

export type NextLoad =
  /** What to put on. `asks` where it is above the heaviest ever lifted: ask before. */
  | { kind: "load"; loading: BarLoading; text: Text; asks: boolean }
  /** The ramp is over: the last load is as heavy as it goes. */
  | { kind: "stop"; text: Text };

/**
 * Steps on the way up, share of the load on the bar: large while it is clearly fast, small near
 * the line. DOMAIN 2: small steps until the bar must be pushed hard but is still fast.
 */
export const RAMP_STEP_FAR = 0.1;
export const RAMP_STEP_NEAR = 0.05;
/** So far over the line counts as clearly fast, m/s. */
export const RAMP_FAR_MPS = 0.2;

/**
 * The next load of a set that no plan gave one: the empty bar first, then a loadable step up
 * from what was lifted, by its best speed against the line, else by the eye; over once it is
 * slow, under the line, or a rep was lost. The heaviest lifted so far counts, so that a lighter
 * set in between starts nothing anew.
 *
 * @param lineMps the speed under which the ramp ends: the slot's floor or wanted speed; undefined
 *   where none is set, then only the eye and a lost rep end it
 * @param bestKg heaviest ever lifted; undefined where not known
 */
export function nextLoad(input: {
  lifted: readonly RampSet[];
  gear: LoadingGear;
  lineMps: number | undefined;
  bestKg: number | undefined;
}): NextLoad {
  const { gear, lineMps, bestKg } = input;
  const lifted = input.lifted.filter(({ loadKg }) => loadKg > 0 && Number.isFinite(loadKg));
  const heaviest = lifted.reduce<RampSet | undefined>(
    (most, set) => (most === undefined || set.loadKg >= most.loadKg ? set : most),
    undefined,
  );
  const propose = (loading: BarLoading, text: Text): NextLoad => {
    const asks = isFirstTime(loading.totalKg, bestKg);
    const over =
      asks && bestKg !== undefined
        ? say`${text} Above the lifetime best of ${written(bestKg)}: ask first, stopping is no failure.`
        : text;
    return { kind: "load", loading, text: over, asks };
  };
  if (!heaviest) {
    const empty = loadBar(gear, grainsToKg(loadableTable(gear).totals[0] ?? 0));
    return empty.ok
      ? propose(empty, "Begin with the empty bar.")
      : { kind: "stop", text: "This rack has no bar to begin with." };
  }
  const at = written(heaviest.loadKg);
  const speeds = heaviest.velocities.filter(isSpeed);
  const best = speeds.length > 0 ? Math.max(...speeds) : undefined;
  if (heaviest.failed) return { kind: "stop", text: say`A rep was lost at ${at}: stop here.` };
  if (best !== undefined && lineMps !== undefined && best < lineMps - LINE_GRACE_MPS)
    return {
      kind: "stop",
      text: say`${at} went at ${formatVelocity(best)}, under the line of ${formatVelocity(lineMps)}: stop here.`,
    };
  if (heaviest.eye === "slow") return { kind: "stop", text: say`${at} looked slow: stop here.` };
  const far =
    best !== undefined && lineMps !== undefined
      ? best >= lineMps + RAMP_FAR_MPS
      : heaviest.eye === "fast";
  const share = far ? RAMP_STEP_FAR : RAMP_STEP_NEAR;
  const next = stepFrom(gear, heaviest.loadKg, share * heaviest.loadKg);
  if (!next) return { kind: "stop", text: say`${at} is the heaviest this rack builds.` };
  const why =
    best !== undefined && lineMps !== undefined
      ? say`${at} went at ${formatVelocity(best)}, the line is ${formatVelocity(lineMps)}`
      : heaviest.eye
        ? say`${at} looked ${heaviest.eye === "fast" ? "fast" : "on speed"}`
        : say`${at} is done`;
  return propose(next, say`${why}: ${far ? "a large" : "a small"} step up.`);
}
