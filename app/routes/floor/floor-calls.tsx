import { useHotkeys } from "react-hotkeys-hook";
import type { EntryBody, LogEntry } from "../../../core/floor/entries";
import { decidedCall } from "../../../core/floor/lifter-state";
import type { FloorState } from "../../../core/floor/state";
import { readIn } from "../../../core/units/written";
import { CallCard, type Decide } from "../../ui/calls";
import { say } from "../../ui/said";
import { useUnit } from "../../ui/unit";

/** All waiting calls of a floor; keys 1 to 9 take the one with that number. */
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
    say(`${call.athleteName.split(" ")[0]}: ${readIn(call.proposal, unit)}, ${done}.`, {
      label: "Undo",
      run: () => append({ kind: "void" }, [entry.id]),
    });
  };
  useHotkeys("1,2,3,4,5,6,7,8,9", (event) => {
    const call = floor.calls[Number(event.key) - 1];
    if (call) decide(call, "take", call.action, "");
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
        <li key={`${call.athleteId}${call.setKey}`} className="border-t border-rule py-2">
          <CallCard
            call={call}
            keyHint={i < 9 ? String(i + 1) : undefined}
            decide={decide}
            unit={unit}
            named
          />
        </li>
      ))}
    </ol>
  );
}
