import {
  type EntryBody,
  type PainPlace,
  rampNumber,
  type SetAddress,
} from "../../../core/floor/entries";
import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { FloorState } from "../../../core/floor/state";
import type { Eye } from "../../../core/liverules/eye";
import { FAILED_REP } from "../../../core/liverules/failed-rep";
import type { StopRule } from "../../../core/liverules/rep";

export type RepReading = Omit<
  Extract<EntryBody, { kind: "rep" }>,
  "kind" | "rep" | "why" | keyof SetAddress
>;

/** A log that shows what was appended at once. */
export interface RunnerLog {
  append(body: EntryBody): unknown;
  view(): { floor: FloorState; ended: boolean };
}

/**
 * Runs sets at one rack: every rep goes to the log under the set it was made in, and the earliest
 * rule ends the set. It keeps no reps of its own: what was logged, by whomever, and what was taken
 * back is asked of the fold each time.
 */
export class SetRunner {
  readonly #log: RunnerLog;

  constructor(log: RunnerLog) {
    this.#log = log;
  }

  /**
   * A rep of a set. One that a sensor measured belongs to its set even after somebody ended it;
   * one by hand is of a set that is open.
   *
   * @returns what came of it: "ended" where this rep met a rule and ended the set
   */
  takeRep(
    at: SetAddress,
    reading: RepReading,
    from: "sensor" | "hand",
  ): "logged" | "ended" | "refused" {
    const before = this.setAt(at);
    if (!before || this.#log.view().ended || before.stage === "dropped") return "refused";
    if (before.stage === "done" && from === "hand") return "refused";
    const rep = Math.max(0, ...before.reps.map((one) => one.number)) + 1;
    this.#log.append({ kind: "rep", ...at, rep, ...reading });
    if (reading.outcome === "failed") {
      this.#log.append({ kind: "fault", ...at, fault: FAILED_REP, cut: true });
      return this.#finish(at, "fault") ? "ended" : "logged";
    }
    const advice = this.setAt(at)?.advice;
    const rule = advice?.hits[0]?.rule;
    return advice?.advice === "stop" && rule && this.#finish(at, rule) ? "ended" : "logged";
  }

  tagFault(at: SetAddress, fault: string, cut: boolean): void {
    if (this.#log.view().ended || !this.setAt(at)) return;
    this.#log.append({ kind: "fault", ...at, fault, cut });
    if (cut && (this.setAt(at)?.reps.length ?? 0) > 0) this.#finish(at, "fault");
  }

  /** It hurts: the set is over, and no heavier until a coach has spoken. */
  flagPain(at: SetAddress, place: PainPlace): void {
    const set = this.setAt(at);
    if (this.#log.view().ended || !set) return;
    this.#log.append({ kind: "pain", ...at, place });
    if (set.stage === "running") this.#finish(at, "hand");
  }

  /** Ends a set now, by hand. */
  end(at: SetAddress): void {
    this.#finish(at, "hand");
  }

  /**
   * So many reps were done, seen and not measured, and the set is over; with how fast it looked
   * where somebody said so. What was logged of it before counts among them.
   *
   * @returns whether it was still open and has a load
   */
  countReps(at: SetAddress, reps: number, eye: Eye | undefined): boolean {
    const set = this.setAt(at);
    if (this.#log.view().ended || set?.loadKg === undefined) return false;
    if (set.stage === "done" || set.stage === "dropped") return false;
    const counted = set.reps.filter((rep) => rep.outcome === "counted").length;
    const first = Math.max(0, ...set.reps.map((rep) => rep.number)) + 1;
    for (let i = 0; i < reps - counted; i++)
      this.#log.append({ kind: "rep", ...at, rep: first + i, outcome: "counted", source: "eye" });
    return this.#finish(at, reps >= set.prescription.reps ? "cap" : "hand", eye);
  }

  /** What is on the bar for a set that is not done. */
  putOn(at: SetAddress, loadKg: number): void {
    const stage = this.setAt(at)?.stage;
    if (this.#log.view().ended || (stage !== "to-come" && stage !== "running")) return;
    this.#log.append({ kind: "set-load", ...at, loadKg });
  }

  /** A word on the set or the lifter that no rule asks for. */
  say(
    body: Extract<EntryBody, { kind: "later" | "skip" | "rehearsed" | "bounce" | "move" | "off" }>,
  ): void {
    if (!this.#log.view().ended) this.#log.append(body);
  }

  setAt(at: SetAddress): SetState | undefined {
    const lifter = this.#lifterAt(at);
    if (rampNumber(at.setKey) === undefined)
      return lifter?.sets.find((one) => one.prescription.key === at.setKey);
    // One on the way up is not known before something was logged of it.
    return [...(lifter?.ramp ?? []), ...(lifter ? [lifter.rampNext] : [])].find(
      (one) => one.prescription.key === at.setKey,
    );
  }

  #lifterAt(at: SetAddress): LifterState | undefined {
    for (const rack of this.#log.view().floor.racks) {
      if (rack.slot.slotId !== at.slotId) continue;
      const lifter = rack.lifters.find((one) => one.lifter.athleteId === at.athleteId);
      if (lifter) return lifter;
    }
    return undefined;
  }

  /** @returns whether it was still open */
  #finish(at: SetAddress, endedBy: StopRule | "hand", eye?: Eye): boolean {
    const set = this.setAt(at);
    if (this.#log.view().ended || set?.loadKg === undefined) return false;
    if (set.stage === "done" || set.stage === "dropped") return false;
    this.#log.append({
      kind: "set-done",
      ...at,
      loadKg: set.loadKg,
      endedBy,
      cut: set.reps.filter((rep) => rep.outcome === "counted").length < set.prescription.reps,
      ...(eye ? { eye } : {}),
    });
    return true;
  }
}
