import { z } from "zod";
import { readGearItem, type WrittenItem, writeGearItem } from "../../core/gear/fields";
import { GEAR, GEAR_KINDS, type GearItem, type GearKind, isGearKind } from "../../core/gear/kinds";
import { csvOf, rowsOf } from "./delimited";
import { readJson } from "./json";

/** What the gear pages send, and rooms as files. */

const name = z.string().trim().min(2, "Name the room.").max(60);
const zone = z
  .string()
  .trim()
  .refine((text) => {
    try {
      new Intl.DateTimeFormat("en", { timeZone: text });
      return text !== "";
    } catch {
      return false;
    }
  }, "A time zone, for example Europe/Oslo.");

export const RoomForm = z.object({
  name,
  zone,
  /** A room to copy, or nothing. */
  from: z.union([z.literal(""), z.uuid()]).default(""),
});

export const ItemForm = z
  .object({
    id: z.union([z.literal(""), z.uuid()]).default(""),
    kind: z.enum(GEAR_KINDS),
    name: z.string().max(60, "A shorter name.").default(""),
    count: z.string().max(6).default("1"),
  })
  .loose()
  .transform(({ id, kind, name, count, ...rest }) => ({
    id,
    written: {
      kind,
      name,
      count,
      fields: Object.fromEntries(
        GEAR[kind].fields.map((field) => [field.name, String(rest[field.name] ?? "")]),
      ),
    } satisfies WrittenItem,
  }));

export const InspectionForm = z.object({
  pieceId: z.uuid(),
  finding: z.enum(["sound", "worn", "nicked"]),
  note: z.string().trim().max(200).default(""),
});

/** "1-4, 6": the racks that one form describes, or undefined where it is no list of numbers. */
export function rackNumbers(text: string): number[] | undefined {
  const numbers: number[] = [];
  for (const part of text.split(/[\s,;]+/).filter((one) => one !== "")) {
    const match = /^(\d{1,2})(?:[-–](\d{1,2}))?$/.exec(part);
    const from = Number(match?.[1] ?? 0);
    const to = Number(match?.[2] ?? from);
    if (from < 1 || to < from) return undefined;
    for (let n = from; n <= to; n++) numbers.push(n);
  }
  return numbers.length > 0 ? [...new Set(numbers)] : undefined;
}

export interface RoomDocument {
  name: string;
  zone: string;
  items: GearItem[];
}

export const ROOM_FORMAT = "sprezza-room";

const JsonRoom = z.object({
  format: z.literal(ROOM_FORMAT),
  version: z.literal(1),
  name,
  zone,
  items: z.array(
    z.object({
      kind: z.enum(GEAR_KINDS),
      name: z.string(),
      count: z.number().int().default(1),
      fields: z.record(z.string(), z.string()).default({}),
    }),
  ),
});

export function roomAsJson(room: RoomDocument): string {
  const items = room.items.map((item) => ({ ...writeGearItem(item), count: item.count }));
  return `${JSON.stringify({ format: ROOM_FORMAT, version: 1, name: room.name, zone: room.zone, items }, null, 2)}\n`;
}

/** One line a piece; the columns are the facts that some piece of the room has. */
export function roomAsCsv(room: RoomDocument): string {
  const written = room.items.map((item) => writeGearItem(item));
  const columns = [
    ...new Set(GEAR_KINDS.flatMap((kind) => GEAR[kind].fields.map((field) => field.name))),
  ].filter((column) => written.some((one) => one.fields[column] !== undefined));
  return csvOf(
    ["kind", "name", "count", ...columns],
    written.map((one) => [
      one.kind,
      one.name,
      one.count,
      ...columns.map((column) => one.fields[column] ?? ""),
    ]),
  );
}

export interface RoomFileProblem {
  /** Line of a table, or number of the piece in JSON; 0 for the file. */
  line: number;
  text: string;
}

export type RoomFileReading =
  | { ok: true; room: Partial<Pick<RoomDocument, "name" | "zone">> & { items: GearItem[] } }
  | { ok: false; problems: RoomFileProblem[] };

function readItems(written: ReadonlyArray<{ line: number; item: WrittenItem }>): RoomFileReading {
  const items: GearItem[] = [];
  const problems: RoomFileProblem[] = [];
  for (const { line, item } of written) {
    const read = readGearItem(item);
    if (read.ok) items.push(read.item);
    else {
      for (const [field, text] of Object.entries(read.problems)) {
        problems.push({ line, text: `${item.name || item.kind}, ${field}: ${text}` });
      }
    }
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, room: { items } };
}

/** A room from a file, JSON or a table; every fault with its line. */
export function readRoomFile(text: string): RoomFileReading {
  if (text.trimStart().startsWith("{")) {
    const file = readJson(text);
    if (!file.ok) return { ok: false, problems: [{ line: 0, text: file.why }] };
    const parsed = JsonRoom.safeParse(file.raw);
    if (!parsed.success) {
      return {
        ok: false,
        problems: parsed.error.issues.slice(0, 20).map((issue) => ({
          line: issue.path[0] === "items" ? Number(issue.path[1]) + 1 : 0,
          text: `${issue.path.join(" › ") || "The file"}: ${issue.message}`,
        })),
      };
    }
    const read = readItems(
      parsed.data.items.map((item, i) => ({
        line: i + 1,
        item: { ...item, count: String(item.count) },
      })),
    );
    return read.ok
      ? {
          ok: true,
          room: { name: parsed.data.name, zone: parsed.data.zone, items: read.room.items },
        }
      : read;
  }
  const rows = rowsOf(text);
  const header = (rows[0] ?? []).map((cell) => cell.trim().toLowerCase());
  const at = (column: string) => header.indexOf(column);
  if (at("kind") < 0 || at("name") < 0) {
    return {
      ok: false,
      problems: [
        {
          line: 1,
          text: "The first line names the columns: kind, name, count and the facts of each piece.",
        },
      ],
    };
  }
  const known = new Set(["kind", "name", "count"]);
  for (const kind of GEAR_KINDS) for (const field of GEAR[kind].fields) known.add(field.name);
  const problems: RoomFileProblem[] = header
    .filter((column) => column !== "" && !known.has(column))
    .map((column) => ({
      line: 1,
      text: `"${column}" is no column of a room. Known: ${[...known].join(", ")}.`,
    }));
  const written: Array<{ line: number; item: WrittenItem }> = [];
  rows.slice(1).forEach((row, i) => {
    if (row.every((cell) => cell.trim() === "")) return;
    // Text that a spreadsheet would run was written with an apostrophe before it.
    const cell = (column: string) =>
      at(column) < 0 ? "" : (row[at(column)] ?? "").trim().replace(/^'(?=[=+\-@])/, "");
    const kind = cell("kind").toLowerCase();
    if (!isGearKind(kind)) {
      problems.push({
        line: i + 2,
        text: `"${cell("kind")}" is no kind of gear: one of ${GEAR_KINDS.join(", ")}.`,
      });
      return;
    }
    written.push({
      line: i + 2,
      item: {
        kind: kind as GearKind,
        name: cell("name"),
        count: cell("count"),
        fields: Object.fromEntries(
          GEAR[kind].fields.map((field) => [field.name, cell(field.name)]),
        ),
      },
    });
  });
  const read = readItems(written);
  const all = [...problems, ...(read.ok ? [] : read.problems)];
  if (all.length > 0) return { ok: false, problems: all };
  return read;
}
