import pino from "pino";

const KEPT_OUT = "(kept out of the log)";

/** The first line in which an error's message gives away what it was asked about. */
const PARAMETERS = /\nparams:/;

/**
 * What an error says of itself, without what it was asked about. A failed query prints its
 * parameters, over as many lines as they have, and the database quotes a value that it did not
 * understand: either may be a token, a name or a reason.
 */
function ownWords(error: Error): string {
  const words = error.message.split(PARAMETERS, 1)[0] ?? "";
  const cut = words.length < error.message.length ? `${words}\nparams: ${KEPT_OUT}` : words;
  return error.name === "PostgresError" ? cut.replace(/: "[\s\S]*$/, `: ${KEPT_OUT}`) : cut;
}

/** Where it came from: the lines of its stack after its message, which may have many. */
function placesOf(error: Error): string {
  const { stack = "", message } = error;
  const at = stack.indexOf(message);
  return at < 0 ? "" : stack.slice(at + message.length);
}

const MOST_CAUSES = 5;

function serializeError(error: unknown): unknown {
  if (!(error instanceof Error)) return { type: typeof error };
  const chain: Error[] = [];
  for (let at: unknown = error; at instanceof Error && chain.length < MOST_CAUSES; at = at.cause)
    chain.push(at);
  const code = chain
    .map((one) => (one as { code?: unknown }).code)
    .find((one) => one !== undefined);
  return {
    type: error.constructor.name,
    ...(typeof code === "string" || typeof code === "number" ? { code } : {}),
    message: chain.map(ownWords).join(": "),
    stack: chain
      .map((one) => `${one.name}: ${ownWords(one)}${placesOf(one)}`)
      .join("\ncaused by: "),
  };
}

/** An address as the log may have it: no query, and no token of a followed calendar. */
export function loggedPath(pathname: string): string {
  return pathname.replace(/^\/(feed|join|reset)\/[^/]*/, "/$1/(token)");
}

// Addresses, bodies and cookies are not logged: they may hold what is private.
export function makeLog(destination?: pino.DestinationStream) {
  const options: pino.LoggerOptions = {
    level: process.env.LOG_LEVEL ?? "info",
    serializers: { err: serializeError },
  };
  return destination ? pino(options, destination) : pino(options);
}

export const log = makeLog();

export function requestId(request: Request): string {
  return request.headers.get("x-request-id") ?? "none";
}
