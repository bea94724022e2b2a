import type { LoadingGear } from "../barload/loading-gear";
import type { BoxSlot } from "../boxsquat/slot";
import type { Complex } from "../contrast/complex";
import type { ItemNumber } from "../contrast/item-load";
import type { Output } from "../contrast/outputs";
import type { RunSettings } from "../contrast/run";
import type { Pattern, Sides } from "../exercise/exercise";
import type { SpeedClass } from "../exercise/speed-classes";
import type { Pins } from "../gear/pins";
import type { TestedReps } from "../liverules/day-form-call";
import type { ClassBorders } from "../liverules/speed-class";
import type { SectionKind } from "../plan/block";
import type { SetPrescription } from "../prescribe/prescribe";
import type { LoadVelocityLine } from "../profile/line";
import type { OwnWay } from "../resistance/heights";
import type { Mass, MassUnit } from "../units/mass";
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
    /** A new set-up: its walkout is rehearsed with the empty bar before the first loaded set. */
    rehearse?: true;
    /** Of the seat as built, over the athlete's own parallel height; absent in older sessions. */
    overCm?: number | undefined;
    /** What the seat is built of; absent where nothing fits, and in older sessions. */
    seat?: { base: string; pinCm: number; mats: Array<{ name: string; count: number }> };
  };
  /** More rest than the slot gives, s; absent where the plan has none for this athlete. */
  addRestS?: number;
  /** A floor of their own in place of the slot's, m/s; absent without one. */
  floorMps?: number;
  /** Warm-up loads at this rack, kg; absent in older sessions. */
  rampKg?: number[];
  /** The newest profile test of the lift: today's form is told by it. Absent without one. */
  tested?: TestedReps & { metric: VelocityMetric };
  /** Plates a side by set, inside out, where the rotation has fewer moves so; see `RotationMoves`. */
  plates?: Record<string, Mass[]>;
  /** What bands and chains add, both sides, kg; absent where nothing hangs. */
  hang?: { bottomKg: number; meanKg: number; lockoutKg: number };
  /** The pieces that hang, by side; absent as above, and in older sessions. */
  hangs?: Array<{ name: string; perSide: number }>;
  /** The bar's way, m, by the athlete's heights; absent where they are not known. */
  travelM?: number;
  /** That way was taken by a tape, not from stature; absent in older sessions too. */
  travelMeasured?: true;
  /** Where the rack's pins go; absent where heights or holes are not known. */
  pins?: Pins;
  /** The heaviest ever lifted in it, kg: above it is asked first. Absent where nobody knows. */
  bestKg?: number | undefined;
}

/** A lifter's way of the bar, where it is known. */
export const ownWay = ({ travelM, travelMeasured }: FrozenLifter): OwnWay | undefined =>
  travelM === undefined ? undefined : { m: travelM, measured: travelMeasured ?? false };

/** Plates put on or off over a rack's whole rotation, both sides. */
export interface RotationMoves {
  moves: number;
  /** With the fewest plates for each load by itself. */
  alone: number;
}

/** Where something is done: a rack with its bar and plates, or a place. */
export type FrozenStation =
  | { kind: "rack"; id: string; name: string; gear: LoadingGear }
  | { kind: "place"; id: string; name: string };

/** Where a slot stands in its day. */
export interface InDay {
  /** Its name within the session; a plan's own where the session runs one plan. */
  slotId: string;
  /** Absent in sessions of one slot, from before a session was a day. */
  section?: SectionKind;
  /** Slots with the same letter are done in rounds; absent or empty: alone. */
  group?: string;
  /** The plan's slot that it is; absent as above, and where no plan asked for it. */
  from?: { planId: string; week: number; slotId: string };
}

/** A slot that is lifted: who, at which rack, with every set settled for that rack. */
export interface FrozenLift extends InDay {
  kind: "lift";
  /** Absent in older sessions. */
  variantId?: string;
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
  /** Fastest meeting with the box before the rack asks "dropped?", m/s; absent where not set. */
  mostContactMps?: number;
  /** Faults to tag, some with a cue; absent in older sessions. */
  faults?: Array<{ seen: string; cue?: string }>;
  velocityLed: boolean;
  /** A heavy slot: works up to a top set of so many reps. Absent elsewhere and in older sessions. */
  top?: { reps: number };
  /** Seconds down and at the bottom. */
  tempo?: { downS?: number; pauseS?: number };
  /** A start every so many seconds. */
  everyS?: number;
  groups: Array<{
    stationId: string;
    lifters: FrozenLifter[];
    /** Plate moves of its rotation as settled; absent in older sessions. */
    moves?: RotationMoves;
  }>;
  /** Who is of the plan and was not here: settled for the first group's rack, to come in later. */
  absent?: FrozenLifter[];
}

/** What ends one athlete's sets: the slot's rules, with a floor of their own in place of the slot's. */
export const stopFor = (
  slot: Pick<FrozenLift, "stop">,
  lifter: Pick<FrozenLifter, "floorMps">,
): FrozenLift["stop"] =>
  lifter.floorMps === undefined ? slot.stop : { ...slot.stop, floorMps: lifter.floorMps };

/** One set of an exercise without a bar. */
export interface ExerciseSet {
  key: string;
  number: number;
  /** In what the slot counts. */
  reps: number;
  repsTo?: number;
  loadKg: number | undefined;
  /** Why there is no load; undefined where none is asked for. */
  loadReason: string | undefined;
}

export interface FrozenExerciseAthlete {
  athleteId: string;
  name: string;
  unit: MassUnit;
  instructions: string[];
  sets: ExerciseSet[];
  /** On the teaching ladder: the rung to be passed today. */
  rung?: { id: string; name: string; how: string; pass: string };
}

/** A slot without a bar: an exercise, a jump, a throw, a sprint, a carry. */
export interface FrozenExercise extends InDay {
  kind: "exercise";
  exerciseId: string;
  name: string;
  pattern: Pattern;
  counts: "reps" | "metres" | "contacts";
  sides: Sides;
  /** 2 where the load is a hand's and both hold one. */
  hands: 1 | 2;
  /** What may be written down of a set. */
  output: Output;
  rest: { leastS: number; mostS: number };
  /** The teaching ladder: its one set is a rung, passed or not; the whole squad and its gate. */
  ladder?: {
    gate: { startedOn: LocalDate; decidedEarly: boolean; sharePercent: number; weeks: number };
    /** Rungs passed before today. */
    squad: Array<{ athleteId: string; name: string; passed: number }>;
  };
  groups: Array<{ stationId: string; athletes: FrozenExerciseAthlete[] }>;
  absent?: FrozenExerciseAthlete[];
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
export interface FrozenPairing extends InDay {
  kind: "pairing";
  complex: Complex;
  settings: RunSettings;
  groups: Array<{ stationId: string; athletes: FrozenPairingAthlete[] }>;
}

export type FrozenSlot = FrozenLift | FrozenExercise | FrozenPairing;

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

export function exercisesOf(session: FrozenSession): FrozenExercise[] {
  return session.slots.flatMap((slot) => (slot.kind === "exercise" ? [slot] : []));
}

/** A slot's name as it is read out. */
export const slotName = (slot: FrozenSlot): string =>
  slot.kind === "lift" ? slot.liftName : slot.kind === "exercise" ? slot.name : slot.complex.name;

/** Who does a slot, of those who were here when it began. */
export const peopleOf = (slot: FrozenSlot): Array<{ athleteId: string; name: string }> =>
  slot.kind === "lift"
    ? slot.groups.flatMap((group) => group.lifters)
    : slot.groups.flatMap((group): Array<{ athleteId: string; name: string }> => group.athletes);

/** Who is of the plan and was not here when it began. */
export const absentOf = (slot: FrozenSlot): Array<{ athleteId: string; name: string }> =>
  slot.kind === "pairing" ? [] : (slot.absent ?? []);

/** The slot of a session that a plan's slot became: by its origin, in older sessions by its name. */
export function isOfPlan(
  slot: InDay,
  of: { planId: string; week?: number; slotId: string },
): boolean {
  const { from } = slot;
  if (!from) return slot.slotId === of.slotId;
  return (
    from.planId === of.planId &&
    from.slotId === of.slotId &&
    (of.week === undefined || of.week === from.week)
  );
}

/**
 * What a station's tablet needs of a session: everything, for anybody may come to any station
 * while no link is there; but for who is refused in what, and the workings.
 */
export function shareOfStation(session: FrozenSession): FrozenSession {
  const { leftOut: _, ...shared } = session;
  return withoutWorkings(shared);
}

const NO_WORKING = { title: "", lines: [] };

/** A session without the workings of its loads, which are fetched where somebody asks. */
export const withoutWorkings = (session: FrozenSession): FrozenSession =>
  eachLifter(session, (lifter) => ({
    ...lifter,
    sets: lifter.sets.map((set) => ({ ...set, working: NO_WORKING })),
  }));

/** A session with each lifter of its lifts put anew, in one order always. */
export function eachLifter(
  session: FrozenSession,
  anew: (lifter: FrozenLifter) => FrozenLifter,
): FrozenSession {
  return {
    ...session,
    slots: session.slots.map((slot) =>
      slot.kind === "lift"
        ? {
            ...slot,
            groups: slot.groups.map((group) => ({ ...group, lifters: group.lifters.map(anew) })),
            ...(slot.absent ? { absent: slot.absent.map(anew) } : {}),
          }
        : slot,
    ),
  };
}
