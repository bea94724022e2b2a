import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { PlateStock } from "../../../../core/barload/loading-gear";
import { MOST_PIECES, writeGearItem } from "../../../../core/gear/fields";
import type { ItemOf } from "../../../../core/gear/kinds";
import { formatMass, type MassUnit } from "../../../../core/units/mass";
import { say } from "../../../ui/said";

export type RackItem = ItemOf<"rack"> & { id: string };

const sameMass = (a: PlateStock, b: PlateStock) =>
  a.mass.amount === b.mass.amount && a.mass.unit === b.mass.unit;

/**
 * The plates of a rack as they are pulled off and hung on: drawn at once, kept one after the other,
 * the newest alone where taps come faster than the server.
 */
export function useRackPlates(rack: RackItem, unit: MassUnit) {
  const fetcher = useFetcher<{ ok: boolean; message?: string }>();
  const [wanted, setWanted] = useState<PlateStock[]>();
  const before = useRef<PlateStock[][]>([]);
  const sent = useRef<PlateStock[]>(undefined);
  const plates = wanted ?? rack.values.plates;

  useEffect(() => {
    if (fetcher.state !== "idle" || !wanted) return;
    if (sent.current !== wanted) {
      sent.current = wanted;
      const item = { ...rack, values: { ...rack.values, plates: wanted } };
      void fetcher.submit(
        {
          intent: "item",
          id: rack.id,
          kind: "rack",
          name: rack.name,
          ...writeGearItem(item, unit).fields,
        },
        { method: "post" },
      );
    } else if (fetcher.data) {
      if (!fetcher.data.ok)
        say(`Not kept: ${fetcher.data.message ?? "the server did not take it"}`);
      // The page has what was sent; what was pressed at this very moment is still wanted.
      setWanted((now) => (now === wanted ? undefined : now));
    }
  }, [fetcher, wanted, rack, unit]);

  const set = (next: PlateStock[], words: string) => {
    before.current.push(plates);
    setWanted(next);
    say(`${words}, rack ${rack.name}`);
  };
  return {
    plates,
    /** Hangs so many pairs of one size on. */
    hang: (of: PlateStock, pairs: number) => {
      if (pairs < 0 || pairs > MOST_PIECES || pairs === of.pairs) return;
      const name = formatMass(of.mass);
      const more = pairs - of.pairs;
      const pair = Math.abs(more) === 1 ? "pair" : "pairs";
      set(
        plates.map((one) => (sameMass(one, of) ? { ...one, pairs } : one)),
        `${more > 0 ? "Hung" : "Took"} ${Math.abs(more)} ${pair} of ${name}${more > 0 ? " on" : " off"}`,
      );
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
