import { useMemo } from "react";
import { blockLoads, changedLoads } from "../../../core/plan/block-loads";
import { changedPairings } from "../../../core/plan/pairing-changes";
import { useFirstRows } from "../../ui/use-first-rows";
import type { PlanPage } from "../../workflows/plan/read-plan.server";

/** What changed for whom since athletes last got it. */
export function Changed({ data, published }: { data: PlanPage; published: PlanPage["published"] }) {
  const athletes = data.athletes.length;
  const ready = useFirstRows(athletes) === athletes;
  const changes = useMemo(
    () =>
      published && ready
        ? changedLoads(
            published.loads,
            blockLoads({ block: data.block, athletes: data.athletes, room: data.room }),
          )
        : [],
    [data, published, ready],
  );
  if (!published) return null;
  const pairings = changedPairings(published, data.block);
  return (
    <section aria-labelledby="since-published" className="mt-4">
      <h2 id="since-published">Since version {published.number}</h2>
      {!ready ? (
        <p className="text-muted">Being compared for {athletes} athletes.</p>
      ) : changes.length === 0 && pairings.length > 0 ? null : changes.length === 0 ? (
        <p className="text-muted">Nothing changed: athletes see these loads.</p>
      ) : (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-x-8">
          {changes.map((one) => (
            <li key={one.athleteId} className="flex justify-between border-b border-faint">
              <span>
                {data.athletes.find((athlete) => athlete.id === one.athleteId)?.name ??
                  "no longer in it"}
              </span>
              <span className="text-muted">
                {[
                  one.changed ? `${one.changed} changed` : "",
                  one.added ? `${one.added} new` : "",
                  one.gone ? `${one.gone} gone` : "",
                ]
                  .filter(Boolean)
                  .join(", ")}
              </span>
            </li>
          ))}
        </ul>
      )}
      {ready && pairings.length > 0 ? (
        <ul aria-label="Pairings since then">
          {pairings.map((one) => (
            <li key={`${one.dayId}/${one.complexId}`} className="border-b border-faint">
              {data.complexes.find((row) => row.id === one.complexId)?.complex.name ?? "A pairing"}:{" "}
              {one.kind}
              {data.block.days[one.dayId] ? `, ${data.block.days[one.dayId]?.name}` : ""}
            </li>
          ))}
        </ul>
      ) : null}
    </section>
  );
}

/** The newest edits, and whose they were. */
export function History({ data }: { data: PlanPage }) {
  return (
    <section aria-labelledby="edits">
      <h2 id="edits">Edits</h2>
      {data.edits.length === 0 ? <p className="text-muted">None yet.</p> : null}
      <ol>
        {data.edits.map((one) => (
          <li key={one.seq} className="border-b border-faint py-1">
            {one.words}
            <span className="block text-sm text-muted">
              {one.by}, {one.at.slice(0, 10)} {one.at.slice(11, 16)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
