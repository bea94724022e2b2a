import { Link } from "react-router";
import { EYE_WORDS } from "../../../core/liverules/eye";
import { median } from "../../../core/numeric/statistics";
import type { LifterReview, SlotReview } from "../../../core/review/session-review";
import { type SetSum, STANDING_WORDS } from "../../../core/review/set-working";
import { formatKg, kgToGrains, massIn, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { formatVelocity } from "../../../core/units/velocity";
import { FetchedFigure, workingOf } from "../../ui/fetched-figure";
import { SpeedStrip, scaleOf, stripWords } from "../../ui/speed-strip";
import { useUnit } from "../../ui/unit";
import { Figures } from "../../ui/working";
import { SetStave } from "./set-stave";

type Slot<K> = Extract<SlotReview, { kind: K }>;

/** A lift: sets, reps, tonnage, the speed of every set on one scale, rests and stops. */
export function LiftTable({ slot, sessionId }: { slot: Slot<"lift">; sessionId: string }) {
  const unit = useUnit();
  const all = slot.lifters.flatMap((one) => one.sets);
  const { low, high } = scaleOf(
    all.flatMap((set) => [
      ...set.reps.map((rep) => rep.velocityMps),
      ...(set.target ? [set.target.lowMps, set.target.highMps] : []),
    ]),
  );
  const mostKg = Math.max(1, ...all.map((set) => set.loadKg ?? 0));
  return (
    <Figures label={`Done against planned, ${slot.name}`} className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col" className="!text-right">
              Sets
            </th>
            <th scope="col" className="!text-right">
              Reps
            </th>
            <th scope="col" className="!text-right">
              Tonnage
            </th>
            <th scope="col" className="!whitespace-normal">
              Speed, set by set, {formatVelocity(low)} to {formatVelocity(high)} m/s; rests to
              scale, asked {slot.rest.leastS} to {slot.rest.mostS} s
            </th>
            <th scope="col">Notes</th>
          </tr>
        </thead>
        <tbody>
          {slot.lifters.map((one) => {
            const { slotId, athleteId } = one;
            return (
              <tr key={one.athleteId}>
                <NameHead of={one} />
                <td className="text-right whitespace-nowrap">
                  {one.setsDone} of {one.setsPlanned}
                </td>
                <td className="text-right whitespace-nowrap">
                  {one.repsDone} of {one.repsPlanned}
                </td>
                <td className="text-right whitespace-nowrap">
                  <FetchedFigure
                    id={`tonnage/${slotId}/${athleteId}`}
                    from={workingOf(sessionId, { kind: "tonnage", slotId, athleteId })}
                    label={`${one.name}, tonnage ${formatKg(one.tonnageKg, unit, 1)}`}
                  >
                    {plainNumber(massIn(kgToGrains(one.tonnageKg), unit), 1)}
                  </FetchedFigure>
                </td>
                <td>
                  <div className="flex flex-wrap gap-x-3 gap-y-0.5">
                    {one.sets.map((set) => (
                      <SetStrip
                        key={set.key}
                        set={set}
                        of={one}
                        sessionId={sessionId}
                        scale={{ low, high }}
                      />
                    ))}
                  </div>
                  <SetStave sets={one.sets} rest={slot.rest} mostKg={mostKg} />
                  <RestWords sets={one.sets} smallestStopS={slot.smallestStopS} />
                </td>
                <td className="text-sm text-muted">
                  {one.cutSets.map((cut) => (
                    <span key={cut.number} className="block">
                      Set {cut.number} cut: {cut.cause}
                    </span>
                  ))}
                  {one.otherClass.map((words) => (
                    <span key={words} className="block">
                      {words}
                    </span>
                  ))}
                  {one.faults.length > 0 ? `Faults: ${one.faults.join(", ")}` : ""}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Figures>
  );
}

/** Rests and stops in figures. */
function RestWords({
  sets,
  smallestStopS,
}: {
  sets: readonly SetSum[];
  smallestStopS: number | undefined;
}) {
  const rests = sets.slice(1).flatMap((set) => set.rest?.seconds ?? []);
  const stops = sets.flatMap((set) => set.box.pausesS);
  const middle = median(rests);
  const stop = median(stops);
  const bounces = smallestStopS === undefined ? 0 : stops.filter((s) => s < smallestStopS).length;
  return (
    <span className="block text-sm text-muted">
      {middle === undefined ? "rests not measured" : `rest ${formatClock(middle)} in the middle`}
      {stop === undefined
        ? ""
        : `, stop ${plainNumber(stop, 2)} s${smallestStopS === undefined ? "" : `, ${bounces} of ${stops.length} under ${plainNumber(smallestStopS, 2)}`}`}
    </span>
  );
}

const COUNT_NAMES = { reps: "Reps", metres: "Metres", contacts: "Contacts" } as const;

/** An exercise without a bar. */
export function ExerciseTable({ slot }: { slot: Slot<"exercise"> }) {
  const unit = useUnit();
  return (
    <div className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col" className="!text-right">
              Sets
            </th>
            <th scope="col" className="!text-right">
              {COUNT_NAMES[slot.counts]}
            </th>
            <th scope="col" className="!text-right">
              Tonnage
            </th>
            <th scope="col" className="!text-right">
              Best
            </th>
            <th scope="col">Notes</th>
          </tr>
        </thead>
        <tbody>
          {slot.athletes.map((one) => (
            <tr key={one.athleteId}>
              <NameHead of={one} />
              <td className="text-right">
                {one.setsDone} of {one.setsPlanned}
              </td>
              <td className="text-right">{one.repsDone}</td>
              <td className="text-right">
                {one.tonnageKg === undefined ? "" : formatKg(one.tonnageKg, unit, 1)}
              </td>
              <td className="text-right">
                {one.best === undefined ? "" : `${plainNumber(one.best, 2)} ${slot.unit}`}
              </td>
              <td className="text-sm text-muted">
                {one.sideGap ? `${one.sideGap.side} is ${one.sideGap.by} behind` : ""}
                {one.rung ? `${one.rung.name}: ${one.rung.passed ? "passed" : "not yet"}` : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A pairing: rounds done, and the best of what was written down. */
export function PairingTable({ slot }: { slot: Slot<"pairing"> }) {
  return (
    <div className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col" className="!text-right">
              Rounds
            </th>
            <th scope="col">Outputs</th>
          </tr>
        </thead>
        <tbody>
          {slot.athletes.map((one) => (
            <tr key={one.athleteId}>
              <NameHead of={one} />
              <td className="text-right">
                {one.roundsDone} of {one.rounds}
              </td>
              <td>
                {one.best.map((best) => (
                  <span key={best.item} className="block">
                    {best.item} {plainNumber(best.value, 2)} {best.unit}
                    <span className="text-muted">
                      {" "}
                      by round{" "}
                      {one.outputs
                        .filter((output) => output.item === best.item)
                        .map((output) => plainNumber(output.value, 2))
                        .join(", ")}
                    </span>
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function SetStrip({
  set,
  of,
  sessionId,
  scale,
}: {
  set: SetSum;
  of: Pick<LifterReview, "name" | "slotId" | "athleteId">;
  sessionId: string;
  scale: { low: number; high: number };
}) {
  const { number, reps, bestMps: best, standing, target } = set;
  const { name, slotId, athleteId } = of;
  return (
    // A day has hundreds: what is out of sight is not laid out.
    <div className="w-[86px] [content-visibility:auto] [contain-intrinsic-size:86px_44px]">
      <SpeedStrip
        reps={reps}
        target={target}
        height={20}
        width={86}
        scale={scale}
        label={`${name}, set ${number}. ${stripWords(reps, target)}`}
      />
      <FetchedFigure
        id={`set/${slotId}/${athleteId}/${set.key}`}
        from={workingOf(sessionId, { kind: "set", slotId, athleteId, setKey: set.key })}
        label={`${name}, set ${number}, best ${best === undefined ? "not measured" : formatVelocity(best)}, ${STANDING_WORDS[standing]}`}
        className="text-sm"
      >
        {best !== undefined ? formatVelocity(best) : set.eye ? EYE_WORDS[set.eye] : "–"}
        {standing === "under" ? (
          <span className="text-accent [[aria-pressed=true]_&]:text-inherit"> ▾under</span>
        ) : null}
        {standing === "over" ? <span> ▴over</span> : null}
      </FetchedFigure>
    </div>
  );
}

/** An athlete's row by name. */
function NameHead({ of }: { of: { athleteId: string; name: string } }) {
  return (
    <th scope="row" className="!text-base-content">
      <Link className="hover:underline" to={`/athletes/${of.athleteId}`}>
        {of.name}
      </Link>
    </th>
  );
}
