import {
  BOX_OVER_CM,
  BOX_UNDER_CM,
  boxHeightFromTrial,
  type MatStock,
  type SeatBuild,
  seatFor,
  seatsForGroup,
} from "../../../../core/boxsquat/stack";
import { plainNumber } from "../../../../core/units/mass";
import { Field } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { numberAt, numbersOf, type ToolProps } from "./tool";

/** Box height from a trial seat, the pieces that build it, and one base for a whole group. */
export function BoxStack({ address }: ToolProps) {
  const { get, set } = address;
  const seat = numberAt(address, "seat", 40);
  const crease = numberAt(address, "crease", 2);
  const pins = numbersOf(get("pins") || "30 35 40 45");
  const thin = numbersOf(get("mats") || "1.5 1.5 4");
  const group = numbersOf(get("group"));
  const mats: MatStock[] = [...new Set(thin.values)].map((thicknessCm) => ({
    id: String(thicknessCm),
    name: `${thicknessCm} cm mat`,
    thicknessCm,
    count: thin.values.filter((one) => one === thicknessCm).length,
  }));
  const bases = [{ id: "box", name: "Box", heightsCm: pins.values }];
  const target =
    seat === undefined || crease === undefined
      ? undefined
      : boxHeightFromTrial({ seatCm: seat, creaseOverKneeCm: crease });
  const answer = target === undefined ? undefined : seatFor({ targetCm: target, bases, mats });
  const build = answer?.ok
    ? answer.build
    : answer?.reason === "none-fits"
      ? answer.nearest
      : undefined;
  const round =
    group.values.length > 0 ? seatsForGroup({ targetsCm: group.values, bases, mats }) : undefined;
  const words = (one: SeatBuild) =>
    [
      `box at ${plainNumber(one.pinCm, 1)}`,
      ...one.mats.flatMap((n, i) => (n > 0 ? [`${n} × ${mats[i]?.name}`] : [])),
    ].join(" + ");
  const field = (label: string, name: string, start: string, problem?: string) => (
    <Field
      label={label}
      inputMode="decimal"
      defaultValue={get(name) || start}
      onChange={(event) => set(name, event.target.value)}
      problem={problem}
    />
  );
  const listProblem = (list: { wrong: string[] }) =>
    list.wrong[0] ? `"${list.wrong[0]}" is not a height.` : undefined;
  return (
    <>
      <form
        className="grid max-w-4xl gap-3 sm:grid-cols-2"
        onSubmit={(event) => event.preventDefault()}
      >
        {field("Trial seat, cm", "seat", "40", seat === undefined ? "A height in cm." : undefined)}
        {field(
          "Crease over the knee on it, cm (under: minus)",
          "crease",
          "2",
          crease === undefined ? "A difference in cm, for example -1.5." : undefined,
        )}
        {field("The box's pin heights, cm", "pins", "30 35 40 45", listProblem(pins))}
        {field("Mats in the room, cm each", "mats", "1.5 1.5 4", listProblem(thin))}
        <div className="sm:col-span-2">
          {field("A whole group: heights wanted in turn, cm", "group", "", listProblem(group))}
        </div>
      </form>
      {answer && !answer.ok && answer.reason === "no-boxes" ? (
        <Notice kind="problem" title="Write the heights that the box's pins give." />
      ) : null}
      {target !== undefined && build ? (
        <Figures label="Answers" className="mt-3">
          <p className="text-3xl font-bold">
            <Figure
              id="lab/box"
              working={{
                title: "Box height",
                lines: [
                  { label: "Trial seat", value: `${seat} cm` },
                  { label: "Crease over the knee", value: `${crease} cm` },
                  { label: "Wanted", value: `${plainNumber(target, 1)} cm`, detail: "H − d" },
                  {
                    label: words(build),
                    value: `${plainNumber(build.heightCm, 1)} cm`,
                    detail: `${build.offCm >= 0 ? "+" : "−"}${plainNumber(Math.abs(build.offCm), 1)} cm; allowed −${BOX_UNDER_CM} / +${BOX_OVER_CM}`,
                    emphasis: "answer",
                  },
                ],
                sources: ["Crease level with the top of the knee; a little high is acceptable"],
                changes: ["Another trial, other mats, another tolerance of the style."],
              }}
            >
              {plainNumber(target, 1)} cm
            </Figure>{" "}
            <span className="text-base font-normal">
              {words(build)} = {plainNumber(build.heightCm, 1)} cm
            </span>
          </p>
          {answer?.ok ? null : (
            <Notice
              kind="warning"
              title={`Nothing in this room fits. The nearest is ${plainNumber(Math.abs(build.offCm), 1)} cm ${build.offCm < 0 ? "low: it loads and rounds the lower back" : "high: a partial squat"}.`}
            />
          )}
          {round ? (
            <>
              <h2 className="mt-4">
                The group: box at {plainNumber(round.pinCm, 1)} cm, {round.changes} mats moved a
                round
              </h2>
              {round.allFit ? null : (
                <Notice kind="warning" title="Not everybody fits on one base: split the group." />
              )}
              <ol className="mt-1 max-w-xl">
                {round.builds.map((one, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: the turn is the identity
                  <li key={i} className="flex gap-4 border-b border-faint py-1">
                    <span className="w-20">{group.values[i]} cm</span>
                    <span className="grow">{words(one)}</span>
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
