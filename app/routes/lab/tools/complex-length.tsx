import { complexLength } from "../../../../core/contrast/item-seconds";
import { formatClock } from "../../../../core/units/time";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { ListField, partsOf } from "./list-field";
import { type ToolProps, valueAt } from "./tool";

const ITEMS = "2 3 20 3 2 20 3 4 0";

/** How long a complex takes, from the seconds of its items. */
export function ComplexLength({ address, unit }: ToolProps) {
  const items = partsOf(address, "items", ITEMS, 3).map(
    ([reps = 0, secondsEach = 0, gapS = 0]) => ({ reps, secondsEach, gapS }),
  );
  const rounds = valueAt(address, "rounds", 5) ?? Number.NaN;
  const restS = valueAt(address, "rest", 150) ?? Number.NaN;
  const found = complexLength({ items, rounds, restS });
  useAnswer(found && `${formatClock(found.wholeS)} for ${rounds} rounds, ${found.reps} reps`);
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-4" onSubmit={(e) => e.preventDefault()}>
        <div className="sm:col-span-2">
          <ListField
            address={address}
            label="Of each item: reps, seconds for one, gap after it"
            name="items"
            start={ITEMS}
            each={3}
            what="reps, seconds and gap"
          />
        </div>
        <ToolField {...shared} label="Rounds" name="rounds" start={5} />
        <ToolField {...shared} label="Rest between, s" name="rest" start={150} />
      </form>
      {found ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/complex" working={found.working}>
              {formatClock(found.wholeS)}
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              {formatClock(found.withLastRestS)} with the rest after the last round
            </span>
          </p>
          <p className="mt-2">
            One round {formatClock(found.roundS)}, {found.workS} s of it work; {found.reps} reps in
            all.
          </p>
        </Figures>
      ) : (
        <Notice kind="problem" title="Whole reps and rounds, seconds over 0 for each item." />
      )}
    </>
  );
}
