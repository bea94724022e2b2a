import { rampNumber } from "../../../core/floor/entries";
import type { SetState } from "../../../core/floor/set-state";
import type { Step } from "./use-undo";

const BIG = "btn min-h-[72px] border-2 text-[19px]";

/** What can be done with the set on the screen. */
export function LiftButtons({
  set,
  lifting,
  open,
  ended,
  hasSensor,
  nextName,
  steps,
  on,
}: {
  set: SetState;
  lifting: boolean;
  /** Whether reps are taken. */
  open: boolean;
  ended: boolean;
  hasSensor: boolean;
  nextName: string | undefined;
  steps: { undo: Step | undefined; redo: Step | undefined };
  on: Record<"begin" | "next" | "end" | "all" | "fault" | "type" | "correct" | "more", () => void>;
}) {
  const hasLoad = set.loadKg !== undefined;
  return (
    <div className="sticky bottom-0 mt-auto grid shrink-0 grid-cols-2 gap-2.5 bg-base-100 pt-3 lg:grid-cols-6">
      <MainButton
        stage={lifting && set.stage !== "done" ? "running" : set.stage}
        hasSensor={hasSensor}
        hasLoad={hasLoad}
        ended={ended}
        nextName={nextName}
        reps={set.prescription.reps}
        on={on}
      />
      <button type="button" className={BIG} disabled={ended} onClick={on.fault}>
        Fault or pain
      </button>
      <button type="button" className={BIG} disabled={!open || !hasLoad} onClick={on.type}>
        Type a speed
      </button>
      <StepButton name="Undo" step={steps.undo} />
      {steps.redo ? (
        <StepButton name="Redo" step={steps.redo} />
      ) : (
        <button
          type="button"
          className={BIG}
          disabled={set.stage === "to-come" || rampNumber(set.prescription.key) !== undefined}
          onClick={on.correct}
        >
          Correct
        </button>
      )}
      <button type="button" className={BIG} disabled={ended} onClick={on.more}>
        More
      </button>
    </div>
  );
}

function StepButton({ name, step }: { name: string; step: Step | undefined }) {
  return (
    <button
      type="button"
      className={`${BIG} h-auto flex-col gap-0 py-1 leading-tight`}
      disabled={!step}
      onClick={() => step?.run()}
      aria-label={step ? `${name}: ${step.words}` : name}
    >
      <span>{name}</span>
      {step ? <span className="text-[17px] font-normal text-muted">{step.name}</span> : null}
    </button>
  );
}

function MainButton({
  stage,
  hasSensor,
  hasLoad,
  ended,
  nextName: name,
  reps,
  on,
}: {
  stage: SetState["stage"];
  hasSensor: boolean;
  hasLoad: boolean;
  ended: boolean;
  nextName: string | undefined;
  reps: number;
  on: Record<"begin" | "end" | "next" | "all", () => void>;
}) {
  const look = `${BIG} btn-primary`;
  if (stage === "done") {
    return (
      <button type="button" className={look} onClick={on.next}>
        {name ? `Next: ${name}` : "Go on"}
      </button>
    );
  }
  if (stage === "running") {
    return (
      <button type="button" className={look} onClick={on.end} disabled={ended}>
        End the set
      </button>
    );
  }
  if (hasSensor && hasLoad) {
    return (
      <button type="button" className={look} onClick={on.begin} disabled={ended}>
        Lift (simulated)
      </button>
    );
  }
  return (
    <button type="button" className={look} onClick={on.all} disabled={ended || !hasLoad}>
      {hasLoad ? `All ${reps} done` : "Put a load on"}
    </button>
  );
}
