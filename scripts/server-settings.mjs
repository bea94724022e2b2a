/** The settings of an installation on a PostgreSQL server of somebody's own. Node's modules only. */
import { randomBytes } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { parseEnv } from "node:util";
import { home, OWN_DATABASE, ROLE_SETTINGS, settingsFile, writableFolder } from "./own.mjs";

/**
 * Roles, passwords and addresses for a server. Passwords of an earlier run on the same server are
 * kept, for its roles have them; a role that came with a later version is made now.
 * @param admin the server as somebody who may make roles and databases
 */
export function serverSettings(admin, { newPasswords }) {
  writableFolder(home());
  const file = settingsFile();
  const before = existsSync(file) ? parseEnv(readFileSync(file, "utf8")) : {};
  const name = process.env.DATABASE_NAME ?? OWN_DATABASE;
  const sameServer =
    !newPasswords &&
    before.DATABASE_URL !== undefined &&
    new URL(before.DATABASE_URL).host === new URL(admin).host;
  const passwords = Object.fromEntries(
    Object.entries(ROLE_SETTINGS).map(([role, setting]) => [
      role,
      sameServer && before[setting]
        ? decodeURIComponent(new URL(before[setting]).password)
        : randomBytes(18).toString("base64url"),
    ]),
  );
  const url = (role) => {
    const at = new URL(admin);
    at.username = role;
    at.password = passwords[role];
    at.pathname = `/${name}`;
    return at.href;
  };
  return {
    file,
    name,
    /** What the programs that prepare and restore ask for. */
    env: {
      ADMIN_DATABASE_URL: admin,
      ROLES: JSON.stringify(passwords),
      DATABASE_NAME: name,
      OWNER_DATABASE_URL: url("sprezza_owner"),
      ROLES_ARE: newPasswords ? "renewed" : sameServer ? "known" : "new",
    },
    /** What `npm start` reads. */
    lines: {
      ...Object.fromEntries(
        Object.entries(ROLE_SETTINGS).map(([role, setting]) => [setting, url(role)]),
      ),
      SESSION_SECRET: before.SESSION_SECRET ?? randomBytes(32).toString("hex"),
    },
  };
}

export function writeSettings({ file, lines }) {
  const text = Object.entries(lines).map(([key, value]) => `${key}=${value}\n`);
  writeFileSync(file, text.join(""), { mode: 0o600 });
}
