import type { InputHTMLAttributes, ReactNode, Ref, SelectHTMLAttributes } from "react";
import { useId } from "react";

interface Shared {
  label: string;
  hint?: ReactNode;
  problem?: string | undefined;
  /** Label beside the field (margin forms) instead of above it. */
  inline?: boolean;
}

function Wrap({
  id,
  label,
  hint,
  problem,
  inline,
  children,
}: Shared & { id: string; children: ReactNode }) {
  return (
    <div className={inline ? "grid grid-cols-[7.5rem_1fr] items-center gap-x-2" : ""}>
      <label htmlFor={id} className={inline ? "text-muted" : "mb-0.5 block text-muted"}>
        {label}
      </label>
      {children}
      {hint && !problem ? (
        <p id={`${id}-hint`} className={`text-sm text-muted ${inline ? "col-start-2" : ""}`}>
          {hint}
        </p>
      ) : null}
      {problem ? (
        <p
          id={`${id}-problem`}
          className={`font-medium text-accent ${inline ? "col-start-2" : ""}`}
        >
          {problem}
        </p>
      ) : null}
    </div>
  );
}

function described(id: string, { hint, problem }: Shared) {
  if (problem) return `${id}-problem`;
  return hint ? `${id}-hint` : undefined;
}

export function Field({
  label,
  hint,
  problem,
  inline,
  ...input
}: Shared & InputHTMLAttributes<HTMLInputElement> & { ref?: Ref<HTMLInputElement> }) {
  const id = useId();
  const shared = { label, hint, problem, inline };
  return (
    <Wrap id={id} {...shared}>
      <input
        id={id}
        className="field"
        aria-invalid={problem ? true : undefined}
        aria-describedby={described(id, shared)}
        {...input}
      />
    </Wrap>
  );
}

export function Select({
  label,
  hint,
  problem,
  inline,
  children,
  ...select
}: Shared & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId();
  const shared = { label, hint, problem, inline };
  return (
    <Wrap id={id} {...shared}>
      <select
        id={id}
        className="field-select"
        aria-invalid={problem ? true : undefined}
        aria-describedby={described(id, shared)}
        {...select}
      >
        {children}
      </select>
    </Wrap>
  );
}
