import type { ReactNode } from "react";
import type { FrozenSession } from "../../../../core/floor/frozen";
import { Day } from "../../../ui/dates";

/** One page of a wall sheet: what it is in large print, its lines, and whose day it is at the foot. */
export function Sheet({
  frozen,
  day,
  title,
  label,
  of,
  section,
  facts,
  how,
  children,
}: {
  frozen: FrozenSession;
  day: { name: string; startAt?: string | undefined };
  title: string;
  label: string;
  /** "1 of 2". */
  of: string | undefined;
  section: string | undefined;
  facts: ReactNode;
  /** How it is done, whoever does it. */
  how: readonly string[];
  children: ReactNode;
}) {
  return (
    <section aria-label={label} className="wall-page">
      <header className="mb-[2mm]">
        <h2 className="flex items-baseline justify-between gap-[6mm] text-[30pt] leading-tight">
          <span>
            {title}
            {of ? <span className="text-[15pt] font-normal"> {of}</span> : null}
          </span>
          <span className="text-[15pt] font-normal whitespace-nowrap">
            {section ? `${section} · ` : ""}
            {day.name}
            {day.startAt ? `, ${day.startAt}` : ""}
          </span>
        </h2>
        <p className="flex flex-wrap gap-x-[7mm] text-[20pt] leading-tight">{facts}</p>
        {how.length > 0 ? <p className="text-[13pt] leading-tight">{how.join(" · ")}</p> : null}
      </header>
      <div className="grow">{children}</div>
      <footer className="mt-[2mm] text-[8.5pt] leading-tight">
        <p>
          {frozen.title} · {frozen.roomName} · <Day of={frozen.date} />
          {frozen.planVersion === 0 ? " · draft" : ` · version ${frozen.planVersion}`}
        </p>
        <p>{frozen.cautions.join(" ")}</p>
      </footer>
    </section>
  );
}
