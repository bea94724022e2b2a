import { databaseAnswers } from "../../platform/database.server";

/** For whoever watches the server: whether it can do its work, its database included. */
export async function loader() {
  const ok = await databaseAnswers();
  return Response.json({ ok, database: ok ? "answers" : "away" }, { status: ok ? 200 : 503 });
}
