import { useEffect, useMemo, useRef, useState } from "react";
import { asSchool } from "../../../../core/checks/as-school";
import { doseFor, recipeOfDose } from "../../../../core/checks/dose";
import {
  type Block,
  SECTION_NAMES,
  SECTIONS,
  type SectionKind,
  type Slot,
  slotsOf,
} from "../../../../core/plan/block";
import { slotCells } from "../../../../core/plan/block-loads";
import { boardRow, cellWords } from "../../../../core/plan/board";
import { newSlot } from "../../../../core/plan/board-edits";
import { readWrittenSlot, type Trained, usualSection } from "../../../../core/plan/written-slot";
import { withCoachFloor } from "../../../../core/recipe/coach-floor";
import { AIMS, type Aim, type Recipe } from "../../../../core/recipe/recipe";
import { formatKg } from "../../../../core/units/mass";
import { CellPicture, markFor } from "../../../ui/cell-picture";
import { Field, Select } from "../../../ui/field";
import { useUnit } from "../../../ui/unit";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import { freshId } from "../setup-edit";
import type { Picked } from "./picked";

/** Recipes that are shown as pictures at once; more are found by their names. */
const SHOWN = 8;

/** A new slot: what is trained, and a recipe picked from pictures or proposed by an aim, tried on this squad. */
export function NewSlot({
  data,
  asked,
  onPut,
  onDone,
}: {
  data: PlanPage;
  /** Where it shall stand; asked for anew, it is begun anew in the field. */
  asked: Extract<Picked, { kind: "new" }>;
  /** One was put on, and the next may follow. */
  onPut: () => void;
  /** With the new slot's id; undefined where nothing was put on. */
  onDone: (slotId: string | undefined) => void;
}) {
  const edit = usePlanEdit();
  const { block } = data;
  const [line, setLine] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const [put, setPut] = useState<{ slotId: string; words: string }>();
  const { dayId } = asked;
  const [section, setSection] = useState<SectionKind>(asked.section);
  const [work, setWork] = useState("");
  const [more, setMore] = useState<string[]>([]);
  const [hands, setHands] = useState<1 | 2>(1);
  const [picked, setPicked] = useState("");
  const [bySchool, setBySchool] = useState(false);
  const [kind, id = ""] = work.split(":");
  const lift = data.lifts.find((one) => kind === "lift" && one.id === id);
  const school = data.schools.find((one) => one.id === block.schoolId) ?? data.schools[0];
  const dosed = useMemo(
    () =>
      school && (lift || work === "")
        ? AIMS.map((aim) => ({ aim, dose: doseFor({ aim, lift: lift?.lift, school }) }))
        : [],
    [school, lift, work],
  );
  const workName = lift?.name ?? data.exercises.find((one) => one.id === id)?.name ?? "";
  const recipe = recipeOf(picked);
  const proposed = recipe && school ? asSchool(recipe, school) : undefined;
  const chosen = bySchool && proposed ? proposed.recipe : recipe;

  function recipeOf(key: string): Recipe | undefined {
    const [of, which = ""] = key.split(":");
    if (of === "dose") {
      const dose = dosed.find((one) => one.aim === which)?.dose;
      return (
        dose && school && recipeOfDose(dose, `${lift?.name ?? "Slot"}, ${dose.aim}`, school.name)
      );
    }
    return data.recipes.find((one) => one.id === which)?.recipe;
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: each time it is asked for
  useEffect(() => field.current?.focus(), [asked]);
  /** A line that is typed fills the fields under it: each can still be another. */
  const readLine = (text: string) => {
    setLine(text);
    const written = readWrittenSlot(
      text,
      [
        ...data.lifts.map((one): Trained => ({ ...one, kind: "lift", pattern: undefined })),
        ...data.exercises.map((one): Trained => ({ ...one, kind: "exercise" })),
      ],
      data.recipes.map((one) => ({ id: one.id, name: one.recipe.name })),
    );
    if (written.work) {
      setWork(`${written.work.kind}:${written.work.id}`);
      const there = slotsOf(block, dayId).map((one) => one.section);
      setSection(usualSection(written.work, there));
    }
    if (written.recipe) setPicked(`recipe:${written.recipe.id}`);
  };
  const slotOf = (of: Recipe): Slot => ({
    dayId,
    section,
    order: 0,
    work:
      kind === "lift"
        ? { kind: "lift", variantId: id }
        : { kind: "exercise", exerciseIds: [id, ...more], hands },
    recipe: withCoachFloor(of, lift?.lift, data.coachValues),
    fromWeek: 1,
    repeat: true,
    session: 1,
    group: "",
  });
  return (
    <form
      aria-label="New slot"
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!chosen || id === "") return;
        const slotId = freshId("s");
        void edit(newSlot(block, slotId, slotOf(chosen)));
        // The next one follows: the form stays, empty.
        onPut();
        setPut({ slotId, words: `${workName}, ${chosen.name}` });
        setLine("");
        setWork("");
        setMore([]);
        field.current?.focus();
      }}
    >
      <h2>A slot on {block.days[dayId]?.name}</h2>
      {put ? (
        <p role="status">
          <span className="text-muted">Put on: {put.words}.</span>{" "}
          <button type="button" className="underline" onClick={() => onDone(put.slotId)}>
            Open it
          </button>
        </p>
      ) : null}
      <Field
        ref={field}
        label="Type it: lift, recipe"
        value={line}
        autoComplete="off"
        onChange={(event) => readLine(event.target.value)}
        hint="beginnings of words do, then Enter"
      />
      <Select
        label="Lift or exercise"
        value={work}
        onChange={(event) => setWork(event.target.value)}
      >
        <option value="">choose</option>
        <optgroup label="Lifts with a max">
          {data.lifts.map((one) => (
            <option key={one.id} value={`lift:${one.id}`}>
              {one.name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Exercises">
          {data.exercises.map((one) => (
            <option key={one.id} value={`exercise:${one.id}`}>
              {one.name}
            </option>
          ))}
        </optgroup>
      </Select>
      <Select
        label="Section"
        value={section}
        onChange={(event) => setSection(event.target.value as SectionKind)}
      >
        {SECTIONS.map((one) => (
          <option key={one} value={one}>
            {SECTION_NAMES[one]}
          </option>
        ))}
      </Select>
      {kind === "exercise" ? (
        <ExerciseFields
          data={data}
          more={more}
          setMore={setMore}
          hands={hands}
          setHands={setHands}
        />
      ) : null}
      <RecipePick
        data={data}
        section={section}
        picked={picked}
        pick={setPicked}
        dosed={dosed}
        schoolName={school?.name ?? ""}
      />
      {proposed && school && proposed.changes.length > 0 ? (
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm mt-0.5 border-control"
            checked={bySchool}
            onChange={(event) => setBySchool(event.target.checked)}
          />
          <span>
            As {school.name} does: {proposed.changes.join(", ")}
          </span>
        </label>
      ) : null}
      {chosen && id !== "" ? <OnThisSquad data={data} block={block} slot={slotOf(chosen)} /> : null}
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary" disabled={id === "" || !chosen}>
          Put it on
        </button>
        <button type="button" className="btn" onClick={() => onDone(put?.slotId)}>
          {put ? "That is all" : "Not now"}
        </button>
      </div>
    </form>
  );
}

/** Of an exercise: what follows it week by week, and what its load counts. */
function ExerciseFields({
  data,
  more,
  setMore,
  hands,
  setHands,
}: {
  data: PlanPage;
  more: readonly string[];
  setMore: (ids: string[]) => void;
  hands: 1 | 2;
  setHands: (hands: 1 | 2) => void;
}) {
  return (
    <>
      <Select
        label="Then in turn, week by week"
        value=""
        onChange={(event) => event.target.value && setMore([...more, event.target.value])}
      >
        <option value="">
          {more.length === 0
            ? "nothing else"
            : more.map((one) => data.exercises.find((two) => two.id === one)?.name).join(", ")}
        </option>
        {data.exercises.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
      <Select
        label="The load counts"
        value={String(hands)}
        onChange={(event) => setHands(event.target.value === "2" ? 2 : 1)}
      >
        <option value="1">in all, or one hand</option>
        <option value="2">per hand, both count</option>
      </Select>
    </>
  );
}

/** A recipe from pictures, or one that an aim begins with. */
function RecipePick({
  data,
  section,
  picked,
  pick,
  dosed,
  schoolName,
}: {
  data: PlanPage;
  section: SectionKind;
  picked: string;
  pick: (key: string) => void;
  dosed: ReadonlyArray<{ aim: Aim; dose: ReturnType<typeof doseFor> }>;
  schoolName: string;
}) {
  const [words, setWords] = useState("");
  const found = recipesFor(data, words, section, picked);
  return (
    <>
      <fieldset>
        <legend className="font-bold">Recipe</legend>
        <Field
          label="Find one"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          hint={`${found.length} of the library`}
        />
        <div className="mt-1 grid gap-1" role="radiogroup" aria-label="Recipe">
          {found.slice(0, SHOWN).map((one) => (
            <RecipeChoice
              key={one.id}
              data={data}
              name={one.recipe.name}
              detail={one.family}
              recipe={one.recipe}
              checked={picked === `recipe:${one.id}`}
              onPick={() => pick(`recipe:${one.id}`)}
            />
          ))}
        </div>
        {found.length > SHOWN ? (
          <p className="text-sm text-muted">{found.length - SHOWN} more: write some of a name.</p>
        ) : null}
      </fieldset>
      {dosed.length > 0 ? (
        <fieldset>
          <legend className="font-bold">Or by its aim, as {schoolName} begins</legend>
          <div className="flex flex-wrap gap-1" role="radiogroup" aria-label="Aim">
            {dosed.map(({ aim }) => (
              <label key={aim} className="flex min-h-8 items-center gap-1 pr-2">
                <input
                  type="radio"
                  className="radio radio-xs border-control"
                  name="recipe"
                  checked={picked === `dose:${aim}`}
                  onChange={() => pick(`dose:${aim}`)}
                />
                {aim}
              </label>
            ))}
          </div>
          <DoseWords picked={picked} dosed={dosed} />
        </fieldset>
      ) : null}
    </>
  );
}

/** Recipes with some words: the chosen one first, then those that fit the section. */
function recipesFor(data: PlanPage, words: string, section: SectionKind, picked: string) {
  const asked = words.trim().toLowerCase();
  const fits = (aim: Aim) =>
    section === "main" || section === "power"
      ? aim === "speed" || aim === "power"
      : aim === "strength" || aim === "growth";
  return data.recipes
    .filter(({ family, recipe }) => `${recipe.name} ${family}`.toLowerCase().includes(asked))
    .sort(
      (a, b) =>
        Number(picked === `recipe:${b.id}`) - Number(picked === `recipe:${a.id}`) ||
        Number(fits(b.recipe.aim)) - Number(fits(a.recipe.aim)),
    );
}

function DoseWords({
  picked,
  dosed,
}: {
  picked: string;
  dosed: ReadonlyArray<{ aim: Aim; dose: ReturnType<typeof doseFor> }>;
}) {
  const dose = dosed.find((one) => picked === `dose:${one.aim}`)?.dose;
  return dose ? (
    <ul className="text-sm text-muted">
      {dose.because.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  ) : null;
}

/** A recipe as its weeks look, in a block of its own. */
function RecipeChoice({
  data,
  name,
  detail,
  recipe,
  checked,
  onPick,
}: {
  data: PlanPage;
  name: string;
  detail: string;
  recipe: Recipe;
  checked: boolean;
  onPick: () => void;
}) {
  const cells = useMemo(() => weeksOfRecipe(data.block, recipe), [data.block, recipe]);
  return (
    <label
      className={`block cursor-pointer border p-1 leading-tight ${checked ? "border-base-content bg-wash" : "border-faint hover:border-control"}`}
    >
      <span className="flex items-center gap-2">
        <input
          type="radio"
          name="recipe"
          className="radio radio-xs border-control"
          checked={checked}
          onChange={onPick}
        />
        <b>{name}</b>
        <span className="ml-auto text-sm text-muted">{detail}</span>
      </span>
      <span className="mt-0.5 grid grid-cols-4 gap-1">
        {cells.slice(0, 4).map((cell) => (
          <CellPicture
            key={cell.week}
            cell={cell}
            mark={markFor(recipe, undefined)}
            height={16}
            tone="primary"
          />
        ))}
      </span>
    </label>
  );
}

function weeksOfRecipe(block: Block, recipe: Recipe) {
  const alone: Slot = {
    dayId: "",
    section: "main",
    order: 0,
    work: { kind: "exercise", exerciseIds: [], hands: 1 },
    recipe,
    fromWeek: 1,
    repeat: false,
    session: 1,
    group: "",
  };
  return boardRow({ ...block, weeks: 4, marks: {} }, alone).cells;
}

/** What the squad would lift in each week: from the lightest to the heaviest, and who has no load. */
function OnThisSquad({ data, block, slot }: { data: PlanPage; block: Block; slot: Slot }) {
  const unit = useUnit();
  const { athletes, room } = data;
  const weeks = useMemo(() => {
    const tried = { ...block, slots: { ...block.slots, "new-slot": slot } };
    return slotCells({
      block: tried,
      slotId: "new-slot",
      weeks: Array.from({ length: Math.min(4, block.weeks) }, (_, i) => i + 1),
      athletes,
      room,
      liftName: "",
    });
  }, [block, slot, athletes, room]);
  const kg = (value: number) => formatKg(value, unit, 1);
  return (
    <section aria-label="On this squad" className="border-t border-rule pt-1">
      <p className="font-bold">On this squad</p>
      <ul>
        {weeks.map(({ week, wave, byAthlete }) => {
          const loads = byAthlete.flat().flatMap((run) => run.loadKg ?? []);
          const without = byAthlete.filter((runs) =>
            runs.some((run) => run.loadKg === undefined && run.reason),
          ).length;
          return (
            <li key={week} className="flex justify-between gap-2 text-sm">
              <span>
                Week {week}: {cellWords(slot.recipe, wave, kg)}
              </span>
              <span className="text-right whitespace-nowrap">
                {loads.length > 0 ? `${kg(Math.min(...loads))} to ${kg(Math.max(...loads))}` : ""}
                {without > 0 ? (
                  <span className="text-accent"> {without} without a load</span>
                ) : null}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
