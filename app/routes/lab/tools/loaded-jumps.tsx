import { loadedJump } from "../../../../core/profile/loaded-jump";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { ListField, partsOf } from "./list-field";
import { type ToolProps, valueAt } from "./tool";

const JUMPS = "0 44 0 43 20 36 20 37 40 29 40 30";
const REFUSED = {
  "too-few": "Two jumps at least.",
  "one-load": "All jumps are at one load.",
  "not-a-jump": "Loads from 0, heights from 0 to 300 cm.",
};

/** Jump height over load with its interval, and the load for a height. */
export function LoadedJumps({ address, unit }: ToolProps) {
  const points = partsOf(address, "jumps", JUMPS, 2).map(([loadKg = 0, heightCm = 0]) => ({
    loadKg,
    heightCm,
  }));
  const atKg = valueAt(address, "at", 30, "mass") ?? Number.NaN;
  const wantedCm = valueAt(address, "wanted", 35);
  const found = loadedJump({ points, atKg, wantedCm });
  const cm = (value: number) => `${plainNumber(value, 1)} cm`;
  useAnswer(
    found.ok && found.height.ok
      ? `${cm(found.height.estimate)} at ${formatKg(atKg, unit, 1)} (90 % ${cm(found.height.low)} to ${cm(found.height.high)})`
      : undefined,
  );
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <div className="sm:col-span-3">
          <ListField
            address={address}
            label="Load, kg, and height, cm, of each jump, in pairs"
            name="jumps"
            start={JUMPS}
            each={2}
            what="a load and a height"
          />
        </div>
        <ToolField {...shared} label="Load asked about" name="at" kind="mass" start={30} />
        <ToolField {...shared} label="Height wanted, cm" name="wanted" start={35} />
      </form>
      {found.ok ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/jumps" working={found.working}>
              {found.height.ok ? cm(found.height.estimate) : "no interval"}
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              {found.height.ok
                ? `one jump 90 %: ${cm(found.height.low)} to ${cm(found.height.high)}`
                : "a third jump gives one"}
            </span>
          </p>
          {found.outside ? (
            <p className="text-secondary">
              Outside the loads that were jumped with: the line may bend there.
            </p>
          ) : null}
          {found.load?.ok ? (
            <p className="mt-2">
              {cm(wantedCm ?? 0)} at {formatKg(found.load.estimate, unit, 1)}, 90 %{" "}
              {formatKg(Math.max(0, found.load.low), unit, 1)} to{" "}
              {formatKg(found.load.high, unit, 1)}.
            </p>
          ) : null}
          <p className="mt-2 text-sm text-muted">Clear floor all round; stop in pain.</p>
        </Figures>
      ) : (
        <Notice kind="problem" title={REFUSED[found.reason]} />
      )}
    </>
  );
}
