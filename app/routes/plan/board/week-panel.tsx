import { useState } from "react";
import { markOf } from "../../../../core/plan/block";
import { moveMark } from "../../../../core/plan/board-edits";
import { insertWeek, removeWeek } from "../../../../core/plan/edits";
import { Field } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import { freshId } from "../setup-edit";
import { weekChecks } from "./board-data";

const KINDS = [
  ["deload", "A deload week here"],
  ["test", "A test week here"],
  ["off", "A free week here"],
] as const;

/** A week of the block: what is put before it, or moved, and what stands against it. */
export function WeekPanel({
  data,
  week,
  mayEdit,
  picked,
}: {
  data: PlanPage;
  week: number;
  mayEdit: boolean;
  /** Picks another week: where a mark was moved to. */
  picked: (week: number) => void;
}) {
  const edit = usePlanEdit();
  const { block } = data;
  const mark = markOf(block, week);
  const markId = Object.entries(block.marks).find(([, one]) => one.week === week)?.[0];
  const [problem, setProblem] = useState<string>();
  const move = (to: number) => {
    setProblem(undefined);
    if (to === week) return;
    const moved = markId && moveMark(block, markId, to);
    if (!moved) return setProblem(`A week from 1 to ${block.weeks}.`);
    void edit(moved);
    picked(to);
  };
  return (
    <section aria-labelledby="week-panel">
      <h2 id="week-panel">Week {week}</h2>
      {mark && markId ? (
        <>
          <p>{mark.words || `A ${mark.kind} week`}: no slot's cycle goes on in it.</p>
          {mayEdit ? (
            <div className="mt-2 grid gap-2">
              <div className="flex gap-2">
                <button
                  type="button"
                  className="btn"
                  disabled={week <= 1}
                  onClick={() => move(week - 1)}
                >
                  A week earlier
                </button>
                <button
                  type="button"
                  className="btn"
                  disabled={week >= block.weeks}
                  onClick={() => move(week + 1)}
                >
                  A week later
                </button>
              </div>
              <Field
                key={`move-${week}`}
                inline
                label="To week"
                aria-label={`Move the ${mark.kind} to week`}
                inputMode="numeric"
                defaultValue={week}
                problem={problem}
                onBlur={(event) => move(Number(event.target.value))}
                onKeyDown={(event) => {
                  if (event.key === "Enter") move(Number(event.currentTarget.value));
                }}
              />
              <Field
                key={`words-${week}-${mark.words}`}
                inline
                label="Called"
                defaultValue={mark.words}
                maxLength={80}
                onBlur={(event) => {
                  const words = event.target.value.trim();
                  if (words !== mark.words)
                    void edit({
                      words: `Week ${week}: ${words || mark.kind}`,
                      sets: [{ path: ["marks", markId, "words"], value: words }],
                    });
                }}
              />
              <button
                type="button"
                className="btn justify-self-start"
                onClick={() => void edit(removeWeek(block, markId))}
              >
                Take it out
              </button>
            </div>
          ) : null}
        </>
      ) : mayEdit ? (
        <>
          <p className="text-muted">
            A week of its own is put in here; this one and all later ones move by a week.
          </p>
          <div className="mt-2 grid justify-items-start gap-2">
            {KINDS.map(([kind, words]) => (
              <button
                key={kind}
                type="button"
                className="btn"
                onClick={() =>
                  void edit(insertWeek(block, freshId("m"), { week, kind, words: "" }))
                }
              >
                {words}
              </button>
            ))}
          </div>
        </>
      ) : null}
      {weekChecks(data, week).map((check) => (
        <Notice
          key={check.key}
          kind={check.level === "note" ? "note" : "warning"}
          title={check.text}
        />
      ))}
    </section>
  );
}
