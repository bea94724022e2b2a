/** Makes a password link for an address, in the database that AUTH_DATABASE_URL names. */
import { createHash, randomBytes } from "node:crypto";
import { uuidv7 } from "uuidv7";
import { connect } from "../db/connection.server";
import { keepReset, userByEmail } from "../db/queries/sign-ins.server";

const HOUR_MS = 3_600_000;
const { AUTH_DATABASE_URL, PUBLIC_URL } = process.env;
const email = process.argv[2] ?? "";
if (!AUTH_DATABASE_URL) {
  console.error("AUTH_DATABASE_URL is not set. See docs/settings.md.");
  process.exit(1);
}
const { database, close } = connect(AUTH_DATABASE_URL, 1);
try {
  const user = await userByEmail(database, email);
  if (!user) {
    console.error(`Nobody signs in as ${email} here. Check the address.`);
    process.exitCode = 1;
  } else {
    const token = randomBytes(32).toString("base64url");
    const at = new Date();
    await keepReset(database, {
      id: uuidv7(),
      userId: user.id,
      tokenHash: createHash("sha256").update(token).digest("hex"),
      by: "terminal",
      expiresAt: new Date(at.getTime() + HOUR_MS),
      createdAt: at,
    });
    const origin = PUBLIC_URL ? new URL(PUBLIC_URL).origin : "";
    console.log(`For ${user.name}, once, within the hour: open this on the server's address:`);
    console.log(`${origin}/reset/${token}`);
  }
} finally {
  await close();
}
