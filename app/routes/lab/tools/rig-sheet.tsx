import type { Resistance as Piece, ResistanceCurve } from "../../../../core/resistance/setup";
import { formatKg, type MassUnit, plainNumber } from "../../../../core/units/mass";
import type { BenchRack } from "./tool";

/** What to hang where, on one sheet beside the rack: per side and in all, always both. */
export function RigSheet({
  pieces,
  rack,
  curve,
  bottomM,
  lockoutM,
  barKg,
  anchorKg,
  refused,
  unit,
}: {
  pieces: readonly Piece[];
  rack: BenchRack | undefined;
  curve: ResistanceCurve;
  bottomM: number;
  lockoutM: number;
  barKg: number;
  anchorKg: number | undefined;
  refused: boolean;
  unit: MassUnit;
}) {
  const kg = (value: number) => formatKg(value, unit, 1);
  const bands = pieces.some((one) => one.what.kind === "band");
  return (
    <section aria-labelledby="rig-sheet" className="mt-4 max-w-3xl break-inside-avoid">
      <h2 id="rig-sheet">Rig sheet{rack ? `: ${rack.label}` : ""}</h2>
      {refused ? (
        <p className="font-bold text-accent">Not to be rigged: see what is refused above.</p>
      ) : null}
      <table className="ledger mt-1">
        <thead>
          <tr>
            <th scope="col">Piece</th>
            <th scope="col" className="!text-right">
              Each side
            </th>
            <th scope="col" className="!text-right">
              In all
            </th>
            <th scope="col">Where</th>
          </tr>
        </thead>
        <tbody>
          {pieces.map(({ what, perSide }) => (
            <tr key={what.name}>
              <th scope="row" className="!text-base-content">
                {what.name}
                {what.folded ? ", folded double" : ""}
              </th>
              <td className="text-right">{perSide}</td>
              <td className="text-right">{2 * perSide}</td>
              <td>
                {what.kind === "band"
                  ? `peg at ${plainNumber(what.anchorM, 2)} m, slack under ${plainNumber(what.restM, 2)} m`
                  : `leader: lies on the floor with the bar at ${plainNumber(what.touchM, 2)} m`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="mt-2 grid gap-x-8 gap-y-1 sm:grid-cols-2">
        {[
          ["Bar and plates", kg(barKg)],
          ["Bar height, bottom to lockout", `${bottomM} to ${lockoutM} m`],
          ["At the bottom, in all", kg(barKg + curve.bottomKg)],
          ["At lockout, in all", kg(barKg + curve.lockoutKg)],
          ...(bands
            ? [
                ["Pull on each anchor", kg(curve.lockoutKg / 2)],
                ["Anchor holds, a side", anchorKg === undefined ? "not stated" : kg(anchorKg)],
              ]
            : []),
        ].map(([label, value]) => (
          <div key={label} className="flex justify-between gap-3 border-b border-faint">
            <dt className="text-muted">{label}</dt>
            <dd className="font-bold">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-2">
        Before the first set: bands looked over, left and right alike, anchors checked, collars on,
        one empty rep with the resistance.
      </p>
    </section>
  );
}
