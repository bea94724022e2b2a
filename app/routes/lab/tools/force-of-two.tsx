import { plainNumber } from "../../../../core/units/mass";
import { compareForces, type DrivenRep } from "../../../../core/velocity/force-compare";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { ListField, partsOf } from "./list-field";
import { type ToolProps, valueAt } from "./tool";

const LIGHT = "60 730 690 0.9";
const HEAVY = "120 1205 430 0.3";

const repOf = (address: ToolProps["address"], name: string, start: string): DrivenRep => {
  const [loadKg = 0, forceN = 0, powerW = 0, velocityMps = 0] =
    partsOf(address, name, start, 4)[0] ?? [];
  return { loadKg, forceN, powerW, velocityMps };
};

/** A fast light rep beside a slow heavy one, from measured streams. */
export function ForceOfTwo({ address, unit }: ToolProps) {
  const rangeM = (valueAt(address, "range", 50, "cm") ?? Number.NaN) / 100;
  const found = compareForces({
    light: repOf(address, "light", LIGHT),
    heavy: repOf(address, "heavy", HEAVY),
    rangeM,
  });
  const percent = (share: number) => `${plainNumber(share, 0)} %`;
  useAnswer(
    found &&
      `the light rep has ${percent(found.forceShare)} of the heavy one's mean force for ${percent(found.timeShare)} of its time`,
  );
  const shared = { address, unit };
  const field = { each: 4, what: "load, force, power and speed" };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <ListField
          {...field}
          address={address}
          label="Light rep: kg, N, W, m/s"
          name="light"
          start={LIGHT}
        />
        <ListField
          {...field}
          address={address}
          label="Heavy rep: kg, N, W, m/s"
          name="heavy"
          start={HEAVY}
        />
        <ToolField {...shared} label="Range of the bar" name="range" kind="cm" start={50} />
      </form>
      {found ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/force" working={found.working}>
              {percent(found.forceShare)}
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              of the heavy rep's mean force, for {percent(found.timeShare)} of its time
            </span>
          </p>
          <p className="mt-2">
            {plainNumber(found.lightS, 2)} s against {plainNumber(found.heavyS, 2)} s; power{" "}
            {percent(found.powerShare)}.
          </p>
          <p className="mt-2 text-sm text-muted">
            Filled from an athlete, these are the lightest and the heaviest rep of the newest test
            that a stream measured. What either trains is not in it.
          </p>
        </Figures>
      ) : (
        <Notice kind="problem" title="Load, force, power and speed of both reps, all over 0." />
      )}
    </>
  );
}
