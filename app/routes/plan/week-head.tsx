import { Link } from "react-router";
import { type Block, dateOf, markOf, type Slot } from "../../../core/plan/block";
import { describeBasis } from "../../../core/recipe/basis";
import type { WaveWeek } from "../../../core/recipe/recipe";
import { Day } from "../../ui/dates";
import { WaveColumnPicture } from "../../ui/wave-chart";
import type { PlanPage } from "../../workflows/plan/read-plan.server";

/** How high a bar stands for what its set asks: from a quarter for the least to whole for the most. */
export function barHeights(
  weeks: ReadonlyArray<WaveWeek | undefined>,
): (set: WaveWeek["sets"][number]) => number {
  const values = weeks.flatMap((wave) => wave?.sets.map((set) => askedValue(set.basis)) ?? []);
  const least = Math.min(...values);
  const most = Math.max(...values);
  return (set) =>
    most === least ? 0.6 : 0.25 + 0.75 * ((askedValue(set.basis) - least) / (most - least));
}

/** A week of one slot: its date, what became of it or what stands in its way, its sets as bars. */
export function WeekHead({
  data,
  block,
  slotId,
  slot,
  week,
  wave,
  barHeight,
  heightPx,
}: {
  data: PlanPage;
  block: Block;
  slotId: string;
  slot: Slot;
  week: number;
  wave: WaveWeek | undefined;
  barHeight: (set: WaveWeek["sets"][number]) => number;
  heightPx?: number;
}) {
  const day = block.days[slot.dayId] ?? { name: "", offset: 0 };
  const grips = slot.recipe.cycle;
  const mark = markOf(block, week);
  const session = data.sessions.find((one) => one.week === week && one.slotId === slotId);
  const competition = data.competitions.find((one) => one.week === week);
  return (
    <>
      <span className="flex min-w-28 justify-between gap-x-2 px-2 pt-1">
        <b>Week {week}</b>
        <span className="text-muted">
          <Day short of={dateOf(block, week, day)} />
        </span>
      </span>
      <span className="block h-5 overflow-hidden px-2 text-left text-sm font-normal text-ellipsis whitespace-nowrap">
        {session ? (
          <Link
            className="underline"
            to={session.status === "running" ? `/floor/${session.id}` : `/review/${session.id}`}
          >
            {session.status === "running" ? "on the floor" : "done"}
          </Link>
        ) : (
          <span className="text-secondary" title={competition?.words}>
            {competition?.words ?? wave?.method?.name ?? ""}
          </span>
        )}
      </span>
      <WaveColumnPicture
        heightPx={heightPx}
        column={{
          title: `Week ${week}`,
          words: weekWords(mark?.words || mark?.kind, wave),
          sets: (wave?.sets ?? []).map((set, i) => {
            const asked = describeBasis(set.basis, data.room.unit);
            const before = wave?.sets[i - 1];
            return {
              key: set.key,
              height: barHeight(set),
              shade: grips.length > 1 ? (set.number - 1) % grips.length : 0,
              label:
                before && describeBasis(before.basis, data.room.unit) === asked ? undefined : asked,
            };
          }),
        }}
      />
    </>
  );
}

/** The number of a basis, for the height of its bar; a slower speed of peak force is heavier. */
function askedValue(basis: WaveWeek["sets"][number]["basis"]): number {
  switch (basis.by) {
    case "percent":
    case "peak-power":
    case "body":
      return basis.percent;
    case "speed":
      return -basis.mps;
    case "peak-force":
      return basis.slowerMps;
    case "reserve":
      return -basis.reserve;
    case "found":
      return basis.plusKg;
    case "fixed":
      return basis.kg;
    case "eye":
      return 0;
  }
}

function weekWords(mark: string | undefined, wave: WaveWeek | undefined): string | undefined {
  if (mark) return mark;
  if (!wave) return "nothing of this slot";
  return wave.kind === "work" ? undefined : wave.kind;
}
