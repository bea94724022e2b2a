import { useEffect, useMemo, useRef, useState } from "react";
import { turnsWords } from "../../../core/prescribe/turns";
import { groupsByLoad, groupsByName, inBestOrder } from "../../../core/racks/find-groups";
import { MOVE_KINDS } from "../../../core/racks/moves";
import { brokenBy, type GroupProblem, movesOf, type RackGroup } from "../../../core/racks/problem";
import type { Proposal, SlotTimes } from "../../../core/racks/propose";
import type { DayTimes, SimulatedDay } from "../../../core/racks/simulate-day";
import { movesWords } from "../../../core/racks/words";
import { formatClock } from "../../../core/units/time";
import { GroupBoard } from "../../ui/groups/group-board";
import { Notice } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { lookForGroups } from "../../workers/groups";
import type { LiftToGroup } from "../../workflows/floor/propose-groups.server";
import { type DayWhatIf, problemUnder, sizesUnder } from "./what-if";

type Made = "ours" | "load" | "name" | "other" | "hand";

/** The search for a lift's groups: it begins anew with what is tried, and is taken until somebody moves. */
function useSearch(
  lift: LiftToGroup,
  whatIf: DayWhatIf,
  times: DayTimes,
  take: (groups: RackGroup[]) => void,
) {
  const [found, setFound] = useState<Proposal>();
  const [made, setMade] = useState<Made>("ours");
  const now = useRef({ made, take });
  now.current = { made, take };
  const { racksOut, pairs, needSpotter } = whatIf;
  const size = whatIf.sizeOf[lift.slotId];
  const rest = whatIf.restOf[lift.slotId] ?? lift.rest;
  const { leastS, mostS } = rest;
  const problem = useMemo(
    () => problemUnder(lift, { racksOut, pairs, needSpotter }),
    [lift, racksOut, pairs, needSpotter],
  );
  const sizes = useMemo(
    () =>
      sizesUnder(lift, problem.racks.length, {
        turnS: times.turnS,
        sizeOf: { [lift.slotId]: size },
        restOf: { [lift.slotId]: { leastS, mostS } },
      }),
    [lift, problem, size, leastS, mostS, times.turnS],
  );
  useEffect(() => {
    const slot: SlotTimes = { ...lift, rest: { leastS, mostS }, times };
    // What was made by hand for other racks stands no more.
    now.current.made = "ours";
    setMade("ours");
    setFound(undefined);
    return lookForGroups({ problem, sizes, slot }, (next) => {
      setFound(next);
      if (now.current.made === "ours") now.current.take(next.groups);
    });
  }, [lift, problem, sizes, leastS, mostS, times]);
  return {
    found,
    made,
    problem: { ...problem, ...(found?.sizes ?? sizes[0] ?? { use: 0, least: 0, most: 0 }) },
    make: (as: Made, groups: RackGroup[]) => {
      now.current.made = as;
      setMade(as);
      take(groups);
    },
  };
}

/** One lift's groups: as proposed or by hand, with what they cost beside other ways. */
export function LiftGroups({
  lift,
  whatIf,
  times,
  day,
  groups,
  others,
  change,
}: {
  lift: LiftToGroup;
  whatIf: DayWhatIf;
  times: DayTimes;
  day: SimulatedDay;
  groups: readonly RackGroup[];
  /** The day's other lifts as they are grouped: who is together there may stay so. */
  others: ReadonlyArray<{ name: string; groups: readonly RackGroup[] }>;
  change: (groups: RackGroup[]) => void;
}) {
  const unit = useUnit();
  const { found, made, problem, make } = useSearch(lift, whatIf, times, change);
  const own = movesOf(problem, groups);
  const broken = brokenBy(problem, groups);
  const longest = Math.max(0, ...lift.setS);
  const rest = whatIf.restOf[lift.slotId] ?? lift.rest;
  const restsAt = (rackId: string): string => {
    const rests = day.sets.flatMap((set) =>
      set.slotId === lift.slotId && set.stationId === rackId ? (set.restS ?? []) : [],
    );
    if (rests.length === 0) return "";
    const [least, most] = [Math.min(...rests), Math.max(...rests)];
    return `rest ${formatClock(least)}${most - least > 0.5 ? ` to ${formatClock(most)}` : ""}`;
  };
  return (
    <section aria-label={lift.name} className="mt-3">
      <h2>{lift.name}</h2>
      <p aria-live="polite" className="mb-2 text-muted">
        {lift.setS.length} {lift.setS.length === 1 ? "set" : "sets"}, rest {rest.leastS} to{" "}
        {rest.mostS} s.{" "}
        {found === undefined
          ? "Looking for groups …"
          : found.done < 1
            ? `Looking: ${Math.round(100 * found.done)} %.`
            : ""}
      </p>
      {broken.map((words) => (
        <Notice key={words} kind="warning" title={words} />
      ))}
      <GroupBoard
        lifters={problem.lifters}
        racks={problem.racks}
        groups={groups}
        unit={unit}
        change={(next) => make("hand", next)}
        under={(rackId) => {
          const rack = own.racks.find((one) => one.rackId === rackId);
          const lifters = groups.find((one) => one.rackId === rackId)?.order.length ?? 0;
          const changes = day.sets.filter(
            (set) => set.slotId === lift.slotId && set.stationId === rackId && set.changeS > 0,
          );
          const changeS =
            changes.reduce((sum, set) => sum + set.changeS, 0) / Math.max(1, changes.length);
          return (
            <p className="mt-1 text-sm text-muted">
              {rack ? movesWords(rack.moves) : ""}
              {restsAt(rackId) ? ` · ${restsAt(rackId)}` : ""}
              <span className="block">{turnsWords({ lifters, setS: longest, changeS }, rest)}</span>
            </p>
          );
        }}
      />
      <Compared
        problem={problem}
        groups={groups}
        made={made}
        found={found}
        hands={times.hands}
        others={others.filter((one) => brokenBy(problem, one.groups).length === 0)}
        make={make}
      />
    </section>
  );
}

const KIND_WORDS = {
  plates: "Plates",
  hooks: "Hooks",
  pins: "Pins",
  mats: "Mats",
  boxes: "Boxes",
  bands: "Bands",
} as const;

/** What the groups cost beside those by name, by load and as proposed; each can be taken. */
function Compared({
  problem,
  groups,
  made,
  found,
  hands,
  others,
  make,
}: {
  problem: GroupProblem;
  groups: readonly RackGroup[];
  made: Made;
  found: Proposal | undefined;
  hands: number;
  others: ReadonlyArray<{ name: string; groups: readonly RackGroup[] }>;
  make: (as: Made, groups: RackGroup[]) => void;
}) {
  const byName = groupsByName(problem);
  const rows: Array<{ as: Made; words: string; groups: readonly RackGroup[] }> = [
    { as: "name", words: "by name", groups: byName },
    { as: "load", words: "by load", groups: groupsByLoad(problem) },
    ...(found ? [{ as: "ours" as const, words: "as proposed", groups: found.groups }] : []),
    ...others.map((one) => ({
      as: "other" as const,
      words: `together as at ${one.name}`,
      groups: inBestOrder(problem, one.groups),
    })),
    ...(made === "hand" ? [{ as: "hand" as const, words: "by hand", groups }] : []),
  ];
  const nameS = movesOf(problem, byName).cost / hands;
  const over = found && found.cost > 0 ? 100 * (1 - found.bound / found.cost) : 0;
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="ledger">
        <caption className="text-left font-bold">
          Changes over the whole lift, and the time saved against by name
        </caption>
        <thead>
          <tr>
            <th scope="col">Grouped</th>
            {MOVE_KINDS.map((kind) => (
              <th key={kind} scope="col" className="!text-right">
                {KIND_WORDS[kind]}
              </th>
            ))}
            <th scope="col" className="!text-right">
              At the racks
            </th>
            <th scope="col" className="!text-right">
              Saved
            </th>
            <th scope="col">
              <span className="sr-only">Take</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const { moves, cost } = movesOf(problem, row.groups);
            const seconds = cost / hands;
            return (
              <tr key={row.words} className={row.as === made ? "font-bold" : ""}>
                <th scope="row">{row.words}</th>
                {MOVE_KINDS.map((kind) => (
                  <td key={kind} className="text-right">
                    {moves[kind]}
                  </td>
                ))}
                <td className="text-right">{formatClock(seconds)}</td>
                <td className="text-right">
                  {row.as === "name" ? "" : signedClock(nameS - seconds)}
                </td>
                <td>
                  {row.as === made ? (
                    <span className="text-muted">shown</span>
                  ) : (
                    <button
                      type="button"
                      className="underline"
                      onClick={() =>
                        make(
                          row.as,
                          row.groups.map((one) => ({ ...one })),
                        )
                      }
                    >
                      take it
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-muted">
        Time of all racks together, {hands} at each; the first loading is not counted.
        {found
          ? ` No grouping at these racks takes less than ${formatClock(found.bound / hands)}: ${over < 0.05 ? "the proposal is the best there is" : `the proposal is at most ${over.toFixed(1)} % from the best`}.`
          : ""}
      </p>
    </div>
  );
}

const signedClock = (s: number) => (s < 0 ? `−${formatClock(-s)}` : formatClock(s));
