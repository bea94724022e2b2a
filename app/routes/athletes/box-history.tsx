import { Link } from "react-router";
import { BOX_FAULTS, boxFaultNamed, FAULT_ACTIONS } from "../../../core/boxsquat/box-faults";
import { passWords, RUNGS } from "../../../core/boxsquat/ladder";
import { formatMass } from "../../../core/units/mass";
import { formatPercent } from "../../../core/units/percent";
import { Dated, Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import type { BoxCard } from "../../workflows/athletes/box-card.server";

/** Where the athlete stands on the teaching ladder, and how they came there. */
export function Ladder({ card }: { card: BoxCard }) {
  const { ladder } = card;
  const rung = RUNGS.find((one) => one.id === ladder.rungId);
  return (
    <section aria-labelledby="ladder">
      <h2 id="ladder">Teaching ladder</h2>
      <p>{ladder.ready ? "All rungs passed." : `On: ${rung?.name ?? ""}`}</p>
      {rung ? (
        <p className="text-sm text-muted">Passed when: {passWords(rung, ladder.ladderReps)}</p>
      ) : null}
      {ladder.holding ? (
        <p className={ladder.holding.due ? "text-secondary" : "text-muted"}>
          <Dated>
            {ladder.holding.load
              ? `Speed weight ${formatMass(ladder.holding.load)}, ${ladder.holding.variantName}, found ${ladder.holding.on}. `
              : ""}
          </Dated>
          {ladder.holding.words}
        </p>
      ) : null}
      <ol className="mt-1 text-sm text-muted">
        {[...ladder.marks].reverse().map((one, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: marks are only added, the list is drawn anew
          <li key={i}>
            <Day of={one.date} /> {one.outcome === "passed" ? "passed" : "back to"}{" "}
            {RUNGS.find((two) => two.id === one.rungId)?.name.toLowerCase()}
            {one.note ? `: ${one.note}` : ""}
          </li>
        ))}
      </ol>
      <p className="mt-1">
        <Link className="underline" to="/athletes/box">
          The squad's ladder
        </Link>
      </p>
    </section>
  );
}

/** Faults seen, where a cured one comes back, and a field for one more. */
export function Faults({ card, mayEdit }: { card: BoxCard; mayEdit: boolean }) {
  return (
    <section aria-labelledby="faults" className="no-print mt-5">
      <h2 id="faults">Faults</h2>
      {card.faults.length === 0 ? (
        <p className="text-muted">None seen. They are tagged at the rack, or written here.</p>
      ) : (
        <table className="ledger max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Seen</th>
              <th scope="col">Times</th>
              <th scope="col">Last</th>
              <th scope="col">Comes back at</th>
              <th scope="col">Cue, and what to do</th>
            </tr>
          </thead>
          <tbody>
            {card.faults.map((one) => {
              const known = boxFaultNamed(one.fault);
              return (
                <tr key={one.fault}>
                  <th scope="row" className="!text-base-content">
                    {one.fault}
                  </th>
                  <td>{one.times}</td>
                  <td>
                    <Day of={one.lastOn} />
                    {one.cured ? ", cured" : ""}
                  </td>
                  <td>{one.returnsAt === undefined ? "–" : formatPercent(one.returnsAt)}</td>
                  <td className="text-muted">
                    {known ? `${known.cue}. ${known.drill}; ${FAULT_ACTIONS[known.action]}.` : "–"}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {mayEdit ? (
        <Form
          method="post"
          aria-label="A fault seen"
          className="mt-2 flex flex-wrap items-end gap-3"
        >
          <div className="w-64">
            <Select label="Fault seen" name="fault">
              {BOX_FAULTS.map((one) => (
                <option key={one.id}>{one.seen}</option>
              ))}
            </Select>
          </div>
          <div className="w-36">
            <Field label="At % of the max" name="percent" inputMode="decimal" />
          </div>
          <button type="submit" name="intent" value="fault" className="btn">
            Write it down
          </button>
        </Form>
      ) : null}
    </section>
  );
}
