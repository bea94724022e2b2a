/**
 * Makes roles and a database where they are missing, and brings its tables up to date. Run with
 * ADMIN_DATABASE_URL (somebody who may make both), ROLES (role → password as JSON), DATABASE_NAME
 * and OWNER_DATABASE_URL. ROLES_ARE says what is known of roles that are there already: `known`
 * (their passwords are these), `new` (they should not be there), `renewed` (they get these).
 */
import { drizzle } from "drizzle-orm/postgres-js";
import { migrate } from "drizzle-orm/postgres-js/migrator";
import postgres from "postgres";

const { ADMIN_DATABASE_URL, ROLES, DATABASE_NAME, OWNER_DATABASE_URL, FRESH } = process.env;
const rolesAre = process.env.ROLES_ARE ?? "known";
if (!OWNER_DATABASE_URL) {
  console.error("OWNER_DATABASE_URL is not set: the database as its owner. See docs/settings.md.");
  process.exit(1);
}

/** What went wrong on somebody's own server, as a sentence with a way on. */
function sentence(error: unknown): string | undefined {
  const { code, message } = error as { code?: string; message: string };
  const known: Record<string, string> = {
    ECONNREFUSED: "The PostgreSQL server does not answer. Start it, or correct ADMIN_DATABASE_URL.",
    ENOTFOUND: "There is no such host. Correct ADMIN_DATABASE_URL.",
    CONNECT_TIMEOUT: "The PostgreSQL server does not answer. Correct ADMIN_DATABASE_URL.",
    "28P01":
      "The server refused the password. Correct ADMIN_DATABASE_URL, or run this with -- --new-passwords.",
    "28000": "The server refused this user. Correct ADMIN_DATABASE_URL.",
    "42501": `This user may not do that (${message}). Name one in ADMIN_DATABASE_URL who may make roles and databases.`,
  };
  return code === undefined ? undefined : known[code];
}

function quoted(text: string): string {
  return `'${text.replaceAll("'", "''")}'`;
}

async function makeDatabase(adminUrl: string, passwords: Record<string, string>, name: string) {
  const admin = postgres(adminUrl, { max: 1, onnotice: () => {}, connect_timeout: 10 });
  try {
    for (const [role, password] of Object.entries(passwords)) {
      if (role === "postgres") continue;
      const [there] = await admin`SELECT 1 FROM pg_roles WHERE rolname = ${role}`;
      if (there && rolesAre === "new") {
        console.error(
          `The role ${role} is on this server already. Start with the settings that were written when it was made, or give it a new password: npm run database:prepare -- --new-passwords (what else uses it then needs the new settings).`,
        );
        process.exit(1);
      }
      if (!there) {
        await admin.unsafe(
          `CREATE ROLE ${role} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOBYPASSRLS PASSWORD ${quoted(password)}`,
        );
      } else if (rolesAre === "renewed") {
        await admin.unsafe(`ALTER ROLE ${role} PASSWORD ${quoted(password)}`);
      }
    }
    if (FRESH) await admin.unsafe(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    const [there] = await admin`SELECT 1 FROM pg_database WHERE datname = ${name}`;
    if (!there) {
      // Somebody who is no superuser makes a database for a role only as its member.
      await admin.unsafe("GRANT sprezza_owner TO CURRENT_USER").catch(() => {});
      await admin.unsafe(`CREATE DATABASE ${name} OWNER sprezza_owner`);
    }
  } finally {
    await admin.end();
  }
}

try {
  if (ADMIN_DATABASE_URL && ROLES && DATABASE_NAME) {
    if (!/^[a-z_][a-z0-9_]{0,62}$/.test(DATABASE_NAME)) {
      console.error("DATABASE_NAME is small letters, digits and underscores, at most 63.");
      process.exit(1);
    }
    await makeDatabase(ADMIN_DATABASE_URL, JSON.parse(ROLES), DATABASE_NAME);
  }
  const owner = postgres(OWNER_DATABASE_URL, { max: 1, onnotice: () => {} });
  await migrate(drizzle(owner), { migrationsFolder: "db/migrations" });
  // A start asks whether the tables are of its version.
  await owner.unsafe("GRANT USAGE ON SCHEMA drizzle TO sprezza_auth");
  await owner.unsafe("GRANT SELECT ON drizzle.__drizzle_migrations TO sprezza_auth");
  await owner.end();
} catch (error) {
  const words = sentence(error);
  if (!words) throw error;
  console.error(words);
  process.exit(1);
}
