import {
  BOX_OVER_CM,
  BOX_UNDER_CM,
  bestTurns,
  boxHeightFromTrial,
  buildWords,
  type MatStock,
  type SeatBase,
  seatFor,
  seatsForGroup,
  seatWorking,
} from "../../../../core/boxsquat/stack";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { Field } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolChoice, ToolField, useAnswer } from "./fields";
import { numbersOf, type ToolProps, valueAt } from "./tool";

/** Box height from a trial seat, the pieces that build it, and one base for a whole group. */
export function BoxStack({ address, bench, unit }: ToolProps) {
  const { get, set } = address;
  const room = bench.rooms.find((one) => one.id === get("room"));
  const seat = valueAt(address, "seat", 40, "cm");
  const crease = valueAt(address, "crease", 2, "cm");
  const under = valueAt(address, "under", BOX_UNDER_CM, "cm");
  const over = valueAt(address, "over", BOX_OVER_CM, "cm");
  const pins = numbersOf(get("pins") || "30 35 40 45");
  const thin = numbersOf(get("mats") || "1.5 1.5 4");
  const group = numbersOf(get("group"));
  const mats: readonly MatStock[] =
    room?.mats ??
    [...new Set(thin.values)].map((thicknessCm) => ({
      id: String(thicknessCm),
      name: `${thicknessCm} cm mat`,
      thicknessCm,
      count: thin.values.filter((one) => one === thicknessCm).length,
    }));
  const bases: readonly SeatBase[] = room?.bases ?? [
    { id: "box", name: "Box", heightsCm: pins.values },
  ];
  const tolerance = { underCm: under ?? BOX_UNDER_CM, overCm: over ?? BOX_OVER_CM };
  const trial =
    seat === undefined || crease === undefined
      ? undefined
      : { seatCm: seat, creaseOverKneeCm: crease };
  const target = trial && boxHeightFromTrial(trial);
  const answer =
    target === undefined ? undefined : seatFor({ targetCm: target, bases, mats, tolerance });
  const build = answer?.ok
    ? answer.build
    : answer?.reason === "none-fits"
      ? answer.nearest
      : undefined;
  const turns = { targetsCm: group.values, bases, mats, tolerance };
  const inOrder = group.values.length > 0 ? seatsForGroup(turns) : undefined;
  const best = group.values.length > 2 ? bestTurns(turns) : undefined;
  const round = best?.seats ?? inOrder;
  const order = best?.order ?? group.values.map((_, i) => i);
  const listProblem = (list: { wrong: string[] }) =>
    list.wrong[0] ? `"${list.wrong[0]}" is not a height.` : undefined;
  useAnswer(
    target !== undefined && build
      ? `box ${plainNumber(target, 1)} cm: ${buildWords(build, mats)} = ${plainNumber(build.heightCm, 1)} cm`
      : undefined,
  );
  const shared = { address, unit };
  const list = (label: string, name: string, start: string, problem: string | undefined) => (
    <Field
      label={label}
      inputMode="decimal"
      defaultValue={get(name) || start}
      onChange={(event) => set(name, event.target.value)}
      problem={problem}
    />
  );
  return (
    <>
      <form
        className="no-print grid max-w-4xl gap-3 sm:grid-cols-4"
        onSubmit={(event) => event.preventDefault()}
      >
        <ToolField {...shared} label="Trial seat" name="seat" kind="cm" start={40} />
        <ToolField
          {...shared}
          label="Crease over the knee"
          name="crease"
          kind="cm"
          start={2}
          hint="on that seat; under the knee: minus"
        />
        <ToolField
          {...shared}
          label="Too low by at most"
          name="under"
          kind="cm"
          start={BOX_UNDER_CM}
        />
        <ToolField
          {...shared}
          label="Too high by at most"
          name="over"
          kind="cm"
          start={BOX_OVER_CM}
        />
        <ToolChoice
          address={address}
          label="Boxes and mats of"
          name="room"
          options={[
            ["", "nowhere: written here"],
            ...bench.rooms.map((one) => [one.id, one.name] as const),
          ]}
        />
        {room ? null : (
          <>
            {list("The box's pin heights, cm", "pins", "30 35 40 45", listProblem(pins))}
            {list("Mats in the room, cm each", "mats", "1.5 1.5 4", listProblem(thin))}
          </>
        )}
        <div className="sm:col-span-4">
          {list("A whole group: heights wanted in turn, cm", "group", "", listProblem(group))}
        </div>
      </form>
      {answer && !answer.ok && answer.reason === "no-boxes" ? (
        <Notice
          kind="problem"
          title={
            room
              ? `${room.name} has nothing to sit on. Describe its boxes under Gear.`
              : "Write the heights that the box's pins give."
          }
        />
      ) : null}
      {trial && target !== undefined && build ? (
        <Figures label="Answers" className="mt-3">
          <p className="text-3xl font-bold">
            <Figure
              id="lab/box"
              working={seatWorking({ ...trial, targetCm: target, build, mats, tolerance })}
            >
              {plainNumber(target, 1)} cm
            </Figure>{" "}
            <span className="text-base font-normal">
              {buildWords(build, mats)} = {plainNumber(build.heightCm, 1)} cm
            </span>
          </p>
          {build.base.substitute ? (
            <Notice
              kind="warning"
              title={`${build.base.name} stands in for a box: ${build.base.substitute.caution}`}
            >
              {build.base.substitute.limitKg === undefined
                ? "No load limit is set for it: empty bar only."
                : `At most ${formatKg(build.base.substitute.limitKg, unit)} on the back; a plan above that is refused.`}
            </Notice>
          ) : null}
          {answer?.ok ? null : (
            <Notice
              kind="warning"
              title={`Nothing in this room fits. The nearest is ${plainNumber(Math.abs(build.offCm), 1)} cm ${build.offCm < 0 ? "low: it loads and rounds the lower back" : "high: a partial squat"}.`}
            />
          )}
          {round ? (
            <>
              <h2 className="mt-4">
                The group: {round.base.name} at {plainNumber(round.pinCm, 1)} cm, {round.changes}{" "}
                mats moved a round
              </h2>
              {inOrder && best && best.seats.changes < inOrder.changes ? (
                <p className="text-muted">
                  Turns changed: as written it would be {inOrder.changes} moves.
                </p>
              ) : null}
              {round.proven && best?.proven !== false ? null : (
                <p className="text-muted">
                  Not every way to lay the mats was looked at: there may be one with fewer moves.
                </p>
              )}
              {round.allFit ? null : (
                <Notice kind="warning" title="Not everybody fits on one base: split the group." />
              )}
              <ol className="mt-1 max-w-xl">
                {round.builds.map((one, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: the turn is the identity
                  <li key={i} className="flex gap-4 border-b border-faint py-1">
                    <span className="w-20">{group.values[order[i] as number]} cm</span>
                    <span className="grow">{buildWords(one, mats)}</span>
                    <span className="text-muted">{plainNumber(one.heightCm, 1)} cm</span>
                  </li>
                ))}
              </ol>
            </>
          ) : null}
          <p className="mt-2 text-sm text-muted">
            Mats on one base, never box on box. Sit under control: no dropping, no rocking, trunk
            braced.
          </p>
        </Figures>
      ) : null}
    </>
  );
}
