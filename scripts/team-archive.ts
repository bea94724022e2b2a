/** Takes a team out of the database, or brings one in, as team.mjs asks. */
import { createHash, randomBytes } from "node:crypto";
import postgres from "postgres";
import { uuidv7 } from "uuidv7";
import { connect } from "../db/connection.server";
import { writeArchive } from "../db/kept/archive.server";
import { importArchive, openArchive } from "../db/kept/archive-import.server";
import { KeptProblem } from "../db/kept/problem";
import { giveLink, openInvitations } from "../db/queries/members.server";
import { teamsByName } from "../db/queries/people.server";
import { claimInstallation } from "../db/queries/sign-ins.server";
import { withTeam } from "../db/team.server";
import { serverWords } from "./server-words";

const LINK_DAYS = 14;
const {
  DATABASE_URL = "",
  AUTH_DATABASE_URL = "",
  IMPORT_DATABASE_URL = "",
  PUBLIC_URL,
} = process.env;
const [what, ...args] = process.argv.slice(2);
const file = args.at(-1) ?? "";

async function onClient<T>(url: string, work: (client: postgres.Sql) => Promise<T>): Promise<T> {
  const client = postgres(url, { max: 1, onnotice: () => {}, connect_timeout: 10 });
  try {
    return await work(client);
  } finally {
    await client.end({ timeout: 5 });
  }
}

async function takeOut(name: string): Promise<void> {
  const signIn = connect(AUTH_DATABASE_URL, 1);
  const teams = await teamsByName(signIn.database, name).finally(() => signIn.close());
  const [team] = teams;
  if (!team) throw new KeptProblem("no-team", `No team is called "${name}" here. Check the name.`);
  if (teams.length > 1)
    throw new KeptProblem(
      "several",
      `${teams.length} teams are called "${name}". Give one another name, under People.`,
    );
  const done = await onClient(DATABASE_URL, (client) =>
    writeArchive(client, file, { teamId: team.id, by: "terminal", at: new Date() }),
  );
  console.log(`${team.name}: ${done.rows} rows in ${file} (${Math.ceil(done.bytes / 1024)} kB).`);
}

/** Everybody of the archive waits for a link; its owners get theirs here, shown once. */
async function bringIn(): Promise<void> {
  const archive = await openArchive(file);
  const at = new Date();
  const teamId = uuidv7();
  const { name } = archive.manifest.team;
  const imported = await onClient(IMPORT_DATABASE_URL, (client) =>
    importArchive(client, archive, { teamId, name, importer: undefined, by: "terminal", at }),
  ).finally(() => archive.reader.close());
  console.log(`${name} is in: ${imported.rows} rows, ${imported.invited} people wait for a link.`);
  if (imported.erased > 0)
    console.log(`${imported.erased} of them had been erased here and were erased again.`);
  const signIn = connect(AUTH_DATABASE_URL, 1);
  await claimInstallation(signIn.database, "own", at).finally(() => signIn.close());
  const app = connect(DATABASE_URL, 1);
  try {
    await withTeam(app.database, teamId, async (tx) => {
      for (const one of await openInvitations(tx, at)) {
        if (one.role !== "owner") continue;
        const token = randomBytes(32).toString("base64url");
        await giveLink(tx, one.id, {
          tokenHash: createHash("sha256").update(token).digest("hex"),
          expiresAt: new Date(at.getTime() + LINK_DAYS * 86_400_000),
        });
        const origin = PUBLIC_URL ? new URL(PUBLIC_URL).origin : "";
        console.log(
          `For ${one.name}, its owner, once, within ${LINK_DAYS} days: open this on the server's address:\n${origin}/join/${token}`,
        );
      }
    });
  } finally {
    await app.close();
  }
}

try {
  await (what === "export" ? takeOut(args.slice(0, -1).join(" ")) : bringIn());
} catch (error) {
  const words = error instanceof KeptProblem ? error.message : serverWords(error, "DATABASE_URL");
  if (!words) throw error;
  console.error(words);
  process.exit(1);
}
