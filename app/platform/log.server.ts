import pino from "pino";

/** A failed query prints its parameters, and those may be a token, a name or a note. */
function withoutParameters(text: string): string {
  return text.replace(/\nparams: [^\n]*/g, "\nparams: (kept out of the log)");
}

function serializeError(error: unknown): unknown {
  const plain = pino.stdSerializers.err(error as Error);
  if (typeof plain !== "object" || plain === null) return plain;
  return {
    type: plain.type,
    code: (plain as { code?: unknown }).code,
    message: withoutParameters(String(plain.message)),
    stack: withoutParameters(String(plain.stack)),
  };
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
