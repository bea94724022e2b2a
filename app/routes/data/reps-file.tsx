import { useState } from "react";
import { guessColumns, withRole } from "../../../core/reading/columns";
import {
  REP_COLUMN_NAMES,
  REP_COLUMNS,
  REP_HEADERS,
  type RepColumn,
  type RepMapping,
} from "../../../core/reading/rep-rows";
import { isDate } from "../../../core/units/time";
import { formatVelocity, type VelocityMetric } from "../../../core/units/velocity";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Notice } from "../../ui/page";
import { type FileHead, type ReadReps, readReps } from "../../workers/read-file";
import type { Route } from "./+types/import";
import { Problems, ReadingBar, sizeOf } from "./reading";

const METRICS = ["MCV", "MPV", "PV"] as const;

/** A file of reps: which column is what, every line checked, then all of it or nothing. */
export function RepsFile({
  file,
  head,
  kept,
  data,
  busy,
  send,
}: {
  file: File;
  head: FileHead;
  kept: RepMapping | undefined;
  data: Route.ComponentProps["loaderData"];
  busy: boolean;
  send: (body: Record<string, unknown>) => void;
}) {
  const [mapping, setMapping] = useState<RepMapping>(
    () => kept ?? guessColumns(head.header, REP_HEADERS),
  );
  const first = METRICS.find((one) => mapping[one] !== undefined) ?? "MCV";
  const [metric, setMetric] = useState<VelocityMetric>(first);
  const [unit, setUnit] = useState(data.unit);
  const [athleteId, setAthleteId] = useState("");
  const [variantId, setVariantId] = useState("");
  const [date, setDate] = useState(data.today);
  const [progress, setProgress] = useState<{ share: number; lines: number }>();
  const [read, setRead] = useState<ReadReps>();
  const [failed, setFailed] = useState<string>();

  const map = (column: number, role: RepColumn | "") => {
    setRead(undefined);
    setMapping(withRole(mapping, column, role));
    if (METRICS.some((one) => one === role)) setMetric(role as VelocityMetric);
  };
  const check = async () => {
    setRead(undefined);
    setFailed(undefined);
    setProgress({ share: 0, lines: 0 });
    try {
      const result = await readReps(
        file,
        {
          mapping,
          metric,
          unit,
          today: data.today,
          athletes: data.athletes,
          variants: data.variants,
          athleteId: athleteId || undefined,
          variantId: variantId || undefined,
          date: date || undefined,
        },
        (share, lines) => setProgress({ share, lines }),
      );
      setRead(result);
    } catch {
      setFailed("The file could not be read to its end. Choose it again.");
    }
    setProgress(undefined);
  };
  const reps = read?.tests.reduce((sum, test) => sum + test.reps.length, 0) ?? 0;
  const take = () =>
    send({
      kind: "reps",
      fileName: file.name,
      metric,
      processing: "imported",
      header: head.header.join("|"),
      mapping,
      tests: (read?.tests ?? []).map(({ reps: all, ...test }) => ({
        ...test,
        addedKg: 0,
        reps: all.map(({ loadKg, velocityMps, forceN, powerW }) => ({
          loadKg,
          velocityMps,
          forceN,
          powerW,
        })),
      })),
    });
  return (
    <section aria-labelledby="file-title" className="mt-4">
      <h2 id="file-title">
        {file.name} <span className="font-normal text-muted">{sizeOf(file)}</span>
      </h2>
      {kept ? <p className="text-muted">The columns are as you mapped them last time.</p> : null}
      <ColumnTable head={head} mapping={mapping} onMap={map} />
      <div className="mt-2 grid max-w-4xl gap-2 sm:grid-cols-3">
        <Select
          label="The profile is of"
          value={metric}
          onChange={(event) => setMetric(event.target.value as VelocityMetric)}
        >
          {METRICS.map((one) => (
            <option key={one} value={one} disabled={mapping[one] === undefined}>
              {REP_COLUMN_NAMES[one]}
            </option>
          ))}
        </Select>
        <Select
          label="Bare loads are in"
          value={unit}
          onChange={(event) => setUnit(event.target.value as "kg" | "lb")}
        >
          <option value="kg">kg</option>
          <option value="lb">lb</option>
        </Select>
        {mapping.date === undefined ? (
          <Field
            label="Date of every line"
            type="date"
            value={date}
            max={data.today}
            onChange={(event) => {
              // While a date is typed, the field is empty or half a year.
              if (isDate(event.target.value)) setDate(event.target.value);
            }}
          />
        ) : null}
        {mapping.athlete === undefined ? (
          <Select
            label="Athlete of every line"
            value={athleteId}
            onChange={(event) => setAthleteId(event.target.value)}
          >
            <option value="">choose</option>
            {data.athletes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
        ) : null}
        {mapping.lift === undefined ? (
          <Select
            label="Lift of every line"
            value={variantId}
            onChange={(event) => setVariantId(event.target.value)}
          >
            <option value="">choose</option>
            {data.variants.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
        ) : null}
      </div>
      {progress ? (
        <ReadingBar {...progress} />
      ) : (
        <div className="mt-3 flex flex-wrap gap-2">
          <button
            type="button"
            className={read && read.problemCount === 0 ? "btn" : "btn btn-primary"}
            onClick={() => void check()}
            disabled={busy || mapping.load === undefined || mapping[metric] === undefined}
          >
            Check every line
          </button>
          {read && !read.stopped && read.problemCount === 0 ? (
            <button type="button" className="btn btn-primary" onClick={take} disabled={busy}>
              Import {reps} reps
            </button>
          ) : null}
        </div>
      )}
      {mapping.load === undefined || mapping[metric] === undefined ? (
        <p className="text-secondary">Map the load and a velocity first.</p>
      ) : null}
      {failed ? <Notice kind="problem" title={failed} /> : null}
      {read?.stopped ? <Notice kind="note" title="Stopped. Nothing was imported." /> : null}
      {read && !read.stopped ? (
        <>
          <p role="status" className="mt-2 font-bold">
            {read.rows.toLocaleString("en")} lines read: {read.tests.length} tests, {reps} reps
          </p>
          <Problems problems={read.problems} count={read.problemCount} />
          {read.problemCount === 0 ? <Preview read={read} data={data} /> : null}
        </>
      ) : null}
    </section>
  );
}

/** The first lines of the file, with what each column is above it. */
function ColumnTable({
  head,
  mapping,
  onMap,
}: {
  head: FileHead;
  mapping: RepMapping;
  onMap: (column: number, role: RepColumn | "") => void;
}) {
  const mapped = (column: number) =>
    REP_COLUMNS.find((role) => mapping[role] === column) ?? ("" as const);
  return (
    <div className="overflow-x-auto">
      <table className="ledger mt-1">
        <thead>
          <tr>
            {head.header.map((title, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: columns keep their places
              <th key={i} scope="col" className="min-w-36 align-bottom">
                <span className="block text-base-content">{title || `column ${i + 1}`}</span>
                <select
                  className="field-select !h-8 font-normal"
                  aria-label={`Column ${title || i + 1} is`}
                  value={mapped(i)}
                  onChange={(event) => onMap(i, event.target.value as RepColumn | "")}
                >
                  <option value="">left aside</option>
                  {REP_COLUMNS.map((role) => (
                    <option key={role} value={role}>
                      {REP_COLUMN_NAMES[role]}
                    </option>
                  ))}
                </select>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {head.sample.map((cells, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a preview that never changes
            <tr key={i}>
              {head.header.map((_, j) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a preview that never changes
                <td key={j} className="max-w-56 truncate text-muted">
                  {cells[j]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Preview({ read, data }: { read: ReadReps; data: Route.ComponentProps["loaderData"] }) {
  return (
    <div className="overflow-x-auto">
      <table className="ledger mt-1">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col">Lift</th>
            <th scope="col">Date</th>
            <th scope="col" className="!text-right">
              Reps
            </th>
            <th scope="col">Loads, fastest</th>
          </tr>
        </thead>
        <tbody>
          {read.tests.slice(0, 100).map((test) => (
            <tr key={`${test.athleteId}/${test.variantId}/${test.date}`}>
              <td>{data.athletes.find((one) => one.id === test.athleteId)?.name}</td>
              <td>{data.variants.find((one) => one.id === test.variantId)?.name}</td>
              <td className="whitespace-nowrap">
                <Day of={test.date} />
              </td>
              <td className="text-right">{test.reps.length}</td>
              <td className="text-muted">
                {[...new Set(test.reps.map((rep) => rep.loadKg))]
                  .sort((a, b) => a - b)
                  .map(
                    (kg) =>
                      `${Number(kg.toFixed(1))} kg ${formatVelocity(Math.max(...test.reps.filter((rep) => rep.loadKg === kg).map((rep) => rep.velocityMps)))}`,
                  )
                  .join(" · ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {read.tests.length > 100 ? (
        <p className="text-muted">… and {read.tests.length - 100} tests more.</p>
      ) : null}
    </div>
  );
}
