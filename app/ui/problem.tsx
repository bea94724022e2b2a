import { isRouteErrorResponse, Link } from "react-router";

/** What went wrong, in words, with a way on. Never a stack trace. */
export function Problem({ error }: { error: unknown }) {
  const { title, text } = inWords(error);
  return (
    <section aria-labelledby="problem">
      <h1 id="problem">{title}</h1>
      <p className="mt-2 text-muted">{text}</p>
      <p className="mt-4 flex gap-2">
        <button type="button" className="btn" onClick={() => window.location.reload()}>
          Try again
        </button>
        <Link className="btn" to="/" reloadDocument>
          Go to the start
        </Link>
      </p>
    </section>
  );
}

function inWords(error: unknown): { title: string; text: string } {
  if (isRouteErrorResponse(error)) {
    const said = typeof error.data === "string" ? error.data : "";
    if (error.status === 404) {
      return { title: "Not here", text: said || "There is no such page. Check the address." };
    }
    if (error.status === 403) return { title: "Not allowed", text: said };
    if (error.status === 503) return { title: "The database does not answer", text: said };
    return { title: "That did not work", text: said || "Try again." };
  }
  return {
    title: "Something went wrong on our side",
    text: "It was written to the log. What you logged at a rack is kept on the tablet and sent again by itself. Try again in a moment.",
  };
}
