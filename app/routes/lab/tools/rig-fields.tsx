import { ToolChoice, ToolField } from "./fields";
import { WrittenPiece } from "./resistance-written";
import type { ToolProps } from "./tool";

/** What bands and chains of a rack, or written ones, are asked about. */
export function RigFields({
  rack,
  hasBand,
  ...props
}: ToolProps & { rack: ToolProps["bench"]["racks"][number] | undefined; hasBand: boolean }) {
  const { address, bench, unit } = props;
  const shared = { address, unit };
  return (
    <form
      className="no-print grid max-w-5xl gap-3 sm:grid-cols-4"
      onSubmit={(event) => event.preventDefault()}
    >
      <ToolChoice
        address={address}
        label="Bands and chains of"
        name="rack"
        options={[
          ["", "nowhere: written here"],
          ...bench.racks.map((one) => [one.id, one.label] as const),
        ]}
      />
      <ToolChoice
        address={address}
        label="Lift"
        name="upper"
        options={[
          ["no", "lower body"],
          ["yes", "upper body"],
        ]}
      />
      <ToolChoice
        address={address}
        label="Athlete"
        name="novice"
        options={[
          ["no", "experienced"],
          ["yes", "not yet experienced"],
        ]}
      />
      <ToolChoice
        address={address}
        label="Out of the hooks"
        name="walkout"
        options={[
          ["no", "no step: lifted where it hangs"],
          ["yes", "stepped out"],
        ]}
      />
      {rack ? null : <WrittenPiece {...props} />}
      <ToolField {...shared} label="Bar at the bottom" name="bottom" kind="m" start={0.85} />
      <ToolField {...shared} label="Bar at lockout" name="lockout" kind="m" start={1.4} />
      <ToolChoice
        address={address}
        label="Bar heights are"
        name="measured"
        options={[
          ["yes", "measured on the athlete"],
          ["no", "estimated"],
        ]}
      />
      <ToolField {...shared} label="Bar and plates" name="bar" kind="mass" start={80} />
      <ToolField {...shared} label="Working max" name="max" kind="mass" start={150} />
      <ToolField {...shared} label="Percent" name="percent" start={60} />
      {hasBand || rack ? (
        <ToolField
          key={rack?.id}
          {...shared}
          label="Anchor holds, a side"
          name="anchorkg"
          kind="mass"
          start={rack?.anchorKg}
          optional
          hint={rack?.bolted ? "bolted: the rated attachment only" : undefined}
        />
      ) : null}
      {rack && !rack.bolted ? (
        <ToolField
          {...shared}
          label="Least anchor weight you allow"
          name="leastanchor"
          kind="mass"
          start={bench.coachValues.leastAnchorKg}
          optional
          hint={
            bench.coachValues.leastAnchorKg === undefined ? "yours to set" : "as your team has set"
          }
        />
      ) : null}
      {address.get("walkout") === "yes" ? (
        <ToolField
          {...shared}
          label="Step out against at most"
          name="stepout"
          kind="mass"
          start={bench.coachValues.steppingOutKg}
          optional
          hint={
            bench.coachValues.steppingOutKg === undefined ? "yours to set" : "as your team has set"
          }
        />
      ) : null}
    </form>
  );
}
