import { z } from "zod";
import type { KeptColumn, KeptTable } from "./catalog.server";

/**
 * The version of what an archive's files hold. It is raised when a migration changes a team's tables
 * (a test compares the newest fixture with the database), with a step in archive-versions.ts and a
 * fixture of the version before.
 */
export const ARCHIVE_VERSION = 5;

/** Team tables that stay with the installation, and why: no secret leaves, and nothing of a device. */
export const LEFT_OUT: Readonly<Record<string, string>> = {
  team: "its name and settings stand in the manifest",
  membership: "sign-ins stay here; the people go as people.json",
  invitation: "links stay here; who waits goes as people.json",
  rack_device: "tablets are paired anew",
  device_pairing: "tablets are paired anew",
  device_clock: "clocks of tablets that stay here",
  calendar_feed: "a calendar's address is a secret",
  submission: "forms that were sent, for a day",
  session_sum: "worked out of the log anew",
  work_sum: "worked out of the log anew",
};

export const PEOPLE_FILE = "people.json";
export const dataFile = (table: string) => `data/${table}.json`;
export const schemaFile = (table: string) => `schema/${table}.schema.json`;

/** Facts of the team that are no row of a table; more may come with a version. */
export const TeamSettings = z.looseObject({
  unit: z.enum(["kg", "lb"]),
  zone: z.string().optional(),
  school_id: z.uuid().nullish(),
  first_hour: z.unknown().optional(),
});

const FileFacts = z.object({
  path: z.string().max(200),
  rows: z.number().int().min(0),
  bytes: z.number().int().min(0),
  sha256: z.string(),
});
export type FileFacts = z.infer<typeof FileFacts>;

export const ArchiveManifest = z.object({
  format: z.literal("sprezza-archive"),
  version: z.number().int(),
  /** The one block in which two archives of the same rows differ. */
  team: z.object({
    id: z.uuid(),
    name: z.string().min(1).max(120),
    madeAt: z.string(),
    by: z.string(),
    application: z.string(),
  }),
  settings: TeamSettings,
  files: z.array(FileFacts).max(400),
});
export type ArchiveManifest = z.infer<typeof ArchiveManifest>;

/** Somebody of the team: a sign-in there, an invitation here. */
export const ArchivePerson = z.object({
  id: z.uuid(),
  name: z.string(),
  role: z.enum(["owner", "coach", "assistant", "athlete"]),
  athlete_id: z.uuid().nullable(),
});
export type ArchivePerson = z.infer<typeof ArchivePerson>;

/** A team's tables that go into its archive, in the order in which they come back. */
export const archived = (tables: readonly KeptTable[]) =>
  tables.filter((table) => table.ofTeam && LEFT_OUT[table.name] === undefined);

/** Columns that go out: all but the team, which is the archive's own. */
export const archivedColumns = (table: KeptTable) =>
  table.columns.filter((column) => column.name !== "team_id");

const JSON_TYPES: Readonly<Record<string, object>> = {
  uuid: { type: "string", format: "uuid" },
  text: { type: "string" },
  integer: { type: "integer" },
  bigint: { type: "integer" },
  "double precision": { type: "number" },
  boolean: { type: "boolean" },
  date: { type: "string", format: "date" },
  "timestamp with time zone": { type: "string", format: "date-time" },
  jsonb: {},
};

function jsonType({ type, nullable }: KeptColumn): object {
  const known = type.endsWith("[]")
    ? { type: "array", items: JSON_TYPES[type.slice(0, -2)] ?? {} }
    : (JSON_TYPES[type] ?? {});
  return nullable ? { anyOf: [known, { type: "null" }] } : known;
}

/** JSON Schema (2020-12) of a table's file. */
export function tableSchema(table: KeptTable): string {
  const columns = archivedColumns(table);
  return `${JSON.stringify(
    {
      $schema: "https://json-schema.org/draft/2020-12/schema",
      title: table.name,
      type: "array",
      items: {
        type: "object",
        properties: Object.fromEntries(columns.map((one) => [one.name, jsonType(one)])),
        required: columns.map((one) => one.name),
        additionalProperties: false,
      },
    },
    null,
    1,
  )}\n`;
}

/** The columns that a table's file has, by its own schema. */
export const ColumnsOfSchema = z.object({
  items: z.object({ properties: z.record(z.string(), z.unknown()) }),
});
