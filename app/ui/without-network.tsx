/** Asks for the page that was asked for: this address itself is drawn without the network for ever. */
function askAgain() {
  const to = new URLSearchParams(location.search).get("to") ?? location.href;
  const asked = URL.canParse(to, location.href) ? new URL(to, location.href) : undefined;
  // Never another place than this one, whoever wrote the address.
  if (asked?.origin === location.origin) location.assign(asked);
  else location.reload();
}

/** A page that needs the network, and what this browser can draw without it. */
export function WithoutNetwork({
  others,
}: {
  others: ReadonlyArray<{ path: string; title: string }>;
}) {
  return (
    <main className="mx-auto max-w-xl p-6 text-[18px]">
      <h1>This page needs the network</h1>
      <p className="mt-2">
        The server does not answer now. What was logged here is kept and goes by itself when the
        link is back.
      </p>
      {others.length > 0 ? (
        <>
          <p className="mt-4 font-bold">What runs without it in this browser:</p>
          <ul>
            {others.map((one) => (
              <li key={one.path}>
                <a className="inline-flex min-h-12 items-center underline" href={one.path}>
                  {one.title}
                </a>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <p className="mt-4">
        <button type="button" className="btn" onClick={askAgain}>
          Try again
        </button>
      </p>
    </main>
  );
}
