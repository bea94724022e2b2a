import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { type Block, cyclePlace, SECTION_NAMES, slotWeek } from "../../../../core/plan/block";
import { hasSteps, moreInWeek } from "../../../../core/plan/board-edits";
import type { Lifter } from "../../../../core/prescribe/lifter";
import type { Recipe } from "../../../../core/recipe/recipe";
import { Notice } from "../../../ui/page";
import { RecipeForm } from "../../../ui/recipe-form";
import { isTyping } from "../../../ui/use-keys";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import type { useRecipeKeeping } from "../recipe-keeping";
import { slotName } from "../slot-picker";
import { AthleteEffect } from "./athlete-effect";
import { RecipeBars } from "./recipe-bars";
import { SlotSettings } from "./slot-settings";

/** The picked slot in one week: its recipe to pull, what it makes of one athlete, its settings, its checks. */
export function SlotPanel({
  data,
  block,
  slotId,
  week,
  recipe: keeping,
  athlete,
  choose,
  mayEdit,
}: {
  data: PlanPage;
  /** With what is being tried. */
  block: Block;
  slotId: string;
  week: number;
  recipe: ReturnType<typeof useRecipeKeeping>;
  athlete: Lifter | undefined;
  choose: (athleteId: string) => void;
  mayEdit: boolean;
}) {
  const [fields, setFields] = useState(false);
  const slot = block.slots[slotId];
  const kept = data.block.slots[slotId];
  const tried = keeping.draft !== undefined;
  const keep = () => {
    if (keeping.draft) void keeping.onKeep(keeping.draft);
  };
  useTriedKeys(keep, keeping.putBack, tried && mayEdit && !fields);
  if (!slot || !kept) return null;
  const { settings } = data.room;
  const wave = slotWeek(block, slot, week, settings);
  const place = cyclePlace(block, slot, week);
  const name = slotName(data, block, slot, week);
  const checks = data.checks.filter(
    (one) =>
      one.slotId === slotId &&
      one.answered === undefined &&
      (one.week === undefined || one.week === week),
  );
  const more = (of: { sets?: number; reps?: number }) => {
    const next = place && moreInWeek(keeping.newestOf(slot.recipe), { index: place.index, ...of });
    if (next) keeping.onDraft(next);
  };
  return (
    <section aria-labelledby="slot-panel">
      <h2 id="slot-panel">{name}</h2>
      <p className="text-muted">
        {block.days[slot.dayId]?.name}, {SECTION_NAMES[slot.section].toLowerCase()} ·{" "}
        {slot.recipe.name} · week {week}
        {place ? `, ${place.index + 1} of its ${slotLength(slot.recipe)}` : ""}
      </p>
      {fields ? (
        <RecipeForm
          key={`${slotId}/${keeping.filledAt}`}
          recipe={keeping.draft ?? kept.recipe}
          mayEdit={mayEdit}
          result={keeping.result}
          onTyping={keeping.onTyping}
          onDraft={keeping.onDraft}
          onKeep={keeping.onKeep}
        />
      ) : (
        <>
          {place ? (
            <>
              <RecipeBars
                recipe={slot.recipe}
                index={place.index}
                wave={wave}
                mayEdit={mayEdit}
                keeping={keeping}
                keep={tried ? keep : undefined}
                putBack={keeping.putBack}
              />
              {mayEdit && !slot.recipe.top ? (
                <p className="mt-1.5 flex flex-wrap items-center gap-1.5">
                  <span className="text-muted">This week</span>
                  {hasSteps(slot.recipe) ? (
                    <Stepper what="sets a step" by={(n) => more({ sets: n })} />
                  ) : null}
                  <Stepper what="reps a set" by={(n) => more({ reps: n })} />
                </p>
              ) : null}
            </>
          ) : (
            <p className="mt-2 text-muted">
              {wave && wave.sets.length > 0
                ? "A deload of the week before, at your factors."
                : "Nothing of it is done in this week."}
            </p>
          )}
          {tried && mayEdit ? (
            <div className="mt-2 flex gap-2">
              <button type="button" className="btn btn-primary" onClick={keep}>
                Keep{" "}
                <span aria-hidden="true" className="text-sm opacity-80">
                  Enter
                </span>
              </button>
              <button type="button" className="btn" onClick={keeping.putBack}>
                Put back{" "}
                <span aria-hidden="true" className="text-sm opacity-80">
                  Esc
                </span>
              </button>
            </div>
          ) : null}
          {keeping.result && !keeping.result.ok ? (
            <Notice
              kind="problem"
              title={
                keeping.result.message ?? Object.values(keeping.result.problems ?? {})[0] ?? ""
              }
            />
          ) : null}
        </>
      )}
      <p className="mt-2 flex flex-wrap gap-x-4">
        <button type="button" className="underline" onClick={() => setFields(!fields)}>
          {fields ? "Back to the bars" : "All fields of the recipe"}
        </button>
        <Link className="underline" to={`?view=numbers&slot=${slotId}`}>
          Everybody's numbers
        </Link>
      </p>
      <AthleteEffect
        data={data}
        block={block}
        slotId={slotId}
        week={week}
        athlete={athlete}
        choose={choose}
        mayEdit={mayEdit}
      />
      {checks.map((check) => (
        <Notice
          key={check.key}
          kind={check.level === "note" ? "note" : "warning"}
          title={check.text}
        />
      ))}
      {checks.length > 0 ? (
        <Link className="underline" to="?view=checks">
          Answer checks
        </Link>
      ) : null}
      <details className="mt-4" open>
        <summary className="cursor-pointer font-bold">Where it stands</summary>
        <div className="mt-1">
          <SlotSettings data={data} slot={{ ...kept, id: slotId }} name={name} mayEdit={mayEdit} />
        </div>
      </details>
    </section>
  );
}

/** Enter keeps what is tried and Esc puts it back: but Enter on another button is that button's own. */
function useTriedKeys(keep: () => void, putBack: () => void, on: boolean): void {
  const now = useRef({ keep, putBack, on });
  now.current = { keep, putBack, on };
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const { target } = event;
      if (!now.current.on || isTyping(target) || !(target instanceof Element)) return;
      if (event.key === "Escape") now.current.putBack();
      const others = target.closest("button, a, summary");
      if (event.key !== "Enter" || (others && !others.id.startsWith("cell-"))) return;
      event.preventDefault();
      now.current.keep();
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, []);
}

const slotLength = (recipe: Recipe) => {
  const weeks = recipe.weeks.length * (recipe.repeats ?? 1) + (recipe.tail?.length ?? 0);
  return `${weeks} ${weeks === 1 ? "week" : "weeks"}`;
};

function Stepper({ what, by }: { what: string; by: (n: 1 | -1) => void }) {
  return (
    <span className="inline-flex items-center">
      <button
        type="button"
        className="btn btn-sm"
        aria-label={`Fewer ${what}`}
        onClick={() => by(-1)}
      >
        −
      </button>
      <span className="px-1.5">{what}</span>
      <button
        type="button"
        className="btn btn-sm"
        aria-label={`More ${what}`}
        onClick={() => by(1)}
      >
        +
      </button>
    </span>
  );
}
