import { actName, actWords } from "../../../core/floor/act-words";
import type { SetAddress } from "../../../core/floor/entries";
import { lastAct, lastUndone } from "../../../core/floor/undo";
import type { MassUnit } from "../../../core/units/mass";
import { deviceId } from "../../offline/device";
import type { SessionLog, SessionView } from "../../offline/session-log";
import { useIsLive } from "../../offline/use-is-live";

export interface Step {
  /** Short, for the button. */
  name: string;
  words: string;
  run: () => void;
}

/** What undo takes back and redo does again, named; the set on the screen goes first. */
export function useUndo(
  log: SessionLog,
  view: SessionView,
  at: SetAddress | undefined,
  show: (shown: Pick<SetAddress, "athleteId" | "setKey">) => void,
  unit: MassUnit | undefined,
): { undo: Step | undefined; redo: Step | undefined } {
  // Only this browser knows what it did itself.
  const live = useIsLive();
  if (!live || view.ended) return { undo: undefined, redo: undefined };
  const step = (found: ReturnType<typeof lastAct>): Step | undefined =>
    found && {
      name: actName(found.of.body),
      words: actWords(found.of.body, { unit }),
      run: () => {
        log.append({ kind: "void" }, [found.voids]);
        const { body } = found.of;
        if ("setKey" in body) show({ athleteId: body.athleteId, setKey: body.setKey });
      },
    };
  return {
    undo: step(lastAct(log.fold, deviceId(), at)),
    redo: step(lastUndone(log.fold, deviceId(), at)),
  };
}
