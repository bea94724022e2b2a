import { type ReactNode, useState } from "react";
import type { Working } from "../../core/units/working";
import { say } from "./said";
import { useFigure } from "./working";

/** A figure whose working is asked of the server when somebody selects it: a floor has hundreds. */
export function FetchedFigure({
  id,
  fetchWorking,
  label,
  children,
}: {
  id: string;
  /** Undefined where it cannot be had now. */
  fetchWorking: () => Promise<Working | undefined>;
  label: string;
  children: ReactNode;
}) {
  const [working, setWorking] = useState<Working>();
  const { pressed, select } = useFigure(id, working);
  const open = async () => {
    if (pressed) return select(undefined);
    const found = working ?? (await fetchWorking().catch(() => undefined));
    if (!found) return say("The working is not here while the link is away. Try again later.");
    setWorking(found);
    select({ key: id, working: found });
  };
  return (
    <button
      type="button"
      data-figure={id}
      className="figure"
      aria-pressed={pressed}
      aria-label={label}
      onClick={() => void open()}
    >
      {children}
    </button>
  );
}
