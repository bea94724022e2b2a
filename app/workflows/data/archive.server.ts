import { createReadStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import path from "node:path";
import { Readable } from "node:stream";
import { writeArchive } from "../../../db/kept/archive.server";
import { noteEveryReasonRead } from "../../../db/queries/person.server";
import { readTeam } from "../../../db/queries/squads.server";
import { now } from "../../platform/clock.server";
import { inTeam, onOwnConnection } from "../../platform/database.server";
import { environment } from "../../platform/env.server";
import type { Principal } from "../../platform/rights";
import { EXPORTS, exportCsv } from "./export.server";

/** A name that every system keeps. */
const plainName = (name: string) =>
  name
    .normalize("NFKD")
    .replace(/[^A-Za-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .toLowerCase()
    .slice(0, 40) || "team";

/**
 * Writes the team's archive and gives it as a stream; the file is gone when it has been read, or
 * when nobody reads it any more.
 */
export async function archiveOut(principal: Principal): Promise<{
  stream: ReadableStream<Uint8Array>;
  bytes: number;
  name: string;
}> {
  const at = now();
  const team = await inTeam(principal, (tx) => readTeam(tx));
  const folder = await mkdtemp(path.join(tmpdir(), "sprezza-archive-"));
  const leave = () => rm(folder, { recursive: true, force: true });
  try {
    const file = path.join(folder, "archive.zip");
    const { bytes } = await onOwnConnection(environment().DATABASE_URL, (client) =>
      writeArchive(client, file, {
        teamId: principal.teamId,
        by: principal.name,
        at,
        readable: async (snapshot) => {
          const tables = [];
          for (const what of EXPORTS)
            tables.push({
              name: `${what}.csv`,
              text: await exportCsv(principal, what, snapshot),
            });
          return tables;
        },
      }),
    );
    // Afterwards: the archive is as the team was before it was taken.
    await inTeam(principal, (tx) =>
      noteEveryReasonRead(tx, { by: `${principal.name}, in an archive`, at }),
    );
    const read = createReadStream(file);
    read.once("close", () => void leave());
    return {
      stream: Readable.toWeb(read) as ReadableStream<Uint8Array>,
      bytes,
      name: `sprezza-${plainName(team?.name ?? "")}-${at.toISOString().slice(0, 10)}.zip`,
    };
  } catch (error) {
    await leave();
    throw error;
  }
}
