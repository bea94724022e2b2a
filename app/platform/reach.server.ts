import { networkInterfaces } from "node:os";
import QRCode from "qrcode";
import { environment } from "./env.server";

/** An address that other devices can open, as text and as a picture to point a camera at. */
export interface Reach {
  url: string;
  qr: { size: number; path: string };
  /** Why a phone or tablet cannot open it, and what to do; undefined where it can. */
  problem: string | undefined;
}

const LOOPBACK = /^(localhost|127\.|\[::1\])/;
const EVERYWHERE = new Set(["0.0.0.0", "::"]);

/** This machine's first address on the local network. */
function localAddress(): string | undefined {
  for (const addresses of Object.values(networkInterfaces()))
    for (const one of addresses ?? [])
      if (!one.internal && one.family === "IPv4") return one.address;
  return undefined;
}

/**
 * The server's address as others reach it: as set, else as this browser has it. A browser on the
 * server's own machine has one that no tablet can open: the machine's own, where it listens there.
 */
export function reachableOrigin(request: Request): { origin: string; problem: string | undefined } {
  const { PUBLIC_URL, HOST } = environment();
  if (PUBLIC_URL) return { origin: new URL(PUBLIC_URL).origin, problem: undefined };
  const url = new URL(request.url);
  if (!LOOPBACK.test(url.host)) return { origin: url.origin, problem: undefined };
  const address = EVERYWHERE.has(HOST) ? localAddress() : undefined;
  if (address) {
    url.hostname = address;
    return { origin: url.origin, problem: undefined };
  }
  return {
    origin: url.origin,
    problem:
      "Only this machine can open this address. For tablets and phones start the server with HOST=0.0.0.0 and a certificate (npm run certificate).",
  };
}

/** A QR code as one path over a square of `size` modules, its quiet edge included. */
export function qrOf(text: string): Reach["qr"] {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
  const edge = 4;
  let path = "";
  for (let row = 0; row < modules.size; row++)
    for (let column = 0; column < modules.size; column++)
      if (modules.get(row, column)) path += `M${column + edge} ${row + edge}h1v1h-1z`;
  return { size: modules.size + 2 * edge, path };
}

export function reach(request: Request, path: string): Reach {
  const { origin, problem } = reachableOrigin(request);
  const url = `${origin}${path}`;
  return { url, qr: qrOf(url), problem };
}
