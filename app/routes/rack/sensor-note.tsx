import type { SetState } from "../../../core/floor/set-state";

/** Why nothing measures now. */
export function SensorNote({
  away,
  none,
  stage,
}: {
  away: boolean;
  none: string | undefined;
  stage: SetState["stage"];
}) {
  if (away && stage !== "done") {
    return (
      <p role="alert" className="border-l-[3px] border-warning pl-3 text-[19px]">
        The sensor is not on this tablet yet, and the link is away. Type the speeds, or lift again
        when the link is back.
      </p>
    );
  }
  return none && stage === "to-come" ? <p className="text-muted">{none}</p> : null;
}
