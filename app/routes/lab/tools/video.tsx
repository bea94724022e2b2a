import { Suspense } from "react";
import { filmPart } from "../../../ui/clip/film-part";
import { WHERE_IT_STANDS } from "../../../ui/clip/where-it-stands";

/** The film's part comes when somebody opens this tool: most who open the Lab do not film. */
const Measure = filmPart(async () => (await import("../../../workers/clip")).clip);

/** Bar speed from a phone's film, measured in this browser; nothing of it is kept. */
export function VideoSpeed() {
  return (
    <>
      <details className="mb-3">
        <summary className="link">Where the phone stands</summary>
        <ul className="mt-1 max-w-3xl list-disc pl-5">
          {WHERE_IT_STANDS.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </details>
      <Suspense fallback={<p className="text-muted">The film's part is being opened.</p>}>
        <Measure startsAt="top" />
      </Suspense>
    </>
  );
}
