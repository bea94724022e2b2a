import {
  DEFAULT_CHANGE_S,
  DEFAULT_SET_S,
  groupTimeS,
  restFromTurns,
  turnsAdvice,
  turnsWorking,
} from "../../../../core/prescribe/turns";
import { formatClock } from "../../../../core/units/time";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { type ToolProps, valueAt } from "./tool";

/** Rest that turn-taking gives, and the group size for a rest that is wanted. */
export function Rests({ address, unit }: ToolProps) {
  const lifters = valueAt(address, "n", 4);
  const setS = valueAt(address, "set", DEFAULT_SET_S);
  const changeS = valueAt(address, "change", DEFAULT_CHANGE_S);
  const leastS = valueAt(address, "least", 45);
  const mostS = valueAt(address, "most", 75);
  const sets = valueAt(address, "sets", 10);
  const whole = lifters !== undefined && Number.isInteger(lifters) && lifters >= 1 && lifters <= 30;
  const known = whole && setS !== undefined && changeS !== undefined && setS > 0 && changeS >= 0;
  const turns = known ? { lifters, setS, changeS } : undefined;
  const rest = turns && restFromTurns(turns);
  useAnswer(rest === undefined ? undefined : `${lifters} on a bar rest ${formatClock(rest)} each`);
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <ToolField {...shared} label="Lifters on the bar" name="n" start={4} />
        <ToolField {...shared} label="A set takes, s" name="set" start={DEFAULT_SET_S} />
        <ToolField
          {...shared}
          label="Changing the bar takes, s"
          name="change"
          start={DEFAULT_CHANGE_S}
        />
        <ToolField {...shared} label="Wanted rest from, s" name="least" start={45} />
        <ToolField {...shared} label="to, s" name="most" start={75} />
        <ToolField {...shared} label="Sets each" name="sets" start={10} />
      </form>
      {!known ? <Notice kind="problem" title="One to thirty lifters, and times over 0 s." /> : null}
      {turns && rest !== undefined ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/rest" working={turnsWorking(turns)}>
              {formatClock(rest)}
            </Figure>{" "}
            <span className="text-base font-normal text-muted">rest each, {rest} s</span>
          </p>
          <p className="mt-2">{turnsAdvice(turns, { leastS: leastS ?? 0, mostS: mostS ?? 0 })}</p>
          {sets !== undefined ? (
            <p className="text-muted">
              {sets} sets each: {formatClock(groupTimeS(turns, sets))} for the group.
            </p>
          ) : null}
        </Figures>
      ) : null}
    </>
  );
}
