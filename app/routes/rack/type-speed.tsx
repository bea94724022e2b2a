import { useState } from "react";
import { readSpeed } from "../../forms/speed";
import { Sheet } from "./sheet";

/** Speeds by hand, one after the other: digits, Enter. */
export function TypeSpeed({
  onSpeed,
  onClose,
  repsLeft,
}: {
  onSpeed: (velocityMps: number) => void;
  onClose: () => void;
  repsLeft: number;
}) {
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string>();
  const enter = () => {
    const velocity = readSpeed(text);
    if (velocity === undefined) {
      setProblem("A speed from 0.05 to 4 m/s: 82 or 0.82.");
      return;
    }
    setText("");
    setProblem(undefined);
    onSpeed(velocity);
    if (repsLeft <= 1) onClose();
  };
  const key = "btn min-h-[64px] text-[22px]";
  return (
    <Sheet title="Type a speed" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          enter();
        }}
      >
        <label className="mt-2 block">
          <span className="text-muted">m/s, mean of the rep; {repsLeft} reps left</span>
          <input
            // biome-ignore lint/a11y/noAutofocus: opened to type into
            autoFocus
            className="field !h-16 !text-[30px]"
            value={text}
            inputMode="decimal"
            onChange={(event) => setText(event.target.value)}
            aria-invalid={problem ? true : undefined}
          />
        </label>
        {problem ? <p className="text-accent">{problem}</p> : null}
        <div className="mt-3 grid grid-cols-3 gap-2">
          {["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0"].map((digit) => (
            <button key={digit} type="button" className={key} onClick={() => setText(text + digit)}>
              {digit}
            </button>
          ))}
          <button type="button" className={key} onClick={() => setText(text.slice(0, -1))}>
            Back
          </button>
        </div>
        <button type="submit" className="btn btn-primary mt-3 min-h-[64px] w-full text-[20px]">
          Enter this rep
        </button>
      </form>
    </Sheet>
  );
}
