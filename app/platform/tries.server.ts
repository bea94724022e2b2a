import { createHash } from "node:crypto";
import { forgetTries, takeTryUnder } from "../../db/queries/tries.server";
import { databases } from "./database.server";
import { environment } from "./env.server";
import { log, requestId } from "./log.server";

/**
 * Limits on guessing: by account or address, and for all together. A try is taken before it is
 * looked at, so that a hundred at once are no more than one after the other.
 */
const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;

interface Limit {
  key: string;
  most: number;
  windowMs: number;
}

/** From one address for one account; and for one account from everywhere. */
const signInLimits = (address: string, email: string): Limit[] => {
  const { SIGN_IN_FAILURES_AN_ACCOUNT: most } = environment();
  // No list of addresses is kept that somebody could read out.
  const account = createHash("sha256").update(email.trim().toLowerCase()).digest("base64url");
  return [
    { key: `sign-in:${account}:${address}`, most: Math.ceil(most / 2), windowMs: 15 * MINUTE_MS },
    { key: `sign-in:${account}`, most, windowMs: 15 * MINUTE_MS },
  ];
};

const pairingLimits = (address: string): Limit[] => {
  const { PAIRING_FAILURES_AN_ADDRESS: most } = environment();
  return [
    { key: `pairing:${address}`, most, windowMs: 10 * MINUTE_MS },
    { key: "pairing", most: most * 20, windowMs: 10 * MINUTE_MS },
  ];
};

/** The code that makes the first team, and asking for a link by mail. */
const codeLimits = (address: string, what: string): Limit[] => [
  { key: `${what}:${address}`, most: 10, windowMs: 15 * MINUTE_MS },
  { key: what, most: 60, windowMs: 15 * MINUTE_MS },
];

/** Where the request came from, as the front says. */
export function addressOf(request: Request): string {
  return request.headers.get("x-client-address") ?? "unknown";
}

export interface Tries {
  /** False: too many, nothing may be looked at. */
  allowed: boolean;
  /** It was right: what was counted for this account or address is forgotten. */
  succeeded(): Promise<void>;
  /** It was wrong: said in the log, with the address. */
  failed(): void;
}

async function take(request: Request, what: string, limits: Limit[]): Promise<Tries> {
  const signIn = databases().auth.database;
  const atMs = Date.now();
  let allowed = true;
  for (const limit of limits) {
    const taken = await takeTryUnder(signIn, limit.key, limit.windowMs, atMs);
    if (taken > limit.most) allowed = false;
  }
  const said = { requestId: requestId(request), address: addressOf(request) };
  if (!allowed) log.warn(said, `${what}: too many tries`);
  return {
    allowed,
    async succeeded() {
      for (const limit of limits) await forgetTries(signIn, limit.key, atMs - DAY_MS);
    },
    failed() {
      log.warn(said, `${what}: refused`);
    },
  };
}

export const takeSignInTry = (request: Request, email: string) =>
  take(request, "sign-in", signInLimits(addressOf(request), email));

export const takePairingTry = (request: Request) =>
  take(request, "pairing a tablet", pairingLimits(addressOf(request)));

export const takeFirstRunTry = (request: Request) =>
  take(request, "first run", codeLimits(addressOf(request), "first-run"));

export const takeResetTry = (request: Request) =>
  take(request, "asking for a password link", codeLimits(addressOf(request), "ask-reset"));
