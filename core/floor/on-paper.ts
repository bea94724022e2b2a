import { describeSide } from "../barload/load";
import { guardWords } from "../prescribe/own-words";
import { formatKg, kgToGrains, type MassUnit, massIn, plainNumber } from "../units/mass";
import { formatVelocity } from "../units/velocity";
import type { FrozenLift, FrozenLifter, FrozenSession, FrozenSlot } from "./frozen";

/**
 * A day as it hangs on the wall and lies in a hand: what the stations show, put together for paper. It is
 * read from the settled day, so paper says what is lifted.
 */

/** A settled day without what only a screen asks for: workings, tested lines, what hangs by the kilogram. */
export function forPaper(session: FrozenSession): FrozenSession {
  const lifter = (one: FrozenLifter): FrozenLifter => {
    const {
      tested: _t,
      hang: _h,
      travelM: _m,
      travelMeasured: _t2,
      pins: _p,
      rampKg: _r,
      plates: _l,
      ...kept
    } = one;
    return {
      ...kept,
      line: undefined,
      sets: one.sets.map(({ resistance: _, ...set }) => ({ ...set, working: NO_WORKING })),
    };
  };
  // Who is refused in a slot, and by which check, is on no paper.
  const { leftOut: _, ...day } = session;
  return {
    ...day,
    slots: session.slots.map((slot): FrozenSlot => {
      if (slot.kind === "lift") {
        const { absent: _, ...kept } = slot;
        const groups = slot.groups.map((one) => ({ ...one, lifters: one.lifters.map(lifter) }));
        return { ...kept, groups };
      }
      if (slot.kind === "exercise") {
        const { absent: _, ...kept } = slot;
        return kept;
      }
      const groups = slot.groups.map((group) => ({
        ...group,
        athletes: group.athletes.map((one) => ({
          ...one,
          loads: one.loads.map(({ working: _, steps: __, ...load }) => load),
        })),
      }));
      return { ...slot, groups };
    }),
  };
}

const NO_WORKING = { title: "", lines: [] };

/** Sets one after the other on the same plates. */
export interface PaperRun {
  sets: Array<{ number: number; grip: string | undefined }>;
  reps: number;
  repsTo: number | undefined;
  /** "62.5 %", "0.70 m/s"; empty where nothing was asked. */
  asked: string;
  loadKg: number | undefined;
  /** Why there is no load. */
  reason: string | undefined;
  /**
   * Plates of a side put on an empty bar, "25 · 1.25"; undefined without a load. A rack's screen may show
   * others for the same load, which spare moves from lifter to lifter.
   */
  side: string | undefined;
}

export interface PaperLifter {
  athleteId: string;
  name: string;
  unit: MassUnit;
  station: string;
  runs: PaperRun[];
  /** "38 cm: low box, 2 × thin mat"; undefined off the box. */
  box: string | undefined;
  /** What hangs on a side, "1 × short band"; undefined where nothing does. */
  hung: string | undefined;
  /** Speeds to be moved at, "0.75 to 0.85 m/s", where all sets ask the same. */
  speed: string | undefined;
  /** For the wall: instructions, a load above the best, more rest, why there is no load. */
  first: string[];
  /** For a card: how it is set up for this athlete, what is asked first, why there is no load. */
  lines: string[];
}

export interface PaperLift {
  slot: FrozenLift;
  /** What holds for everybody: method, tempo, contact. */
  how: string[];
  /** Grips or stances in turn; empty for none. */
  grips: string[];
  /** Sets and reps where they are everybody's, "9 × 3". */
  scheme: string | undefined;
  asked: string | undefined;
  /** By rack, in the order of the turns. */
  lifters: PaperLifter[];
}

/**
 * A lift of a day with everybody's line.
 * @param unit of what is said first; each athlete's own where left out
 */
export function liftOnPaper(session: FrozenSession, slot: FrozenLift, unit?: MassUnit): PaperLift {
  const everybody = slot.groups.flatMap((group) => group.lifters);
  const how = (everybody[0]?.setup ?? []).filter((line) =>
    everybody.every((one) => one.setup?.includes(line)),
  );
  const names = new Map(session.stations.map((one) => [one.id, one.name]));
  const lifters = slot.groups.flatMap((group) =>
    group.lifters.map((lifter) =>
      lifterOnPaper(lifter, {
        station: names.get(group.stationId) ?? "",
        how: new Set(how),
        unit: unit ?? lifter.unit,
      }),
    ),
  );
  return {
    slot,
    how,
    grips: [...new Set(everybody[0]?.sets.flatMap((set) => set.cycleItem ?? []) ?? [])],
    scheme: common(lifters.map((one) => schemeOf(one.runs))),
    asked: common(lifters.map((one) => askedOf(one.runs))),
    lifters,
  };
}

function lifterOnPaper(
  lifter: FrozenLifter,
  { station, how, unit }: { station: string; how: ReadonlySet<string>; unit: MassUnit },
): PaperLifter {
  const { box, hangs } = lifter;
  const reasons = new Set(lifter.sets.flatMap((set) => set.loadReason ?? []));
  const hung = hangs?.map((one) => `${one.perSide} × ${one.name}`).join(", ");
  const speeds = lifter.sets.map(({ target }) =>
    target ? `${formatVelocity(target.lowMps)} to ${formatVelocity(target.highMps)} m/s` : "",
  );
  return {
    athleteId: lifter.athleteId,
    name: lifter.name,
    unit: lifter.unit,
    station,
    runs: runsOnPaper(lifter),
    box: box && boxWords(box),
    hung: hung || undefined,
    speed: common(speeds) || undefined,
    first: [
      ...lifter.instructions,
      ...guardWords({
        loadsKg: lifter.sets.map((set) => set.loadKg),
        facts: { ...NOTHING_OPEN, lifetimeBestKg: lifter.bestKg },
        basis: "percent",
        coachSpeed: true,
        unit,
        addRestS: lifter.addRestS ?? 0,
        floorMps: lifter.floorMps,
      }),
      ...reasons,
    ],
    lines: [...new Set([...(lifter.setup ?? []).filter((line) => !how.has(line)), ...reasons])],
  };
}

/** What a settled day has in its loads already, or says among the lines of an athlete. */
const NOTHING_OPEN = {
  today: undefined,
  peakForceReached: undefined,
  peakPowerReached: undefined,
  profile: undefined,
};

/** A lifter's sets, those with the same load and reps together. */
export function runsOnPaper(lifter: Pick<FrozenLifter, "sets">): PaperRun[] {
  const runs: PaperRun[] = [];
  for (const set of lifter.sets) {
    const one = { number: set.number, grip: set.cycleItem };
    const last = runs.at(-1);
    if (
      last &&
      last.loadKg === set.loadKg &&
      last.reps === set.reps &&
      last.repsTo === set.repsTo &&
      last.asked === (set.asked ?? "")
    )
      last.sets.push(one);
    else
      runs.push({
        sets: [one],
        reps: set.reps,
        repsTo: set.repsTo,
        asked: set.asked ?? "",
        loadKg: set.loadKg,
        reason: set.loadReason,
        side: set.loadKg === undefined ? undefined : describeSide(set.side),
      });
  }
  return runs;
}

/** "3", "8 to 10"; nothing of no set. */
export const repsWords = (
  set: { reps: number; repsTo?: number | undefined } | undefined,
): string =>
  set === undefined
    ? ""
    : set.repsTo === undefined
      ? String(set.reps)
      : `${set.reps} to ${set.repsTo}`;

export const restWords = ({ leastS, mostS }: FrozenLift["rest"]): string =>
  `rest ${leastS === mostS ? leastS : `${leastS} to ${mostS}`} s`;

/** "9 × 3", or "5 + 5 + 3" where reps go from set to set. */
export function schemeOf(runs: readonly PaperRun[]): string {
  const reps = runs.flatMap((run) => run.sets.map(() => repsWords(run)));
  const same = common(reps);
  return same === undefined ? reps.join(" + ") : `${reps.length} × ${same}`;
}

const askedOf = (runs: readonly PaperRun[]) =>
  [...new Set(runs.map((run) => run.asked))].join(", ");

/** A run's load as a figure without its unit: "82.5"; a dash where there is none. */
export const loadFigure = (run: Pick<PaperRun, "loadKg">, unit: MassUnit): string =>
  run.loadKg === undefined ? "–" : plainNumber(massIn(kgToGrains(run.loadKg), unit), 1);

function boxWords({ heightCm, seat }: NonNullable<FrozenLifter["box"]>): string {
  const height = heightCm === undefined ? "no height yet" : `${plainNumber(heightCm, 1)} cm`;
  if (!seat) return height;
  const mats = seat.mats.map((mat) => `${mat.count} × ${mat.name}`);
  return `${height}: ${[`${seat.base} at ${plainNumber(seat.pinCm, 1)}`, ...mats].join(" + ")}`;
}

const common = (words: readonly string[]): string | undefined =>
  new Set(words).size === 1 ? words[0] : undefined;

/**
 * Lines put on pages: those of one group stay together where a page holds them.
 * @param lines each with its height, mm
 * @param mostMm of one page
 */
export function pagesOf<Line>(
  lines: readonly Line[],
  of: { mm: (line: Line) => number; group: (line: Line) => string; mostMm: number },
): Line[][] {
  const pages: Line[][] = [];
  let left = 0;
  const put = (line: Line) => {
    const mm = of.mm(line);
    const page = pages.at(-1);
    if (page && mm <= left) page.push(line);
    else {
      pages.push([line]);
      left = of.mostMm;
    }
    left -= mm;
  };
  let at = 0;
  while (at < lines.length) {
    let to = at;
    let mm = 0;
    while (to < lines.length && of.group(lines[to] as Line) === of.group(lines[at] as Line))
      mm += of.mm(lines[to++] as Line);
    if (mm > left && mm <= of.mostMm) left = 0;
    for (const line of lines.slice(at, to)) put(line);
    at = to;
  }
  return pages;
}

/** A set's boxes to write in: its number, with the grip where they go in turn. */
export const boxLabel = (set: PaperRun["sets"][number]): string =>
  set.grip ? `${set.number} ${set.grip}` : String(set.number);

/** A load in words with its unit, for a card. */
export const loadWords = (run: PaperRun, unit: MassUnit): string =>
  run.loadKg === undefined ? "–" : formatKg(run.loadKg, unit, 1);
