import { useState } from "react";
import { type Complex, OUTPUTS } from "../../../core/contrast/complex";
import type { AthleteRun } from "../../../core/contrast/run";
import { plainNumber } from "../../../core/units/mass";
import type { Tap } from "../../offline/pairing-outbox";

const VERDICTS = { better: "better ▲", same: "same", fading: "fading ▼" } as const;

/** The item whose output is wanted now: of the work going on, or of the last that was done. */
function wantedNow(complex: Complex, run: AthleteRun): Array<{ item: number; round: number }> {
  const { stage } = run;
  const measured = (item: number) => complex.items[item]?.output !== "none";
  if (stage.kind === "waiting")
    return complex.items.flatMap((_, item) =>
      measured(item) && run.baseline[item] === undefined ? [{ item, round: 0 }] : [],
    );
  if (stage.kind === "working") return measured(stage.item) ? [stage] : [];
  const last =
    stage.kind === "over"
      ? { item: complex.items.length - 1, round: complex.rounds }
      : stage.item > 0
        ? { item: stage.item - 1, round: stage.round }
        : { item: complex.items.length - 1, round: stage.round - 1 };
  return measured(last.item) ? [last] : [];
}

/** The field for what was just done, and below it what each round gave. */
export function Outputs({
  complex,
  run,
  tap,
  closed,
  name,
}: {
  complex: Complex;
  run: AthleteRun;
  tap: (entry: Tap) => string;
  closed: boolean;
  name: string;
}) {
  const { athleteId } = run;
  const keep = (item: number, round: number) => (value: number) => {
    const at = { athleteId, round: Math.max(1, round), item, value, atMs: Date.now() };
    tap(round < 1 ? { kind: "baseline", ...at } : { kind: "output", ...at });
  };
  return (
    <>
      {closed ? null : (
        <div className="mt-1 flex flex-wrap gap-x-3 gap-y-1">
          {wantedNow(complex, run).map(({ item, round }) => {
            const of = complex.items[item];
            const output = OUTPUTS[of?.output ?? "none"];
            const when = round < 1 ? "baseline" : `round ${round}`;
            return (
              <OutputField
                key={`${item}/${round}`}
                label={`${name}: ${output.name}, ${output.unit}, ${when}`}
                hint={`${when}: ${output.name}, ${output.unit}`}
                onValue={keep(item, round)}
              />
            );
          })}
        </div>
      )}
      <ul className="text-muted">
        {complex.items.map((item, i) => {
          const own = run.outputs.filter((one) => one.item === i);
          const baseline = run.baseline[i];
          if (item.output === "none" || (own.length === 0 && baseline === undefined)) return null;
          return (
            <li key={item.id}>
              {item.name}
              {baseline === undefined ? "" : `, baseline ${plainNumber(baseline, 2)}`}
              {own.map((one) => (
                <span key={one.round}>
                  {" · "}
                  <span className="text-base-content">{plainNumber(one.value, 2)}</span>
                  {one.againstFirst === undefined ? "" : ` ${VERDICTS[one.verdict]}`}
                </span>
              ))}
            </li>
          );
        })}
      </ul>
    </>
  );
}

function OutputField({
  label,
  hint,
  onValue,
}: {
  label: string;
  hint: string;
  onValue: (value: number) => void;
}) {
  const [text, setText] = useState("");
  const value = Number(text.replace(",", "."));
  const wrong = text !== "" && !(value > 0);
  return (
    <form
      className="flex items-center gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (!(value > 0)) return;
        onValue(value);
        setText("");
      }}
    >
      <input
        className="field w-52"
        inputMode="decimal"
        aria-label={label}
        aria-invalid={wrong || undefined}
        placeholder={hint}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="submit" className="btn" aria-label={`Keep ${label}`} disabled={!(value > 0)}>
        Keep
      </button>
    </form>
  );
}
