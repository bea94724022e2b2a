import { useState } from "react";
import type { FloorState } from "../../../core/floor/state";
import type { StationState } from "../../../core/floor/stations";
import { Form } from "../../ui/form";
import { Notice } from "../../ui/page";

/** Ends the session, asked once with what is not finished. */
export function EndSession({
  floor,
  stations,
}: {
  floor: FloorState;
  stations: readonly StationState[];
}) {
  const [asking, setAsking] = useState(false);
  const left = unfinished(floor, stations);
  if (!asking && left.length > 0)
    return (
      <button type="button" className="btn" onClick={() => setAsking(true)}>
        End the session
      </button>
    );
  return (
    <Form method="post" className="flex flex-wrap items-center gap-2">
      {left.length > 0 ? (
        <p role="alert" className="text-accent">
          {left.join(" · ")}. What is logged stays.
        </p>
      ) : null}
      <button
        type="submit"
        name="intent"
        value="end"
        className={left.length > 0 ? "btn btn-primary" : "btn"}
      >
        {left.length > 0 ? "End it as it is" : "End the session"}
      </button>
      {left.length > 0 ? (
        <button type="button" className="btn" onClick={() => setAsking(false)}>
          Go on
        </button>
      ) : null}
    </Form>
  );
}

export const callsWords = (count: number) => (count === 1 ? "1 call waits" : `${count} calls wait`);

function unfinished(floor: FloorState, stations: readonly StationState[]): string[] {
  const late = floor.doubtful.length;
  const lifters = floor.racks.flatMap((rack) => rack.lifters);
  const open = stations.reduce(
    (n, station) => n + station.work.reduce((m, work) => m + work.planned - work.done, 0),
    0,
  );
  const running = lifters.flatMap((one) =>
    one.sets.some((set) => set.stage === "running") ? one.callName : [],
  );
  return [
    open === 0 ? "" : open === 1 ? "1 set not done" : `${open} sets not done`,
    running.length > 0 ? `in the middle of a set: ${running.join(", ")}` : "",
    floor.calls.length > 0 ? callsWords(floor.calls.length) : "",
    late === 0 ? "" : late === 1 ? "1 late entry waits" : `${late} late entries wait`,
  ].filter((words) => words !== "");
}

/** An ended session: who ended it when, and the way to open it again on its day. */
export function Ended({
  changes,
  mayReopen,
  zone,
}: {
  changes: ReadonlyArray<{ change: "ended" | "reopened"; reason: string; by: string; at: string }>;
  mayReopen: boolean;
  zone: string;
}) {
  const [time] = useState(
    () => new Intl.DateTimeFormat("en-GB", { timeStyle: "short", timeZone: zone }),
  );
  return (
    <Notice kind="note" title="This session has ended. The floor stands still.">
      <p>What tablets logged before its end is still taken.</p>
      <ul>
        {changes.map((one) => (
          <li key={one.at}>
            {one.change === "ended" ? "Ended" : "Opened again"} at {time.format(new Date(one.at))}{" "}
            by {one.by}
            {one.reason ? `: "${one.reason}"` : ""}
          </li>
        ))}
      </ul>
      {mayReopen ? (
        <Form method="post" className="mt-2 flex flex-wrap items-end gap-2">
          <label className="block">
            <span className="block">Why it is opened again</span>
            <input className="field w-72 max-w-full" name="reason" maxLength={400} required />
          </label>
          <button type="submit" name="intent" value="reopen" className="btn">
            Open it again
          </button>
        </Form>
      ) : null}
    </Notice>
  );
}
