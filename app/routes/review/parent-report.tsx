import { Dated, Day } from "../../ui/dates";
import type { BlockPage } from "../../workflows/review/read-block.server";

type Opened = NonNullable<Extract<BlockPage, { opened: unknown }>["opened"]>;
type Block = NonNullable<BlockPage["block"]>;

const PUBLIC_WORDS = {
  better: "better than before, by more than days differ by themselves",
  trivial: "about as before",
  worse: "below before; one test day is one day",
  unclear: "no clear change; more test days would tell",
};

/** A sheet for a parent: attendance and tests in plain words; no loads, no maxes, nothing on health. */
export function ParentReport({ opened, block }: { opened: Opened; block: Block }) {
  const tested = opened.qualities.filter((one) => one.before && one.after);
  return (
    <section aria-labelledby="for-parent" className="max-w-2xl">
      <h2 id="for-parent">
        {opened.name}, {block.name}
      </h2>
      <p>
        <Day of={block.from} /> to <Day of={block.to} />, with {block.squadName}.
      </p>
      <p className="mt-2">
        Trained in {opened.sessions} {opened.sessions === 1 ? "session" : "sessions"} and did{" "}
        {opened.setsDone} of {opened.setsPlanned} planned sets.
      </p>
      {tested.length > 0 ? (
        <ul className="mt-2">
          {tested.map((one) => (
            <li key={one.key} className="border-b border-faint py-1">
              <b>
                {one.testName} {one.side}
              </b>
              : {one.change ? PUBLIC_WORDS[one.change.verdict] : "cut short, no comparison"}
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-2">No test was done both before and after this block.</p>
      )}
      <p className="mt-3 text-muted">
        Training at this age is about skill and habit. Ask the coach about anything on this sheet.
        <Dated>{opened.given ? ` Given by ${opened.given.by}, ${opened.given.date}.` : ""}</Dated>
      </p>
    </section>
  );
}
