import { useEffect, useRef, useState } from "react";
import { OUTPUTS } from "../../../core/contrast/outputs";
import type { EntryBody } from "../../../core/floor/entries";
import type { ExerciseLine, WorkDone, WorkSetState } from "../../../core/floor/exercise-state";
import type { FrozenExercise } from "../../../core/floor/frozen";
import { amended, doneAsPlanned } from "../../../core/floor/round";
import { readDecimal } from "../../../core/units/decimal";
import {
  kgToGrains,
  type MassUnit,
  massIn,
  massKg,
  plainNumber,
  readMass,
} from "../../../core/units/mass";

type Append = (body: EntryBody, supersedes?: string[]) => unknown;

const MOST_WHY = 400;

/** An athlete's sets of an exercise, each opened to be put right; what was logged stays in the log. */
export function EditWork({
  slot,
  stationId,
  line,
  append,
  onClose,
}: {
  slot: FrozenExercise;
  stationId: string;
  line: ExerciseLine;
  append: Append;
  onClose: () => void;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    dialog.current?.showModal();
  }, []);
  const [why, setWhy] = useState("");
  const { athlete } = line;
  const at = { athleteId: athlete.athleteId, slotId: slot.slotId, stationId };
  return (
    <dialog
      ref={dialog}
      onClose={onClose}
      aria-label={`Correct ${slot.name} of ${athlete.name}`}
      className="m-auto max-h-[96dvh] w-[min(96vw,760px)] overflow-auto rounded border border-control bg-base-100 p-5 text-base-content backdrop:bg-black/50"
    >
      <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
        <h2>
          {athlete.name} <span className="font-normal text-muted">{slot.name}</span>
        </h2>
        <button type="button" className="btn min-h-11" onClick={() => dialog.current?.close()}>
          Close
        </button>
      </div>
      <label className="block">
        <span className="text-muted">Why, for what is changed or taken back</span>
        <input
          className="field min-h-11"
          maxLength={MOST_WHY}
          value={why}
          onChange={(event) => setWhy(event.target.value)}
        />
      </label>
      <ol className="mt-2">
        {line.sets.map((set) => (
          <li key={set.prescription.key} className="border-t border-rule py-2">
            <p className="flex flex-wrap items-center justify-between gap-2">
              <b>Set {set.prescription.number}</b>
              {set.done.length === 0 ? (
                <button
                  type="button"
                  className="btn min-h-11"
                  onClick={() => {
                    const sides =
                      slot.sides === "left-right" ? (["left", "right"] as const) : [undefined];
                    for (const side of sides) append(doneAsPlanned(at, set, side));
                  }}
                >
                  Done as planned: {set.prescription.reps} {slot.counts}
                </button>
              ) : null}
            </p>
            {set.done.map((done) => (
              <DoneForm
                // What was put in its place is another entry: the fields begin with what it says.
                key={done.entryId}
                slot={slot}
                unit={athlete.unit}
                of={{ set, done }}
                at={at}
                why={why.trim()}
                append={append}
              />
            ))}
          </li>
        ))}
      </ol>
    </dialog>
  );
}

function DoneForm({
  slot,
  unit,
  of,
  at,
  why,
  append,
}: {
  slot: FrozenExercise;
  unit: MassUnit;
  of: { set: WorkSetState; done: WorkDone };
  at: { athleteId: string; slotId: string; stationId: string };
  why: string;
  append: Append;
}) {
  const { done } = of;
  const { name: outputName, unit: outputUnit } = OUTPUTS[slot.output];
  const [reps, setReps] = useState(String(done.reps));
  const [load, setLoad] = useState(
    done.loadKg === undefined ? "" : plainNumber(massIn(kgToGrains(done.loadKg), unit), 2),
  );
  const [output, setOutput] = useState(
    done.output === undefined ? "" : plainNumber(done.output, 3),
  );
  const [problem, setProblem] = useState<string>();
  const keep = () => {
    const count = readDecimal(reps);
    if (!count.ok || count.value < 0 || count.value > 1000)
      return setProblem(`How many ${slot.counts}? A number from 0.`);
    const mass = load.trim() === "" ? undefined : readMass(load, unit);
    if (mass && !mass.ok) return setProblem("A load, for example 12.5.");
    const measured = output.trim() === "" ? undefined : readDecimal(output);
    if (measured && !(measured.ok && measured.value > 0))
      return setProblem(`${outputName}: a number over 0.`);
    if (why === "") return setProblem("Say why: it stays beside what was logged before.");
    setProblem(undefined);
    const body = amended(at, of, {
      reps: count.value,
      ...(mass?.ok ? { loadKg: massKg(mass.mass) } : {}),
      ...(measured?.ok ? { output: measured.value } : {}),
    });
    append({ ...body, why }, [done.entryId]);
  };
  return (
    <form
      aria-label={`Set ${of.set.prescription.number}${done.side ? `, ${done.side}` : ""}`}
      className="mt-1 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      {done.side ? <span className="min-h-11 w-14 content-center">{done.side}</span> : null}
      <Field label={slot.counts} value={reps} change={setReps} />
      <Field label={`Load, ${unit}`} value={load} change={setLoad} />
      {slot.output === "none" ? null : (
        <Field label={`${outputName}, ${outputUnit}`} value={output} change={setOutput} />
      )}
      <button type="submit" className="btn btn-primary min-h-11">
        Keep
      </button>
      <button
        type="button"
        className="btn min-h-11"
        onClick={() => {
          if (why === "") return setProblem("Say why: it stays beside what was logged before.");
          append({ kind: "void", why }, [done.entryId]);
        }}
      >
        Take it back
      </button>
      {problem ? (
        <p role="alert" className="basis-full text-accent">
          {problem}
        </p>
      ) : null}
    </form>
  );
}

function Field({
  label,
  value,
  change,
}: {
  label: string;
  value: string;
  change: (text: string) => void;
}) {
  return (
    <label className="block w-28">
      <span className="block text-muted">{label}</span>
      <input
        className="field min-h-11"
        inputMode="decimal"
        value={value}
        onChange={(event) => change(event.target.value)}
      />
    </label>
  );
}
