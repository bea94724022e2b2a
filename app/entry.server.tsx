import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { type RenderToPipeableStreamOptions, renderToPipeableStream } from "react-dom/server";
import type { EntryContext, HandleErrorFunction } from "react-router";
import { isRouteErrorResponse, ServerRouter } from "react-router";
import { closeDatabases, isDatabaseAway } from "./platform/database.server";
import { log, requestId } from "./platform/log.server";

/** Called by the server script when it is told to stop. */
export async function shutdown(): Promise<void> {
  await closeDatabases();
}

const GIVE_UP_MS = 10_000;

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
): Promise<Response> {
  return new Promise((resolve, reject) => {
    let code = status;
    const ready: keyof RenderToPipeableStreamOptions = isbot(request.headers.get("user-agent"))
      ? "onAllReady"
      : "onShellReady";
    const { pipe, abort } = renderToPipeableStream(
      <ServerRouter context={context} url={request.url} />,
      {
        [ready]() {
          const body = new PassThrough();
          headers.set("Content-Type", "text/html");
          headers.set("Cache-Control", "no-store");
          resolve(new Response(createReadableStreamFromReadable(body), { headers, status: code }));
          pipe(body);
        },
        onShellError: reject,
        onError(error: unknown) {
          code = 500;
          log.error({ err: error, requestId: requestId(request) }, "rendering failed");
        },
      },
    );
    setTimeout(abort, GIVE_UP_MS).unref();
  });
}

export const handleError: HandleErrorFunction = (error, { request }) => {
  if (request.signal.aborted || isRouteErrorResponse(error)) return;
  const away = isDatabaseAway(error);
  log.error(
    {
      err: error,
      requestId: requestId(request),
      path: new URL(request.url).pathname,
      databaseAway: away,
    },
    away ? "the database does not answer" : "request failed",
  );
};
