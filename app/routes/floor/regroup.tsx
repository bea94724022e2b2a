import { useEffect, useMemo, useRef, useState } from "react";
import type { EntryBody } from "../../../core/floor/entries";
import { type FrozenSession, liftsOf } from "../../../core/floor/frozen";
import type { FloorState } from "../../../core/floor/state";
import { sizesFor } from "../../../core/racks/lift-problem";
import { brokenBy, movesOf, type RackGroup } from "../../../core/racks/problem";
import type { Proposal } from "../../../core/racks/propose";
import { type Regrouping, regroupedBy, regroupingOf } from "../../../core/racks/regroup";
import type { DayTimes } from "../../../core/racks/simulate-day";
import { movesWords } from "../../../core/racks/words";
import type { MassUnit } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { GroupBoard } from "../../ui/groups/group-board";
import { Notice } from "../../ui/page";
import { lookForGroups } from "../../workers/groups";

/** Seconds of a set that is still to come: as the racks count with. */
const SET_S = 8;

/** Groups made anew around what has been done: somebody is late, or a rack is broken. */
export function Regroup({
  frozen,
  floor,
  times,
  unit,
  append,
  close,
}: {
  frozen: FrozenSession;
  floor: FloorState;
  times: DayTimes;
  unit: MassUnit;
  append: (body: EntryBody) => unknown;
  close: () => void;
}) {
  const lifts = liftsOf(frozen);
  const [slotId, setSlotId] = useState(() => openLift(frozen, floor) ?? lifts[0]?.slotId ?? "");
  const [out, setOut] = useState<readonly string[]>([]);
  const racks = frozen.stations.filter((one) => one.kind === "rack");
  // As the floor stood when it was asked: a set that ends meanwhile changes no question.
  const [{ asked, times: looked }, setAsked] = useState({ asked: floor, times: 0 });
  const found = useMemo(
    () => regroupingOf({ session: frozen, floor: asked, slotId, weights: times.weights, out }),
    [frozen, asked, slotId, times.weights, out],
  );
  // As the groups stand at every rack of theirs, the one that is left out now too.
  const standsS = useMemo(() => {
    const whole = { session: frozen, floor: asked, slotId, weights: times.weights, out: [] };
    const all = regroupingOf(whole);
    return all ? movesOf(all.problem, all.groups).cost / times.hands : 0;
  }, [frozen, asked, slotId, times]);
  return (
    <section aria-label="Groups anew" className="mb-4 border-l-[3px] border-primary pl-3">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-1">
        <h2 className="w-full">Groups anew</h2>
        {lifts.length > 1 ? (
          <label>
            <span className="block text-sm text-muted">Lift</span>
            <select
              className="field-select"
              value={slotId}
              onChange={(event) => setSlotId(event.target.value)}
            >
              {lifts.map((lift) => (
                <option key={lift.slotId} value={lift.slotId}>
                  {lift.liftName}
                </option>
              ))}
            </select>
          </label>
        ) : null}
        <fieldset className="flex flex-wrap gap-x-4">
          <legend className="text-sm text-muted">Racks that are used</legend>
          {racks.map((rack) => (
            <label key={rack.id} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm border-control"
                checked={!out.includes(rack.id)}
                onChange={() =>
                  setOut(
                    out.includes(rack.id) ? out.filter((id) => id !== rack.id) : [...out, rack.id],
                  )
                }
              />
              {rack.name}
            </label>
          ))}
        </fieldset>
        <button
          type="button"
          className="btn"
          onClick={() => setAsked({ asked: floor, times: looked + 1 })}
        >
          Look at the floor again
        </button>
      </div>
      {found ? (
        <Anew
          key={`${slotId} ${out.join()} ${looked}`}
          found={found}
          standsS={standsS}
          times={times}
          unit={unit}
          send={(groups) => {
            for (const body of regroupedBy(slotId, found.groups, groups)) append(body);
            close();
          }}
        />
      ) : (
        <p className="mt-2 text-muted">Nothing of this lift is left, or no rack is.</p>
      )}
    </section>
  );
}

/** The lift that somebody has sets left of. */
const openLift = (frozen: FrozenSession, floor: FloorState): string | undefined =>
  liftsOf(frozen).find((lift) =>
    floor.racks.some(
      (rack) =>
        rack.slot.slotId === lift.slotId && rack.lifters.some((one) => one.current !== undefined),
    ),
  )?.slotId;

function Anew({
  found,
  standsS,
  times,
  unit,
  send,
}: {
  found: Regrouping;
  /** Changes of what is left as the groups stand, s. */
  standsS: number;
  times: DayTimes;
  unit: MassUnit;
  send: (groups: readonly RackGroup[]) => void;
}) {
  const { problem } = found;
  const [groups, setGroups] = useState<readonly RackGroup[]>(found.groups);
  const [proposal, setProposal] = useState<Proposal>();
  const byHand = useRef(false);
  useEffect(() => {
    const sizes = sizesFor({
      lifters: problem.lifters.length,
      racks: problem.racks.length,
      rest: found.rest,
      turn: { setS: SET_S, changeS: times.turnS },
    });
    const slot = { slotId: found.slotId, name: found.name, rest: found.rest, setS: [SET_S], times };
    return lookForGroups({ problem, sizes, slot }, (next) => {
      setProposal(next);
      if (!byHand.current) setGroups(next.groups);
    });
  }, [problem, found, times]);
  const asked = { ...problem, use: problem.racks.length, least: 0, most: problem.lifters.length };
  const broken = brokenBy(asked, groups);
  const own = movesOf(problem, groups);
  const moving = regroupedBy(found.slotId, found.groups, groups).length;
  return (
    <>
      <p aria-live="polite" className="my-2">
        {proposal === undefined || proposal.done < 1 ? "Looking … " : ""}
        What is left of {found.name} takes {formatClock(own.cost / times.hands)} of changes so, and{" "}
        {formatClock(standsS)} as the groups stand: {movesWords(own.moves)}. What is done stays
        done.
      </p>
      {broken.map((words) => (
        <Notice key={words} kind="warning" title={words} />
      ))}
      <GroupBoard
        lifters={problem.lifters}
        racks={problem.racks}
        groups={groups}
        unit={unit}
        change={(next) => {
          byHand.current = true;
          setGroups(next);
        }}
        under={(rackId) => {
          const rack = own.racks.find((one) => one.rackId === rackId);
          return <p className="mt-1 text-sm text-muted">{rack ? movesWords(rack.moves) : ""}</p>;
        }}
      />
      <button
        type="button"
        className="btn btn-primary mt-3"
        disabled={moving === 0 || broken.length > 0}
        onClick={() => send(groups)}
      >
        {moving === 0 ? "Nothing changes" : "Send everybody there"}
      </button>
    </>
  );
}
