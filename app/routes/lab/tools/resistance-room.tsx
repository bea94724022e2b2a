import { proposeSetups } from "../../../../core/resistance/rig-checks";
import type { BarHeights, Resistance as Piece } from "../../../../core/resistance/setup";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { Notice } from "../../../ui/page";
import { ToolField } from "./fields";
import { type BenchRack, type ToolProps, valueAt } from "./tool";

/** Where a piece's number a side stands in the address. */
const keyOf = (name: string) => `on.${name}`;

/** The room's pieces that hang on the bar, as the address says. */
export function roomPieces(address: ToolProps["address"], rack: BenchRack): Piece[] {
  return rack.resistance.usable.flatMap(({ what, perSide }) => {
    const n = Math.min(perSide, Math.round(Number(address.get(keyOf(what.name)) || 0)));
    return n > 0 ? [{ what, perSide: n }] : [];
  });
}

/** What this rack's room can hang on the bar, and the set-ups nearest to a wanted share. */
export function RoomPieces({
  address,
  unit,
  rack,
  heights,
  barKg,
}: ToolProps & { rack: BenchRack; heights: BarHeights; barKg: number }) {
  const { usable, left } = rack.resistance;
  const wanted = valueAt(address, "share", 22);
  const proposals =
    wanted === undefined || usable.length === 0
      ? []
      : proposeSetups({ stock: usable, heights, barKg, wantedShare: wanted / 100 });
  const take = (pieces: readonly Piece[]) => {
    address.setAll(
      Object.fromEntries(
        usable.map(({ what }) => {
          const n = pieces.find((one) => one.what.name === what.name)?.perSide ?? 0;
          return [keyOf(what.name), n > 0 ? String(n) : ""];
        }),
      ),
    );
  };
  return (
    <section
      aria-label="The room's bands and chains"
      className="no-print mt-3 grid max-w-5xl gap-x-8 gap-y-2 lg:grid-cols-2"
    >
      <div>
        <h2>On each side</h2>
        {usable.length === 0 ? (
          <p className="text-muted">No measured band and no chain in this room.</p>
        ) : null}
        {usable.map(({ what, perSide }) => {
          const now = Number(address.get(keyOf(what.name)) || 0);
          return (
            <fieldset
              key={what.name}
              className="flex items-center gap-2 border-b border-faint py-1"
            >
              <legend className="sr-only">{what.name}, how many a side</legend>
              <span className="grow">{what.name}</span>
              {Array.from({ length: Math.min(3, perSide) + 1 }, (_, n) => (
                <button
                  // biome-ignore lint/suspicious/noArrayIndexKey: the number is the identity
                  key={n}
                  type="button"
                  aria-pressed={now === n}
                  aria-label={`${n} ${what.name} a side`}
                  className={`btn min-h-8 min-w-9 px-2 ${now === n ? "btn-primary" : ""}`}
                  onClick={() => address.set(keyOf(what.name), n > 0 ? String(n) : "")}
                >
                  {n}
                </button>
              ))}
            </fieldset>
          );
        })}
        {left.map((one) => (
          <Notice key={one.name} kind="warning" title={`${one.name}: ${one.why}`} />
        ))}
      </div>
      <div>
        <h2>Set-ups for a wanted share</h2>
        <div className="max-w-52">
          <ToolField
            address={address}
            unit={unit}
            label="Share of the lockout load, %"
            name="share"
            start={22}
          />
        </div>
        <ol className="mt-1">
          {proposals.map((one) => {
            const words = one.pieces.map((p) => `${p.perSide} × ${p.what.name}`).join(" + ");
            return (
              <li key={words} className="flex items-baseline gap-3 border-b border-faint py-1">
                <span className="grow">{words} a side</span>
                <span className="text-muted">
                  {formatKg(one.lockoutKg, unit, 1)}, {plainNumber(100 * one.share, 0)} %
                </span>
                <button type="button" className="underline" onClick={() => take(one.pieces)}>
                  Take<span className="sr-only"> {words}</span>
                </button>
              </li>
            );
          })}
        </ol>
        {usable.length > 0 && proposals.length === 0 ? (
          <p className="text-muted">Nothing of the room pulls between these heights.</p>
        ) : null}
      </div>
    </section>
  );
}
