import { environment } from "./env.server";

/**
 * What a page of ours may load: everything from here, scripts by this answer's nonce.
 * Style attributes are allowed, for drawings place their parts with them; a style element needs
 * the nonce, which entry.client.tsx hands to the libraries that make one.
 */
export function pagePolicy(nonce: string): string {
  return [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}'`,
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "media-src 'self' blob:",
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
    "object-src 'none'",
  ].join("; ");
}

/** Data, files and refusals are no pages: they load nothing and stand in no frame. */
const NO_PAGE = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; sandbox";

/** The camera and the screen's wake are for rack tablets and photos; the rest is nobody's. */
const PERMISSIONS = [
  "camera=(self)",
  "fullscreen=(self)",
  "screen-wake-lock=(self)",
  "accelerometer=()",
  "bluetooth=()",
  "display-capture=()",
  "geolocation=()",
  "gyroscope=()",
  "hid=()",
  "magnetometer=()",
  "microphone=()",
  "midi=()",
  "payment=()",
  "serial=()",
  "usb=()",
].join(", ");

/** Headers of every answer but the built assets. */
export function headersOfAll(): Record<string, string> {
  const { HSTS_DAYS, TLS_CERT } = environment();
  return {
    "x-content-type-options": "nosniff",
    "referrer-policy": "same-origin",
    "x-frame-options": "DENY",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
    "permissions-policy": PERMISSIONS,
    ...(HSTS_DAYS > 0 && TLS_CERT !== undefined
      ? { "strict-transport-security": `max-age=${HSTS_DAYS * 86_400}` }
      : {}),
  };
}

/** Headers of what is made anew for somebody: kept nowhere, and no page unless it says so. */
export function headersOfAnswers(headers: Headers): void {
  const streamed = headers.get("content-type")?.startsWith("text/event-stream");
  headers.set("cache-control", streamed ? "no-store, no-transform" : "no-store");
  if (!headers.has("content-security-policy")) headers.set("content-security-policy", NO_PAGE);
}
