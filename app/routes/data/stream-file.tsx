import { useState } from "react";
import { addedMassKg } from "../../../core/velocity/force";
import type { StreamFault } from "../../../core/velocity/long-stream";
import { PROCESSING_VERSION } from "../../../core/velocity/stream";
import { Notice } from "../../ui/page";
import { type FileHead, type ReadStream, readStream } from "../../workers/read-file";
import type { Route } from "./+types/import";
import { Problems, ReadingBar, sizeOf } from "./reading";
import { StreamFields } from "./stream-fields";
import { loadedSets, measuredReps, type StreamChoice, streamColumns } from "./stream-sets";
import { StreamSets } from "./stream-sets-table";

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
  const [fields, setFields] = useState<StreamChoice>(() => ({
    ...streamColumns(head.header),
    athleteId: data.athletes[0]?.id ?? "",
    variantId: data.variants[0]?.id ?? "",
    date: data.today,
    metric: "MCV",
  }));
  const { time, position, athleteId, variantId, date, metric } = fields;
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
  const sets = loadedSets(read?.sets ?? [], loads, data.unit);
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
          reps: measuredReps(sets, metric, added ?? 0),
        },
      ],
    });
  return (
    <section aria-labelledby="file-title" className="mt-4">
      <h2 id="file-title">
        {file.name} <span className="font-normal text-muted">{sizeOf(file)}</span>
      </h2>
      <StreamFields
        head={head}
        data={data}
        value={fields}
        onChange={(next) => {
          // What was found hangs on the columns and on how the lift begins.
          const same =
            next.time === time && next.position === position && next.variantId === variantId;
          if (!same) setRead(undefined);
          setFields(next);
        }}
      />
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
          {read.faults.length > 0 ? (
            <Notice kind="warning" title="The signal was not clean; what was wrong is left out.">
              {read.faults.map(faultWords).join("; ")}.
            </Notice>
          ) : null}
          <Problems problems={read.problems} count={read.problemCount} />
        </>
      ) : null}
      {ready ? (
        <>
          <StreamSets
            sets={sets}
            metric={metric}
            unit={data.unit}
            onLoad={(set, text) => setLoads({ ...loads, [set]: text })}
          />
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

const FAULT_WORDS: Record<StreamFault["fault"], string> = {
  "not-a-number": "not a number",
  repeated: "a time given twice",
  back: "a time that goes back",
  ahead: "a time from the future",
  "clock-set": "the clock was set back: read on from there",
  packets: "samples in packets under one time: spread evenly",
  "too-fast": "more than 1,000 samples a second: averaged",
  spike: "a single height far from both neighbours",
  jump: "a jump that no bar makes (a slipped cable, or not metres?): measuring starts again there",
};

function faultWords({ fault, count, line }: StreamFault): string {
  return `${FAULT_WORDS[fault]}${count > 1 ? `, ${count.toLocaleString("en")} times` : ""}, first in line ${line}`;
}
