import type postgres from "postgres";

/**
 * What is known of roles that are on a server already: `known` (their passwords are these), `new`
 * (they should not be there), `renewed` (they get these).
 */
export type RolesAre = "known" | "new" | "renewed";

const quoted = (text: string) => `'${text.replaceAll("'", "''")}'`;

/**
 * Makes the roles that are missing, none with a power beyond its grants.
 * @param passwords role to password; the server's own superuser among them is left out
 * @returns a role that should not be there and is; then nothing more was made
 */
export async function makeRoles(
  admin: postgres.Sql,
  passwords: Record<string, string>,
  rolesAre: RolesAre,
): Promise<string | undefined> {
  for (const [role, password] of Object.entries(passwords)) {
    if (role === "postgres") continue;
    const [there] = await admin`SELECT 1 FROM pg_roles WHERE rolname = ${role}`;
    if (there && rolesAre === "new") return role;
    if (!there) {
      await admin.unsafe(
        `CREATE ROLE ${role} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOBYPASSRLS PASSWORD ${quoted(password)}`,
      );
    } else if (rolesAre === "renewed") {
      await admin.unsafe(`ALTER ROLE ${role} PASSWORD ${quoted(password)}`);
    }
  }
  // Somebody who is no superuser makes a database for a role only as its member.
  await admin.unsafe("GRANT sprezza_owner TO CURRENT_USER").catch(() => {});
  return undefined;
}
