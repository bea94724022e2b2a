import { useRef, useState } from "react";
import { CALL_NAMES, type ShownCall, type ShownDecision } from "../../core/review/calls";
import { formatKg } from "../../core/units/mass";
import { readIn } from "../../core/units/written";
import { Dated, Day } from "./dates";
import { Field } from "./field";
import { Form } from "./form";
import { MassInput } from "./mass-input";
import { useReadFirst } from "./read-first";
import { useUnit } from "./unit";
import { useKeys } from "./use-keys";

export const DECISION_WORDS = { taken: "taken", changed: "changed", declined: "declined" };

/** What taking a call does, said before it is pressed. */
export function effectWords(call: Pick<ShownCall, "action">, unit: "kg" | "lb"): string {
  const { action } = call;
  if (action.type === "base")
    return action.toKg === action.fromKg
      ? "No step is set: change it and write the load."
      : `Percentages stand on ${formatKg(action.toKg, unit, 1)} from now on.`;
  if (action.type === "rest") return `The plan gives ${action.addS} s more rest in this slot.`;
  if (action.type === "floor")
    return `In this slot their sets end under ${action.floorMps.toFixed(2)} m/s from now on.`;
  if (action.type === "week")
    return `Week ${action.week} of the plan becomes a ${action.mark}; later weeks move.`;
  if (action.type === "to-do") return "It stands among what is to be done until it is.";
  return "Nothing changes; the word is kept.";
}

/** Up and down from one to the next. */
export const arrows = (step: (by: number) => void): Readonly<Record<string, () => void>> =>
  Object.fromEntries([
    ["ArrowDown", () => step(1)],
    ["ArrowUp", () => step(-1)],
  ]);

/** Take, change, decline: three keys, each a form, so that they work without scripts too. */
export function CallKeys({
  call,
  groupId,
  keys,
  problem,
}: {
  call: ShownCall;
  groupId: string;
  /** Whether `t`, `c` and `d` are this call's. */
  keys: boolean;
  problem: string | undefined;
}) {
  const unit = useUnit();
  const [asking, setAsking] = useState<"changed" | "declined">();
  const take = useRef<HTMLButtonElement>(null);
  const { action, about } = call;
  const mayTake = useReadFirst(about, false);
  const changeable = action.type === "base" || action.type === "rest" || action.type === "floor";
  useKeys(
    {
      t: () => take.current?.click(),
      c: () => changeable && setAsking("changed"),
      d: () => setAsking("declined"),
    },
    keys && asking === undefined,
  );
  const hidden = (
    <>
      <input type="hidden" name="intent" value="decide" />
      <input type="hidden" name="groupId" value={groupId} />
      <input type="hidden" name="about" value={about} />
    </>
  );
  return (
    <div className="no-print mt-2">
      <p className="text-sm text-muted">If taken: {effectWords(call, unit)}</p>
      {problem ? (
        <p role="alert" className="mt-1 font-medium text-accent">
          {problem}
        </p>
      ) : null}
      {asking ? (
        <Form method="post" preventScrollReset className="mt-2 grid gap-2">
          {hidden}
          <input type="hidden" name="decision" value={asking} />
          {asking === "declined" ? (
            <Field
              autoFocus
              label="Why not?"
              name="reason"
              minLength={3}
              maxLength={300}
              required
            />
          ) : action.type === "base" ? (
            <MassInput autoFocus name="load" label="Base" required />
          ) : action.type === "floor" ? (
            <Field autoFocus label="Floor, m/s" name="floorMps" inputMode="decimal" required />
          ) : (
            <Field autoFocus label="Seconds more" name="addS" inputMode="numeric" required />
          )}
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary">
              {asking === "declined" ? "Decline" : "Change"}
            </button>
            <button type="button" className="btn" onClick={() => setAsking(undefined)}>
              Back
            </button>
          </div>
        </Form>
      ) : (
        <div className="mt-2 flex flex-wrap gap-2">
          <Form method="post" preventScrollReset>
            {hidden}
            <input type="hidden" name="decision" value="taken" />
            <button
              ref={take}
              type="submit"
              className="btn btn-primary"
              onClick={(event) => {
                if (!mayTake()) event.preventDefault();
              }}
            >
              Take <Hint on={keys} of="t" />
            </button>
          </Form>
          {changeable ? (
            <button type="button" className="btn" onClick={() => setAsking("changed")}>
              Change <Hint on={keys} of="c" />
            </button>
          ) : null}
          <button type="button" className="btn" onClick={() => setAsking("declined")}>
            Decline <Hint on={keys} of="d" />
          </button>
        </div>
      )}
    </div>
  );
}

function Hint({ on, of }: { on: boolean; of: string }) {
  return on ? (
    <span aria-hidden="true" className="rounded border border-current px-1 text-[0.8em]">
      {of}
    </span>
  ) : null;
}

/** A decision that stands, with its way back. */
export function DecidedLine({
  decided,
  keys,
  mayDecide,
}: {
  decided: ShownDecision;
  keys: boolean;
  mayDecide: boolean;
}) {
  const unit = useUnit();
  const back = useRef<HTMLButtonElement>(null);
  useKeys({ u: () => back.current?.click() }, keys && mayDecide && !decided.undone);
  const { effect } = decided;
  return (
    <div className="mt-2">
      <p>
        <b>{CALL_NAMES[decided.kind]}</b>, {DECISION_WORDS[decided.decision]}
        {effect.type === "base" ? ` at ${formatKg(effect.toKg, unit, 1)}` : ""} by {decided.by},{" "}
        <Day of={decided.date} />
        {decided.reason ? `: ${decided.reason}` : ""}
      </p>
      {effect.type === "edit" ? <p className="text-sm text-muted">{effect.words}</p> : null}
      {effect.type === "to-do" ? (
        <p className="text-sm text-muted">
          To be done until <Day of={effect.until} />
        </p>
      ) : null}
      {mayDecide && !decided.undone ? (
        <Form method="post" preventScrollReset className="no-print mt-1">
          <input type="hidden" name="intent" value="take-back" />
          <input type="hidden" name="callId" value={decided.id} />
          <button ref={back} type="submit" className="btn btn-sm">
            Take it back <Hint on={keys} of="u" />
          </button>
        </Form>
      ) : null}
    </div>
  );
}

/** A call's proposal and evidence in words. */
export function CallWords({ call, unit }: { call: ShownCall; unit: "kg" | "lb" }) {
  return (
    <>
      <p className="font-bold">
        <Dated>{readIn(call.proposal, unit)}</Dated>
      </p>
      <ul className="text-muted">
        {call.evidence.lines.map((line) => {
          const words = readIn(line, unit);
          return (
            <li key={words}>
              <Dated>{words}</Dated>
            </li>
          );
        })}
      </ul>
    </>
  );
}
