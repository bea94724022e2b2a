import { createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { uuidv7 } from "uuidv7";
import { type Imported, importArchive, openArchive } from "../../../db/kept/archive-import.server";
import { KeptProblem } from "../../../db/kept/problem";
import { waitTurn } from "../../../db/queries/stock.server";
import { now } from "../../platform/clock.server";
import { inTeam, onOwnConnection } from "../../platform/database.server";
import { environment } from "../../platform/env.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { TooLarge } from "../../platform/request-body.server";
import type { Person } from "./person.server";
import { mayMakeTeam } from "./teams.server";

const NO_ROLE = failed(
  "no-role",
  "This server has no role that brings archives in. Whoever runs it makes one: npm run database:prepare, then a start with its settings.",
);

/** What was sent, in a file that is gone afterwards. */
async function inFile<T>(
  body: ReadableStream<Uint8Array>,
  work: (file: string) => Promise<T>,
): Promise<T> {
  const folder = await mkdtemp(path.join(tmpdir(), "sprezza-archive-"));
  try {
    const file = path.join(folder, "archive.zip");
    await pipeline(
      Readable.fromWeb(body as Parameters<typeof Readable.fromWeb>[0]),
      createWriteStream(file, { mode: 0o600 }),
    );
    return await work(file);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/**
 * Makes a team of an archive, for somebody who owns one already: all of it or nothing. An owner of
 * the archive who has the same name is this person; the others wait for links of their own.
 * @param name what it is called here; empty for its own name
 */
export async function bringTeam(
  principal: Person,
  body: ReadableStream<Uint8Array> | null,
  name: string,
): Promise<Outcome<Imported>> {
  const url = environment().IMPORT_DATABASE_URL;
  if (!url) return NO_ROLE;
  if (!body) return failed("nothing", "No file was sent. Choose the archive, then bring it in.");
  try {
    return await inFile(body, (file) => bringFile(principal, url, file, name));
  } catch (error) {
    for (let at: unknown = error; at instanceof Error; at = at.cause) {
      if (at instanceof TooLarge)
        return failed(
          "too-large",
          `${at.message} Whoever runs the server brings a larger archive in with npm run team:import -- FILE.`,
        );
      if (at instanceof KeptProblem) return failed(at.code, at.message);
      if ((at as { code?: string }).code === "ENOSPC")
        return failed("disk-full", "The server's disk is full: nothing was brought in.");
    }
    throw error;
  }
}

async function bringFile(
  principal: Person,
  url: string,
  file: string,
  name: string,
): Promise<Outcome<Imported>> {
  const archive = await openArchive(file);
  try {
    const wanted = { team: name || archive.manifest.team.name };
    // One after the other: a second press finds the team that the first one made.
    return await inTeam(principal, async (tx) => {
      await waitTurn(tx, `teams of ${principal.userId}`);
      const refused = await mayMakeTeam(principal, wanted.team);
      if (refused) return refused;
      const self = archive.people.find(
        (one) => one.role === "owner" && one.name === principal.name,
      );
      const imported = await onOwnConnection(url, (client) =>
        importArchive(client, archive, {
          teamId: uuidv7(),
          name: wanted.team,
          importer: { userId: principal.userId, name: principal.name, personId: self?.id },
          by: principal.name,
          at: now(),
        }),
      );
      return done(imported);
    });
  } finally {
    archive.reader.close();
  }
}
