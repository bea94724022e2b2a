import { type KeyboardEvent, useState } from "react";
import { type Reach, raiseBar } from "../../../../core/plan/board-edits";
import { BASIS_UNITS, type LoadBasis } from "../../../../core/recipe/basis";
import type { Recipe, WaveWeek } from "../../../../core/recipe/recipe";
import { plainNumber } from "../../../../core/units/mass";
import type { useRecipeKeeping } from "../recipe-keeping";
import { usePull } from "./use-pull";

/** A step of a week: its sets in a row, drawn as one bar that is pulled. */
interface Bar {
  stepId: string;
  sets: number;
  reps: number;
  value: number;
}

/** The number that sets a load, in its basis's unit; undefined where there is none to pull. */
function numberOf(basis: LoadBasis): number | undefined {
  switch (basis.by) {
    case "percent":
    case "peak-power":
    case "body":
      return basis.percent;
    case "speed":
      return basis.mps;
    case "reserve":
      return basis.reserve;
    case "fixed":
      return basis.kg;
    case "found":
      return basis.plusKg;
    case "peak-force":
      return basis.slowerMps;
    case "eye":
      return undefined;
  }
}

export function barsOfWeek(wave: WaveWeek | undefined): Bar[] {
  const bars: Bar[] = [];
  for (const set of wave?.sets ?? []) {
    const value = numberOf(set.basis);
    const last = bars.at(-1);
    if (last?.stepId === set.stepId) last.sets++;
    else if (value !== undefined) bars.push({ stepId: set.stepId, sets: 1, reps: set.reps, value });
  }
  return bars;
}

/** What a pull of one step's height is, in the basis's unit. */
const STEP: Record<string, number> = { "%": 2.5, "m/s": 0.02, reps: 1, kg: 2.5 };
const HEIGHT = 110;

const REACHES: ReadonlyArray<[Reach, string]> = [
  ["week", "this week"],
  ["step", "this step"],
  ["all", "every week"],
];

/**
 * A week of a recipe as bars: each is pulled by its handle, stepped with the arrow keys, or typed. How
 * far a change reaches is chosen beside it, and said.
 */
export function RecipeBars({
  recipe,
  index,
  wave,
  mayEdit,
  keeping,
  keep,
  putBack,
}: {
  /** As it is tried. */
  recipe: Recipe;
  /** Place in the cycle, from 0. */
  index: number;
  wave: WaveWeek | undefined;
  mayEdit: boolean;
  keeping: Pick<ReturnType<typeof useRecipeKeeping>, "onDraft" | "newestOf">;
  /** Keeps what is tried; undefined where nothing is. */
  keep: (() => void) | undefined;
  putBack: () => void;
}) {
  const [asked, setReach] = useState<Reach>("week");
  const bars = barsOfWeek(wave);
  // A flat week and a top set have no step of their own.
  const ofSteps = bars.some((bar) => recipe.steps.some((step) => step.id === bar.stepId));
  const reaches = REACHES.filter(([id]) => id !== "step" || ofSteps);
  const reach = asked === "step" && !ofSteps ? "week" : asked;
  const unit = BASIS_UNITS[recipe.basis];
  const step = STEP[unit] ?? 1;
  const most = Math.max(...bars.map((bar) => bar.value), unit === "%" ? 65 : step);
  const raise = (stepId: string, by: number) => {
    const next = raiseBar(keeping.newestOf(recipe), { index, stepId, by, reach });
    if (next) keeping.onDraft(next);
  };
  if (bars.length === 0)
    return <p className="text-muted">No load is set here: the coach's eye decides on the day.</p>;
  return (
    <>
      <div
        className="mt-1 flex items-end gap-2 border-b border-control"
        style={{ height: HEIGHT + 34 }}
      >
        {bars.map((bar, i) => (
          <OneBar
            key={bar.stepId}
            bar={bar}
            first={i === 0}
            share={Math.max(0.04, bar.value / most)}
            perStepPx={(HEIGHT * step) / most}
            step={step}
            unit={unit}
            mayEdit={mayEdit}
            raise={(by) => raise(bar.stepId, by)}
            keep={keep}
            putBack={putBack}
          />
        ))}
      </div>
      {mayEdit ? (
        <fieldset className="mt-1.5 flex flex-wrap items-center gap-x-2">
          <legend className="sr-only">How far a change reaches</legend>
          <span className="text-muted">Moves</span>
          {reaches.map(([id, words]) => (
            <label key={id} className="flex min-h-6 items-center gap-1 pointer-coarse:min-h-11">
              <input
                type="radio"
                className="radio radio-xs border-control"
                name="reach"
                checked={reach === id}
                onChange={() => setReach(id)}
              />
              {words}
            </label>
          ))}
        </fieldset>
      ) : null}
    </>
  );
}

function OneBar({
  bar,
  first,
  share,
  perStepPx,
  step,
  unit,
  mayEdit,
  raise,
  keep,
  putBack,
}: {
  bar: Bar;
  first: boolean;
  share: number;
  perStepPx: number;
  step: number;
  unit: string;
  mayEdit: boolean;
  raise: (by: number) => void;
  keep: (() => void) | undefined;
  putBack: () => void;
}) {
  const pull = usePull({
    axis: "y",
    size: () => Math.max(3, perStepPx),
    fine: 5,
    onPull: (_, by) => raise(by * step),
  });
  const text = plainNumber(bar.value, 3);
  const [words, setWords] = useState<string>();
  const typed = (input: HTMLInputElement): number | undefined => {
    const value = Number(input.value.replace(",", "."));
    return input.value.trim() === "" || !Number.isFinite(value) || value === bar.value
      ? undefined
      : value;
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") {
      event.preventDefault();
      const value = typed(event.currentTarget);
      // What was typed is tried first, then kept.
      setWords(undefined);
      if (value !== undefined) raise(value - bar.value);
      else keep?.();
      return;
    }
    if (event.key === "Escape") {
      setWords(undefined);
      putBack();
      return;
    }
    const up = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
    if (up === 0) return;
    event.preventDefault();
    setWords(undefined);
    raise((up * step) / (event.shiftKey ? 5 : 1));
  };
  const height = Math.min(HEIGHT, HEIGHT * share);
  return (
    <div className="flex min-w-0 flex-1 flex-col items-center">
      <input
        id={first ? "first-bar" : undefined}
        className="field !h-7 !w-full max-w-20 !px-1 text-center font-bold"
        inputMode="decimal"
        aria-label={`${bar.sets} sets of ${bar.reps}, ${unit}`}
        value={words ?? text}
        onChange={(event) => setWords(event.target.value)}
        disabled={!mayEdit}
        onKeyDown={onKeyDown}
        onBlur={(event) => {
          const value = typed(event.target);
          setWords(undefined);
          if (value !== undefined) raise(value - bar.value);
        }}
      />
      {mayEdit ? (
        <span
          aria-hidden="true"
          title={`Pull: ${step} ${unit} a step, Shift finer`}
          className="mt-0.5 h-2.5 w-8 cursor-ns-resize touch-none rounded-[3px] border border-base-content bg-base-100 pointer-coarse:h-6"
          {...pull.handlers}
        />
      ) : null}
      <span
        aria-hidden="true"
        className="flex w-full max-w-20 gap-px"
        style={{ height: Math.max(4, height - 12) }}
      >
        {Array.from({ length: Math.min(12, bar.sets) }, (_, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the place is the identity
          <span key={i} className="flex-1 bg-primary" />
        ))}
      </span>
      <span className="text-[12px] text-muted">
        {bar.sets}×{bar.reps}
      </span>
    </div>
  );
}
