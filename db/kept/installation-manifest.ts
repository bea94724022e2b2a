import { z } from "zod";

/** The version of the file itself; what its tables look like follows from the migrations. */
export const BACKUP_FORMAT = 1;

/** A migration that the database had, as the migrations' own list knows it. */
const Step = z.object({ hash: z.string(), at: z.number() });
export type Step = z.infer<typeof Step>;

/** Somebody who was erased, by ids only. */
export const ErasedPerson = z.object({
  teamId: z.uuid(),
  athleteId: z.uuid(),
  at: z.string(),
  by: z.string(),
});
export type ErasedPerson = z.infer<typeof ErasedPerson>;

/** What stands first of all in a backup. */
export const BackupManifest = z.object({
  format: z.literal("sprezza-backup"),
  version: z.number().int(),
  /** The application's own version, for people. */
  application: z.string(),
  madeAt: z.string(),
  installation: z.string(),
  steps: z.array(Step),
  erased: z.array(ErasedPerson),
  tables: z.array(
    z.object({
      schema: z.string(),
      name: z.string(),
      columns: z.array(z.string()),
      file: z.string(),
      rows: z.number().int(),
      bytes: z.number().int(),
      sha256: z.string(),
    }),
  ),
});
export type BackupManifest = z.infer<typeof BackupManifest>;
