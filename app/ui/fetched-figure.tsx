import { type ReactNode, useState } from "react";
import type { Working } from "../../core/units/working";
import { say } from "./said";
import { useFigure } from "./working";

/** A figure whose working is asked of the server when somebody selects it: a floor has hundreds. */
export function FetchedFigure({
  id,
  from,
  label,
  className = "",
  children,
}: {
  id: string;
  /** Where the server answers with the working. */
  from: string;
  label: string;
  className?: string;
  children: ReactNode;
}) {
  const [working, setWorking] = useState<Working>();
  const { pressed, select } = useFigure(id, working);
  const open = async () => {
    if (pressed) return select(undefined);
    const found = working ?? (await fetchWorking(from).catch(() => undefined));
    if (!found) return say("The working is not here while the link is away. Try again later.");
    setWorking(found);
    select({ key: id, working: found });
  };
  return (
    <button
      type="button"
      data-figure={id}
      className={`figure ${className}`}
      aria-pressed={pressed}
      aria-label={label}
      onClick={() => void open()}
    >
      {children}
    </button>
  );
}

async function fetchWorking(from: string): Promise<Working | undefined> {
  const response = await fetch(from);
  if (!response.ok) return undefined;
  const answer = (await response.json()) as { ok: boolean; value?: { working: Working } };
  return answer.value?.working;
}

/** Where a session's workings are: of a set's load, of what it came to, of a lifter's tonnage. */
export const workingOf = (
  sessionId: string,
  of: {
    kind: "load" | "set" | "tonnage";
    slotId: string;
    athleteId: string;
    setKey?: string;
  },
): string =>
  `/api/session/${sessionId}?${new URLSearchParams({
    of: of.kind,
    slot: of.slotId,
    athlete: of.athleteId,
    ...(of.setKey === undefined ? {} : { set: of.setKey }),
  })}`;
