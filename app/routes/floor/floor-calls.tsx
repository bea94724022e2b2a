import { useEffect, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import type { EntryBody, LogEntry } from "../../../core/floor/entries";
import { callKey, decidedCall } from "../../../core/floor/lifter-state";
import type { FloorState } from "../../../core/floor/state";
import { readIn } from "../../../core/units/written";
import { CallCard, type Decide } from "../../ui/calls";
import { say } from "../../ui/said";
import { useUnit } from "../../ui/unit";

/** All waiting calls of a floor; arrows choose one, `t`, `c` and `d` decide it. */
export function FloorCalls({
  floor,
  append,
}: {
  floor: FloorState;
  append: (body: EntryBody, supersedes?: string[]) => LogEntry;
}) {
  const unit = useUnit();
  const decide: Decide = (call, decision, action, reason) => {
    const entry = append(decidedCall(call, decision, action, reason));
    const done = { take: "taken", change: "changed", decline: "declined" }[decision];
    say(`${call.callName}: ${readIn(call.proposal, unit)}, ${done}.`, {
      label: "Undo",
      run: () => append({ kind: "void" }, [entry.id]),
    });
  };
  // By what it is, not by its place: a call that comes in above takes the keys from nobody.
  const [at, setAt] = useState({ key: "", place: 0 });
  const found = floor.calls.findIndex((call) => callKey(call) === at.key);
  const chosen = found >= 0 ? found : Math.min(at.place, floor.calls.length - 1);
  const open = floor.calls[chosen];
  const openKey = open ? callKey(open) : "";
  useEffect(() => setAt({ key: openKey, place: Math.max(0, chosen) }), [openKey, chosen]);
  const step = (by: number) => {
    const place = Math.max(0, Math.min(floor.calls.length - 1, chosen + by));
    const next = floor.calls[place];
    if (next) setAt({ key: callKey(next), place });
  };
  const inFigures = () => document.activeElement?.closest("[data-figures]") != null;
  useHotkeys("ArrowDown,ArrowUp", (event) => {
    if (floor.calls.length > 1 && !inFigures()) {
      event.preventDefault();
      step(event.key === "ArrowDown" ? 1 : -1);
    }
  });
  if (floor.calls.length === 0) {
    return (
      <p className="mt-2 border-t border-rule pt-2 text-muted">
        No decision waits. Calls appear here with their evidence as sets are done.
      </p>
    );
  }
  return (
    <ol className="mt-2">
      {floor.calls.map((call, i) => (
        <li
          key={callKey(call)}
          aria-current={i === chosen ? "true" : undefined}
          className={`border-t border-rule py-2 ${i === chosen && floor.calls.length > 1 ? "border-l-[3px] border-l-accent pl-2" : ""}`}
        >
          <CallCard call={call} keys={i === chosen} decide={decide} unit={unit} named />
        </li>
      ))}
    </ol>
  );
}
