import { Plus, Trash2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { actWords } from "../../core/floor/act-words";
import { correctSet, type WantedSet } from "../../core/floor/correct-set";
import type { EntryBody, LogEntry } from "../../core/floor/entries";
import type { FrozenRack, LiftOnFloor } from "../../core/floor/frozen";
import type { LifterState } from "../../core/floor/lifter-state";
import type { SetState } from "../../core/floor/set-state";
import type { FloorFold } from "../../core/floor/state";
import {
  kgToGrains,
  type MassUnit,
  massIn,
  massKg,
  plainNumber,
  readMass,
} from "../../core/units/mass";
import { formatVelocity } from "../../core/units/velocity";
import { readSpeed } from "../forms/speed";

const WHY = ["Typed wrong", "Wrong athlete", "Reading was wrong", "Logged late"];

interface Row {
  entryId: string | undefined;
  speed: string;
  failed: boolean;
}

const rowsOf = (set: SetState): Row[] =>
  set.reps.map((rep) => ({
    entryId: rep.entryId,
    speed: rep.velocityMps === undefined ? "" : formatVelocity(rep.velocityMps),
    failed: rep.outcome === "failed",
  }));

/**
 * Any set of a session, opened to be put right: reps, speeds, load, faults, whose it was. What
 * was logged stays in the log; a correction stands over it with who, when and why.
 */
export function EditSet({
  fold,
  append,
  slot,
  rack,
  lifters,
  shown,
  names,
  zone,
  large = false,
  onClose,
}: {
  fold: FloorFold;
  append: (body: EntryBody, supersedes?: string[]) => unknown;
  slot: LiftOnFloor;
  rack: FrozenRack;
  lifters: readonly LifterState[];
  shown: { athleteId: string; setKey: string };
  /** Who wrote entries, by the log's own name for them. */
  names: Readonly<Record<string, string>>;
  zone: string;
  large?: boolean;
  onClose: () => void;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    dialog.current?.showModal();
  }, []);
  const [setKey, setSetKey] = useState(shown.setKey);
  const lifter = lifters.find((one) => one.lifter.athleteId === shown.athleteId);
  const set = lifter?.sets.find((one) => one.prescription.key === setKey);
  const size = large ? "min-h-[64px] text-[18px]" : "min-h-11";
  if (!lifter || !set) return null;
  return (
    <dialog
      ref={dialog}
      onClose={onClose}
      aria-label={`Correct a set of ${lifter.lifter.name}`}
      className={`m-auto max-h-[96dvh] w-[min(96vw,860px)] overflow-auto rounded border border-control bg-base-100 p-5 text-base-content backdrop:bg-black/50 ${large ? "text-[17px]" : ""}`}
    >
      <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
        <h2 className={large ? "text-[22px]" : ""}>{lifter.lifter.name}</h2>
        <span className="flex items-center gap-2">
          <span className="text-muted" aria-hidden="true">
            Set
          </span>
          <select
            className={`select border-control ${size}`}
            aria-label="Set to correct"
            value={setKey}
            onChange={(event) => setSetKey(event.target.value)}
          >
            {lifter.sets.map((one) => (
              <option key={one.prescription.key} value={one.prescription.key}>
                {one.prescription.number}: {stageWords(one)}
              </option>
            ))}
          </select>
        </span>
        <button type="button" className={`btn ${size}`} onClick={() => dialog.current?.close()}>
          Close
        </button>
      </div>
      <SetForm
        key={setKey}
        {...{ fold, append, slot, rack, lifters, lifter, set, size }}
        onDone={() => dialog.current?.close()}
      />
      <History
        entries={fold
          .knownIn(slot.slotId, lifter.lifter.athleteId)
          .filter((entry) => "setKey" in entry.body && entry.body.setKey === setKey)}
        fold={fold}
        names={names}
        zone={zone}
        unit={lifter.lifter.unit}
      />
    </dialog>
  );
}

const stageWords = (set: SetState) =>
  ({
    done: `done, ${set.reps.length} reps`,
    running: "running",
    "to-come": "to come",
    dropped: "dropped",
  })[set.stage];

function SetForm({
  fold,
  append,
  slot,
  rack,
  lifters,
  lifter,
  set,
  size,
  onDone,
}: {
  fold: FloorFold;
  append: (body: EntryBody, supersedes?: string[]) => unknown;
  slot: LiftOnFloor;
  rack: FrozenRack;
  lifters: readonly LifterState[];
  lifter: LifterState;
  set: SetState;
  size: string;
  onDone: () => void;
}) {
  const { unit, athleteId } = lifter.lifter;
  const [rows, setRows] = useState(() => rowsOf(set));
  const [faults, setFaults] = useState<WantedSet["faults"]>(() =>
    set.faults.map(({ entryId, fault }) => ({ entryId, fault })),
  );
  const [load, setLoad] = useState(() =>
    set.loadKg === undefined
      ? ""
      : plainNumber(massIn(kgToGrains(set.loadKg), unit), unit === "kg" ? 3 : 1),
  );
  const [finished, setFinished] = useState(set.stage === "done");
  const [moveTo, setMoveTo] = useState("");
  const [why, setWhy] = useState("");
  const [problem, setProblem] = useState<string>();

  const keep = () => {
    const reps: WantedSet["reps"] = [];
    for (const row of rows) {
      const velocityMps = row.speed.trim() === "" ? undefined : readSpeed(row.speed);
      if (row.speed.trim() !== "" && velocityMps === undefined)
        return setProblem(`"${row.speed}" is no speed: from 0.05 to 4 m/s, 82 or 0.82.`);
      reps.push({ entryId: row.entryId, velocityMps, outcome: row.failed ? "failed" : "counted" });
    }
    const reading = readMass(load, unit);
    if (finished && !reading.ok) return setProblem("What was on the bar? For example 57.5.");
    // A load that nobody changed stays as it was, to the gram.
    const typedKg = reading.ok ? massKg(reading.mass) : undefined;
    const same =
      typedKg !== undefined && set.loadKg !== undefined && Math.abs(typedKg - set.loadKg) < 0.05;
    const [toAthlete, toSet] = moveTo.split(" ");
    const wanted: WantedSet = {
      reps,
      faults,
      loadKg: finished ? (same ? set.loadKg : typedKg) : undefined,
      moveTo:
        toAthlete && toSet
          ? { athleteId: toAthlete, slotId: slot.slotId, stationId: rack.id, setKey: toSet }
          : undefined,
      why,
    };
    const made = correctSet({
      at: { athleteId, slotId: slot.slotId, stationId: rack.id, setKey: set.prescription.key },
      line: fold.counting(slot.slotId, athleteId),
      metric: slot.metric,
      plannedReps: set.prescription.reps,
      wanted,
    });
    if (made.some((one) => one.supersedes.length > 0) && why.trim() === "")
      return setProblem("Say why: it stays beside what was logged before.");
    for (const { body, supersedes } of made) append(body, supersedes);
    onDone();
  };

  return (
    <form
      className="grid gap-4 md:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <RepRows rows={rows} setRows={setRows} metric={slot.metric} size={size} />
      <div className="grid content-start gap-3">
        <div className="flex flex-wrap items-end gap-3">
          <label className="block">
            <span className="block text-muted">On the bar, {unit}</span>
            <input
              className={`field w-28 ${size}`}
              inputMode="decimal"
              value={load}
              onChange={(event) => setLoad(event.target.value)}
            />
          </label>
          <label className={`flex items-center gap-2 ${size}`}>
            <input
              type="checkbox"
              className="checkbox border-control"
              checked={finished}
              onChange={(event) => setFinished(event.target.checked)}
            />
            the set is finished
          </label>
        </div>
        <FaultRows faults={faults} setFaults={setFaults} known={slot.faults ?? []} size={size} />
        <BelongsTo {...{ lifters, lifter, set, moveTo, setMoveTo, size }} />
        <label className="block">
          <span className="text-muted">Why</span>
          <input
            className={`field w-full ${size}`}
            maxLength={400}
            value={why}
            onChange={(event) => setWhy(event.target.value)}
          />
        </label>
        <div className="flex flex-wrap gap-2">
          {WHY.map((words) => (
            <button
              key={words}
              type="button"
              className={`btn ${size}`}
              onClick={() => setWhy(words)}
            >
              {words}
            </button>
          ))}
        </div>
        {problem ? (
          <p role="alert" className="text-accent">
            {problem}
          </p>
        ) : null}
        <button type="submit" className={`btn btn-primary ${size}`}>
          Keep the correction
        </button>
      </div>
    </form>
  );
}

function RepRows({
  rows,
  setRows,
  metric,
  size,
}: {
  rows: readonly Row[];
  setRows: (rows: Row[]) => void;
  metric: string;
  size: string;
}) {
  const change = (i: number, patch: Partial<Row>) =>
    setRows(rows.map((row, at) => (at === i ? { ...row, ...patch } : row)));
  return (
    <fieldset>
      <legend className="font-bold">Reps, {metric} in m/s</legend>
      <ul>
        {rows.map((row, i) => (
          <li
            key={row.entryId ?? `new ${i}`}
            className="flex items-center gap-2 border-b border-rule py-1"
          >
            <span className="w-6 text-muted">{i + 1}</span>
            <input
              className={`field w-24 ${size}`}
              inputMode="decimal"
              aria-label={`Rep ${i + 1}, speed`}
              placeholder="not measured"
              value={row.speed}
              onChange={(event) => change(i, { speed: event.target.value })}
            />
            <label className={`flex items-center gap-2 ${size}`}>
              <input
                type="checkbox"
                className="checkbox border-control"
                checked={row.failed}
                onChange={(event) => change(i, { failed: event.target.checked })}
              />
              failed
            </label>
            <button
              type="button"
              className={`btn ml-auto ${size}`}
              aria-label={`Take rep ${i + 1} out`}
              onClick={() => setRows(rows.filter((_, at) => at !== i))}
            >
              <Trash2 className="size-5" aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className={`btn mt-2 ${size}`}
        onClick={() => setRows([...rows, { entryId: undefined, speed: "", failed: false }])}
      >
        <Plus className="size-5" aria-hidden /> Add a rep
      </button>
    </fieldset>
  );
}

function FaultRows({
  faults,
  setFaults,
  known,
  size,
}: {
  faults: WantedSet["faults"];
  setFaults: (faults: WantedSet["faults"]) => void;
  known: NonNullable<LiftOnFloor["faults"]>;
  size: string;
}) {
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <legend className="text-muted">Faults</legend>
      {faults.map((one, i) => (
        <button
          key={`${one.fault} ${one.entryId ?? i}`}
          type="button"
          className={`btn ${size}`}
          aria-label={`Take the fault ${one.fault} out`}
          onClick={() => setFaults(faults.filter((other) => other !== one))}
        >
          {one.fault} <Trash2 className="size-4" aria-hidden />
        </button>
      ))}
      <select
        className={`select border-control ${size}`}
        aria-label="Add a fault"
        value=""
        onChange={(event) =>
          setFaults([...faults, { entryId: undefined, fault: event.target.value }])
        }
      >
        <option value="">add a fault</option>
        {known.map(({ seen }) => (
          <option key={seen}>{seen}</option>
        ))}
      </select>
    </fieldset>
  );
}

/** Whose set it was, where it was logged for another. */
function BelongsTo({
  lifters,
  lifter,
  set,
  moveTo,
  setMoveTo,
  size,
}: {
  lifters: readonly LifterState[];
  lifter: LifterState;
  set: SetState;
  moveTo: string;
  setMoveTo: (value: string) => void;
  size: string;
}) {
  return (
    <label className="block">
      <span className="text-muted">It was the set of</span>
      <select
        className={`select w-full border-control ${size}`}
        value={moveTo}
        onChange={(event) => setMoveTo(event.target.value)}
      >
        <option value="">{lifter.lifter.name}, as it stands</option>
        {lifters.flatMap((other) =>
          other.sets
            .filter((one) => other !== lifter || one !== set)
            .map((one) => (
              <option
                key={`${other.lifter.athleteId} ${one.prescription.key}`}
                value={`${other.lifter.athleteId} ${one.prescription.key}`}
              >
                {other.lifter.name}, set {one.prescription.number} ({stageWords(one)})
              </option>
            )),
        )}
      </select>
    </label>
  );
}

/** Everything that was ever logged of the set: by whom, when, and why it was changed. */
function History({
  entries,
  fold,
  names,
  zone,
  unit,
}: {
  entries: readonly LogEntry[];
  fold: FloorFold;
  names: Readonly<Record<string, string>>;
  zone: string;
  unit: MassUnit;
}) {
  const [time] = useState(
    () => new Intl.DateTimeFormat("en-GB", { timeStyle: "medium", timeZone: zone }),
  );
  if (entries.length === 0) return null;
  const shown = entries.flatMap((entry) => {
    const by = fold.entry(fold.hiddenBy(entry.id) ?? "");
    return by?.body.kind === "void" ? [entry, by] : [entry];
  });
  const who = (entry: LogEntry) =>
    entry.by === undefined ? "this tablet" : (names[entry.by] ?? "a tablet or person not here");
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="min-h-11 cursor-pointer content-center">
        What was logged: {entries.length}
      </summary>
      <ol>
        {[...new Set(shown)].map((entry) => {
          const hidden = fold.hiddenBy(entry.id) !== undefined;
          return (
            <li key={entry.id} className="border-b border-rule py-1">
              <span className={hidden ? "text-muted line-through" : ""}>
                {entry.body.kind === "void" ? "taken back" : actWords(entry.body, { unit })}
              </span>
              <span className="text-muted">
                {" "}
                · {time.format(new Date(entry.madeAt ?? entry.wallTime))} · {who(entry)}
                {entry.body.why ? ` · "${entry.body.why}"` : ""}
                {hidden ? " · does not count any more" : ""}
              </span>
            </li>
          );
        })}
      </ol>
    </details>
  );
}
