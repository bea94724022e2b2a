import { useState } from "react";
import { type Columns, withRole } from "../../core/reading/columns";
import { Select } from "./field";

export interface PastedSheet {
  text: string;
  fileName: string;
  /** What was wrong with a chosen file, in words. */
  fault: string | undefined;
  write(text: string, fileName?: string): void;
  choose(file: File | undefined): Promise<void>;
}

/**
 * A sheet that is pasted, typed or chosen as a file: one text, whatever it came from.
 * @param most characters that are taken at once
 * @param changed told when another text stands there: what was said of the old one is over
 */
export function usePastedSheet(most: number, changed: () => void): PastedSheet {
  const [text, setText] = useState("");
  const [fileName, setFileName] = useState("");
  const [fault, setFault] = useState<string>();
  const write = (next: string, name = "") => {
    setText(next);
    setFileName(name);
    setFault(undefined);
    changed();
  };
  return {
    text,
    fileName,
    fault,
    write,
    async choose(file) {
      if (!file) return;
      const read = await file.text().catch(() => undefined);
      if (read === undefined || read.includes("\0"))
        setFault(
          `${file.name} could not be read as text. Save the sheet as CSV and choose it again.`,
        );
      else if (read.length > most)
        setFault(`${file.name} is over ${most.toLocaleString("en")} characters. Take it in parts.`);
      else write(read, file.name);
    },
  };
}

/** A sheet from a file; it is read in the browser and stands in the text below. */
export function SheetFile({ sheet }: { sheet: PastedSheet }) {
  return (
    <label className="block">
      <span className="mb-0.5 block text-muted">From a file (CSV or text)</span>
      <input
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        className="file-input file-input-sm !h-9"
        onChange={(event) => void sheet.choose(event.target.files?.[0])}
      />
    </label>
  );
}

/** A longer text is no text that somebody edits: a browser takes minutes to lay it out. */
const MOST_SHOWN = 40_000;
/** Lines of it that are shown in its place. */
const LINES_SHOWN = 8;

/** The sheet itself, as text; of a long one its first lines. */
export function SheetText({
  sheet,
  label,
  example,
  rows,
}: {
  sheet: PastedSheet;
  label: string;
  example: string;
  rows: number;
}) {
  if (sheet.text.length > MOST_SHOWN) {
    const lines = sheet.text.split(/\r\n?|\n/);
    return (
      <div className="mt-2">
        <input type="hidden" name="text" value={sheet.text} />
        <p>
          {lines.length.toLocaleString("en")} lines{sheet.fileName ? ` of ${sheet.fileName}` : ""}.
          The first of them:{" "}
          <button type="button" className="underline" onClick={() => sheet.write("")}>
            Put it away
          </button>
        </p>
        <pre className="mt-1 overflow-x-auto border border-rule bg-base-200 p-2 text-[0.85rem]">
          {lines.slice(0, LINES_SHOWN).join("\n")}
        </pre>
      </div>
    );
  }
  return (
    <label className="mt-2 block">
      <span className="text-muted">{label}</span>
      <textarea
        name="text"
        rows={rows}
        spellCheck={false}
        value={sheet.text}
        onChange={(event) => sheet.write(event.target.value)}
        onPaste={(event) => {
          // Taken before the browser lays it out.
          const pasted = event.clipboardData.getData("text");
          if (pasted.length <= MOST_SHOWN) return;
          event.preventDefault();
          sheet.write(pasted);
        }}
        className="field !h-auto w-full py-2 font-mono text-[0.85rem]"
        placeholder={example}
      />
    </label>
  );
}

/** What each column is: guessed from its title, and set here where the guess is wrong. */
export function ColumnRoles<Role extends string>({
  titles,
  samples,
  roles,
  names,
  columns,
  onChange,
}: {
  titles: readonly string[];
  /** First cells of each column, where they are shown. */
  samples?: readonly (readonly string[])[];
  roles: readonly Role[];
  names: Record<Role, string>;
  columns: Columns<Role>;
  onChange: (columns: Columns<Role>) => void;
}) {
  return (
    <fieldset className="mt-4">
      <legend className="font-bold">Columns</legend>
      <div className="flex gap-2 overflow-x-auto py-1">
        {titles.map((title, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
          <div key={i} className="w-44 shrink-0">
            <Select
              label={title || `Column ${i + 1}`}
              value={roles.find((role) => columns[role] === i) ?? ""}
              onChange={(event) => {
                const role = roles.find((one) => one === event.target.value) ?? "";
                onChange(withRole<Role>(columns, i, role as NoInfer<Role> | ""));
              }}
            >
              <option value="">not taken</option>
              {roles.map((role) => (
                <option key={role} value={role}>
                  {names[role]}
                </option>
              ))}
            </Select>
            {samples ? (
              <p className="truncate text-sm text-muted">
                {(samples[i] ?? []).filter(Boolean).join(" · ")}
              </p>
            ) : null}
          </div>
        ))}
      </div>
    </fieldset>
  );
}
