import type { PlateStock } from "../../../core/barload/loading-gear";
import { rimOnBar } from "../../../core/barload/plate-rim";
import type { SetAddress } from "../../../core/floor/entries";
import { rampNumber } from "../../../core/floor/entries";
import type { SetState } from "../../../core/floor/set-state";
import type { RackState } from "../../../core/floor/state";
import type { OwnWay } from "../../../core/resistance/heights";
import { type MassUnit, massKg, readMass } from "../../../core/units/mass";
import type { LiftStart } from "../../../core/velocity/stream";
import { readSpeed } from "../../forms/speed";
import { Later, LaterPart } from "./part";
import type { useSetRunner } from "./use-set-runner";

/** What is opened over a set comes a moment after the screen, and before the network may go. */
const faultList = new LaterPart(async () => (await import("./fault-list")).FaultList);
const filmFrames = new LaterPart(async () => (await import("./film-frames")).FilmFrames);
const keyPad = new LaterPart(async () => (await import("./key-pad")).KeyPad);
export const SHEET_PARTS = [keyPad, faultList, filmFrames];

/** What is opened over the set. */
export type Panel = "type" | "fault" | "load" | "film";

/** What is typed or tagged of the set on the screen. */
export function Sheets({
  panel,
  typed,
  way,
  runner,
  at,
  set,
  unit,
  faults,
  startsAt,
  stock,
  hold,
  close,
}: {
  panel: Panel;
  /** Digits that opened the sheet. */
  typed: string;
  way: OwnWay | undefined;
  runner: ReturnType<typeof useSetRunner>;
  at: SetAddress;
  set: SetState;
  unit: MassUnit;
  faults: RackState["slot"]["faults"];
  startsAt: LiftStart;
  /** The plates of this rack. */
  stock: readonly PlateStock[];
  /** Keeps the set on the screen, whoever ends it. */
  hold: () => void;
  close: () => void;
}) {
  if (panel === "load")
    return (
      <Later
        part={keyPad}
        of={{
          title: "What is on the bar",
          hint: `${unit} in all, with the bar`,
          start: typed,
          button: "This is on the bar",
          onClose: close,
          enter: (text) => {
            const read = readMass(text, unit);
            if (!read.ok || massKg(read.mass) <= 0 || massKg(read.mass) > 1000)
              return "A load, for example 60 or 62.5.";
            runner.putOn(at, massKg(read.mass));
            close();
            return undefined;
          },
        }}
      />
    );
  const left = set.prescription.reps - set.reps.length;
  if (panel === "film")
    return (
      <Later
        part={filmFrames}
        of={{
          repsLeft: left,
          onClose: close,
          enter: (mps) => {
            hold();
            if (runner.typeRep(at, mps, "video") === "ended" || left <= 1) close();
          },
          startsAt,
          bar: { rim: rimOnBar(set.side, stock), way },
          onFilm: (reps) => {
            hold();
            runner.takeFilm(at, reps);
            close();
          },
        }}
      />
    );
  if (panel === "type") {
    return (
      <Later
        part={keyPad}
        of={{
          title: "Type a speed",
          hint: `m/s, mean of the rep; ${left === 1 ? "1 rep" : `${left} reps`} left`,
          start: typed,
          button: "Enter this rep",
          onClose: close,
          enter: (text) => {
            const velocity = readSpeed(text);
            if (velocity === undefined) return "A speed from 0.05 to 4 m/s: 82 or 0.82.";
            hold();
            // A rule that ends the set closes the sheet: the next digit is nobody's speed.
            if (runner.typeRep(at, velocity) === "ended" || left <= 1) close();
            return undefined;
          },
        }}
      />
    );
  }
  return (
    <Later
      part={faultList}
      of={{
        faults,
        onClose: close,
        onFault: (fault, cut) => {
          hold();
          runner.tagFault(at, fault, cut);
        },
        onPain: (place) => {
          hold();
          runner.flagPain(at, place);
        },
      }}
    />
  );
}

/** What can be said of a set that is to come, besides lifting it. */
export function wordsOn(of: {
  at: SetAddress;
  set: SetState;
  rack: RackState;
  runner: ReturnType<typeof useSetRunner>;
  open: (panel: Panel) => void;
  next: () => void;
}) {
  const { at, set, rack, runner } = of;
  const ofPlan = rampNumber(at.setKey) === undefined;
  // Where no sensor measured the stop, a bounce is what somebody saw.
  const last = set.reps.findLast((rep) => rep.outcome === "counted" && rep.pauseS === undefined);
  const asksForStop = rack.slot.stop.smallestStopS !== undefined && !last?.bounced;
  const say = (kind: "later" | "skip") => () => {
    runner.say({ kind, ...at });
    of.next();
  };
  return [
    ...(set.stage === "to-come" && ofPlan
      ? [
          { name: "Others first", run: say("later") },
          { name: "Leave this set out", run: say("skip") },
        ]
      : []),
    { name: "Another load on the bar", run: () => of.open("load") },
    // Frames over a way are a mean: no peak, and no mean of the propulsive part.
    ...(rack.slot.metric === "MCV" && set.loadKg !== undefined
      ? [{ name: "Frames of a film", run: () => of.open("film") }]
      : []),
    ...(asksForStop && last
      ? [
          {
            name: `Rep ${last.number} bounced`,
            run: () => runner.say({ kind: "bounce", ...at, rep: last.number }),
          },
        ]
      : []),
  ];
}
