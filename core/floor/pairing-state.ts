import { simplerComplex, withOwnGap } from "../contrast/adapt";
import type { Complex } from "../contrast/complex";
import { type AthleteRun, foldRun, type RunTap } from "../contrast/run";
import type { LogConflict } from "./conflicts";
import type { ItemEntryBody, PlaceEntryBody } from "./entries";
import type { FrozenPairing, FrozenPairingAthlete } from "./frozen";
import { type LineEntry, momentOf } from "./line";
import { type Standing, standingOf } from "./place";

/** One athlete's pairing. */
export interface PairingLine extends Standing {
  kind: "pairing";
  athlete: FrozenPairingAthlete;
  callName: string;
  stationId: string;
  /** As this athlete does it: the simpler version, the own gap. */
  complex: Complex;
  run: AthleteRun;
  conflicts: LogConflict[];
}

/** The complex as an athlete does it. */
export const complexOf = (slot: FrozenPairing, athlete: FrozenPairingAthlete): Complex =>
  withOwnGap(athlete.simpler ? simplerComplex(slot.complex) : slot.complex, athlete.gapS);

/** An athlete's pairing as a function of the entries that speak of it, in the log's order. */
export function reducePairing(
  at: {
    slot: FrozenPairing;
    athlete: FrozenPairingAthlete;
    callName: string;
    stationId: string;
  },
  all: ReadonlyArray<LineEntry<ItemEntryBody | PlaceEntryBody>>,
): PairingLine {
  const complex = complexOf(at.slot, at.athlete);
  const line = all.filter((one): one is LineEntry<ItemEntryBody> => "round" in one.body);
  const { stationId = at.stationId, off, turn } = standingOf(at.stationId, all);
  const { run, twice } = foldRun(complex, line.map(tapOf), at.slot.settings);
  const { athleteId } = at.athlete;
  return {
    kind: "pairing",
    athlete: at.athlete,
    callName: at.callName,
    stationId,
    off,
    turn,
    complex,
    run:
      off && run.stage.kind !== "over" ? { ...run, stage: { kind: "over", why: "stopped" } } : run,
    conflicts: twice.map(({ round, item, kept, other }) => ({
      code: "same-item-twice",
      address: { athleteId, slotId: at.slot.slotId, round, item },
      kept,
      other,
    })),
  };
}

function tapOf(one: LineEntry<ItemEntryBody>): RunTap {
  const { body, entry } = one;
  const at = { id: entry.id, round: body.round, item: body.item, mark: momentOf(one) };
  switch (body.kind) {
    case "item-output":
      return { ...at, kind: "output", value: body.value, ...(body.side && { side: body.side }) };
    case "item-baseline":
      return { ...at, kind: "baseline", value: body.value };
    case "item-sides":
      return { ...at, kind: "sides", left: body.left, right: body.right };
    case "item-load":
      return { ...at, kind: "load", kg: body.kg };
    case "item-start":
      return { ...at, kind: "start" };
    case "item-done":
      return { ...at, kind: "done" };
    case "pairing-stop":
      return { ...at, kind: "stop" };
  }
}
