/** What the long runs ask of a server with the demo data, as a coach. */

/** The cookies of the signed-in coach. */
export async function signIn(base) {
  const body = new URLSearchParams({
    email: "coach@skerry.example",
    password: "skerry-coast-demo",
    to: "/",
  });
  const response = await fetch(`${base}/sign-in`, {
    method: "POST",
    body,
    redirect: "manual",
    headers: { origin: base },
  });
  return response.headers
    .getSetCookie()
    .map((one) => one.split(";")[0])
    .join("; ");
}

/** The running session's id and the addresses of its sets, read from its log. */
export async function runningSession(base, cookie) {
  const html = await (await fetch(`${base}/floor`, { headers: { cookie } })).text();
  const id = /\/floor\/([0-9a-f-]{36})/.exec(html)?.[1];
  const { entries } = await (
    await fetch(`${base}/api/log/${id}?after=0`, { headers: { cookie } })
  ).json();
  const sets = entries.filter((entry) => entry.body.kind === "set-done").map((entry) => entry.body);
  return { id, sets };
}
