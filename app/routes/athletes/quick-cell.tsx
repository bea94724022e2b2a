import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";

/**
 * A cell that is edited where it stands: Enter or a click opens it, Enter keeps, Escape leaves it
 * as it was. A problem stays below it until it is mended.
 */
export function QuickCell({
  athlete,
  field,
  label,
  value,
  choices,
  mayEdit,
}: {
  athlete: { id: string; name: string };
  field: "bodyMass" | "birthYear" | "seasonPhase";
  label: string;
  value: string;
  choices?: ReadonlyArray<readonly [string, string]>;
  mayEdit: boolean;
}) {
  const fetcher = useFetcher<{ ok: boolean; message?: string }>();
  const [open, setOpen] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  const failed = fetcher.data?.ok === false && fetcher.state === "idle";
  const pending = fetcher.formData?.get("value");
  const current = pending === undefined || pending === null ? value : String(pending);
  const words = choices?.find(([id]) => id === current)?.[1] ?? current;

  const wasOpen = useRef(false);
  useEffect(() => {
    // Back to where the keyboard was, once the field is gone.
    if (wasOpen.current && !open) opener.current?.focus();
    wasOpen.current = open;
  }, [open]);

  if (!mayEdit) return <span>{words || <span className="text-muted">not set</span>}</span>;
  const keep = (next: string) => {
    setOpen(false);
    if (next !== current) {
      void fetcher.submit(
        // Not once: a value and back again is two changes, and set twice is set.
        { intent: "quick", field, athleteId: athlete.id, value: next },
        { method: "post" },
      );
    }
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement | HTMLSelectElement>) => {
    if (event.key === "Escape") {
      event.stopPropagation();
      setOpen(false);
    }
    if (event.key === "Enter") {
      event.preventDefault();
      keep(event.currentTarget.value);
    }
  };
  const name = `${label} of ${athlete.name}`;
  if (open) {
    return choices ? (
      <select
        className="field-select !h-6 !w-28 !px-1"
        aria-label={name}
        defaultValue={current}
        // biome-ignore lint/a11y/noAutofocus: the field was asked for this moment
        autoFocus
        onKeyDown={onKey}
        onChange={(event) => keep(event.target.value)}
        onBlur={() => setOpen(false)}
      >
        <option value="">not set</option>
        {choices.map(([id, text]) => (
          <option key={id} value={id}>
            {text}
          </option>
        ))}
      </select>
    ) : (
      <input
        className="field !h-6 !w-16 !px-1 text-right"
        aria-label={name}
        defaultValue={current}
        // biome-ignore lint/a11y/noAutofocus: the field was asked for this moment
        autoFocus
        onFocus={(event) => event.target.select()}
        onKeyDown={onKey}
        onBlur={(event) => keep(event.target.value)}
      />
    );
  }
  return (
    <>
      <button
        ref={opener}
        type="button"
        className="rounded-sm px-1 hover:bg-wash pointer-coarse:min-h-11"
        aria-label={`Change ${name}, now ${words || "not set"}`}
        onClick={() => setOpen(true)}
      >
        {words || <span className="text-muted">set</span>}
      </button>
      {failed ? (
        <span role="alert" className="block text-sm font-medium whitespace-normal text-accent">
          {fetcher.data?.message}
        </span>
      ) : null}
    </>
  );
}
