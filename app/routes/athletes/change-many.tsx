import { GOAL_NAMES, GOALS, SEASON_PHASE_NAMES, SEASON_PHASES } from "../../../core/maxes/season";
import { formatKg } from "../../../core/units/mass";
import type { FormResult } from "../../ui/adder";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { Notice } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import type { readAthletes } from "../../workflows/athletes/read-athletes.server";

type Data = Awaited<ReturnType<typeof readAthletes>>;

/** The same change for everybody who is marked. */
export function ChangeMany({
  marked,
  data,
  result,
}: {
  marked: ReadonlySet<string>;
  data: Data;
  result: FormResult | undefined;
}) {
  const unit = useUnit();
  const value = (result as { value?: { changed?: number; maxes?: number } } | undefined)?.value;
  const changed = value?.changed;
  const newer = data.rows.flatMap((row) =>
    marked.has(row.id)
      ? row.newer.map((record) => ({
          record,
          words: `${row.name}, ${data.variants.find((one) => one.id === record.variantId)?.name.split(",")[0] ?? "another lift"}: ${formatKg(record.kg, unit, 1)}`,
          was: row.maxes.find((one) => one.variantId === record.variantId)?.kg,
        }))
      : [],
  );
  return (
    <>
      <Form method="post" aria-label="Change several" className="grid gap-2" noValidate>
        <h2>{marked.size} marked</h2>
        <p className="text-sm text-muted">
          Mark athletes in the list. What stays is left as it is.
        </p>
        {result?.ok && changed !== undefined ? (
          <Notice kind="note" title={`Changed: ${changed}.`} />
        ) : null}
        {result?.message ? <Notice kind="problem" title={result.message} /> : null}
        <input type="hidden" name="athleteIds" value={[...marked].join(",")} />
        <Select label="Squad" name="squadId" inline>
          <option value="keep">stays</option>
          {data.squads.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
          <option value="alone">none: train alone</option>
        </Select>
        <Select label="Also with" name="alsoIn" inline>
          <option value="keep">stays</option>
          {data.squads.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Select label="Usual room" name="roomId" inline>
          <option value="keep">stays</option>
          <option value="squad">the squad's</option>
          {data.rooms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Select label="Season phase" name="seasonPhase" inline>
          <option value="keep">stays</option>
          <option value="none">not set</option>
          {SEASON_PHASES.map((one) => (
            <option key={one} value={one}>
              {SEASON_PHASE_NAMES[one]}
            </option>
          ))}
        </Select>
        <Select label="Goal" name="goal" inline>
          <option value="keep">stays</option>
          <option value="none">not set</option>
          {GOALS.map((one) => (
            <option key={one} value={one}>
              {GOAL_NAMES[one]}
            </option>
          ))}
        </Select>
        <button
          type="submit"
          name="intent"
          value="many"
          className="btn btn-primary justify-self-start"
          disabled={marked.size === 0}
        >
          Change {marked.size}
        </button>
      </Form>
      <Form method="post" aria-label="Newest records" className="mt-5 grid gap-2">
        <h2>Newest records of the marked</h2>
        {value?.maxes !== undefined ? (
          <Notice kind="note" title={`Percentages stand on ${value.maxes} newer records.`} />
        ) : null}
        {newer.length === 0 ? (
          <p className="text-sm text-muted">
            None was tested or lifted in competition after the one that percentages stand on.
          </p>
        ) : (
          <>
            <ul>
              {newer.map((one) => (
                <li key={one.record.id} className="border-b border-faint py-0.5">
                  {one.words}
                  <span className="text-muted">
                    {one.was === undefined ? ", the first" : `, now ${formatKg(one.was, unit, 1)}`}
                  </span>
                </li>
              ))}
            </ul>
            <input
              type="hidden"
              name="records"
              value={newer.map((one) => one.record.id).join(",")}
            />
            <button
              type="submit"
              name="intent"
              value="use-newest"
              className="btn btn-primary justify-self-start"
            >
              Percentages stand on these {newer.length}
            </button>
            <p className="text-sm text-muted">Each with the factor of its kind.</p>
          </>
        )}
      </Form>
    </>
  );
}
