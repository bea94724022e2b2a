/**
 * Makes roles and a database where they are missing, and brings its tables up to date. Run with
 * ADMIN_DATABASE_URL (a superuser), ROLES (role → password as JSON), DATABASE_NAME and
 * OWNER_DATABASE_URL.
 */
import { drizzle } from "drizzle-orm/postgres-js";
import { migrate } from "drizzle-orm/postgres-js/migrator";
import postgres from "postgres";

const { ADMIN_DATABASE_URL, ROLES, DATABASE_NAME, OWNER_DATABASE_URL, FRESH } = process.env;
if (!OWNER_DATABASE_URL) {
  console.error("OWNER_DATABASE_URL is not set: the database as its owner. See docs/settings.md.");
  process.exit(1);
}

if (ADMIN_DATABASE_URL && ROLES && DATABASE_NAME) {
  const admin = postgres(ADMIN_DATABASE_URL, { max: 1, onnotice: () => {} });
  const roles = JSON.parse(ROLES) as Record<string, string>;
  for (const [role, password] of Object.entries(roles)) {
    if (role === "postgres") continue;
    const [known] = await admin`SELECT 1 FROM pg_roles WHERE rolname = ${role}`;
    if (!known) {
      await admin.unsafe(
        `CREATE ROLE ${role} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOBYPASSRLS PASSWORD '${password}'`,
      );
    }
  }
  if (FRESH) await admin.unsafe(`DROP DATABASE IF EXISTS ${DATABASE_NAME} WITH (FORCE)`);
  const [known] = await admin`SELECT 1 FROM pg_database WHERE datname = ${DATABASE_NAME}`;
  if (!known) await admin.unsafe(`CREATE DATABASE ${DATABASE_NAME} OWNER sprezza_owner`);
  await admin.end();
}

const owner = postgres(OWNER_DATABASE_URL, { max: 1, onnotice: () => {} });
await migrate(drizzle(owner), { migrationsFolder: "db/migrations" });
// A start asks whether the tables are of its version.
await owner.unsafe("GRANT USAGE ON SCHEMA drizzle TO sprezza_auth");
await owner.unsafe("GRANT SELECT ON drizzle.__drizzle_migrations TO sprezza_auth");
await owner.end();
