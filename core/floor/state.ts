import type { Mass } from "../units/mass";
import type { LogConflict, SetAside } from "./conflicts";
import { applyCorrections, type Correction } from "./corrections";
import {
  type EntryBody,
  type EntryDoubt,
  type ItemEntryBody,
  type LogEntry,
  MOST_RAMP_SETS,
  markOf,
  type PlaceEntryBody,
  type SetEntryBody,
} from "./entries";
import { type ExerciseLine, reduceExercise } from "./exercise-state";
import {
  absentOf,
  exercisesOf,
  type FrozenExercise,
  type FrozenPairing,
  type FrozenRack,
  type FrozenSession,
  type LiftOnFloor,
  liftsOf,
  pairingsOf,
  peopleOf,
} from "./frozen";
import {
  type DecidedCall,
  type LifterState,
  type LiftLine,
  type LiftWork,
  reduceLifter,
  type WaitingCall,
} from "./lifter-state";
import type { LineEntry } from "./line";
import { callNames } from "./names";
import { type PairingLine, reducePairing } from "./pairing-state";
import { type RackAt, rackLoads } from "./set-state";
import {
  compareEntries,
  type JudgedEntry,
  judge,
  type KnownLine,
  type KnownWork,
  knownWork,
} from "./validity";

export interface RackState {
  slot: LiftOnFloor;
  rack: FrozenRack;
  lifters: LifterState[];
  /** Who is up: the fewest sets done, then the rack's order. */
  upId: string | undefined;
  /** What the last finished set left on the bar. */
  onBar: { callName: string; side: Mass[] } | undefined;
}

export interface PairingState {
  slot: FrozenPairing;
  athletes: PairingLine[];
}

/** An exercise at one station. */
export interface ExerciseState {
  slot: FrozenExercise;
  stationId: string;
  athletes: ExerciseLine[];
}

/** Somebody of the plan who was not here and has not come in. */
export interface Absent {
  athleteId: string;
  name: string;
}

/** A coach's word to every station. */
export interface Note {
  entryId: string;
  text: string;
  atMs: number;
}

/** An entry that counts only by the coach's word, and has not got it yet. */
export interface Doubtful {
  entry: LogEntry;
  doubt: EntryDoubt;
}

export interface FloorState {
  racks: RackState[];
  exercises: ExerciseState[];
  pairings: PairingState[];
  absent: Absent[];
  /** The newest last. */
  notes: Note[];
  /** The coach has stopped the floor. */
  paused: boolean;
  calls: WaitingCall[];
  decided: DecidedCall[];
  conflicts: LogConflict[];
  setAside: SetAside[];
  doubtful: Doubtful[];
  /** Highest sequence number folded in. */
  seq: number;
}

interface Line {
  work: LineWork;
  known: Known[];
  folded: LiftLine | ExerciseLine | PairingLine | undefined;
}
type LineWork =
  | { kind: "lift"; at: LiftWork }
  | { kind: "exercise"; at: Parameters<typeof reduceExercise>[0] }
  | { kind: "pairing"; at: Parameters<typeof reducePairing>[0] };

interface Known extends Omit<JudgedEntry, "line"> {
  line: Line | undefined;
}

/**
 * The running session as a pure function of its log: the same code on the server and on every
 * tablet, so that the same entries always give the same floor. Entries may be added in any order
 * and any number of times; only the athletes they speak of are folded again.
 */
export class FloorFold {
  readonly #work: KnownWork;
  readonly #lifts: LiftOnFloor[];
  readonly #exercises: FrozenExercise[];
  readonly #pairings: FrozenPairing[];
  readonly #racks = new Map<string, RackAt>();
  /** Notes and pauses: of nobody's work. */
  readonly #announced = new Set<Known>();
  readonly #lines = new Map<KnownLine, Line>();
  readonly #known = new Map<string, Known>();
  /** Corrections in the log's order, and what became of them. */
  #corrections: Known[] = [];
  #applied = applyCorrections([]);
  #correctionsChanged = false;
  readonly #words = new Map<string, Known[]>();
  /** What is not known here, and what waits for a coach's word or has it. */
  readonly #aside = new Set<Known>();
  readonly #doubts = new Set<Known>();
  #conflicts: LogConflict[] = [];
  #seq = 0;
  #state: FloorState | undefined;

  constructor(session: FrozenSession) {
    this.#work = knownWork(session);
    this.#lifts = liftsOf(session);
    this.#exercises = exercisesOf(session);
    this.#pairings = pairingsOf(session);
    for (const station of session.stations)
      if (station.kind === "rack") {
        const { id, name, gear } = station;
        this.#racks.set(id, { id, name, gear, loads: rackLoads(gear) });
      }
    const names = callNames(
      session.slots.flatMap((slot) => [...peopleOf(slot), ...absentOf(slot)]),
    );
    const callName = (one: { athleteId: string; name: string }) =>
      names.get(one.athleteId) ?? one.name;
    const rackOf = (stationId: string) => this.#racks.get(stationId);
    for (const slot of this.#lifts) {
      const first = slot.groups[0]?.stationId ?? "";
      const open = (lifter: LiftWork["lifter"], homeId: string, settledAt: string) =>
        this.#open(slot.slotId, lifter.athleteId, {
          kind: "lift",
          at: { slot, lifter, callName: callName(lifter), homeId, settledAt, rackOf },
        });
      for (const { stationId, lifters } of slot.groups)
        for (const lifter of lifters) open(lifter, stationId, stationId);
      for (const lifter of slot.absent ?? []) open(lifter, "", first);
    }
    for (const slot of this.#exercises) {
      const open = (athlete: ExerciseLine["athlete"], homeId: string) =>
        this.#open(slot.slotId, athlete.athleteId, {
          kind: "exercise",
          at: { slot, athlete, callName: callName(athlete), homeId },
        });
      for (const { stationId, athletes } of slot.groups)
        for (const athlete of athletes) open(athlete, stationId);
      for (const athlete of slot.absent ?? []) open(athlete, "");
    }
    for (const slot of this.#pairings)
      for (const { stationId, athletes } of slot.groups)
        for (const athlete of athletes)
          this.#open(slot.slotId, athlete.athleteId, {
            kind: "pairing",
            at: { slot, athlete, callName: callName(athlete), stationId },
          });
  }

  #open(slotId: string, athleteId: string, work: LineWork): void {
    const of = this.#work.slots.get(slotId)?.get(athleteId);
    if (of) this.#lines.set(of, { work, known: [], folded: undefined });
  }

  #line(slotId: string, athleteId: string): Line | undefined {
    const of = this.#work.slots.get(slotId)?.get(athleteId);
    return of && this.#lines.get(of);
  }

  /** Adds entries, or the number that the server gave to one. An entry seen twice counts once. */
  add(entries: Iterable<LogEntry>): this {
    for (const entry of entries) {
      const before = this.#known.get(entry.id);
      if (before && (before.entry.seq !== undefined || entry.seq === undefined)) continue;
      if (before) this.#forget(before);
      this.#keep(entry);
      if (entry.seq !== undefined && entry.seq > this.#seq) this.#seq = entry.seq;
    }
    return this;
  }

  /** Takes entries out again that the server would not take. */
  remove(ids: Iterable<string>): this {
    for (const id of ids) {
      const before = this.#known.get(id);
      if (before) this.#forget(before);
    }
    return this;
  }

  has(id: string): boolean {
    return this.#known.has(id);
  }

  /** Every entry, in the log's order. */
  entries(): LogEntry[] {
    return [...this.#known.values()].map(({ entry }) => entry).sort(compareEntries);
  }

  /** Entries of an athlete's slot that count now, in the log's order. */
  counting(slotId: string, athleteId: string): LineEntry[] {
    this.state();
    const line = this.#line(slotId, athleteId);
    return line ? this.#visible(line) : [];
  }

  /** The entries that count of an athlete's slot. */
  countingIn(slotId: string, athleteId: string): LogEntry[] {
    return this.counting(slotId, athleteId).map(({ entry }) => entry);
  }

  /** Every entry that counts, in no order. */
  countingAnywhere(): LogEntry[] {
    this.state();
    return [...this.#lines.values()].flatMap((line) =>
      this.#visible(line).map(({ entry }) => entry),
    );
  }

  /** The entries that speak of an athlete's slot, those taken back and corrected too. */
  knownIn(slotId: string, athleteId: string): LogEntry[] {
    return this.#line(slotId, athleteId)?.known.map(({ entry }) => entry) ?? [];
  }

  /** Which correction in force hides an entry; undefined where none does. */
  hiddenBy(id: string): string | undefined {
    this.state();
    return this.#applied.hiddenBy.get(id);
  }

  entry(id: string): LogEntry | undefined {
    return this.#known.get(id)?.entry;
  }

  state(): FloorState {
    this.#state ??= this.#fold();
    return this.#state;
  }

  #keep(entry: LogEntry): void {
    const judged = judge(this.#work, entry);
    const { body, problem } = judged;
    const line = judged.line && this.#lines.get(judged.line);
    const known: Known = { entry, body, problem, line };
    this.#known.set(entry.id, known);
    if (line) line.known.push(known);
    if (problem !== undefined) this.#aside.add(known);
    else if (entry.doubt !== undefined) this.#doubts.add(known);
    this.#changed(known);
    if (body?.kind === "note" || body?.kind === "pause") this.#announced.add(known);
    if (entry.supersedes.length > 0) this.#corrections.push(known);
    if (body?.kind === "admit")
      for (const id of body.of) this.#words.set(id, [...(this.#words.get(id) ?? []), known]);
  }

  #forget(known: Known): void {
    const { entry, body, line } = known;
    this.#known.delete(entry.id);
    if (line) line.known.splice(line.known.indexOf(known), 1);
    this.#aside.delete(known);
    this.#doubts.delete(known);
    this.#announced.delete(known);
    this.#changed(known);
    if (entry.supersedes.length > 0) this.#corrections.splice(this.#corrections.indexOf(known), 1);
    if (body?.kind === "admit")
      for (const id of body.of)
        this.#words.set(
          id,
          (this.#words.get(id) ?? []).filter((word) => word !== known),
        );
  }

  #changed({ entry, body, line }: Known): void {
    this.#state = undefined;
    if (line) line.folded = undefined;
    // What corrects it stands where it stands, in another athlete's line too.
    this.#unfold(this.#applied.hiddenBy.get(entry.id));
    if (entry.supersedes.length > 0) this.#correctionsChanged = true;
    if (body && isPain(body))
      for (const correction of this.#corrections)
        if (correction.entry.supersedes.includes(entry.id)) {
          this.#correctionsChanged = true;
          if (correction.line) correction.line.folded = undefined;
        }
    if (body?.kind !== "admit") return;
    for (const id of body.of) {
      const about = this.#known.get(id);
      if (about?.line) about.line.folded = undefined;
      if (about && about.entry.supersedes.length > 0) this.#correctionsChanged = true;
    }
  }

  /** Whether it may count: it is known here, and where it waits for the coach's word, has it. */
  #mayCount(known: Known): boolean {
    if (known.problem !== undefined || this.#wantsPain(known.entry)) return false;
    return known.entry.doubt === undefined || this.#word(known.entry.id) === true;
  }

  /** Whether it would take back a pain, or a coach's word on one: nobody corrects those. */
  #wantsPain(entry: LogEntry): boolean {
    return entry.supersedes.some((id) => {
      const body = this.#known.get(id)?.body;
      return body !== undefined && isPain(body);
    });
  }

  /** The newest word of a coach on an entry. */
  #word(id: string): boolean | undefined {
    let newest: Known | undefined;
    for (const word of this.#words.get(id) ?? [])
      if (!newest || compareEntries(word.entry, newest.entry) > 0) newest = word;
    return newest?.body?.kind === "admit" ? newest.body.take : undefined;
  }

  #applyCorrections(): void {
    if (!this.#correctionsChanged) return;
    this.#correctionsChanged = false;
    this.#corrections.sort((a, b) => compareEntries(a.entry, b.entry));
    const corrections = this.#corrections.filter((known) => this.#mayCount(known));
    const before = this.#applied;
    this.#applied = applyCorrections(
      corrections.map(
        ({ entry, body }): Correction => ({
          id: entry.id,
          targets: entry.supersedes,
          isVoid: body?.kind === "void",
        }),
      ),
    );
    this.#conflicts = this.#applied.conflicts.map((one) => ({ code: "double-correction", ...one }));
    // Whoever is hidden, or hidden no more, changes the line it stands in.
    for (const [one, other] of [
      [before, this.#applied],
      [this.#applied, before],
    ] as const) {
      for (const [id, by] of one.hiddenBy) if (other.hiddenBy.get(id) !== by) this.#unfold(id);
      for (const id of one.refused) if (!other.refused.has(id)) this.#unfold(id);
    }
  }

  #unfold(id: string | undefined): void {
    for (let at = id; at !== undefined; at = this.#applied.hiddenBy.get(at)) {
      const line = this.#known.get(at)?.line;
      if (line) line.folded = undefined;
    }
  }

  #visible(line: Pick<Line, "known">): LineEntry[] {
    return line.known
      .flatMap((known): LineEntry[] => {
        const { entry, body } = known;
        if (!body || !this.#mayCount(known)) return [];
        if (this.#applied.refused.has(entry.id) || this.#applied.hiddenBy.has(entry.id)) return [];
        return [{ entry, body, root: this.#rootOf(entry) }];
      })
      .sort((a, b) => compareEntries(a.root, b.root) || compareEntries(a.entry, b.entry));
  }

  /** What a correction corrects in the end, as far as it is here and says the same kind of thing. */
  #rootOf(entry: LogEntry): LogEntry {
    let root = entry;
    const seen = new Set([entry.id]);
    for (;;) {
      const next = this.#known.get(root.supersedes[0] ?? "");
      if (!next || next.problem !== undefined || seen.has(next.entry.id)) return root;
      if (next.entry.body.kind !== entry.body.kind) return root;
      root = next.entry;
      seen.add(root.id);
    }
  }

  #foldLine(line: Line): LiftLine | ExerciseLine | PairingLine {
    if (line.folded) return line.folded;
    const visible = this.#visible(line);
    const { work } = line;
    line.folded =
      work.kind === "lift"
        ? reduceLifter(work.at, visible.filter(speaksOfSet))
        : work.kind === "exercise"
          ? reduceExercise(work.at, visible.filter(speaksOfSet))
          : reducePairing(work.at, visible.filter(speaksOfItem));
    return line.folded;
  }

  /** The lines of a slot in their order: as it began, then who was not here. */
  #linesOf(slotId: string): Array<LiftLine | ExerciseLine | PairingLine> {
    return [...(this.#work.slots.get(slotId)?.keys() ?? [])].flatMap((athleteId) => {
      const line = this.#line(slotId, athleteId);
      return line ? [this.#foldLine(line)] : [];
    });
  }

  #announcements(): { notes: Note[]; paused: boolean } {
    const notes: Note[] = [];
    let paused = false;
    for (const { entry, body } of this.#visible({ known: [...this.#announced] })) {
      if (body.kind === "pause") paused = body.on;
      if (body.kind === "note")
        notes.push({ entryId: entry.id, text: body.reason, atMs: markOf(entry).atMs });
    }
    return { notes, paused };
  }

  #fold(): FloorState {
    this.#applyCorrections();
    const racks: Array<{ slot: LiftOnFloor; rack: RackAt; lines: LiftLine[] }> = [];
    const exercises: ExerciseState[] = [];
    const absent = new Map<string, Absent>();
    const isHere = new Set<string>();
    for (const slot of this.#lifts) {
      const all = this.#linesOf(slot.slotId).filter((line) => line.kind === "lift");
      for (const { state } of all) noteWhere(state.lifter, state.stationId, absent, isHere);
      for (const [id, lines] of byStation(slot.groups, all, (line) => line.state.stationId)) {
        const rack = this.#racks.get(id);
        if (rack) racks.push({ slot, rack, lines });
      }
    }
    for (const slot of this.#exercises) {
      const all = this.#linesOf(slot.slotId).filter((line) => line.kind === "exercise");
      for (const line of all) noteWhere(line.athlete, line.stationId, absent, isHere);
      for (const [stationId, athletes] of byStation(slot.groups, all, (line) => line.stationId))
        exercises.push({ slot, stationId, athletes });
    }
    const pairings = this.#pairings.map((slot) => ({
      slot,
      athletes: this.#linesOf(slot.slotId).filter((line) => line.kind === "pairing"),
    }));
    const lines = racks.flatMap((one) => one.lines);
    const inOrder = (known: Iterable<Known>) =>
      [...known].sort((a, b) => compareEntries(a.entry, b.entry));
    const setAside = inOrder(this.#aside).flatMap(({ entry, problem }) =>
      problem === undefined ? [] : [{ entryId: entry.id, reason: problem }],
    );
    const doubtful = inOrder(this.#doubts).flatMap(({ entry }) =>
      entry.doubt === undefined || this.#word(entry.id) !== undefined
        ? []
        : [{ entry, doubt: entry.doubt }],
    );
    return {
      racks: racks.map(({ slot, rack, lines: ofRack }) => rackState(slot, rack, ofRack)),
      exercises,
      pairings,
      absent: [...absent.values()].filter((one) => !isHere.has(one.athleteId)),
      ...this.#announcements(),
      calls: lines.flatMap((line) => line.call ?? []),
      decided: lines.flatMap((line) => line.decided),
      conflicts: [
        ...this.#conflicts,
        ...lines.flatMap((line) => line.conflicts),
        ...exercises.flatMap((slot) => slot.athletes.flatMap((line) => line.conflicts)),
        ...pairings.flatMap((slot) => slot.athletes.flatMap((line) => line.conflicts)),
      ],
      setAside,
      doubtful,
      seq: this.#seq,
    };
  }
}

/** A session's floor from a whole log. */
export function reduceFloor(session: FrozenSession, entries: Iterable<LogEntry>): FloorState {
  return new FloorFold(session).add(entries).state();
}

const isPain = (body: EntryBody) => body.kind === "pain" || body.kind === "pain-over";

const speaksOfSet = (one: LineEntry): one is LineEntry<SetEntryBody | PlaceEntryBody> =>
  "setKey" in one.body || one.body.kind === "move" || one.body.kind === "off";
const speaksOfItem = (one: LineEntry): one is LineEntry<ItemEntryBody | PlaceEntryBody> =>
  "round" in one.body || one.body.kind === "move" || one.body.kind === "off";

/** Who has no place yet was not here; somebody with a place in any slot is. */
function noteWhere(
  { athleteId, name }: Absent,
  stationId: string | undefined,
  absent: Map<string, Absent>,
  isHere: Set<string>,
): void {
  if (stationId === undefined) absent.set(athleteId, { athleteId, name });
  else isHere.add(athleteId);
}

/** Lines by where they are now: the stations of the slot in their order, then others. */
function byStation<Line>(
  groups: ReadonlyArray<{ stationId: string }>,
  lines: readonly Line[],
  stationOf: (line: Line) => string | undefined,
): Map<string, Line[]> {
  const found = new Map<string, Line[]>(groups.map((group) => [group.stationId, []]));
  for (const line of lines) {
    const id = stationOf(line);
    if (id === undefined) continue;
    const there = found.get(id);
    if (there) there.push(line);
    else found.set(id, [line]);
  }
  for (const [id, there] of found) if (there.length === 0) found.delete(id);
  return found;
}

function rackState(slot: LiftOnFloor, at: RackAt, came: readonly LiftLine[]): RackState {
  // In the order that somebody set for them; who has none comes after, as they came.
  const late = Number.POSITIVE_INFINITY;
  const lines = came.some((one) => one.state.turn !== undefined)
    ? [...came].sort((a, b) => {
        const [one, two] = [a.state.turn ?? late, b.state.turn ?? late];
        return one === two ? 0 : one - two;
      })
    : came;
  const lifters = lines.map((line) => line.state);
  const { id, name, gear } = at;
  const rack: FrozenRack = { id, name, gear, lifters: lifters.map((one) => one.lifter) };
  const waiting = lifters.filter((lifter) => lifter.current !== undefined);
  const running = waiting.find(
    (lifter) =>
      lifter.sets[lifter.current ?? -1]?.stage === "running" ||
      lifter.ramp.some((set) => set.stage === "running"),
  );
  // Who let others before counts as one turn further on.
  // Before the first work set the turns are those of the way up.
  const turn = (lifter: LifterState) =>
    lifter.doneCount +
    (lifter.sets[lifter.current ?? -1]?.passed ?? 0) +
    (lifter.doneCount === 0
      ? lifter.ramp.filter((set) => set.stage === "done").length / (MOST_RAMP_SETS + 1)
      : 0);
  const next = waiting.reduce<LifterState | undefined>(
    (best, lifter) => (best === undefined || turn(lifter) < turn(best) ? lifter : best),
    undefined,
  );
  const last = lines.reduce<LiftLine | undefined>((latest, line) => {
    if (!line.lastDone) return latest;
    if (!latest?.lastDone) return line;
    return compareEntries(line.lastDone.entry, latest.lastDone.entry) > 0 ? line : latest;
  }, undefined);
  return {
    slot,
    rack,
    lifters,
    upId: (running ?? next)?.lifter.athleteId,
    onBar: last?.lastDone && {
      callName: last.state.callName,
      side: last.lastDone.set.side,
    },
  };
}
