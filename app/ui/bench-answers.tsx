import { Link } from "react-router";
import { Form } from "./form";

/** What the bench sent here, each with the way back to its fields. */
export function BenchAnswers({
  answers,
  mayEdit,
}: {
  answers: ReadonlyArray<{ id: string; address: string; answer: string; by: string; on: string }>;
  mayEdit: boolean;
}) {
  if (answers.length === 0) return null;
  return (
    <section aria-labelledby="from-the-bench" className="mt-5">
      <h2 id="from-the-bench">From the Lab</h2>
      <ul>
        {answers.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-faint py-1"
          >
            <Link className="underline" to={one.address}>
              {one.answer}
            </Link>
            <span className="text-sm text-muted">
              {one.by}, {one.on}
            </span>
            {mayEdit ? (
              <Form method="post" className="no-print ml-auto">
                <input type="hidden" name="answerId" value={one.id} />
                <button type="submit" name="intent" value="drop-answer" className="underline">
                  Take away
                </button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}
