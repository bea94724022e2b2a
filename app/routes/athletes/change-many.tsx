import { GOAL_NAMES, GOALS, SEASON_PHASE_NAMES, SEASON_PHASES } from "../../../core/maxes/season";
import type { FormResult } from "../../ui/adder";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { Notice } from "../../ui/page";
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
  const changed = (result as { value?: { changed: number } } | undefined)?.value?.changed;
  return (
    <Form method="post" aria-label="Change several" className="grid gap-2" noValidate>
      <h2>{marked.size} marked</h2>
      <p className="text-sm text-muted">Mark athletes in the list. What stays is left as it is.</p>
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
  );
}
