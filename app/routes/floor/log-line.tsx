import { Link } from "react-router";
import type { SessionView } from "../../offline/session-log";

/** One line: what became of what this screen logged. */
export function LogLine({ view }: { view: SessionView }) {
  const { link, unsent, unkept, refused, elsewhere } = view;
  const words =
    unkept > 0
      ? `${unkept} NOT saved in this browser: keep this page open`
      : link === "sign-in" && unsent > 0
        ? `Sign in again: ${unsent} kept here`
        : link === "away"
          ? `No link. ${unsent} kept here`
          : unsent > 0
            ? `Sending ${unsent}`
            : "All saved";
  return (
    <span className="text-muted">
      <span role="status" className={unkept > 0 ? "font-bold text-accent" : ""}>
        {words}
      </span>
      {elsewhere > 0 ? ` · ${elsewhere} of other sessions wait` : ""}
      {refused.length > 0 ? (
        <>
          {" · "}
          <Link to="/kept" className="text-accent underline">
            {refused.length} not taken
          </Link>
        </>
      ) : null}
    </span>
  );
}
