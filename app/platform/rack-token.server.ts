import { createHash, randomBytes, randomInt, timingSafeEqual } from "node:crypto";

export const RACK_COOKIE = "sprezza_rack";

export function hashSecret(secret: string): string {
  return createHash("sha256").update(secret).digest("hex");
}

export function sameHash(a: string, b: string): boolean {
  return a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
}

export function newToken(): string {
  return randomBytes(32).toString("base64url");
}

/** Letters and digits that cannot be taken for one another. */
const HANDLE_LETTERS = "ABCDEFGHJKMNPQRSTVWXYZ";

/** "KTW-482913": the handle finds the pairing, the six digits open it. */
export function newPairingCode(): { handle: string; secret: string } {
  let handle = "";
  for (let i = 0; i < 3; i++) handle += HANDLE_LETTERS[randomInt(HANDLE_LETTERS.length)];
  return { handle, secret: String(randomInt(1_000_000)).padStart(6, "0") };
}

export function readCookie(request: Request, name: string): string | undefined {
  for (const part of (request.headers.get("cookie") ?? "").split(";")) {
    const at = part.indexOf("=");
    if (at > 0 && part.slice(0, at).trim() === name) return part.slice(at + 1).trim();
  }
  return undefined;
}

export function rackCookie(token: string, secure: boolean): string {
  const days = 400;
  return `${RACK_COOKIE}=${token}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${days * 86400}${secure ? "; Secure" : ""}`;
}
