import { useState } from "react";
import { massKg, readMass } from "../../../core/units/mass";
import { isDate } from "../../../core/units/time";
import { formatVelocity, keepVelocity, type VelocityMetric } from "../../../core/units/velocity";
import { addedMassKg, repForce } from "../../../core/velocity/force";
import { PROCESSING_VERSION, repVelocity } from "../../../core/velocity/stream";
import { Field, Select } from "../../ui/field";
import { Notice } from "../../ui/page";
import { type FileHead, type ReadStream, readStream } from "../../workers/read-file";
import type { Route } from "./+types/import";
import { Problems, ReadingBar, sizeOf } from "./reading";

/** A raw stream: the reps are found here, each set gets its load, and the whole is one test. */
export function StreamFile({
  file,
  head,
  data,
  busy,
  send,
}: {
  file: File;
  head: FileHead;
  data: Route.ComponentProps["loaderData"];
  busy: boolean;
  send: (body: Record<string, unknown>) => void;
}) {
  const guess = (words: RegExp, otherwise: number) => {
    const at = head.header.findIndex((title) => words.test(title.toLowerCase()));
    return at < 0 ? otherwise : at;
  };
  const [time, setTime] = useState(() => guess(/^(t|t_s|time.*)$/, 0));
  const [position, setPosition] = useState(() => guess(/pos|height|displ/, 1));
  const [athleteId, setAthleteId] = useState(data.athletes[0]?.id ?? "");
  const [variantId, setVariantId] = useState(data.variants[0]?.id ?? "");
  const [date, setDate] = useState(data.today);
  const [metric, setMetric] = useState<VelocityMetric>("MCV");
  const [loads, setLoads] = useState<Record<number, string>>({});
  const [progress, setProgress] = useState<{ share: number; lines: number }>();
  const [read, setRead] = useState<ReadStream>();
  const [failed, setFailed] = useState<string>();
  const variant = data.variants.find((one) => one.id === variantId);
  const athlete = data.athletes.find((one) => one.id === athleteId);
  const added = variant ? addedMassKg(variant.systemMass, athlete?.bodyMassKg) : 0;

  const check = async () => {
    setRead(undefined);
    setFailed(undefined);
    setProgress({ share: 0, lines: 0 });
    try {
      const result = await readStream(
        file,
        { time, position },
        { start: variant?.start ?? "top" },
        (share, lines) => setProgress({ share, lines }),
      );
      setRead(result);
    } catch {
      setFailed("The file could not be read to its end. Choose it again.");
    }
    setProgress(undefined);
  };
  const sets = (read?.sets ?? []).map((reps, i) => {
    const counted = reps.filter((rep) => rep.outcome === "counted");
    const text = loads[i] ?? "";
    const reading = readMass(text, data.unit);
    const kg = reading.ok && reading.mass.amount > 0 ? massKg(reading.mass) : undefined;
    return { reps: counted, failed: reps.length - counted.length, text, kg };
  });
  const missing = sets.filter((set) => set.reps.length > 0 && set.kg === undefined).length;
  const ready = read && !read.stopped && read.problemCount === 0 && sets.length > 0;
  const take = () =>
    send({
      kind: "stream",
      fileName: file.name,
      metric,
      processing: PROCESSING_VERSION,
      tests: [
        {
          athleteId,
          variantId,
          date,
          addedKg: added ?? 0,
          reps: sets.flatMap(({ reps, kg }) =>
            kg === undefined
              ? []
              : reps.map((rep) => ({
                  loadKg: kg,
                  velocityMps: keepVelocity(repVelocity(rep, metric)),
                  ...repForce(rep, kg + (added ?? 0)),
                })),
          ),
        },
      ],
    });
  return (
    <section aria-labelledby="file-title" className="mt-4">
      <h2 id="file-title">
        {file.name} <span className="font-normal text-muted">{sizeOf(file)}</span>
      </h2>
      <div className="mt-1 grid max-w-4xl gap-2 sm:grid-cols-3">
        {(
          [
            ["Time, s", time, setTime],
            ["Position, m", position, setPosition],
          ] as const
        ).map(([label, value, setValue]) => (
          <Select
            key={label}
            label={`${label} is in`}
            value={value}
            onChange={(event) => {
              setRead(undefined);
              setValue(Number(event.target.value));
            }}
          >
            {head.header.map((title, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: columns keep their places
              <option key={i} value={i}>
                {title || `column ${i + 1}`} (first: {head.sample[0]?.[i] ?? ""})
              </option>
            ))}
          </Select>
        ))}
        <Select
          label="The profile is of"
          value={metric}
          onChange={(event) => setMetric(event.target.value as VelocityMetric)}
        >
          <option value="MCV">mean concentric (MCV)</option>
          <option value="MPV">mean propulsive (MPV)</option>
          <option value="PV">peak (PV)</option>
        </Select>
        <Select
          label="Athlete"
          value={athleteId}
          onChange={(event) => setAthleteId(event.target.value)}
        >
          {data.athletes.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Select
          label="Lift"
          value={variantId}
          onChange={(event) => {
            setRead(undefined);
            setVariantId(event.target.value);
          }}
        >
          {data.variants.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Field
          label="Date"
          type="date"
          value={date}
          max={data.today}
          onChange={(event) => {
            // While a date is typed, the field is empty or half a year.
            if (isDate(event.target.value)) setDate(event.target.value);
          }}
        />
      </div>
      {progress ? (
        <ReadingBar {...progress} />
      ) : (
        <button
          type="button"
          className={`mt-3 ${ready ? "btn" : "btn btn-primary"}`}
          onClick={() => void check()}
          disabled={busy}
        >
          Find the reps
        </button>
      )}
      {failed ? <Notice kind="problem" title={failed} /> : null}
      {read?.stopped ? <Notice kind="note" title="Stopped. Nothing was imported." /> : null}
      {read && !read.stopped ? (
        <>
          <p role="status" className="mt-2 font-bold">
            {read.samples.toLocaleString("en")} samples: {sets.length} sets,{" "}
            {sets.reduce((sum, set) => sum + set.reps.length, 0)} reps
          </p>
          {read.gapCount > 0 ? (
            <Notice
              kind="warning"
              title={`${read.gapCount} ${read.gapCount === 1 ? "gap" : "gaps"} in the signal.`}
            >
              {read.gaps
                .slice(0, 8)
                .map((gap) => `line ${gap.line}: ${gap.lengthS.toFixed(2)} s missing`)
                .join("; ")}
              . Measuring stops and starts again there; a rep across a gap is not found.
            </Notice>
          ) : null}
          <Problems problems={read.problems} count={read.problemCount} />
        </>
      ) : null}
      {ready ? (
        <>
          <table className="ledger mt-2 max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Set</th>
                <th scope="col">From</th>
                <th scope="col">{metric}, m/s</th>
                <th scope="col">Load</th>
              </tr>
            </thead>
            <tbody>
              {sets.map((set, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: sets keep their places
                <tr key={i}>
                  <th scope="row">{i + 1}</th>
                  <td>{set.reps[0] ? `${set.reps[0].startS.toFixed(1)} s` : ""}</td>
                  <td>
                    {set.reps.map((rep) => formatVelocity(repVelocity(rep, metric))).join(" · ")}
                    {set.failed > 0 ? (
                      <span className="text-muted"> {set.failed} failed</span>
                    ) : null}
                  </td>
                  <td>
                    <input
                      className="field !h-8 !w-28"
                      aria-label={`Load of set ${i + 1}`}
                      placeholder={data.unit === "kg" ? "60" : "135 lb"}
                      value={set.text}
                      aria-invalid={set.text !== "" && set.kg === undefined ? true : undefined}
                      onChange={(event) => setLoads({ ...loads, [i]: event.target.value })}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="text-muted">
            {missing > 0
              ? `${missing} ${missing === 1 ? "set has" : "sets have"} no load yet.`
              : added === undefined
                ? "No body mass is known: force and power count the bar only."
                : ""}
          </p>
          <button
            type="button"
            className="btn btn-primary mt-1"
            disabled={missing > 0 || busy}
            onClick={take}
          >
            Import as one test
          </button>
        </>
      ) : null}
    </section>
  );
}
