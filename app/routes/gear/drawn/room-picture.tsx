import { useRef } from "react";
import { type GearItem, ofKind } from "../../../../core/gear/kinds";
import { useKeys } from "../../../ui/use-keys";
import { BandCurves } from "./band-curves";
import { RackDrawing } from "./rack-drawing";
import { type SeatOf, SeatStacks } from "./seat-stacks";
import { SharedPlates } from "./shared-plates";
import { Shelf } from "./shelf";

/** The room as it is seen: racks with their plates, bands, the seats that are built, the shelf. */
export function RoomPicture({
  items,
  seats,
  chosenId,
  mayEdit,
}: {
  items: ReadonlyArray<GearItem & { id: string }>;
  seats: readonly SeatOf[];
  chosenId: string | undefined;
  mayEdit: boolean;
}) {
  const racks = [...ofKind(items, "rack")].sort((a, b) => Number(a.name) - Number(b.name));
  const bands = ofKind(items, "band");
  const undos = useRef<Array<() => boolean>>([]);
  useKeys(
    {
      u: () => {
        while (undos.current.length > 0 && !undos.current.pop()?.()) {
          // What had nothing left to take back is passed over.
        }
      },
    },
    mayEdit,
  );
  if (racks.length + bands.length === 0) return null;
  return (
    <section aria-label="The room, drawn" className="mb-4 border-b border-rule">
      {racks.length > 0 ? (
        <>
          <p className="text-sm text-muted">
            {mayEdit
              ? "Tap a peg to take a pair off, the plus to hang one on; by keys + and −, digits, arrows; u takes it back."
              : "What hangs at each rack, and what it builds."}
          </p>
          <div className="grid grid-cols-[repeat(auto-fill,minmax(148px,1fr))] border-y border-rule">
            {racks.map((rack) => (
              <RackDrawing
                key={rack.id}
                rack={rack}
                items={items}
                chosen={rack.id === chosenId}
                mayEdit={mayEdit}
                onTouched={(undo) => undos.current.push(undo)}
              />
            ))}
          </div>
        </>
      ) : null}
      {ofKind(items, "store").map((store) => (
        <SharedPlates key={store.id} store={store} />
      ))}
      <div className="grid gap-x-6 gap-y-3 py-2 lg:grid-cols-[minmax(280px,2fr)_3fr]">
        {bands.length > 0 ? <BandCurves bands={bands} /> : null}
        <SeatStacks seats={seats} />
      </div>
      <Shelf items={items} />
    </section>
  );
}
