import type { SetState } from "../../../core/floor/set-state";
import { useRackSensor } from "../../offline/rack-sensor";

/** Why nothing measures now. */
export function SensorNote({
  away,
  none,
  rackId,
  stage,
}: {
  away: boolean;
  none: string | undefined;
  /** Of a sensor that sends by itself. */
  rackId: string | undefined;
  stage: SetState["stage"];
}) {
  const state = useRackSensor(rackId);
  if (away && stage !== "done") {
    return (
      <p role="alert" className="border-l-[3px] border-warning pl-3 text-[19px]">
        The sensor is not on this tablet yet, and the link is away. Type the speeds, or lift again
        when the link is back.
      </p>
    );
  }
  if (state?.two)
    return (
      <p role="alert" className="border-l-[3px] border-warning pl-3 text-[19px]">
        Two sensors send for this rack. The first one counts; stop the other.
      </p>
    );
  if (rackId !== undefined && state && !state.sending && stage !== "done")
    return (
      <p role="alert" className="border-l-[3px] border-warning pl-3 text-[19px]">
        {state.silentS === undefined
          ? "The sensor of this rack has not sent yet."
          : "The sensor of this rack is silent."}{" "}
        Type the speeds, or say what the eye saw.
      </p>
    );
  if (state?.sending && stage === "to-come") return <p className="text-muted">The sensor sends.</p>;
  return none && stage === "to-come" ? <p className="text-muted">{none}</p> : null;
}
