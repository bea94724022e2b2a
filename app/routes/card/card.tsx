import { describeSide } from "../../../core/barload/load";
import { formatKg } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { Empty, Notice, Page } from "../../ui/page";
import { Figure, Figures } from "../../ui/working";
import { readCard } from "../../workflows/card/read-card.server";
import type { Route } from "./+types/card";

export function meta() {
  return [{ title: "My card · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const result = await readCard(principalOf(context));
  if (!result.ok) throw notThere(result);
  return result.value;
}

export default function Card({ loaderData }: Route.ComponentProps) {
  const { name, instructions, next } = loaderData;
  return (
    <Page title={name} facts={next ? (next.date === next.today ? "Today" : next.date) : undefined}>
      {instructions.map((text) => (
        <Notice key={text} kind="warning" title={text} />
      ))}
      {next ? (
        <>
          <h2>
            {next.title}, week {next.week} of {next.weeks}
          </h2>
          <p className="text-muted">
            {next.liftName} · {next.roomName} · rest {next.rest.leastS} to {next.rest.mostS} s
          </p>
          <Figures label="My sets" className="mt-2">
            <ol className="border-t border-rule">
              {next.sets.map((set) => (
                <li
                  key={set.key}
                  className="grid grid-cols-[1.6rem_5.8rem_1fr] items-baseline gap-x-2 border-b border-faint py-1.5"
                >
                  <span className="text-muted">{set.number}</span>
                  <span className="text-xl font-bold">
                    {set.loadKg === undefined ? (
                      "no load"
                    ) : (
                      <Figure
                        id={set.key}
                        working={set.working}
                        label={`Set ${set.number}, ${formatKg(set.loadKg, next.unit, 1)}`}
                      >
                        {formatKg(set.loadKg, next.unit, 1)}
                      </Figure>
                    )}
                  </span>
                  <span>
                    {set.reps} reps{set.cycleItem ? `, ${set.cycleItem}` : ""}
                    <span className="block text-sm text-muted">
                      {set.loadKg === undefined ? set.loadReason : `side ${describeSide(set.side)}`}
                      {set.target
                        ? ` · ${formatVelocity(set.target.lowMps)} to ${formatVelocity(set.target.highMps)} m/s`
                        : ""}
                    </span>
                  </span>
                </li>
              ))}
            </ol>
          </Figures>
          <p className="mt-3 text-sm text-muted">{next.caution}</p>
        </>
      ) : (
        <Empty>Nothing is planned for you from today on. Your coach puts the next wave here.</Empty>
      )}
    </Page>
  );
}
