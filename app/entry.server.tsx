import { randomBytes } from "node:crypto";
import { Writable } from "node:stream";
import { renderToPipeableStream } from "react-dom/server";
import type { EntryContext, HandleErrorFunction } from "react-router";
import { isRouteErrorResponse, ServerRouter } from "react-router";
import { isDatabaseAway } from "./platform/database.server";
import { log, loggedPath, requestId } from "./platform/log.server";
import { pagePolicy } from "./platform/security-headers.server";
import { drawChartsWith } from "./ui/chart";
import { drawChart } from "./ui/draw-chart.server";

/** Called by scripts/server.mjs with the build that this module is part of. */
export { serve } from "./platform/serve.server";

drawChartsWith(drawChart);

const GIVE_UP_MS = 10_000;

/**
 * A page goes out whole: none defers a part, and in pieces of 2 kB each piece would pass three
 * streams and the compression by itself.
 */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
): Promise<Response> {
  return new Promise((resolve, reject) => {
    let code = status;
    const nonce = randomBytes(16).toString("base64");
    const { pipe, abort } = renderToPipeableStream(
      <ServerRouter context={context} url={request.url} nonce={nonce} />,
      {
        nonce,
        onAllReady() {
          const pieces: Buffer[] = [];
          const body = new Writable({
            write(piece: Buffer, _encoding, taken) {
              pieces.push(piece);
              taken();
            },
            final(taken) {
              headers.set("content-type", "text/html; charset=utf-8");
              headers.set("content-security-policy", pagePolicy(nonce));
              resolve(new Response(Buffer.concat(pieces), { headers, status: code }));
              taken();
            },
          });
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
      path: loggedPath(new URL(request.url).pathname),
      databaseAway: away,
    },
    away ? "the database does not answer" : "request failed",
  );
};
