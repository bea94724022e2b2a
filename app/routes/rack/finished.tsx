import { type ReactNode, useEffect } from "react";
import { useNavigate } from "react-router";

export const BIG = "btn min-h-[72px] border-2 text-[19px]";
const LOOK_AGAIN_MS = 5000;

/** A rack's own tablet goes on to the next session at its rack by itself. */
function useNextSession(fixed: boolean, sessionId: string): void {
  const navigate = useNavigate();
  useEffect(() => {
    if (!fixed) return;
    const look = async () => {
      const response = await fetch("/api/at-rack").catch(() => undefined);
      if (!response?.ok) return;
      const next = (await response.json()) as { sessionId: string | null; rackId: string };
      if (next.sessionId && next.sessionId !== sessionId)
        void navigate(`/rack/${next.sessionId}/${next.rackId}`);
    };
    const timer = window.setInterval(() => void look(), LOOK_AGAIN_MS);
    return () => window.clearInterval(timer);
  }, [fixed, sessionId, navigate]);
}

/** The floor stands still: nothing is taken until the session is opened again. */
export function SessionEnded({
  sessionId,
  fixed,
  alone,
}: {
  sessionId: string;
  fixed: boolean;
  alone: boolean;
}) {
  useNextSession(fixed, sessionId);
  return (
    <div role="alert" className="mb-3 border-l-[3px] border-accent pl-3">
      <p className="text-[20px] font-bold">The session has ended. No set is taken now.</p>
      <p className="text-muted">
        {fixed
          ? "The next session at this rack opens here by itself. "
          : alone
            ? "Your card opens it again, today. "
            : "A coach can open it again today, from the floor. "}
        What was logged before the end still goes to the server.
      </p>
    </div>
  );
}

/** Everybody at this station is through with what is on the screen. */
export function Finished({
  sessionId,
  fixed,
  next,
  more,
  after,
  atPlace = false,
}: {
  sessionId: string;
  fixed: boolean;
  /** What else is to be done here. */
  next: { name: string; go: () => void } | undefined;
  more?: () => void;
  /** What else can be done then. */
  after: ReactNode;
  /** Where no bar stands. */
  atPlace?: boolean;
}) {
  useNextSession(fixed && !next, sessionId);
  return (
    <div className="m-auto max-w-md">
      <h1 className="text-[40px]">
        {next
          ? "All sets of this are done"
          : `All sets ${atPlace ? "here" : "at this rack"} are done`}
      </h1>
      <p className="mt-2 text-muted">
        {next
          ? "Everybody here is through with it."
          : `${atPlace ? "Put away what was used." : "Strip the bar, put the plates away."} What was logged is in the review.`}
      </p>
      <p className="mt-4 flex flex-wrap gap-3">
        {next ? (
          <button type="button" className={`${BIG} btn-primary`} onClick={next.go}>
            Go on: {next.name}
          </button>
        ) : null}
        {more ? (
          <button type="button" className={BIG} onClick={more}>
            More
          </button>
        ) : null}
        {next ? null : after}
      </p>
    </div>
  );
}
