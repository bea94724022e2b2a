import { Link } from "react-router";
import { readIn } from "../../../core/units/written";
import { Day } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import type { AthletePage } from "./page-data";

/** What was agreed in a review and is still to be done, and the newest notes. */
export function Agreed({ data }: { data: AthletePage }) {
  const unit = useUnit();
  const { agreed, noted, person } = data;
  if (agreed.length === 0 && noted.length === 0) return null;
  return (
    <section aria-labelledby="agreed" className="mb-4">
      <h2 id="agreed" className="border-b border-rule pb-1">
        Agreed and noted
      </h2>
      <ul>
        {agreed.map((one) => (
          <li key={one.id} className="border-b border-faint py-1">
            <b>To be done:</b> {readIn(one.proposal, unit)}
            <span className="text-muted">
              {" "}
              agreed <Day of={one.date} />, {one.by}
            </span>
          </li>
        ))}
        {noted.map((one) => (
          <li key={one.id} className="border-b border-faint py-1">
            {one.kind === "hand-over" ? <b>Hand-over: </b> : null}
            {one.words}
            <span className="text-muted">
              {" "}
              {one.by}, <Day of={one.date} />
            </span>
          </li>
        ))}
      </ul>
      <p className="pt-1 text-sm">
        <Link className="underline" to={`/review/notes?about=${person.id}`}>
          All notes
        </Link>
      </p>
    </section>
  );
}
