import { z } from "zod";

/** The environment, parsed once. What each setting means stands in docs/settings.md. */
const Environment = z
  .object({
    NODE_ENV: z.enum(["development", "production", "test"]).default("production"),
    DATABASE_URL: z.url(),
    AUTH_DATABASE_URL: z.url(),
    SESSION_SECRET: z.string().min(32),
    /** The role that adds an archive's rows to a new team; without it none comes in. */
    IMPORT_DATABASE_URL: z.url().optional(),
    /** Where the daily backups are: whoever is erased is noted there at once. */
    BACKUP_FOLDER: z.string().optional(),
    BACKUP_AT: z.string().default("03:30"),
    BACKUP_KEEP: z.coerce.number().int().positive().default(14),
    HOST: z.string().default("127.0.0.1"),
    PORT: z.coerce.number().int().min(0).max(65535).default(3000),
    TLS_KEY: z.string().optional(),
    TLS_CERT: z.string().optional(),
    /** How people and tablets reach this server, where it is not the address in a coach's browser. */
    PUBLIC_URL: z.url().optional(),
    /** The mail server that links may be sent by; without it they are handed over. */
    SMTP_URL: z.url().optional(),
    MAIL_FROM: z.string().default("Sprezza <sprezza@localhost>"),
    /** Printed by the start: opens the page that makes the first team. */
    FIRST_RUN_CODE: z.string().default(""),
    /** Fixes the clock for tests and pictures, ISO 8601. */
    SPREZZA_NOW: z.iso.datetime({ offset: true }).optional(),
    /** Days that browsers keep to HTTPS; only with a certificate that every visitor trusts. */
    HSTS_DAYS: z.coerce.number().int().min(0).max(3650).default(0),
    SIGN_IN_TRIES_A_MINUTE: z.coerce.number().int().positive().default(8),
    SIGN_IN_FAILURES_AN_ACCOUNT: z.coerce.number().int().positive().default(20),
    PAIRING_FAILURES_AN_ADDRESS: z.coerce.number().int().positive().default(15),
    /** Set by the supervisor: the secret of the front, which process this is, whether it ran before. */
    FRONT_KEY: z.string().default(""),
    SPREZZA_PROCESS: z.enum(["pages", "floor"]).optional(),
    /** When the clock that SPREZZA_NOW fixes was started, ms: the same for every process. */
    CLOCK_STARTED_MS: z.coerce.number().optional(),
    STARTED_AGAIN: z.enum(["0", "1"]).default("0"),
    /** Who collects figures at /metrics says it; without it there are none. */
    METRICS_TOKEN: z.string().min(20, "at least 20 characters").optional(),
    LOG_LEVEL: z.enum(["silent", "fatal", "error", "warn", "info", "debug"]).default("info"),
    /** Shows the demo sign-in on the sign-in page. */
    SPREZZA_DEMO: z.enum(["0", "1"]).default("0"),
  })
  // Whoever asks for a letter says which host they asked: it must not decide where a link leads.
  .refine((settings) => !settings.SMTP_URL || settings.PUBLIC_URL, {
    message: "letters carry the server's address: set PUBLIC_URL too",
    path: ["SMTP_URL"],
  });

export type Environment = z.infer<typeof Environment>;

let parsed: Environment | undefined;

export function environment(): Environment {
  if (parsed) return parsed;
  const result = Environment.safeParse(process.env);
  if (!result.success) {
    const lines = result.error.issues.map((issue) => `  ${issue.path.join(".")}: ${issue.message}`);
    throw new Error(`The environment is not complete:\n${lines.join("\n")}\nSee docs/settings.md.`);
  }
  parsed = result.data;
  return parsed;
}
