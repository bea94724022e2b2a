import { useState } from "react";
import type { Complex } from "../../../core/contrast/complex";
import { OUTPUTS } from "../../../core/contrast/outputs";
import type { AthleteRun, Side } from "../../../core/contrast/run";
import { plainNumber } from "../../../core/units/mass";
import type { Tap } from "./tap";

const SIDES: Side[] = ["left", "right"];
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

/** The newest finished work that is done by sides, of the round that goes on or the last one. */
function sidedLast(complex: Complex, run: AthleteRun) {
  const { stage } = run;
  return [...run.sides]
    .reverse()
    .find(
      (one) =>
        complex.items[one.item]?.sides && (stage.kind === "over" || one.round >= stage.round - 1),
    );
}

/** Both sides are taken as done; where they were not, one tap says which was. */
export function SidesDone({
  complex,
  run,
  tap,
  name,
}: {
  complex: Complex;
  run: AthleteRun;
  tap: (entry: Tap) => void;
  name: string;
}) {
  const last = sidedLast(complex, run);
  const item = last && complex.items[last.item];
  if (!last || !item) return null;
  const { reps } = item;
  const choices = [
    { word: "both sides", left: reps, right: reps },
    { word: "left only", left: reps, right: 0 },
    { word: "right only", left: 0, right: reps },
  ];
  return (
    <fieldset className="mt-1 flex flex-wrap items-center gap-1">
      <legend className="sr-only">
        {name}: {item.name}, round {last.round}, done on
      </legend>
      <span className="text-muted" aria-hidden>
        {item.name}, round {last.round}:
      </span>
      {choices.map(({ word, left, right }) => {
        const pressed = last.left === left && last.right === right;
        return (
          <button
            key={word}
            type="button"
            aria-pressed={pressed}
            className={`btn min-h-11 ${pressed ? "btn-active font-bold" : ""}`}
            onClick={() =>
              tap({
                kind: "item-sides",
                round: last.round,
                item: last.item,
                left,
                right,
              })
            }
          >
            {word}
          </button>
        );
      })}
    </fieldset>
  );
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
  tap: (entry: Tap) => void;
  closed: boolean;
  name: string;
}) {
  const keep = (item: number, round: number, side: Side | undefined) => (value: number) => {
    const at = { round: Math.max(1, round), item, value };
    tap(
      round < 1
        ? { kind: "item-baseline", ...at }
        : { kind: "item-output", ...at, ...(side === undefined ? {} : { side }) },
    );
  };
  return (
    <>
      {closed ? null : (
        <div className="mt-1 flex flex-wrap gap-x-3 gap-y-1">
          {wantedNow(complex, run).flatMap(({ item, round }) => {
            const of = complex.items[item];
            const output = OUTPUTS[of?.output ?? "none"];
            const when = round < 1 ? "baseline" : `round ${round}`;
            // Each side has its own field; a baseline is of the better one.
            const sides = of?.sides && round > 0 ? SIDES : [undefined];
            return sides.map((side) => (
              <OutputField
                key={`${item}/${round}/${side}`}
                label={`${name}: ${output.name}, ${output.unit}, ${when}${side ? `, ${side}` : ""}`}
                hint={`${side ?? when}: ${output.name}, ${output.unit}`}
                onValue={keep(item, round, side)}
              />
            ));
          })}
        </div>
      )}
      <ul className="text-muted">
        {complex.items.flatMap((item, i) =>
          [undefined, ...SIDES].map((side) => {
            const own = run.outputs.filter((one) => one.item === i && one.side === side);
            const baseline = side === undefined ? run.baseline[i] : undefined;
            if (item.output === "none" || (own.length === 0 && baseline === undefined)) return null;
            return (
              <li key={`${item.id}/${side}`}>
                {item.name}
                {side ? `, ${side}` : ""}
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
          }),
        )}
      </ul>
    </>
  );
}

/** One number to write down, with its button. */
export function OutputField({
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
        className="field w-48"
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
