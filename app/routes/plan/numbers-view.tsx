import { Link } from "react-router";
import { progressions, tonnageKg } from "../../../core/exercise/tonnage";
import type { Block, Slot } from "../../../core/plan/block";
import { formatKg } from "../../../core/units/mass";
import { readIn } from "../../../core/units/written";
import { BenchAnswers } from "../../ui/bench-answers";
import { Empty } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import type { useAddress } from "../../ui/use-address";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { Numbers } from "./numbers";
import { Changed } from "./plan-changes";
import { SHOW_NAMES, SHOWS, weeksShown } from "./shows";
import { SlotPicker } from "./slot-picker";

/** Columns that fit a desk with the margin open. */
const FEW = 8;

/** One slot's weeks for everybody, what cells show, and what changed since it was published. */
export function NumbersView({
  data,
  block,
  slotId,
  drafted,
  address,
  mayEdit,
}: {
  data: PlanPage;
  /** With the recipe as it is being typed. */
  block: Block;
  slotId: string;
  /** The recipe is typed and not saved. */
  drafted: boolean;
  address: ReturnType<typeof useAddress>;
  mayEdit: boolean;
}) {
  const { plan, published } = data;
  const slot = block.slots[slotId];
  const show = SHOWS.find((one) => one === address.get("show")) ?? "loads";
  const shown = weeksShown(slot?.recipe, show);
  const few = data.athletes.length > 0 && data.athletes.length <= FEW;
  const turned = few && address.get("columns") === "athletes";
  const firstWeek = firstShown(Number(address.get("from")), block.weeks, shown);
  const lift = data.lifts.find(
    (one) => slot?.work.kind === "lift" && one.id === slot.work.variantId,
  );
  return (
    <>
      <SlotPicker data={data} block={block} slotId={slotId} />
      {drafted ? (
        <p role="status" className="my-1 font-medium text-secondary">
          As typed, not saved yet.
        </p>
      ) : null}
      {slot ? (
        <>
          <div className="no-print mb-1 flex flex-wrap items-center gap-x-6">
            {turned ? null : (
              <WeekPager
                firstWeek={firstWeek}
                weeks={block.weeks}
                shown={shown}
                set={address.set}
              />
            )}
            <label className="flex items-center gap-2 text-muted">
              Cells show
              <select
                className="rounded border border-control bg-base-100 px-1 py-0.5 text-base-content pointer-coarse:min-h-11"
                value={show}
                onChange={(event) =>
                  address.set("show", event.target.value === "loads" ? "" : event.target.value)
                }
              >
                {SHOWS.map((one) => (
                  <option key={one} value={one}>
                    {SHOW_NAMES[one]}
                  </option>
                ))}
              </select>
            </label>
            {few ? (
              <label className="flex items-center gap-2 text-muted">
                A column is
                <select
                  className="rounded border border-control bg-base-100 px-1 py-0.5 text-base-content pointer-coarse:min-h-11"
                  value={turned ? "athletes" : "weeks"}
                  onChange={(event) =>
                    address.set("columns", event.target.value === "weeks" ? "" : event.target.value)
                  }
                >
                  <option value="weeks">a week</option>
                  <option value="athletes">an athlete</option>
                </select>
              </label>
            ) : null}
          </div>
          <Numbers
            data={data}
            block={block}
            slotId={slotId}
            firstWeek={firstWeek}
            show={show}
            turned={turned}
            mayEdit={mayEdit}
          />
          <AccessorySteps slot={slot} />
        </>
      ) : (
        <Empty
          action={
            mayEdit ? (
              <Link className="btn btn-primary" to="?view=board">
                Put a slot on a day
              </Link>
            ) : undefined
          }
        >
          No slot yet. A slot is a lift or an exercise on a day, with its recipe.
        </Empty>
      )}
      <Changed data={data} published={published} />
      <BenchAnswers answers={data.answers} mayEdit={mayEdit} />
      <p className="mt-3 text-sm text-muted">
        Loads for {data.gearName}, in {plan.roomName}; each rack's own bar and plates count when the
        session starts. An underlined load is a coach's own. Select a figure for its working.{" "}
        {lift?.caution ?? ""}
      </p>
    </>
  );
}

function firstShown(asked: number, weeks: number, shown: number): number {
  const last = Math.max(1, weeks - shown + 1);
  return Number.isInteger(asked) && asked >= 1 ? Math.min(asked, last) : 1;
}

function WeekPager({
  firstWeek,
  weeks,
  shown,
  set,
}: {
  firstWeek: number;
  weeks: number;
  shown: number;
  set: (name: string, value: string) => void;
}) {
  if (weeks <= shown) return null;
  const to = (week: number) => set("from", week <= 1 ? "" : String(week));
  return (
    <p className="no-print flex items-baseline gap-3 text-muted">
      <button
        type="button"
        className="underline disabled:no-underline disabled:opacity-60"
        disabled={firstWeek <= 1}
        onClick={() => to(firstWeek - shown)}
      >
        Earlier weeks
      </button>
      <span>
        weeks {firstWeek} to {Math.min(weeks, firstWeek + shown - 1)} of {weeks}
      </span>
      <button
        type="button"
        className="underline disabled:no-underline disabled:opacity-60"
        disabled={firstWeek + shown > weeks}
        onClick={() => to(firstWeek + shown)}
      >
        Later weeks
      </button>
    </p>
  );
}

/** What each next step of an accessory adds, one thing changed at a time. */
function AccessorySteps({ slot }: { slot: Slot }) {
  const unit = useUnit();
  const { recipe, work } = slot;
  const [step] = recipe.steps;
  if (work.kind !== "exercise" || recipe.basis !== "fixed" || recipe.start <= 0 || !step)
    return null;
  const line = { sets: step.sets, reps: step.reps, loadKg: recipe.start, hands: work.hands };
  const nowKg = tonnageKg(line);
  if (nowKg === undefined) return null;
  return (
    <section aria-label="What a step adds" className="mt-3">
      <p>
        {step.sets} × {step.reps} × {formatKg(recipe.start, unit)}
        {work.hands === 2 ? " a hand, both counted" : ""} = <b>{formatKg(nowKg, unit, 0)}</b>
        {progressions(line, { reps: 3, loadKg: 2.5, sets: 1 }).map((one) => (
          <span key={readIn(one.name, unit)} className="text-muted">
            {" "}
            · {readIn(one.name, unit)} +{formatKg(one.deltaKg, unit, 0)}
          </span>
        ))}
      </p>
    </section>
  );
}
