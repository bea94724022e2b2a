import { betterAuth } from "better-auth";
import { drizzleAdapter } from "better-auth/adapters/drizzle";
import { LEAST_PASSWORD } from "../../core/settings/sign-in";
import * as schema from "../../db/schema/auth";
import { databases } from "./database.server";
import { environment } from "./env.server";

function make() {
  const settings = environment();
  return betterAuth({
    appName: "Sprezza",
    secret: settings.SESSION_SECRET,
    telemetry: { enabled: false },
    // The guard has compared Origin and address already; the library would otherwise take its
    // own from the environment, and refuse every other name of this server.
    trustedOrigins: (request) => (request ? [new URL(request.url).origin] : []),
    logger: { disabled: true },
    database: drizzleAdapter(databases().auth.database, { provider: "pg", schema }),
    // Nobody signs up by themselves: an owner adds people to the team.
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: LEAST_PASSWORD },
    session: { expiresIn: 60 * 60 * 24 * 14, updateAge: 60 * 60 * 24 },
    rateLimit: {
      enabled: true,
      storage: "database",
      customRules: {
        "/sign-in/email": { window: 60, max: settings.SIGN_IN_TRIES_A_MINUTE },
      },
    },
    advanced: {
      cookiePrefix: "sprezza",
      useSecureCookies: settings.TLS_CERT !== undefined,
      // Set by our own server from the connection; what a client sends is overwritten.
      ipAddress: { ipAddressHeaders: ["x-client-address"] },
    },
  });
}

type Auth = ReturnType<typeof make>;
let instance: Auth | undefined;

export function auth(): Auth {
  instance ??= make();
  return instance;
}

/** A password as it is kept. */
export { hashPassword } from "better-auth/crypto";

/** What a sign-in came to: its cookies and whose it is, or the status that refused it. */
export type SignedIn =
  | { ok: true; userId: string; cookies: string[] }
  | { ok: false; status: number };

/** Signs in with address and password, through the library's own limit. */
export async function signIn(
  request: Request,
  who: { email: string; password: string },
): Promise<SignedIn> {
  const response = await callAuth(request, "/sign-in/email", who);
  if (!response.ok) return { ok: false, status: response.status };
  const body = (await response.json()) as { user?: { id?: string } };
  const userId = body.user?.id;
  if (!userId) return { ok: false, status: 500 };
  return { ok: true, userId, cookies: response.headers.getSetCookie() };
}

/** Whoever is signed in here, whether or not a team lets them in. */
export async function signedInUser(request: Request) {
  if (!(request.headers.get("cookie") ?? "").includes("sprezza.session_token")) return undefined;
  const session = await auth().api.getSession({ headers: request.headers });
  return session ? { id: session.user.id, email: session.user.email } : undefined;
}

/** Calls the sign-in library as if over HTTP, so that its rate limit counts. */
export function callAuth(request: Request, path: string, body: unknown): Promise<Response> {
  const url = new URL(request.url);
  const headers = new Headers({ "content-type": "application/json", origin: url.origin });
  for (const name of ["cookie", "x-client-address", "user-agent"]) {
    const value = request.headers.get(name);
    if (value !== null) headers.set(name, value);
  }
  return auth().handler(
    new Request(`${url.origin}/api/auth${path}`, {
      method: "POST",
      headers,
      body: JSON.stringify(body),
    }),
  );
}
