import { useEffect, useRef, useState } from "react";
import { useFetcher, useRevalidator } from "react-router";
import type { PlateStock } from "../../../../core/barload/loading-gear";
import { MOST_PIECES, writeGearItem } from "../../../../core/gear/fields";
import type { ItemOf } from "../../../../core/gear/kinds";
import { pairsOf, sameSize } from "../../../../core/gear/shared-plates";
import { formatMass, type MassUnit } from "../../../../core/units/mass";
import { say } from "../../../ui/said";

export type RackItem = ItemOf<"rack"> & { id: string };

/**
 * The plates of a rack as they are pulled off and hung on: drawn at once, kept one after the other,
 * the newest alone where taps come faster than the server.
 */
export function useRackPlates(
  rack: RackItem,
  unit: MassUnit,
  /** The room's shared plates: a pair that is hung on comes from there. */
  store: ItemOf<"store"> | undefined,
) {
  const fetcher = useFetcher<{ ok: boolean; message?: string }>();
  const { revalidate } = useRevalidator();
  const [wanted, setWanted] = useState<PlateStock[]>();
  const before = useRef<PlateStock[][]>([]);
  const sent = useRef<PlateStock[]>(undefined);
  const plates = wanted ?? rack.values.plates;

  useEffect(() => {
    if (fetcher.state !== "idle" || !wanted) return;
    if (sent.current !== wanted) {
      sent.current = wanted;
      const { fields } = writeGearItem(
        { ...rack, values: { ...rack.values, plates: wanted } },
        unit,
      );
      void fetcher.submit(
        { intent: "hang", id: rack.id, plates: fields.plates ?? "" },
        { method: "post" },
      );
    } else if (fetcher.data) {
      if (!fetcher.data.ok) {
        say(`Not kept: ${fetcher.data.message ?? "the server did not take it"}`);
        // Somebody else has hung something: what is there now is read.
        void revalidate();
      }
      // The page has what was sent; what was pressed at this very moment is still wanted.
      setWanted((now) => (now === wanted ? undefined : now));
    }
  }, [fetcher, wanted, rack, unit, revalidate]);

  const set = (next: PlateStock[], words: string) => {
    before.current.push(plates);
    setWanted(next);
    say(`${words}, rack ${rack.name}`);
  };
  return {
    plates,
    /** Hangs so many pairs of one size on; whether it did. */
    hang: (of: PlateStock, pairs: number): boolean => {
      if (pairs < 0 || pairs > MOST_PIECES || pairs === of.pairs) return false;
      const name = formatMass(of.mass);
      const more = pairs - of.pairs;
      const ready = pairsOf(rack.values.plates, of) + pairsOf(store?.values.plates ?? [], of);
      if (store && pairs > ready) {
        say(`${store.name} has no more pairs of ${name}. New ones are added there first.`);
        return false;
      }
      const pair = Math.abs(more) === 1 ? "pair" : "pairs";
      set(
        plates.some((one) => sameSize(one, of))
          ? plates.map((one) => (sameSize(one, of) ? { ...one, pairs } : one))
          : [...plates, { ...of, pairs }],
        `${more > 0 ? "Hung" : "Took"} ${Math.abs(more)} ${pair} of ${name}${more > 0 ? " on" : " off"}`,
      );
      return true;
    },
    undo: () => {
      const last = before.current.pop();
      if (!last) return false;
      setWanted(last);
      say(`As before, rack ${rack.name}`);
      return true;
    },
  };
}
