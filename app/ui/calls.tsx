import { useState } from "react";
import { callKey, type WaitingCall } from "../../core/floor/lifter-state";
import type { CallAction } from "../../core/liverules/set";
import { type MassUnit, massKg, readMass } from "../../core/units/mass";
import { readIn } from "../../core/units/written";
import { useDated } from "./dates";
import { useReadFirst } from "./read-first";
import { SpeedStrip, stripWords } from "./speed-strip";
import { useKeys } from "./use-keys";

export type Decide = (
  call: WaitingCall,
  decision: "take" | "change" | "decline",
  action: CallAction,
  reason: string,
) => void;

/** One call: proposal, evidence with its picture, and take, change, decline. */
export function CallCard({
  call,
  keys,
  decide,
  named,
  large,
  unit: reader,
}: {
  call: WaitingCall;
  /** Whether `t`, `c` and `d` decide this one. */
  keys: boolean;
  decide: Decide;
  named?: boolean;
  large?: boolean;
  /** In which who reads it reads loads; the lifter's where left out, as at the rack. */
  unit?: MassUnit;
}) {
  const unit = reader ?? call.unit;
  const dated = useDated();
  const [asking, setAsking] = useState<"change" | "decline">();
  const changeable = call.action.type === "load" || call.action.type === "rest";
  const mayTake = useReadFirst(callKey(call), true);
  const take = () => {
    if (mayTake()) decide(call, "take", call.action, "");
  };
  useKeys(
    {
      t: take,
      c: () => changeable && setAsking("change"),
      d: () => setAsking("decline"),
    },
    keys && asking === undefined,
  );
  const reps = call.velocities.map((velocityMps, i) => ({ number: i + 1, velocityMps }));
  const size = large ? "min-h-[64px] text-[17px]" : "";
  return (
    <section aria-label={`Call for ${call.callName}`}>
      <p className="font-bold">
        {named ? `${call.callName}: ` : ""}
        {dated(readIn(call.proposal, unit))}
      </p>
      <p className="text-muted">{dated(readIn(call.evidence, unit))}</p>
      {call.effect.length > 0 ? (
        <p>
          <span className="text-muted">If taken: </span>
          {dated(call.effect.map((line) => readIn(line, unit)).join(" · "))}
        </p>
      ) : null}
      {reps.length > 0 ? (
        <div className="my-1">
          <SpeedStrip
            reps={reps}
            target={call.target}
            height={24}
            width={280}
            label={stripWords(reps, call.target)}
          />
        </div>
      ) : null}
      {asking ? (
        <AskForm
          kind={asking}
          call={call}
          large={large ?? false}
          unit={unit}
          onCancel={() => setAsking(undefined)}
          onDone={(action, reason) => {
            setAsking(undefined);
            decide(call, asking, action, reason);
          }}
        />
      ) : (
        <div className="flex flex-wrap gap-2">
          <button type="button" className={`btn btn-primary ${size}`} onClick={take}>
            Take <KeyHint on={keys} of="t" />
          </button>
          {changeable ? (
            <button type="button" className={`btn ${size}`} onClick={() => setAsking("change")}>
              Change <KeyHint on={keys} of="c" />
            </button>
          ) : null}
          <button type="button" className={`btn ${size}`} onClick={() => setAsking("decline")}>
            Decline <KeyHint on={keys} of="d" />
          </button>
        </div>
      )}
    </section>
  );
}

function KeyHint({ on, of }: { on: boolean; of: string }) {
  return on ? (
    <span aria-hidden="true" className="rounded border border-current px-1 text-[0.8em]">
      {of}
    </span>
  ) : null;
}

const REASONS = ["Looked fast from the side", "Athlete asks to stay", "Reading was wrong"];

function AskForm({
  kind,
  call,
  large,
  unit,
  onCancel,
  onDone,
}: {
  kind: "change" | "decline";
  call: WaitingCall;
  large: boolean;
  unit: MassUnit;
  onCancel: () => void;
  onDone: (action: CallAction, reason: string) => void;
}) {
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string>();
  const rest = call.action.type === "rest";
  const submit = () => {
    if (kind === "decline") return onDone({ type: "none" }, text.trim() || "No reason given");
    if (rest) {
      const addS = Number(text);
      if (!(addS >= 0 && addS <= 900)) return setProblem("Seconds from 0 to 900.");
      return onDone({ type: "rest", addS }, "");
    }
    const reading = readMass(text, unit);
    if (!reading.ok || call.action.type !== "load") return setProblem("A load, for example 57.5.");
    const toKg = massKg(reading.mass);
    onDone({ type: "load", deltaKg: toKg - call.action.toKg + call.action.deltaKg, toKg }, "");
  };
  const size = large ? "min-h-[64px] text-[17px]" : "";
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <label className="block">
        <span className="text-muted">
          {kind === "decline"
            ? "Why not?"
            : rest
              ? "How many seconds more?"
              : `Which load, ${unit}?`}
        </span>
        <input
          // biome-ignore lint/a11y/noAutofocus: the question was just asked for by a button
          autoFocus
          className="field"
          value={text}
          inputMode={kind === "decline" ? "text" : "decimal"}
          onChange={(event) => setText(event.target.value)}
          aria-invalid={problem ? true : undefined}
        />
        {problem ? <span className="text-accent">{problem}</span> : null}
      </label>
      {kind === "decline" ? (
        <div className="flex flex-wrap gap-1">
          {REASONS.map((reason) => (
            <button
              key={reason}
              type="button"
              className={`btn btn-sm ${size}`}
              onClick={() => onDone({ type: "none" }, reason)}
            >
              {reason}
            </button>
          ))}
        </div>
      ) : null}
      <div className="flex gap-2">
        <button type="submit" className={`btn btn-primary ${size}`}>
          {kind === "decline" ? "Decline" : "Change"}
        </button>
        <button type="button" className={`btn ${size}`} onClick={onCancel}>
          Back
        </button>
      </div>
    </form>
  );
}
