import { useEffect, useRef, useState } from "react";
import { setSingleKeys, singleKeysOn } from "../../ui/single-keys";
import { PLACES } from "./places";

const KEYS: Array<{ where: string; rows: Array<[keys: string, what: string]> }> = [
  {
    where: "Everywhere",
    rows: [
      ["?", "This list"],
      ["Ctrl K", "Find an athlete, plan, session or place"],
      ["w", "Open or close the working of a figure"],
      ["m", "Hide the margin, and show it again"],
      ["arrows, Enter", "From figure to figure; select one"],
      ...PLACES.map((place): [string, string] => [`g ${place.key}`, place.name]),
    ],
  },
  {
    where: "On the block board",
    rows: [
      ["arrows", "From cell to cell"],
      ["Enter · Esc", "To the bars, and keep; put back"],
      ["↑ ↓ in a bar", "A step higher, lower; Shift a fifth"],
      ["Alt ↑ ↓", "The slot to the next place"],
      ["Alt ← →", "It begins earlier, later; Shift: a shorter, longer cycle"],
      ["Ctrl C, Ctrl V", "This week over another; a slot to another place"],
      ["[ ]", "A set fewer, more a step in this week"],
      ["n · Delete", "A new slot; take this one out"],
    ],
  },
  {
    where: "One athlete",
    rows: [
      ["[ ]", "The one before, the next of the squad"],
      ["t · c · d · u", "Take, change, decline a call; take back"],
    ],
  },
  {
    where: "On a room's pegs",
    rows: [
      ["+ · - · digits", "A pair more, fewer; so many pairs"],
      ["↑ ↓ · Delete", "From peg to peg; all of them off"],
      ["u", "Take the last back"],
    ],
  },
  {
    where: "Review",
    rows: [
      ["↑ ↓", "From call to call"],
      ["t · c · d · u", "Take, change, decline; take back"],
    ],
  },
  {
    where: "On the floor",
    rows: [
      ["↑ ↓", "From call to call"],
      ["t · c · d", "Take, change or decline the call"],
    ],
  },
  {
    where: "At a rack",
    rows: [
      ["n", "Next lifter"],
      ["Space", "Begin the set; end it"],
      ["Enter", "All reps done"],
      ["+ · = · -", "All done, and it looked fast, on speed, slow"],
      ["digits, Enter", "A speed by hand: 82 or 0.82; a load where none is on"],
      ["f", "Fault or pain"],
      ["u · U", "Undo, redo"],
      ["t · c · d", "Take, change or decline the call"],
    ],
  },
  {
    where: "In a round",
    rows: [
      ["arrows, Enter", "From field to field; the set is done"],
      ["l · r", "The left, the right side is done"],
      ["digits, Enter", "Other reps, or what was measured"],
      ["f · u", "Pain, undo"],
    ],
  },
];

export function KeyList({ onClose }: { onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [on, setOn] = useState(singleKeysOn);
  useEffect(() => {
    dialog.current?.showModal();
  }, []);
  return (
    <dialog
      ref={dialog}
      onClose={onClose}
      aria-labelledby="keys-title"
      className="m-auto w-[min(92vw,640px)] rounded border border-control bg-base-100 p-5 text-base-content backdrop:bg-black/40"
    >
      <h2 id="keys-title">Keys</h2>
      <div className="mt-2 grid gap-6 sm:grid-cols-2">
        {KEYS.map((group) => (
          <section key={group.where}>
            <h3 className="border-b border-rule pb-1 text-muted">{group.where}</h3>
            <dl>
              {group.rows.map(([keys, what]) => (
                <div key={keys} className="grid grid-cols-[7rem_1fr] border-b border-faint py-1">
                  <dt>
                    <kbd className="font-sans font-bold">{keys}</kbd>
                  </dt>
                  <dd className="text-muted">{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <label className="mt-4 flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm border-control"
          checked={on}
          onChange={(event) => {
            setSingleKeys(event.target.checked);
            setOn(event.target.checked);
          }}
        />
        Single keys work (not only those with Ctrl)
      </label>
      <form method="dialog" className="mt-4">
        <button type="submit" className="btn">
          Close
        </button>
      </form>
    </dialog>
  );
}
