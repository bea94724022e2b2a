import { isRouteErrorResponse, type ShouldRevalidateFunctionArgs } from "react-router";

import { duringSubmission } from "./after-submission";

export interface Unreached {
  ok: false;
  code: "unreached";
  message: string;
}

/**
 * Runs a page's action from the browser. When the server or its database is away the page stays
 * as it is, with what was typed, and says so; everything else goes on as usual.
 */
export async function keepForm<T>(serverAction: () => Promise<T>): Promise<T | Unreached> {
  try {
    return await duringSubmission(serverAction);
  } catch (error) {
    if (isRouteErrorResponse(error) && error.status === 503) {
      return { ok: false, code: "unreached", message: String(error.data) };
    }
    if (error instanceof TypeError) {
      return {
        ok: false,
        code: "unreached",
        message: "The server could not be reached. What you typed is still here: try again.",
      };
    }
    throw error;
  }
}

/** After a failed action nothing on the page has changed: do not load it again. */
export function revalidateUnlessFailed(args: ShouldRevalidateFunctionArgs): boolean {
  const result = args.actionResult as { ok?: boolean } | undefined;
  return result?.ok === false ? false : args.defaultShouldRevalidate;
}
