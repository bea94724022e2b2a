import { LIFT_NAMES, LIFTS, MVT_DEFAULTS_MPS } from "../../../../core/profile/threshold";
import { plainNumber } from "../../../../core/units/mass";
import { formatVelocity } from "../../../../core/units/velocity";
import { repTime } from "../../../../core/velocity/rep-time";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolChoice, ToolField, useAnswer } from "./fields";
import { type ToolProps, valueAt } from "./tool";

/** How long a rep and a set last, and how long the slowest rep that still goes up would strain. */
export function RepTime({ address, unit }: ToolProps) {
  const at = (name: string, start: number, kind?: "cm") =>
    valueAt(address, name, start, kind ?? "number") ?? Number.NaN;
  const lift = LIFTS.find((one) => one === address.get("lift")) ?? "squat";
  const input = {
    rangeM: at("range", 60, "cm") / 100,
    meanMps: at("speed", 0.8),
    lowerS: at("lower", 1),
    pauseS: at("pause", 0),
    reps: at("reps", 2),
  };
  const found = repTime(input);
  const slowest = MVT_DEFAULTS_MPS[lift].mps;
  const strain = repTime({ ...input, meanMps: slowest });
  useAnswer(
    found &&
      `${plainNumber(found.upS, 2)} s up at ${formatVelocity(input.meanMps)} m/s; a set of ${input.reps} ${plainNumber(found.setS, 1)} s`,
  );
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <ToolField {...shared} label="Range of the bar" name="range" kind="cm" start={60} />
        <ToolField {...shared} label="Mean speed, m/s" name="speed" start={0.8} />
        <ToolField {...shared} label="Reps" name="reps" start={2} />
        <ToolField {...shared} label="Lowering, s" name="lower" start={1} />
        <ToolField {...shared} label="Pause at the bottom, s" name="pause" start={0} />
        <ToolChoice
          address={address}
          label="Slowest single of"
          name="lift"
          options={[...LIFTS]
            .sort((a, b) => Number(b === "squat") - Number(a === "squat"))
            .map((one) => [one, LIFT_NAMES[one]] as const)}
        />
      </form>
      {found && strain ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/rep-time" working={found.working}>
              {plainNumber(found.upS, 2)} s up
            </Figure>
          </p>
          <p className="text-muted">
            One rep {plainNumber(found.repS, 2)} s, the set {plainNumber(found.setS, 1)} s.
          </p>
          <p className="mt-2">
            At {formatVelocity(slowest)} m/s, the group mean of a maximal single, the same range
            takes {plainNumber(strain.upS, 2)} s: a lift that needs longer is usually lost.
          </p>
        </Figures>
      ) : (
        <Notice
          kind="problem"
          title="A range of 5 to 250 cm, a speed over 0, whole reps, times of 0 s or more."
        />
      )}
    </>
  );
}
