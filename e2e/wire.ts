import { connect } from "node:net";
import { DEMO_PASSWORD } from "../db/demo/people";
import { type RunningServer, startServer } from "../scripts/run.mjs";

/** What tests below the browser speak: plain HTTP, and bytes. */

const TEST_SETTINGS = { NODE_ENV: "production", SHOW_LOG: "0", LOG_LEVEL: "silent" };

/** A server of the test's own, on the test database. */
export async function ownServer(
  port: number,
  settings: Record<string, string> = {},
): Promise<RunningServer & { base: string }> {
  const server = startServer({
    ...process.env,
    ...TEST_SETTINGS,
    PORT: String(port),
    PORT_OR_NEXT: "1",
    SIGN_IN_TRIES_A_MINUTE: "1000",
    ...settings,
  });
  return Object.assign(server, { base: await server.address });
}

export async function signInAt(base: string, email: string): Promise<string> {
  const response = await fetch(`${base}/sign-in`, {
    method: "POST",
    body: new URLSearchParams({ email, password: DEMO_PASSWORD, to: "/" }),
    redirect: "manual",
  });
  return response.headers
    .getSetCookie()
    .map((one) => one.split(";")[0])
    .join("; ");
}

export async function postForm(
  base: string,
  path: string,
  fields: Record<string, string>,
  headers: Record<string, string> = {},
) {
  const response = await fetch(base + path, {
    method: "POST",
    body: new URLSearchParams(fields),
    headers,
    redirect: "manual",
  });
  return { status: response.status, text: await response.text(), headers: response.headers };
}

/**
 * Writes bytes to the server as they are and gives what comes back, until it closes or `waitMs`
 * have gone. `more` are written after so many milliseconds each.
 */
export function bytes(
  base: string,
  first: string,
  { waitMs = 3000, more = [] as Array<[afterMs: number, text: string]> } = {},
): Promise<{ text: string; closed: boolean; ms: number }> {
  const { hostname, port } = new URL(base);
  const startedAt = Date.now();
  return new Promise((resolve) => {
    const socket = connect(Number(port), hostname);
    let text = "";
    const timers = [setTimeout(() => done(false), waitMs)];
    const done = (closed: boolean) => {
      for (const timer of timers) clearTimeout(timer);
      socket.destroy();
      resolve({ text, closed, ms: Date.now() - startedAt });
    };
    socket.on("connect", () => {
      socket.write(first);
      for (const [afterMs, piece] of more)
        timers.push(setTimeout(() => socket.writable && socket.write(piece), afterMs));
    });
    socket.on("data", (piece) => {
      text += piece.toString("latin1");
    });
    socket.on("close", () => done(true));
    socket.on("error", () => done(true));
  });
}
