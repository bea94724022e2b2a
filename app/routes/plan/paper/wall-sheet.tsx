import { complexTotals } from "../../../../core/contrast/complex";
import type {
  FrozenExercise,
  FrozenLift,
  FrozenPairing,
  FrozenSession,
} from "../../../../core/floor/frozen";
import {
  liftOnPaper,
  loadFigure,
  type PaperLift,
  type PaperLifter,
  pagesOf,
  repsWords,
  restWords,
  schemeOf,
} from "../../../../core/floor/on-paper";
import { SECTION_NAMES } from "../../../../core/plan/block";
import { formatKg, type MassUnit } from "../../../../core/units/mass";
import { formatClock } from "../../../../core/units/time";
import { formatVelocity } from "../../../../core/units/velocity";
import { Sheet } from "./sheet";

/** Height that a page's lines share, mm, on the lower of A4 and letter on its side. */
const LINES_MM = 132;
/** So high a line can be read from two metres: its figures are 6.7 mm, a 300th of the way. */
const LINE_MM = 11.8;
const MOST_LINE_MM = 20;
/** A line of small print under a name. */
const SMALL_MM = 3.6;
const MM_PT = 0.3528;
/** Room for a line's loads, mm. */
const LOADS_MM = 92;

interface Shown {
  frozen: FrozenSession;
  day: { name: string; startAt?: string | undefined };
}

/** A day on the wall: a page a lift, read at two metres, and one of what goes without a bar. */
export function WallSheet({ frozen, day, unit }: Shown & { unit: MassUnit }) {
  const lifts = frozen.slots.flatMap((slot) =>
    slot.kind === "lift" ? liftOnPaper(frozen, slot, unit) : [],
  );
  const others = frozen.slots.flatMap((slot) => (slot.kind === "exercise" ? slot : []));
  const pairings = frozen.slots.flatMap((slot) => (slot.kind === "pairing" ? slot : []));
  return (
    <article aria-label="Wall sheet">
      {lifts.map((lift) => (
        <LiftPages key={lift.slot.slotId} lift={lift} frozen={frozen} day={day} unit={unit} />
      ))}
      {pairings.map((slot) => (
        <PairingPages key={slot.slotId} slot={slot} frozen={frozen} day={day} />
      ))}
      {others.length > 0 ? (
        <ExercisePages slots={others} frozen={frozen} day={day} unit={unit} />
      ) : null}
    </article>
  );
}

/** What stands small under a name; the sets too, where they are not everybody's. */
function smallOf(lift: PaperLift, one: PaperLifter): string[] {
  const words = [...(lift.scheme ? [] : [schemeOf(one.runs)]), ...one.first];
  return words.length > 0 ? [words.join(" · ")] : [];
}

/** Lines that wrap are counted by their letters. */
const lineMm = (lift: PaperLift, one: PaperLifter) =>
  LINE_MM + SMALL_MM * smallOf(lift, one).reduce((n, line) => n + Math.ceil(line.length / 62), 0);

function LiftPages({ lift, frozen, day, unit }: Shown & { lift: PaperLift; unit: MassUnit }) {
  const pages = pagesOf(lift.lifters, {
    mm: (one) => lineMm(lift, one),
    group: (one) => one.station,
    mostMm: LINES_MM,
  });
  return pages.map((lifters, i) => (
    <LiftPage
      // biome-ignore lint/suspicious/noArrayIndexKey: a page's number is its identity
      key={i}
      lift={lift}
      lifters={lifters}
      of={pages.length > 1 ? `${i + 1} of ${pages.length}` : undefined}
      frozen={frozen}
      day={day}
      unit={unit}
    />
  ));
}

function LiftPage({
  lift,
  lifters,
  of,
  frozen,
  day,
  unit,
}: Shown & {
  lift: PaperLift;
  lifters: PaperLifter[];
  of: string | undefined;
  unit: MassUnit;
}) {
  const { slot } = lift;
  const small = lifters.reduce((sum, one) => sum + lineMm(lift, one) - LINE_MM, 0);
  const mm = Math.min(MOST_LINE_MM, (LINES_MM - small) / lifters.length);
  const boxes = lifters.some((one) => one.box);
  const hung = lifters.some((one) => one.hung);
  const byRack = new Map<string, number>();
  for (const one of lifters) byRack.set(one.station, (byRack.get(one.station) ?? 0) + 1);
  const firsts = new Set(
    lifters.filter((one, i) => one.station !== lifters[i - 1]?.station).map((one) => one.athleteId),
  );
  return (
    <Sheet
      frozen={frozen}
      day={day}
      title={slot.liftName}
      label={of ? `${slot.liftName}, ${of}` : slot.liftName}
      of={of}
      section={slot.section ? SECTION_NAMES[slot.section] : undefined}
      facts={
        <>
          {lift.scheme ? <b>{lift.scheme}</b> : null}
          {lift.asked ? <span>{lift.asked}</span> : null}
          <span className="whitespace-nowrap">{restWords(slot.rest)}</span>
          {lift.grips.length > 0 ? <span>{lift.grips.join(", ")} in turn</span> : null}
          {slot.group ? <span>rounds {slot.group}</span> : null}
        </>
      }
      how={[...lift.how, ...stopWords(slot)]}
    >
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b-2 border-base-content text-left text-[11pt]">
            <th className="w-[17mm] pr-[3mm] font-normal">Rack</th>
            <th className="w-[64mm] font-normal">Athlete</th>
            <th className="font-normal">On the bar, {unit}</th>
            <th className="font-normal">Plates a side, on an empty bar</th>
            {boxes ? <th className="w-[46mm] font-normal">Box</th> : null}
            {hung ? <th className="w-[40mm] font-normal">Hung a side</th> : null}
          </tr>
        </thead>
        <tbody>
          {lifters.map((one) => (
            <tr
              key={one.athleteId}
              style={{ height: `${mm}mm` }}
              className={
                firsts.has(one.athleteId)
                  ? "border-t-2 border-base-content"
                  : "border-t border-faint"
              }
            >
              {firsts.has(one.athleteId) ? (
                <th rowSpan={byRack.get(one.station)} className="text-[34pt] leading-none">
                  {one.station}
                </th>
              ) : null}
              <td className="pr-[3mm]">
                <span
                  className="block leading-none font-bold"
                  style={{
                    fontSize: `${fitPt(one.name, 62, Math.min(27, (0.72 * mm) / MM_PT))}pt`,
                  }}
                >
                  {one.name}
                </span>
                {smallOf(lift, one).map((line) => (
                  <span key={line} className="block text-[9pt] leading-tight">
                    {line}
                  </span>
                ))}
              </td>
              <Loads of={one} unit={unit} mm={mm} />
              {boxes ? (
                <td className="pr-[3mm] text-[12pt] leading-tight">{one.box ?? "–"}</td>
              ) : null}
              {hung ? <td className="text-[12pt] leading-tight">{one.hung ?? "–"}</td> : null}
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}

/** The largest print, pt, in which words of bold figures and letters stay in a width. */
function fitPt(words: string, widthMm: number, mostPt: number): number {
  const wide = Math.max(1, words.length) * 0.56 * MM_PT;
  return Math.min(mostPt, widthMm / wide);
}

function Loads({ of, unit, mm }: { of: PaperLifter; unit: MassUnit; mm: number }) {
  // A load that comes again later stands there once, with all of its sets.
  const setsAt = (kg: number | undefined) =>
    of.runs.reduce((n, run) => (run.loadKg === kg ? n + run.sets.length : n), 0);
  const runs = of.runs.filter(
    (run, i) => of.runs.findIndex((one) => one.loadKg === run.loadKg) === i,
  );
  const loads = runs.map((run) => loadFigure(run, unit)).join(" · ");
  const lineMm = mm / runs.length;
  return (
    <>
      <td className="pr-[4mm] leading-none font-bold whitespace-nowrap tabular-nums">
        <span style={{ fontSize: `${fitPt(loads, LOADS_MM, Math.min(44, (0.8 * mm) / MM_PT))}pt` }}>
          {loads}
        </span>
      </td>
      <td className="leading-none tabular-nums">
        {runs.length < 2 ? (
          <span className="text-[18pt]">{runs[0]?.side}</span>
        ) : (
          <ul style={{ fontSize: `${Math.min(12, (0.85 * lineMm) / MM_PT)}pt` }}>
            {runs.map((run) => (
              <li key={run.loadKg}>
                <b className="inline-block min-w-[5em]">
                  {setsAt(run.loadKg)} at {loadFigure(run, unit)}
                </b>{" "}
                {run.side}
              </li>
            ))}
          </ul>
        )}
      </td>
    </>
  );
}

/** Until when a set is lifted, as on the rack. */
function stopWords({ stop, everyS }: FrozenLift): string[] {
  return [
    ...(stop.lossPercent === undefined
      ? []
      : [`stop at ${stop.lossPercent} % slower than the ${stop.lossFrom} rep`]),
    ...(stop.floorMps === undefined ? [] : [`stop under ${formatVelocity(stop.floorMps)} m/s`]),
    ...(everyS === undefined ? [] : [`a start every ${everyS} s`]),
  ];
}

function PairingPages({ slot, frozen, day }: Shown & { slot: FrozenPairing }) {
  const { complex } = slot;
  const people = slot.groups.flatMap((group) => group.athletes);
  const pages = pagesOf(people, { mm: () => LINE_MM, group: () => "", mostMm: LINES_MM });
  return pages.map((athletes, i) => {
    const mm = Math.min(MOST_LINE_MM, LINES_MM / athletes.length);
    const widthMm = 180 / complex.items.length - 4;
    return (
      <Sheet
        // biome-ignore lint/suspicious/noArrayIndexKey: a page's number is its identity
        key={i}
        frozen={frozen}
        day={day}
        title={complex.name}
        label={pages.length > 1 ? `${complex.name}, ${i + 1} of ${pages.length}` : complex.name}
        of={pages.length > 1 ? `${i + 1} of ${pages.length}` : undefined}
        section="Pairing"
        facts={
          <>
            <b>{complex.rounds} rounds</b>
            <span>{formatClock(complex.restS)} between them</span>
            <span>{formatClock(complexTotals(complex).lengthS)} in all</span>
          </>
        }
        how={[]}
      >
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b-2 border-base-content text-left align-bottom text-[13pt]">
              <th className="w-[66mm] text-[11pt] font-normal">Athlete</th>
              {complex.items.map((item, at) => (
                <th key={item.id} className="pr-[3mm] leading-tight">
                  {at + 1} {item.name} × {item.reps}
                  {item.kind === "sprint" ? " m" : item.sides ? " a side" : ""}
                  <span className="block font-normal">
                    {at === complex.items.length - 1
                      ? "then the rest"
                      : `then ${formatClock(item.gapS)}`}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {athletes.map((one) => (
              <tr
                key={one.athleteId}
                style={{ height: `${mm}mm` }}
                className="border-t border-faint"
              >
                <td
                  className="pr-[3mm] leading-none font-bold"
                  style={{
                    fontSize: `${fitPt(one.name, 63, Math.min(27, (0.72 * mm) / MM_PT))}pt`,
                  }}
                >
                  {one.name}
                </td>
                {complex.items.map((item, at) => (
                  <td
                    key={item.id}
                    className="pr-[3mm] leading-none font-bold tabular-nums"
                    style={{
                      fontSize: `${fitPt(one.loads[at]?.words ?? "", widthMm, Math.min(32, (0.7 * mm) / MM_PT))}pt`,
                    }}
                  >
                    {one.loads[at]?.words ?? ""}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Sheet>
    );
  });
}

const EXERCISE_MM = 16;

/** Exercises in lines; with everybody's loads under them where there are any. */
function ExercisePages({
  slots,
  frozen,
  day,
  unit,
}: Shown & { slots: FrozenExercise[]; unit: MassUnit }) {
  const lines = slots.map((slot) => {
    const loads = exerciseLoads(slot, unit);
    const people = slot.groups.reduce((n, group) => n + group.athletes.length, 0);
    const [first] = loads;
    const same = loads.length === people && loads.every((one) => one.words === first?.words);
    return same && first ? { slot, loads: [], all: first.words } : { slot, loads, all: undefined };
  });
  const pages = pagesOf(lines, {
    mm: ({ loads }) => EXERCISE_MM + 7 * Math.ceil(loads.length / 3),
    group: () => "",
    mostMm: LINES_MM + 12,
  });
  return pages.map((shown, i) => (
    <Sheet
      // biome-ignore lint/suspicious/noArrayIndexKey: a page's number is its identity
      key={i}
      frozen={frozen}
      day={day}
      title="Without the bar"
      label={`Without the bar${pages.length > 1 ? `, ${i + 1} of ${pages.length}` : ""}`}
      of={pages.length > 1 ? `${i + 1} of ${pages.length}` : undefined}
      section={undefined}
      facts={null}
      how={[]}
    >
      {shown.map(({ slot, loads, all }) => (
        <section
          key={slot.slotId}
          aria-label={slot.name}
          className="border-t-2 border-base-content py-[2mm]"
        >
          <p className="flex flex-wrap items-baseline gap-x-[6mm] text-[18pt] leading-tight">
            <b className="text-[24pt]">{slot.name}</b>
            <b>
              {slot.groups[0]?.athletes[0]?.sets.length ?? 0} ×{" "}
              {repsWords(slot.groups[0]?.athletes[0]?.sets[0])}
              {slot.counts === "metres" ? " m" : ""}
              {slot.sides === "left-right" ? " a side" : ""}
            </b>
            {all ? <b>{all}</b> : null}
            <span className="whitespace-nowrap">{restWords(slot.rest)}</span>
            {slot.group ? <span>rounds {slot.group}</span> : null}
            <span className="text-[13pt]">
              {[...new Set(slot.groups.map((group) => placeName(frozen, group.stationId)))].join(
                ", ",
              )}
            </span>
          </p>
          {loads.length > 0 ? (
            <ul className="grid grid-cols-3 gap-x-[8mm] text-[15pt]">
              {loads.map((one) => (
                <li key={one.athleteId} className="flex justify-between border-b border-faint">
                  <span>{one.name}</span>
                  <b className="tabular-nums">{one.words}</b>
                </li>
              ))}
            </ul>
          ) : null}
        </section>
      ))}
    </Sheet>
  ));
}

const placeName = (frozen: FrozenSession, id: string) =>
  frozen.stations.find((one) => one.id === id)?.name ?? "";

/** Everybody's loads and rungs, where a slot has any. */
function exerciseLoads(slot: FrozenExercise, unit: MassUnit) {
  return slot.groups.flatMap((group) =>
    group.athletes.flatMap((one) => {
      const kgs = [...new Set(one.sets.flatMap((set) => set.loadKg ?? []))];
      const words = one.rung
        ? one.rung.name
        : kgs.map((kg) => formatKg(kg, unit, 1)).join(" · ") +
          (kgs.length > 0 && slot.hands === 2 ? " a hand" : "");
      return words === "" ? [] : [{ athleteId: one.athleteId, name: one.name, words }];
    }),
  );
}
