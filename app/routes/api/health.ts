/** For whoever watches the server: it answers, and the guard before it has asked the database
 * only where a cookie was sent. */
export function loader() {
  return Response.json({ ok: true });
}
