import type { LoadingGear } from "../barload/loading-gear";
import type { BoxSlot } from "../boxsquat/slot";
import type { SetPrescription } from "../prescribe/prescribe";
import type { LoadVelocityLine } from "../profile/line";
import type { LocalDate } from "../units/time";
import type { VelocityMetric } from "../units/velocity";
import type { LiftStart } from "../velocity/stream";

/** Version of the core's rules; frozen with a session, so that a review reads what applied. */
export const CORE_VERSION = 1;

export interface FrozenLifter {
  athleteId: string;
  /** Shown on the rack; not part of any log entry. */
  name: string;
  unit: "kg" | "lb";
  sets: SetPrescription[];
  /** The athlete's line, for what a call should take off; kept apart from the target. */
  line: LoadVelocityLine | undefined;
  /** Instructions that the screen must show; never a reason. */
  instructions: string[];
  /** The set-up on the box, a line each; absent elsewhere and in older sessions. */
  setup?: string[];
  /** The box as built for this athlete, cm, and its style; absent as above. */
  box?: { heightCm: number | undefined; styleId: string | undefined };
}

export interface FrozenRack {
  id: string;
  name: string;
  gear: LoadingGear;
  lifters: FrozenLifter[];
}

/** Everything that a started session stands on; it does not change afterwards. */
export interface FrozenSession {
  coreVersion: number;
  planVersion: number;
  title: string;
  date: LocalDate;
  zone: string;
  roomName: string;
  slotId: string;
  lift: string;
  liftName: string;
  liftStart: LiftStart;
  metric: VelocityMetric;
  rest: { leastS: number; mostS: number };
  stop: {
    lossPercent?: number;
    lossFrom: "best" | "first";
    floorMps?: number;
    smallestStopS?: number;
  };
  /** On a box: what for and how; absent elsewhere and in older sessions. */
  box?: BoxSlot;
  /** Faults to tag, some with a cue; absent in older sessions. */
  faults?: Array<{ seen: string; cue?: string }>;
  velocityLed: boolean;
  cautions: string[];
  racks: FrozenRack[];
}
