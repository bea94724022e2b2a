import { Link } from "react-router";
import type { SessionView } from "../../offline/session-log";

/** What became of what was logged: saved only where the store gave it back. */
export function SavedWords({ view }: { view: SessionView }) {
  const { refused, elsewhere } = view;
  return (
    <span className="text-right text-[17px]">
      <span role="status" className={view.unkept > 0 ? "font-bold text-accent" : ""}>
        {savedWords(view)}
      </span>
      {elsewhere > 0 ? (
        <span className="block text-muted">{elsewhere} of other sessions wait here</span>
      ) : null}
      {refused.length > 0 ? (
        <Link className="block text-accent underline" to="/kept" role="alert">
          {refused.length} not taken: look
        </Link>
      ) : null}
    </span>
  );
}

function savedWords(view: SessionView): string {
  const { link, unsent, unkept, keeping, ended } = view;
  if (unkept > 0) return `${unkept} NOT saved on this tablet: keep this page open`;
  if (keeping > 0) return `saving ${keeping} here`;
  if (link === "sign-in" && unsent > 0) return `sign in again; ${unsent} kept here`;
  if (ended && unsent === 0) return "the session has ended";
  if (link === "away") return `no link; ${unsent} kept here`;
  return unsent > 0 ? `saved here, sending ${unsent}` : "saved here and sent";
}
