import { boxLowering } from "../../../../core/boxsquat/lowering";
import { buildWords } from "../../../../core/boxsquat/stack";
import { plainNumber } from "../../../../core/units/mass";
import { Empty, Notice } from "../../../ui/page";
import { ToolChoice, ToolField, useAnswer } from "./fields";
import { type ToolProps, valueAt } from "./tool";

/** A box lowered (or raised) by mats, a step a week, of what a room has. */
export function Lowering({ address, bench, unit }: ToolProps) {
  const room = bench.rooms.find((one) => one.id === address.get("room")) ?? bench.rooms[0];
  const at = (name: string, start: number, kind?: "cm") =>
    valueAt(address, name, start, kind ?? "number") ?? Number.NaN;
  const weeks = room
    ? boxLowering({
        fromCm: at("from", 42, "cm"),
        toCm: at("to", 37, "cm"),
        weeks: at("weeks", 4),
        bases: room.bases,
        mats: room.mats,
        withinCm: at("within", 1, "cm"),
      })
    : undefined;
  const built = weeks?.flatMap((one) =>
    one.answer.ok ? [`${plainNumber(one.answer.build.heightCm, 1)}`] : ["none"],
  );
  useAnswer(built && `${built.join(", ")} cm over ${built.length} weeks`);
  if (!room) return <Empty>No room with a box yet. Its boxes and mats are needed.</Empty>;
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <ToolChoice
          address={address}
          label="Boxes and mats of"
          name="room"
          options={bench.rooms.map((one) => [one.id, one.name] as const)}
        />
        <ToolField {...shared} label="First week" name="from" kind="cm" start={42} />
        <ToolField {...shared} label="Last week" name="to" kind="cm" start={37} />
        <ToolField {...shared} label="Weeks" name="weeks" start={4} />
        <ToolField {...shared} label="May be off by" name="within" kind="cm" start={1} />
      </form>
      {weeks ? (
        <table className="ledger mt-4 max-w-2xl">
          <thead>
            <tr>
              <th scope="col">Week</th>
              <th scope="col" className="!text-right">
                Wanted, cm
              </th>
              <th scope="col" className="!text-right">
                Built, cm
              </th>
              <th scope="col">Of</th>
            </tr>
          </thead>
          <tbody>
            {weeks.map((one) => {
              const build = one.answer.ok
                ? one.answer.build
                : "nearest" in one.answer
                  ? one.answer.nearest
                  : undefined;
              return (
                <tr key={one.week}>
                  <th scope="row">{one.week}</th>
                  <td className="text-right">{plainNumber(one.targetCm, 1)}</td>
                  <td className={`text-right font-bold ${one.answer.ok ? "" : "text-accent"}`}>
                    {build ? plainNumber(build.heightCm, 1) : "none"}
                  </td>
                  <td>
                    {build ? buildWords(build, room.mats) : "nothing to build with"}
                    {one.answer.ok || !build
                      ? ""
                      : `, ${plainNumber(Math.abs(build.offCm), 1)} off`}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      ) : (
        <Notice kind="problem" title="Heights of 10 to 90 cm, two to twenty-six whole weeks." />
      )}
      <p className="mt-2 text-sm text-muted">
        Mats on one base, never box on box. The back stays as it was on the way down: where it
        rounds, the box is low enough. Pain: stop.
      </p>
    </>
  );
}
