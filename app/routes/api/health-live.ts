/** For whoever starts the process again: it runs, whatever its database does. */
export function loader() {
  return Response.json({ ok: true });
}
