import { resistanceForShare } from "../../../../core/resistance/share";
import { formatKg } from "../../../../core/units/mass";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolChoice, ToolField, useAnswer } from "./fields";
import { type ToolProps, valueAt } from "./tool";

const REFUSED = {
  "no-load": "A load over 0, and a max where the share is of it.",
  "no-share": "A share over 0 and under 100 %.",
  "over-total": "The share alone is more than the whole: nothing is left for the bar.",
};

/** Kilograms of bands or chains for a share, before any piece is chosen. */
export function Share({ address, unit }: ToolProps) {
  const at = (name: string, start: number, kind?: "mass") =>
    valueAt(address, name, start, kind ?? "number") ?? Number.NaN;
  const found = resistanceForShare({
    totalKg: at("total", 80, "mass"),
    sharePercent: at("share", 25),
    of: address.get("of") === "max" ? "max" : "lockout",
    maxKg: at("max", 120, "mass"),
  });
  useAnswer(
    found.ok
      ? `${formatKg(found.pullKg, unit, 1)} at lockout, ${formatKg(found.perSideKg, unit, 1)} a side; bar ${formatKg(found.barKg, unit, 1)}`
      : undefined,
  );
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-4" onSubmit={(e) => e.preventDefault()}>
        <ToolField {...shared} label="At lockout in all" name="total" kind="mass" start={80} />
        <ToolField {...shared} label="Share, %" name="share" start={25} />
        <ToolChoice
          address={address}
          label="Share of"
          name="of"
          options={[
            ["lockout", "what is felt at lockout"],
            ["max", "the working max"],
          ]}
        />
        <ToolField {...shared} label="Working max" name="max" kind="mass" start={120} />
      </form>
      {found.ok ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/share" working={found.working}>
              {formatKg(found.pullKg, unit, 1)}
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              at lockout, {formatKg(found.perSideKg, unit, 1)} a side
            </span>
          </p>
          <p className="mt-2">Bar and plates {formatKg(found.barKg, unit, 1)}.</p>
          <p className="mt-2 text-sm text-muted">
            Which bands or chains give that, and what is left of it at the bottom, says "Bands and
            chains". An anchor that holds comes first.
          </p>
        </Figures>
      ) : (
        <Notice kind="problem" title={REFUSED[found.reason]} />
      )}
    </>
  );
}
