import { appendFileSync, existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { openBackup } from "./backup.server";
import { ErasedPerson } from "./installation-manifest";
import { KeptProblem } from "./problem";

/** Beside the daily backups: whoever was erased, a line each, ids only. */
export const ERASURES_FILE = "erasures.jsonl";

/** Adds a person to the list beside the backups, the moment they are erased. */
export function noteErased(folder: string, person: ErasedPerson): void {
  appendFileSync(path.join(folder, ERASURES_FILE), `${JSON.stringify(person)}\n`, { mode: 0o600 });
}

function readList(file: string): ErasedPerson[] {
  let text: string;
  try {
    text = readFileSync(file, "utf8");
  } catch (error) {
    throw new KeptProblem(
      "no-list",
      `The list of erased people ${file} cannot be read (${(error as { code?: string }).code}). Check its name.`,
    );
  }
  return text.split("\n").flatMap((line, i) => {
    if (line.trim() === "") return [];
    try {
      return [ErasedPerson.parse(JSON.parse(line))];
    } catch {
      // The last line of a machine that died while it wrote; any other is a fault.
      if (i === text.split("\n").length - 1) return [];
      throw new KeptProblem(
        "bad-list",
        `Line ${i + 1} of ${file} is no erased person. Correct or remove the line, then restore.`,
      );
    }
  });
}

/**
 * Everybody who was erased as far as anything beside a backup knows: the list in its folder, the
 * lists that are named, and what the other backups there say.
 */
export async function erasedBeside(
  file: string,
  lists: readonly string[],
): Promise<ErasedPerson[]> {
  const folder = path.dirname(path.resolve(file));
  const beside = path.join(folder, ERASURES_FILE);
  const erased = lists.flatMap(readList);
  if (existsSync(beside)) erased.push(...readList(beside));
  const others = existsSync(folder) ? readdirSync(folder) : [];
  for (const name of others.filter((one) => /^sprezza-.*\.zip$/.test(one))) {
    const other = path.join(folder, name);
    if (other === path.resolve(file)) continue;
    try {
      const { reader, manifest } = await openBackup(other);
      reader.close();
      erased.push(...manifest.erased);
    } catch (error) {
      // Another file that is broken says nothing of this one.
      if (!(error instanceof KeptProblem)) throw error;
    }
  }
  return erased;
}
