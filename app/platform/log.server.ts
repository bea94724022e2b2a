import pino from "pino";

export const log = pino({
  level: process.env.LOG_LEVEL ?? "info",
  // Addresses may hold a pairing handle; bodies hold people's numbers: neither is logged.
  redact: ["req.headers.cookie", "req.headers.authorization"],
});

export function requestId(request: Request): string {
  return request.headers.get("x-request-id") ?? "none";
}
