import { checkResistance } from "../../../../core/resistance/rig-checks";
import {
  BAND_WORDS,
  lockoutShare,
  resistanceCurve,
  resistanceWorking,
} from "../../../../core/resistance/setup";
import { formatKg, kgToGrains, massIn, plainNumber } from "../../../../core/units/mass";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { useAnswer } from "./fields";
import { Conventions, ResistanceChart } from "./resistance-answers";
import { RoomPieces, roomPieces } from "./resistance-room";
import { writtenPiece } from "./resistance-written";
import { RigFields } from "./rig-fields";
import { RigSheet } from "./rig-sheet";
import { type ToolProps, valueAt } from "./tool";

const NOTICE_OF = { refused: "problem", warning: "warning", note: "note" } as const;

/** What bands or chains add over the range, both sides together, and what a percentage means. */
export function Resistance(props: ToolProps) {
  const { address, bench, unit } = props;
  const { get } = address;
  const rack = bench.racks.find((one) => one.id === get("rack"));
  const at = (name: string, start: number | undefined, kind?: "mass" | "m") =>
    valueAt(address, name, start, kind ?? "number");
  const bottomM = at("bottom", 0.85, "m");
  const lockoutM = at("lockout", 1.4, "m");
  const barKg = at("bar", 80, "mass");
  const maxKg = at("max", 150, "mass");
  const percent = at("percent", 60);
  const pieces = rack ? roomPieces(address, rack) : writtenPiece(address);
  const heights =
    bottomM !== undefined && lockoutM !== undefined
      ? { bottomM, lockoutM, measured: get("measured") !== "no" }
      : undefined;
  const found = pieces.length > 0 && heights ? resistanceCurve(pieces, heights) : undefined;
  const curve =
    found?.ok && Number.isFinite(found.curve.lockoutKg) && barKg !== undefined
      ? found.curve
      : undefined;
  const anchorKg = at("anchorkg", rack?.anchorKg, "mass");
  const checks =
    curve && heights
      ? checkResistance({
          unit,
          pieces,
          heights,
          curve,
          barKg: barKg ?? 0,
          upperBody: get("upper") === "yes",
          anchorKg,
          bolted: rack?.bolted,
          leastAnchorKg: at("leastanchor", bench.coachValues.leastAnchorKg, "mass"),
          steppingOutKg: at("stepout", bench.coachValues.steppingOutKg, "mass"),
          walkout: get("walkout") === "yes",
          experienced: get("novice") !== "yes",
          retired: [],
        })
      : [];
  const share = curve && lockoutShare(curve, barKg ?? 0);
  useAnswer(
    curve && share !== undefined
      ? `${pieces.map((one) => `${one.perSide} × ${one.what.name} a side`).join(", ")}: ${formatKg(curve.bottomKg, unit, 1)} at the bottom, ${formatKg(curve.lockoutKg, unit, 1)} at lockout, ${plainNumber(share, 0)} % there`
      : undefined,
  );
  return (
    <>
      <RigFields {...props} rack={rack} hasBand={pieces.some((one) => one.what.kind === "band")} />
      {rack && heights ? (
        <RoomPieces {...props} rack={rack} heights={heights} barKg={barKg ?? 0} />
      ) : null}
      {found && !found.ok && (rack || found.reason === "no-range") ? (
        <Notice
          kind="problem"
          title={
            found.reason === "no-range"
              ? "Lockout lies above the bottom: write both bar heights in metres."
              : found.reason === "too-large"
                ? "More pieces than hang on any bar."
                : BAND_WORDS[found.reason]
          }
        />
      ) : null}
      {curve && maxKg !== undefined && percent !== undefined && share !== undefined ? (
        <Figures label="Answers" className="mt-3">
          <div className="grid gap-x-8 gap-y-3 lg:grid-cols-2">
            <div>
              <ResistanceChart curve={curve} bottomM={bottomM ?? 0} lockoutM={lockoutM ?? 0} />
              <p>
                <Figure
                  id="lab/resistance"
                  className="text-lg font-bold"
                  working={resistanceWorking(pieces, curve)}
                >
                  {plainNumber(massIn(kgToGrains(curve.bottomKg), unit), 1)} →{" "}
                  {formatKg(curve.lockoutKg, unit, 1)}, mean{" "}
                  {plainNumber(massIn(kgToGrains(curve.meanKg), unit), 1)}
                </Figure>{" "}
                <span className="text-muted">{plainNumber(share, 0)} % of the lockout load</span>
              </p>
              {checks.map((check) => (
                <Notice
                  key={check.code}
                  kind={NOTICE_OF[check.level]}
                  title={check.level === "refused" ? `Refused. ${check.text}` : check.text}
                />
              ))}
            </div>
            <Conventions curve={curve} maxKg={maxKg} percent={percent} unit={unit} />
          </div>
          <RigSheet
            pieces={pieces}
            rack={rack}
            curve={curve}
            bottomM={bottomM ?? 0}
            lockoutM={lockoutM ?? 0}
            barKg={barKg ?? 0}
            anchorKg={anchorKg}
            refused={checks.some((one) => one.level === "refused")}
            unit={unit}
          />
          <p className="mt-2 text-sm text-muted">
            Bands inspected before use and never let go under tension; anchors bolted or weighted;
            collars on. Measured bar speed decides.
          </p>
        </Figures>
      ) : null}
    </>
  );
}
