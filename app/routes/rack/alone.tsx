import { useState } from "react";
import { useFetcher } from "react-router";
import type { FrozenSession } from "../../../core/floor/frozen";
import type { SessionView } from "../../offline/session-log";
import { useOnce } from "../../ui/form";
import { BIG } from "./finished";

/** Over the day of who trains alone: what it is, and whose plates are meant. */
export function AloneHead({ frozen, station }: { frozen: FrozenSession; station: string }) {
  return (
    <span className="min-w-0">
      <span className="block text-[22px] leading-tight font-bold">{frozen.title}</span>
      <span className="block text-[17px] text-muted">
        Alone · {station.startsWith("rack ") ? `bar and plates of ${station}` : station}
      </span>
    </span>
  );
}

/**
 * Ends the training of who trains alone, once everything is with the server: what waits on the phone
 * would come after the end.
 */
export function EndAlone({
  sessionId,
  view,
  asks,
}: {
  sessionId: string;
  view: SessionView;
  /** In the middle of the day it is asked first. */
  asks: boolean;
}) {
  const fetcher = useFetcher<{ ok: boolean; message?: string }>();
  const once = useOnce();
  const [asking, setAsking] = useState(false);
  // The end is heard over the stream before the answer to the press is back: who unmounted here
  // would lose the way to the card with it.
  if (view.ended) return null;
  const waits = view.unsent > 0 || view.link === "away";
  if (asks && !asking)
    return (
      <button
        type="button"
        className="inline-flex min-h-11 items-center underline"
        onClick={() => setAsking(true)}
      >
        End this training
      </button>
    );
  return (
    <div className="grid gap-2">
      {asks ? <p>Ends it here: what is not done stays undone, and your coach sees it.</p> : null}
      {waits ? (
        <p>
          {view.unsent > 0
            ? `${view.unsent === 1 ? "1 entry waits" : `${view.unsent} entries wait`} on this phone for the network. `
            : "The network is away. "}
          Nothing is lost: end it when the link is back.
        </p>
      ) : null}
      {fetcher.data?.ok === false ? <p role="alert">{fetcher.data.message}</p> : null}
      <button
        type="button"
        className={asks ? "btn min-h-14 text-[18px]" : `${BIG} btn-primary`}
        disabled={waits || fetcher.state !== "idle"}
        onClick={() =>
          void fetcher.submit(
            { intent: "end", once },
            { method: "post", action: `/card/${sessionId}` },
          )
        }
      >
        End the training
      </button>
    </div>
  );
}
