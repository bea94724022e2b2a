import type { LineProblem } from "../../../core/reading/line-problems";
import { stopReading } from "../../workers/read-file";

/** A file's size in words. */
export function sizeOf(file: File): string {
  return file.size < 1e5
    ? `${Math.ceil(file.size / 1000)} kB`
    : `${(file.size / 1e6).toFixed(1)} MB`;
}

/** How far a file is read, and the way to stop. */
export function ReadingBar({ share, lines }: { share: number; lines: number }) {
  return (
    <div className="mt-3 flex items-center gap-3">
      <progress className="progress w-64" value={share} max={1} aria-label="Reading the file" />
      <span className="text-muted">{lines.toLocaleString("en")} lines</span>
      <button type="button" className="btn" onClick={() => void stopReading()}>
        Stop reading
      </button>
    </div>
  );
}

/** What is wrong with a file, line by line. */
export function Problems({ problems, count }: { problems: LineProblem[]; count: number }) {
  if (count === 0) return null;
  return (
    <section aria-labelledby="problems-title" className="mt-3">
      <h3 id="problems-title" role="alert" className="font-bold text-accent">
        {count} {count === 1 ? "line is" : "lines are"} not right. Nothing was imported.
      </h3>
      <p className="text-muted">
        Mend them in the file and choose it again, or map another column above.
      </p>
      <section
        className="mt-1 max-h-72 overflow-auto"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by the keyboard
        tabIndex={0}
        aria-label="Problems by line"
      >
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col" className="!text-right">
                Line
              </th>
              <th scope="col">What is wrong</th>
            </tr>
          </thead>
          <tbody>
            {problems.map((one, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the list never changes
              <tr key={i}>
                <td className="text-right">{one.line === 0 ? "all" : one.line}</td>
                <td>{one.text}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      {count > problems.length ? (
        <p className="text-muted">… and {count - problems.length} more of the same file.</p>
      ) : null}
    </section>
  );
}
