import { isDatabaseAway } from "./database.server";
import { log, requestId } from "./log.server";
import type { Failure } from "./outcome";

/** Runs `work`; a database that is away becomes a sentence with the request's number (503). */
export async function orAway<T>(request: Request, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!isDatabaseAway(error)) throw error;
    const id = requestId(request);
    log.error({ err: error, requestId: id }, "the database does not answer");
    throw new Response(
      `Nothing you typed is lost: keep this page open and try again in a moment. Rack tablets keep logging. If it lasts, tell whoever runs the server (request ${id}).`,
      { status: 503 },
    );
  }
}

/** A page whose thing is not there. */
export function notThere(failure: Failure): Response {
  return new Response(failure.message, { status: 404 });
}
