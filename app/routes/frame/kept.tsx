import { useEffect, useState } from "react";
import { Link } from "react-router";
import { uuidv7 } from "uuidv7";
import { actWords } from "../../../core/floor/act-words";
import { type LogEntry, withoutPlace } from "../../../core/floor/entries";
import {
  absentOf,
  type FrozenSession,
  liftsOf,
  pairingsOf,
  peopleOf,
} from "../../../core/floor/frozen";
import type { RefusedEntry } from "../../offline/outbox-store";
import { useOutbox } from "../../offline/use-outbox";
import { principalOf } from "../../platform/guard.server";
import { homeOf } from "../../platform/rights";
import type { Route } from "./+types/kept";

export function meta() {
  return [{ title: "Kept in this browser · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return { home: homeOf(principalOf(context)) };
}

interface Known {
  title: string;
  status: "running" | "ended";
  frozen: FrozenSession;
}

/** What some sessions stand on, as far as this browser may know it. */
function useSessions(ids: readonly string[]): ReadonlyMap<string, Known> {
  const [known, setKnown] = useState<ReadonlyMap<string, Known>>(new Map());
  const wanted = ids.join(" ");
  useEffect(() => {
    const stop = new AbortController();
    for (const id of wanted.split(" ").filter(Boolean))
      fetch(`/api/session/${id}`, { signal: stop.signal })
        .then(async (response) => {
          if (!response.ok) return;
          const { value } = (await response.json()) as { value: Known };
          setKnown((before) => new Map(before).set(id, value));
        })
        // Away: the entries are listed without their names.
        .catch(() => {});
    return () => stop.abort();
  }, [wanted]);
  return known;
}

/** Everything that this browser holds of the log, and what the server would not take. */
export default function Kept({ loaderData }: Route.ComponentProps) {
  const { outbox, state } = useOutbox();
  const { waiting, refused, unkept } = state;
  const ids = [...new Set([...waiting, ...refused].map((row) => row.sessionId))].sort();
  const sessions = useSessions(ids);
  return (
    <main className="mx-auto max-w-3xl p-6 text-[17px]">
      <h1>Kept in this browser</h1>
      <p className="mt-1 text-muted">
        What was logged here and is not on the server. It goes there by itself, of every session.
      </p>
      {unkept.size > 0 ? (
        <p role="alert" className="mt-3 border-l-[3px] border-accent pl-3">
          The browser's store takes nothing now. {unkept.size}{" "}
          {unkept.size === 1 ? "entry lives" : "entries live"} on an open page only: keep it open.
        </p>
      ) : null}
      <section aria-labelledby="waiting" className="mt-5">
        <h2 id="waiting">Waits to be sent: {waiting.length}</h2>
        <ul>
          {ids.flatMap((id) => {
            const count = waiting.filter((row) => row.sessionId === id).length;
            if (count === 0) return [];
            return (
              <li key={id} className="border-b border-rule py-1">
                {sessions.get(id)?.title ?? "A session that is not known here"}: {count}
              </li>
            );
          })}
        </ul>
        {state.link === "sign-in" && waiting.length > 0 ? (
          <p className="mt-1">
            <Link className="underline" to="/sign-in" reloadDocument>
              Sign in
            </Link>{" "}
            as somebody who logs, and they are sent.
          </p>
        ) : null}
        {waiting.length > 0 ? (
          <button type="button" className="btn mt-2 min-h-11" onClick={() => void outbox?.flush()}>
            Send now
          </button>
        ) : null}
      </section>
      <section aria-labelledby="refused" className="mt-6">
        <h2 id="refused">Not taken by the server: {refused.length}</h2>
        {refused.length === 0 ? (
          <p className="text-muted">
            Nothing. Whatever is not taken is listed here with its reason.
          </p>
        ) : (
          <RefusedList
            refused={refused}
            sessions={sessions}
            sendAgain={(rows) => void outbox?.sendAgain(rows)}
            throwAway={(gone) => void outbox?.throwAway(gone)}
          />
        )}
      </section>
      <p className="mt-6">
        <Link className="underline" to={loaderData.home}>
          Back
        </Link>
      </p>
    </main>
  );
}

function RefusedList({
  refused,
  sessions,
  sendAgain,
  throwAway,
}: {
  refused: readonly RefusedEntry[];
  sessions: ReadonlyMap<string, Known>;
  sendAgain: (rows: Array<{ refused: RefusedEntry; entry: LogEntry }>) => void;
  throwAway: (ids: string[]) => void;
}) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [asking, setAsking] = useState(false);
  const rows = refused.filter((row) => chosen.size === 0 || chosen.has(row.entry.id));
  const count = chosen.size === 0 ? "all" : String(rows.length);
  const toggle = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  return (
    <>
      <ul>
        {refused.map((row) => (
          <li
            key={row.entry.id}
            className="flex flex-wrap items-center gap-x-3 border-b border-rule py-2"
          >
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="checkbox border-control"
                checked={chosen.has(row.entry.id)}
                onChange={() => toggle(row.entry.id)}
              />
              <span>
                {entryWords(row.entry, sessions.get(row.sessionId)?.frozen)}
                <span className="block text-muted">{row.reason}</span>
              </span>
            </label>
            <MoveTo
              row={row}
              frozen={sessions.get(row.sessionId)?.frozen}
              onMove={(entry) => sendAgain([{ refused: row, entry }])}
            />
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary min-h-11"
          onClick={() => sendAgain(rows.map((row) => ({ refused: row, entry: row.entry })))}
        >
          Send {count} again
        </button>
        <button type="button" className="btn min-h-11" onClick={() => saveAsFile(rows)}>
          Save {count} as a file
        </button>
        {asking ? (
          <>
            <button
              type="button"
              className="btn min-h-11 border-accent text-accent"
              onClick={() => {
                throwAway(rows.map((row) => row.entry.id));
                setAsking(false);
                setChosen(new Set());
              }}
            >
              Throw {rows.length} away for good
            </button>
            <button type="button" className="btn min-h-11" onClick={() => setAsking(false)}>
              Keep
            </button>
          </>
        ) : (
          <button type="button" className="btn min-h-11" onClick={() => setAsking(true)}>
            Throw {count} away
          </button>
        )}
      </div>
    </>
  );
}

/** Another athlete's set that an entry belongs to: chosen, it is sent for that one. */
function MoveTo({
  row,
  frozen,
  onMove,
}: {
  row: RefusedEntry;
  frozen: FrozenSession | undefined;
  onMove: (entry: LogEntry) => void;
}) {
  const { body } = row.entry;
  if (!frozen || !("setKey" in body)) return null;
  const sets = liftsOf(frozen).flatMap((slot) =>
    slot.racks.flatMap((rack) =>
      rack.lifters.flatMap((lifter) =>
        lifter.sets.map((set) => ({
          value: `${slot.slotId} ${rack.id} ${lifter.athleteId} ${set.key}`,
          words: `${lifter.name}, set ${set.number}`,
        })),
      ),
    ),
  );
  return (
    <select
      className="select min-h-11 border-control"
      aria-label="Belongs to another set"
      value=""
      onChange={(event) => {
        const [slotId = "", stationId = "", athleteId = "", setKey = ""] =
          event.target.value.split(" ");
        // Under a number of its own: the one that was refused may be taken.
        onMove({
          ...row.entry,
          id: uuidv7(),
          body: { ...body, slotId, stationId, athleteId, setKey },
        });
      }}
    >
      <option value="">belongs to…</option>
      {sets.map((set) => (
        <option key={set.value} value={set.value}>
          {set.words}
        </option>
      ))}
    </select>
  );
}

function entryWords(entry: LogEntry, frozen: FrozenSession | undefined): string {
  const { body } = entry;
  const words = actWords(body, { complex: frozen && pairingsOf(frozen)[0]?.complex });
  if (!frozen || !("athleteId" in body)) return words;
  const slot = frozen.slots.find((one) => one.slotId === body.slotId);
  const people = slot ? [...peopleOf(slot), ...absentOf(slot)] : [];
  const person: { name: string; sets?: Array<{ key: string; number: number }> } | undefined =
    people.find((one) => one.athleteId === body.athleteId);
  const set = "setKey" in body ? person?.sets?.find((one) => one.key === body.setKey) : undefined;
  const name = person?.name ?? "Somebody not in the session";
  return `${name}${set ? `, set ${set.number}` : ""}: ${words}`;
}

/** A line an entry, as it would be sent; where it hurts stays out of files. */
function saveAsFile(rows: readonly RefusedEntry[]): void {
  const text = rows
    .map((row) => `${JSON.stringify({ ...row, entry: withoutPlace(row.entry) })}\n`)
    .join("");
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "application/x-ndjson" }));
  link.download = "entries-not-taken.jsonl";
  link.click();
  URL.revokeObjectURL(link.href);
}
