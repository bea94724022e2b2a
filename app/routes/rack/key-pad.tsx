import { useState } from "react";
import { Sheet } from "./sheet";

const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0"];

/** A number by hand, by the keys of a keyboard or the ones drawn: digits, Enter. */
export function KeyPad({
  title,
  hint,
  start,
  enter,
  onClose,
  button,
}: {
  title: string;
  hint: string;
  /** What was typed before the sheet was open. */
  start: string;
  /** Takes what was typed: what is wrong with it, or nothing; then the field is empty again. */
  enter: (text: string) => string | undefined;
  onClose: () => void;
  button: string;
}) {
  const [text, setText] = useState(start);
  const [problem, setProblem] = useState<string>();
  const key = "btn min-h-[64px] text-[22px]";
  return (
    <Sheet title={title} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const wrong = enter(text);
          setProblem(wrong);
          if (wrong === undefined) setText("");
        }}
      >
        <label className="mt-2 block">
          <span className="text-muted">{hint}</span>
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
          {KEYS.map((digit) => (
            <button key={digit} type="button" className={key} onClick={() => setText(text + digit)}>
              {digit}
            </button>
          ))}
          <button type="button" className={key} onClick={() => setText(text.slice(0, -1))}>
            Back
          </button>
        </div>
        <button type="submit" className="btn btn-primary mt-3 min-h-[64px] w-full text-[20px]">
          {button}
        </button>
      </form>
    </Sheet>
  );
}
