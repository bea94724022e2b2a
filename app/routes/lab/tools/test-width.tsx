import { testWidth } from "../../../../core/profile/test-width";
import { formatKg } from "../../../../core/units/mass";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { ListField } from "./list-field";
import { numbersOf, type ToolProps, valueAt } from "./tool";

const LOADS = "40 60 80 95 105";
const REFUSED = {
  "too-few": "Two loads at least, thirty at most.",
  "no-line": "Loads that differ, a max over 0, and a speed at no load over the threshold.",
  "slope-unclear": "These loads leave the slope open.",
};

/** How wide the 1RM by speed will be, for the loads one means to test. */
export function TestWidthTool({ address, unit }: ToolProps) {
  const at = (name: string, start: number, kind?: "mass") =>
    valueAt(address, name, start, kind ?? "number") ?? Number.NaN;
  const loadsKg = numbersOf(address.get("loads") || LOADS).values;
  const input = {
    loadsKg,
    oneRmKg: at("max", 120, "mass"),
    v0Mps: at("v0", 1.6),
    thresholdMps: at("threshold", 0.3),
  };
  const found = testWidth(input);
  const top = Math.max(0, ...loadsKg);
  const heavierKg = top + (input.oneRmKg - top) / 2;
  const heavier =
    input.oneRmKg > top ? testWidth({ ...input, loadsKg: [...loadsKg, heavierKg] }) : undefined;
  useAnswer(found.ok ? `1RM by speed within ± ${formatKg(found.halfKg, unit, 1)}` : undefined);
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <div className="sm:col-span-3">
          <ListField
            address={address}
            label="Loads to test, kg, one best rep at each"
            name="loads"
            start={LOADS}
            each={1}
            what="a load"
          />
        </div>
        <ToolField {...shared} label="Max expected" name="max" kind="mass" start={120} />
        <ToolField {...shared} label="Speed at no load, m/s" name="v0" start={1.6} />
        <ToolField {...shared} label="Speed at the max, m/s" name="threshold" start={0.3} />
      </form>
      {found.ok ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/width" working={found.working}>
              ± {formatKg(found.halfKg, unit, 1)}
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              nine of ten tests, {formatKg(found.lowKg, unit, 1)} to{" "}
              {formatKg(found.highKg, unit, 1)}
            </span>
          </p>
          <p className="mt-2">
            The test itself will say{" "}
            {found.fromOwnKg >= 2000 ? "no bound" : `± ${formatKg(found.fromOwnKg, unit, 1)}`}: it
            has to learn the spread from its own points.
          </p>
          {heavier?.ok ? (
            <p>
              One rep more at {formatKg(heavierKg, unit, 1)}: ± {formatKg(heavier.halfKg, unit, 1)}.
            </p>
          ) : null}
          <p className="mt-2 text-sm text-muted">
            Heavy reps only with spotters and safeties set. The day's form and the threshold's own
            spread come on top.
          </p>
        </Figures>
      ) : (
        <Notice kind="problem" title={REFUSED[found.reason]} />
      )}
    </>
  );
}
