import type { Resistance as Piece } from "../../../../core/resistance/setup";
import { BAND_WORDS, bandCurve } from "../../../../core/resistance/setup";
import { Field } from "../../../ui/field";
import { ToolChoice, ToolField } from "./fields";
import { numbersOf, type ToolProps, valueAt } from "./tool";

const READINGS = "0.7 4 1.0 13 1.3 20 1.5 28";

const readingsOf = (text: string) => {
  const { values } = numbersOf(text);
  return values.flatMap((lengthM, i) => {
    const tensionKg = values[i + 1];
    return i % 2 === 0 && tensionKg !== undefined ? [{ lengthM, tensionKg }] : [];
  });
};

/** A chain or a band as it is written in the fields, so many on each side. */
export function writtenPiece(address: ToolProps["address"]): Piece[] {
  const { get } = address;
  const at = (name: string, start: number, kind?: "m") =>
    valueAt(address, name, start, kind ?? "number") ?? Number.NaN;
  const perSide = at("each", 1);
  if (!Number.isFinite(perSide)) return [];
  const folded = get("folded") === "yes";
  if (get("kind") !== "band") {
    const chain = {
      kind: "chain" as const,
      name: "The chain",
      densityKgPerM: at("density", 6),
      lengthM: at("length", 1.5, "m"),
      touchM: at("touch", 0.2, "m"),
      folded,
    };
    return [{ perSide, what: chain }];
  }
  const band = {
    kind: "band" as const,
    name: "The band",
    restM: at("rest", 0.6, "m"),
    anchorM: at("anchor", 0.05, "m"),
    folded,
    readings: readingsOf(get("readings") || READINGS),
  };
  return [{ perSide, what: band }];
}

/** The fields of a chain or a band that is not the room's. */
export function WrittenPiece({ address, unit }: ToolProps) {
  const { get, set } = address;
  const shared = { address, unit };
  const text = get("readings") || READINGS;
  const { wrong } = numbersOf(text);
  const [band] = writtenPiece(address);
  const read = band?.what.kind === "band" ? bandCurve(band.what) : undefined;
  return (
    <>
      <ToolChoice
        address={address}
        label="What hangs on"
        name="kind"
        options={[
          ["chain", "chains"],
          ["band", "bands"],
        ]}
      />
      <ToolField {...shared} label="On each side, pieces" name="each" start={1} />
      <ToolChoice
        address={address}
        label="Folded double"
        name="folded"
        options={[
          ["no", "no"],
          ["yes", "yes"],
        ]}
      />
      {get("kind") === "band" ? (
        <>
          <div className="sm:col-span-2">
            <Field
              label="Length (m) and tension (kg) by a hanging scale, in pairs"
              defaultValue={text}
              onChange={(event) => set("readings", event.target.value)}
              problem={
                wrong[0]
                  ? `"${wrong[0]}" is not a number.`
                  : read && !read.ok
                    ? BAND_WORDS[read.reason]
                    : undefined
              }
            />
          </div>
          <ToolField {...shared} label="Slack under" name="rest" kind="m" start={0.6} />
          <ToolField {...shared} label="Anchor at" name="anchor" kind="m" start={0.05} />
        </>
      ) : (
        <>
          <ToolField {...shared} label="Density, kg/m" name="density" start={6} />
          <ToolField {...shared} label="Length" name="length" kind="m" start={1.5} />
          <ToolField {...shared} label="Touches the floor at" name="touch" kind="m" start={0.2} />
        </>
      )}
    </>
  );
}
