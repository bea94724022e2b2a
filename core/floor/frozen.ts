import type { LoadingGear } from "../barload/loading-gear";
import type { BoxSlot } from "../boxsquat/slot";
import type { Complex } from "../contrast/complex";
import type { ItemNumber } from "../contrast/item-load";
import type { RunSettings } from "../contrast/run";
import type { SpeedClass } from "../exercise/speed-classes";
import type { ClassBorders } from "../liverules/speed-class";
import type { SetPrescription } from "../prescribe/prescribe";
import type { LoadVelocityLine } from "../profile/line";
import type { MassUnit } from "../units/mass";
import type { LocalDate } from "../units/time";
import type { VelocityMetric } from "../units/velocity";
import type { LiftStart } from "../velocity/stream";

/** Version of the core's rules; frozen with a session, so that a review reads what applied. */
export const CORE_VERSION = 1;

export interface FrozenLifter {
  athleteId: string;
  /** Shown on the rack; not part of any log entry. */
  name: string;
  unit: MassUnit;
  sets: SetPrescription[];
  /** The athlete's line, for what a call should take off; kept apart from the target. */
  line: LoadVelocityLine | undefined;
  /** Instructions that the screen must show; never a reason. */
  instructions: string[];
  /** The set-up on the box, a line each; absent elsewhere and in older sessions. */
  setup?: string[];
  /** The box as built for this athlete, cm, and its style; absent as above. */
  box?: {
    heightCm: number | undefined;
    styleId: string | undefined;
    /** Of the seat as built, over the athlete's own parallel height; absent in older sessions. */
    overCm?: number | undefined;
  };
}

/** Where something is done: a rack with its bar and plates, or a place. */
export type FrozenStation =
  | { kind: "rack"; id: string; name: string; gear: LoadingGear }
  | { kind: "place"; id: string; name: string };

/** A slot that is lifted: who, at which rack, with every set settled for that rack. */
export interface FrozenLift {
  kind: "lift";
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
    /** Bounces in a row that end a set; absent in older sessions: two. */
    bouncesThatCut?: number;
  };
  /** Speeds from which a set is of another class, where the coach has set them for the lift. */
  classBorders?: ClassBorders;
  /** The class that is trained; absent in older sessions. */
  speedClass?: SpeedClass;
  /** On a box: what for and how; absent elsewhere and in older sessions. */
  box?: BoxSlot;
  /** Faults to tag, some with a cue; absent in older sessions. */
  faults?: Array<{ seen: string; cue?: string }>;
  velocityLed: boolean;
  groups: Array<{ stationId: string; lifters: FrozenLifter[] }>;
}

export interface FrozenPairingAthlete {
  athleteId: string;
  name: string;
  unit: MassUnit;
  /** A simpler version for who is not strong enough yet. */
  simpler: boolean;
  /** The athlete's own gap after the lift, s, where a test found one and it is used. */
  gapS?: number;
  /** Loads by item with their working, as they were at the start. */
  loads: ItemNumber[];
}

/** A slot that is a pairing: what is run, by whom, and what it goes by, as at its start. */
export interface FrozenPairing {
  kind: "pairing";
  slotId: string;
  complex: Complex;
  settings: RunSettings;
  groups: Array<{ stationId: string; athletes: FrozenPairingAthlete[] }>;
}

export type FrozenSlot = FrozenLift | FrozenPairing;

/** Everything that a started session stands on; it does not change afterwards. */
export interface FrozenSession {
  coreVersion: number;
  planVersion: number;
  title: string;
  /** Run before it was published, after its checks were seen. */
  draft?: true;
  /** Ids of athletes who were here and are refused in a slot, with the check that says so. */
  leftOut?: Array<{ athleteId: string; slotId: string; code: string }>;
  date: LocalDate;
  zone: string;
  roomName: string;
  cautions: string[];
  stations: FrozenStation[];
  slots: FrozenSlot[];
}

/** A rack with those who lift a slot at it. */
export interface FrozenRack {
  id: string;
  name: string;
  gear: LoadingGear;
  lifters: FrozenLifter[];
}

/** A lift with its racks put together. */
export type LiftOnFloor = FrozenLift & { racks: FrozenRack[] };

/** The lifts of a session, each with its racks. */
export function liftsOf(session: FrozenSession): LiftOnFloor[] {
  const stations = new Map(session.stations.map((station) => [station.id, station]));
  return session.slots.flatMap((slot) => {
    if (slot.kind !== "lift") return [];
    const racks = slot.groups.flatMap(({ stationId, lifters }) => {
      const station = stations.get(stationId);
      if (station?.kind !== "rack") return [];
      const { id, name, gear } = station;
      return [{ id, name, gear, lifters }];
    });
    return [{ ...slot, racks }];
  });
}

export function pairingsOf(session: FrozenSession): FrozenPairing[] {
  return session.slots.flatMap((slot) => (slot.kind === "pairing" ? [slot] : []));
}

/** One station's share of a session: what its tablet needs. */
export function shareOfStation(session: FrozenSession, stationId: string): FrozenSession {
  // Who is refused in what is no matter of a tablet.
  const { leftOut: _, ...shared } = session;
  return {
    ...shared,
    stations: session.stations.filter((station) => station.id === stationId),
    slots: session.slots.flatMap((slot): FrozenSlot[] => {
      if (slot.kind === "lift") {
        const groups = slot.groups.filter((group) => group.stationId === stationId);
        return groups.length > 0 ? [{ ...slot, groups }] : [];
      }
      const groups = slot.groups.filter((group) => group.stationId === stationId);
      return groups.length > 0 ? [{ ...slot, groups }] : [];
    }),
  };
}
