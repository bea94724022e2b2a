import { Link } from "react-router";
import type { BoardCell } from "../../../../core/plan/board";
import { formatKg, kgToGrains, massIn, plainNumber } from "../../../../core/units/mass";
import { formatClock } from "../../../../core/units/time";
import { CellPicture, type Mark } from "../../../ui/cell-picture";
import { Day } from "../../../ui/dates";
import { useUnit } from "../../../ui/unit";
import { Figure } from "../../../ui/working";
import type { AthletePage } from "../page-data";

type NextDay = AthletePage["upNext"][number];

/** The next published day of this athlete, slot by slot, on the loads of its room. */
export function UpNext({ days }: { days: readonly NextDay[] }) {
  const [first] = days;
  if (!first)
    return (
      <section aria-labelledby="up-next" className="border-b border-rule py-2">
        <h2 id="up-next">Next</h2>
        <p className="text-muted">
          Nothing published asks anything of this athlete from today on.{" "}
          <Link className="underline" to="/plan">
            Plans
          </Link>
        </p>
      </section>
    );
  return (
    <section aria-labelledby="up-next" className="border-b border-rule py-2">
      {days.map((day, i) => (
        <div key={day.planId}>
          <div className="flex flex-wrap items-baseline gap-x-3">
            {i === 0 ? (
              <h2 id="up-next">{day.date === day.today ? "Today" : <Day of={day.date} />}</h2>
            ) : null}
            <p className="text-muted">
              {day.title}, {day.dayName}
              {day.startAt ? ` at ${day.startAt}` : ""} · {day.roomName} · week {day.week} of{" "}
              {day.weeks}
            </p>
            <Link className="ml-auto underline" to={`/plan/${day.planId}?week=${day.week}`}>
              Open the plan
            </Link>
          </div>
          <ul className="flex flex-wrap gap-x-4 gap-y-1">
            {day.slots.map((slot) => (
              <SlotNext key={slot.id} slot={slot} of={day.planId} />
            ))}
            {day.pairings.map((pairing) => (
              <li key={pairing.id} className="w-[7.6rem]">
                <span className="block truncate font-medium" title={pairing.name}>
                  {pairing.name}
                </span>
                <span className="block">
                  {pairing.rounds} rounds, {formatClock(pairing.restS)}
                </span>
                <span className="block text-sm text-muted">
                  {pairing.items.map((item) => item.name).join(" · ")}
                </span>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

function SlotNext({ slot, of }: { slot: NextDay["slots"][number]; of: string }) {
  const unit = useUnit();
  const mark: Mark =
    slot.counts === "contacts"
      ? "dots"
      : slot.counts === "metres"
        ? "arrow"
        : slot.free
          ? "box"
          : "bar";
  const cell = {
    sets: slot.free
      ? Array.from({ length: Math.min(12, slot.free.sets) }, () => ({
          reps: slot.free?.reps ?? 1,
          percent: undefined,
          top: false,
        }))
      : slot.sets.map((set) => ({ reps: set.reps, percent: set.truePercent, top: false })),
    resisted: slot.sets.some((set) => set.resistance !== undefined),
    paused: false,
    slow: false,
  } as Pick<BoardCell, "sets" | "resisted" | "paused" | "slow"> as BoardCell;
  const loads = slot.sets.flatMap((set) => set.loadKg ?? []);
  const distinct = [...new Set(loads)];
  return (
    <li className="w-[7.6rem]">
      <span className="block truncate font-medium" title={slot.name}>
        {slot.name.split(",")[0]}
      </span>
      <CellPicture cell={cell} mark={mark} height={28} tone="primary" />
      {slot.refused ? (
        <span className="text-secondary">refused until a coach answers</span>
      ) : slot.free ? (
        <span>
          {slot.free.sets} × {slot.free.reps}
          {slot.free.loadKg === undefined ? "" : `, ${formatKg(slot.free.loadKg, unit, 1)}`}
        </span>
      ) : distinct.length === 0 ? (
        <span className="text-muted">{slot.sets[0]?.loadReason ?? "no load"}</span>
      ) : (
        <span className="flex flex-wrap gap-x-1.5 font-bold">
          {distinct.slice(0, 4).map((kg) => {
            const set = slot.sets.find((one) => one.loadKg === kg);
            return (
              <Figure
                key={kg}
                id={`next/${of}/${slot.id}/${kg}`}
                working={set?.working}
                label={`${slot.name}, ${formatKg(kg, unit, 1)}`}
              >
                {plainNumber(massIn(kgToGrains(kg), unit), 1)}
              </Figure>
            );
          })}
          <span className="font-normal text-muted">
            {unit} × {slot.sets[0]?.reps}
          </span>
        </span>
      )}
    </li>
  );
}
