import { useState } from "react";
import { Link, useFetcher } from "react-router";
import type { RepMapping } from "../../../core/reading/rep-rows";
import { ImportForm } from "../../forms/import";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { readJson } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Select } from "../../ui/field";
import { useOnce } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { type FileHead, fileHead } from "../../workers/read-file";
import { startImport, takeImport } from "../../workflows/data/import.server";
import type { Route } from "./+types/import";
import { RepsFile } from "./reps-file";
import { StreamFile } from "./stream-file";

export function meta() {
  return [{ title: "Data · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return startImport(principalOf(context));
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = ImportForm.safeParse(await readJson(request));
  if (!parsed.success) {
    const [problem] = Object.values(fieldProblems(parsed.error));
    return { ok: false as const, message: problem ?? "This import could not be read." };
  }
  const taken = await takeImport(principalOf(context), parsed.data);
  return taken.ok
    ? { ok: true as const, ...taken.value }
    : { ok: false as const, message: taken.message };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

/** Taken in or refused: what the server made of a file. */
export type Taken = { ok: true; tests: number; reps: number } | { ok: false; message: string };

/** Files in: reps, or a raw displacement stream. Read in the browser, kept whole or not at all. */
export default function Import({ loaderData }: Route.ComponentProps) {
  const [kind, setKind] = useState<"reps" | "stream">("reps");
  const [chosen, setChosen] = useState<{ file: File; head: FileHead }>();
  const [problem, setProblem] = useState<string>();
  const once = useOnce();
  const fetcher = useFetcher<Taken>();
  const choose = async (file: File | undefined) => {
    setProblem(undefined);
    setChosen(undefined);
    if (!file) return;
    if (file.size === 0) {
      setProblem(`${file.name} is empty.`);
      return;
    }
    try {
      setChosen({ file, head: await fileHead(file) });
    } catch {
      setProblem(`${file.name} could not be read as text. Export it as CSV and choose it again.`);
    }
  };
  const send = (body: Record<string, unknown>) =>
    void fetcher.submit({ ...body, once } as never, {
      method: "post",
      encType: "application/json",
    });
  const taken = fetcher.state === "idle" ? fetcher.data : undefined;
  const kept = chosen
    ? loaderData.mappings.find((one) => one.header === chosen.head.header.join("|"))?.mapping
    : undefined;
  return (
    <Page
      title="Data"
      facts="Reps and streams from a file. It is read in this browser; all of it is kept, or none."
      actions={
        <>
          <Link className="btn" to="/data/records">
            Max records
          </Link>
          <Link className="btn" to="/data/earlier">
            Earlier sessions
          </Link>
          {loaderData.owner ? (
            <Link className="btn" to="/data/backup">
              Backup
            </Link>
          ) : null}
        </>
      }
      margin={<Formats batches={loaderData.batches} />}
    >
      <div className="flex flex-wrap items-end gap-4">
        <span className="w-64">
          <Select
            label="What the file holds"
            value={kind}
            onChange={(event) => {
              setKind(event.target.value as "reps" | "stream");
            }}
          >
            <option value="reps">reps: a line each, with load and speed</option>
            <option value="stream">a raw stream: time and bar position</option>
          </Select>
        </span>
        <label className="block">
          <span className="mb-0.5 block text-muted">File (CSV or text)</span>
          <input
            type="file"
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            className="file-input file-input-sm !h-9"
            onChange={(event) => void choose(event.target.files?.[0])}
          />
        </label>
      </div>
      {problem ? <Notice kind="problem" title={problem} /> : null}
      {taken?.ok ? (
        <Notice kind="note" title={`Imported: ${taken.tests} tests, ${taken.reps} reps.`}>
          They stand on the athletes' pages as profile tests of their days.
        </Notice>
      ) : null}
      {taken && !taken.ok ? <Notice kind="problem" title={taken.message} /> : null}
      {chosen && !taken?.ok ? (
        kind === "reps" ? (
          <RepsFile
            key={`${chosen.file.name}/${chosen.file.lastModified}/${chosen.file.size}`}
            file={chosen.file}
            head={chosen.head}
            kept={kept as RepMapping | undefined}
            data={loaderData}
            busy={fetcher.state !== "idle"}
            send={send}
          />
        ) : (
          <StreamFile
            key={`${chosen.file.name}/${chosen.file.lastModified}/${chosen.file.size}`}
            file={chosen.file}
            head={chosen.head}
            data={loaderData}
            busy={fetcher.state !== "idle"}
            send={send}
          />
        )
      ) : null}
    </Page>
  );
}

/** What a file held, in words. */
function batchWords({
  kind,
  tests,
  reps,
}: Route.ComponentProps["loaderData"]["batches"][number]): string {
  if (kind === "athletes") return `${tests} athletes`;
  if (kind === "records") return `${tests} max records`;
  if (kind === "sets") return `${tests} lines, ${reps} reps of earlier sessions`;
  return `${tests} tests, ${reps} reps`;
}

function Formats({ batches }: { batches: Route.ComponentProps["loaderData"]["batches"] }) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3 text-sm">
      <section>
        <h2>Reps</h2>
        <p className="text-muted">
          One line a rep under a header. Needed: load and a velocity in m/s. Known besides: athlete,
          lift, date (year-month-day), set, rep, force in N, power in W. What the file lacks is
          chosen once for all its lines.
        </p>
        <pre className="mt-1 break-all whitespace-pre-wrap bg-base-100 p-2">
          {"athlete,lift,date,load_kg,rep,mcv\nFirst Last,Back squat …,2026-03-02,60,1,0.98"}
        </pre>
      </section>
      <section>
        <h2>Raw stream</h2>
        <p className="text-muted">
          Time in seconds, bar height in metres, 25 to 1000 lines a second. The reps are found and
          measured here; you give each set its load.
        </p>
        <pre className="mt-1 break-all whitespace-pre-wrap bg-base-100 p-2">
          {"t_s,position_m\n0.000,1.402\n0.020,1.401"}
        </pre>
      </section>
      <p className="text-muted">
        Commas, semicolons or tabs; decimals by point or comma; any line ends.
      </p>
      <section>
        <h2>Out</h2>
        <ul>
          {(
            [
              ["records.csv", "max records"],
              ["reps.csv", "reps of profile tests"],
              ["tests.csv", "jumps, throws and sprints"],
              ["sets.csv", "every set that was lifted"],
              ["earlier.csv", "sets from before, as imported"],
            ] as const
          ).map(([file, name]) => (
            <li key={file}>
              <a className="underline" href={`/data/out/${file}`} download>
                {file}
              </a>{" "}
              <span className="text-muted">{name}</span>
            </li>
          ))}
        </ul>
      </section>
      {batches.length > 0 ? (
        <section>
          <h2>Imported before</h2>
          <ul>
            {batches.map((one) => (
              <li key={one.id} className="border-b border-faint py-1">
                <Day of={one.on} /> {one.fileName}
                <span className="block text-muted">
                  {batchWords(one)}, {one.by}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </div>
  );
}
