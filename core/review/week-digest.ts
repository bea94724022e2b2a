import { formatKg, type MassUnit } from "../units/mass";
import type { LocalDate } from "../units/time";

/** What a squad's week came to, in words for who was not there. */
export interface WeekDigest {
  squadName: string;
  from: LocalDate;
  to: LocalDate;
  sessions: Array<{ date: LocalDate; title: string }>;
  athletes: Array<{
    name: string;
    sessions: number;
    setsDone: number;
    setsPlanned: number;
    cut: number;
    tonnageKg: number;
    heavyDays: number;
    faults: string[];
  }>;
  records: Array<{ name: string; lift: string; kg: number; date: LocalDate }>;
  /** Calls that wait today; undefined where the week is over. */
  waiting: number | undefined;
  decided: Array<{ name: string; words: string; decision: string }>;
  notes: Array<{ about: string; date: LocalDate; words: string; by: string }>;
  /** Competitions of the next two weeks. */
  coming: Array<{ date: LocalDate; name: string }>;
}

/** Characters that would be marks in Markdown stand for themselves. */
const plain = (text: string) =>
  text.replaceAll(/([\\`*_{}[\]<>|#])/g, "\\$1").replaceAll("\n", " ");

/**
 * The digest as Markdown: plain headings, lists and one table, to be sent or kept.
 * @example digestMarkdown(digest, "kg") // "# Sprint kayak, 2026-03-09 to 2026-03-15\n…"
 */
export function digestMarkdown(digest: WeekDigest, unit: MassUnit): string {
  const lines: string[] = [`# ${plain(digest.squadName)}, ${digest.from} to ${digest.to}`, ""];
  const list = (title: string, rows: readonly string[], none: string) => {
    lines.push(`## ${title}`, "");
    lines.push(...(rows.length > 0 ? rows.map((row) => `- ${row}`) : [none]), "");
  };
  list(
    "Sessions",
    digest.sessions.map((one) => `${one.date}: ${plain(one.title)}`),
    "None.",
  );
  if (digest.athletes.length > 0) {
    lines.push("## Work", "");
    lines.push("| Athlete | Sessions | Sets | Cut | Tonnage | Heavy days | Faults |");
    lines.push("| --- | ---: | ---: | ---: | ---: | ---: | --- |");
    for (const one of digest.athletes)
      lines.push(
        `| ${plain(one.name)} | ${one.sessions} | ${one.setsDone} of ${one.setsPlanned} | ${one.cut} | ${formatKg(one.tonnageKg, unit, 0)} | ${one.heavyDays} | ${one.faults.map(plain).join(", ")} |`,
      );
    lines.push("");
  }
  list(
    "Records",
    digest.records.map(
      (one) => `${plain(one.name)}, ${plain(one.lift)}: ${formatKg(one.kg, unit, 1)}, ${one.date}`,
    ),
    "None.",
  );
  list(
    digest.waiting === undefined ? "Calls" : `Calls, ${digest.waiting} waiting`,
    digest.decided.map((one) => `${plain(one.name)}: ${plain(one.words)}, ${one.decision}`),
    "None decided.",
  );
  list(
    "Notes",
    digest.notes.map(
      (one) => `${one.date}, ${plain(one.about)}: ${plain(one.words)} (${plain(one.by)})`,
    ),
    "None.",
  );
  list(
    "Competitions to come",
    digest.coming.map((one) => `${one.date}: ${plain(one.name)}`),
    "None in the next two weeks.",
  );
  return `${lines.join("\n").trimEnd()}\n`;
}
