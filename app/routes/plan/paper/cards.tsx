import type { FrozenSession, FrozenSlot } from "../../../../core/floor/frozen";
import {
  boxLabel,
  liftOnPaper,
  loadWords,
  type PaperLift,
  type PaperLifter,
  repsWords,
  restWords,
} from "../../../../core/floor/on-paper";
import { formatKg } from "../../../../core/units/mass";
import { formatClock } from "../../../../core/units/time";
import { Day } from "../../../ui/dates";

/** A card for everybody, two a page: what to do, and a box for each set to write in. */
export function Cards({
  frozen,
  day,
}: {
  frozen: FrozenSession;
  day: { name: string; startAt?: string | undefined };
}) {
  const lifts = new Map(
    frozen.slots.flatMap((slot) =>
      slot.kind === "lift" ? [[slot.slotId, liftOnPaper(frozen, slot)] as const] : [],
    ),
  );
  return (
    <div className="cards">
      {everybody(frozen).map((person) => (
        <article key={person.id} aria-label={person.name} className="card-page">
          <h2 className="text-[16pt] leading-tight">{person.name}</h2>
          <p className="mb-[1.5mm] text-[9pt]">
            {frozen.title} · {day.name}, <Day of={frozen.date} />
            {day.startAt ? ` at ${day.startAt}` : ""}
          </p>
          {person.instructions.map((text) => (
            <p key={text} className="text-[10pt] font-bold">
              {text}
            </p>
          ))}
          {frozen.slots.map((slot) => (
            <OnCard
              key={slot.slotId}
              slot={slot}
              lift={lifts.get(slot.slotId)}
              athleteId={person.id}
            />
          ))}
          <p className="mt-[1mm] text-[9pt]">
            How it went, sleep, body mass:
            <span className="mt-[5mm] block border-b border-control" />
            <span className="mt-[6mm] block border-b border-control" />
          </p>
          <p className="mt-[1mm] text-[6.5pt] leading-tight">{frozen.cautions.join(" ")}</p>
        </article>
      ))}
    </div>
  );
}

/** Who is in any slot, by name. */
function everybody(frozen: FrozenSession) {
  const found = new Map<string, { id: string; name: string; instructions: string[] }>();
  for (const slot of frozen.slots)
    for (const group of slot.groups)
      for (const one of "lifters" in group ? group.lifters : group.athletes)
        if (!found.has(one.athleteId))
          found.set(one.athleteId, {
            id: one.athleteId,
            name: one.name,
            instructions: "instructions" in one ? one.instructions : [],
          });
  return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
}

function OnCard({
  slot,
  lift,
  athleteId,
}: {
  slot: FrozenSlot;
  lift: PaperLift | undefined;
  athleteId: string;
}) {
  if (lift) {
    const own = lift.lifters.find((one) => one.athleteId === athleteId);
    return own ? <LiftOnCard lift={lift} own={own} /> : null;
  }
  if (slot.kind === "exercise") {
    const own = slot.groups
      .flatMap((group) => group.athletes)
      .find((one) => one.athleteId === athleteId);
    if (!own) return null;
    const kgs = [...new Set(own.sets.flatMap((set) => set.loadKg ?? []))];
    return (
      <section className="card-slot">
        <p>
          <b>{slot.name}</b> {own.sets.length} × {repsWords(own.sets[0])}
          {slot.counts === "metres" ? " m" : ""}
          {slot.sides === "left-right" ? " a side" : ""}
          {kgs.length > 0 ? ` at ${kgs.map((kg) => formatKg(kg, own.unit, 1)).join(" · ")}` : ""}
          {own.rung ? `: ${own.rung.name}, ${own.rung.pass}` : ""} · {restWords(slot.rest)}
        </p>
        <Boxes labels={own.sets.map((set) => String(set.number))} />
      </section>
    );
  }
  if (slot.kind !== "pairing") return null;
  const own = slot.groups
    .flatMap((group) => group.athletes)
    .find((one) => one.athleteId === athleteId);
  if (!own) return null;
  const { complex } = slot;
  return (
    <section className="card-slot">
      <p>
        <b>{complex.name}</b> {complex.rounds} rounds, {formatClock(complex.restS)} between
      </p>
      <p>
        {complex.items
          .map((item, i) => {
            const words = own.loads[i]?.words;
            const gap = i === complex.items.length - 1 ? "" : `, then ${formatClock(item.gapS)}`;
            return `${item.name} × ${item.reps}${words ? `, ${words}` : ""}${gap}`;
          })
          .join(" · ")}
      </p>
      <Boxes labels={Array.from({ length: complex.rounds }, (_, i) => String(i + 1))} />
    </section>
  );
}

function LiftOnCard({ lift, own }: { lift: PaperLift; own: PaperLifter }) {
  const { slot } = lift;
  const cues = (slot.faults ?? []).flatMap(({ seen, cue }) => (cue ? [`${seen}: ${cue}`] : []));
  return (
    <section className="card-slot">
      <p>
        <b>{slot.liftName}</b> · rack {own.station} · {restWords(slot.rest)}
        {own.speed ? ` · ${own.speed}` : ""}
      </p>
      {own.runs.map((run) => (
        <div key={run.sets[0]?.number}>
          <p className="flex flex-wrap items-baseline gap-x-[3mm]">
            <b className="text-[13pt]">{loadWords(run, own.unit)}</b>
            <span>
              {run.sets.length} × {repsWords(run)}
              {run.asked ? ` at ${run.asked}` : ""}
            </span>
            {run.side ? <span>side {run.side}</span> : null}
          </p>
          <Boxes labels={run.sets.map(boxLabel)} />
        </div>
      ))}
      {[...lift.how, ...own.lines].map((line) => (
        <p key={line} className="text-[8.5pt] leading-tight">
          {line}
        </p>
      ))}
      {cues.length > 0 ? (
        <p className="text-[8.5pt] leading-tight">Cues: {cues.slice(0, MOST_CUES).join(" · ")}</p>
      ) : null}
    </section>
  );
}

/** Cues that a hand-held card has room for. */
const MOST_CUES = 2;

/** A box for each set: its number, and room for what was done. */
function Boxes({ labels }: { labels: readonly string[] }) {
  return (
    <ul className="my-[1mm] flex flex-wrap gap-[1mm]">
      {labels.map((label) => (
        <li
          key={label}
          className="h-[7.5mm] min-w-[11.5mm] border border-control px-[0.8mm] text-[7pt] leading-[3mm]"
        >
          {label}
        </li>
      ))}
    </ul>
  );
}
