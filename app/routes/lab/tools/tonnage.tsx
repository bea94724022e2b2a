import {
  progressions,
  tonnageKg,
  tonnageWorking,
  waysToTonnage,
} from "../../../../core/exercise/tonnage";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { readIn } from "../../../../core/units/written";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolChoice, ToolField, useAnswer } from "./fields";
import { type ToolProps, valueAt } from "./tool";

/** Tonnage of an accessory, and what each way to progress adds. */
export function Tonnage({ address, unit }: ToolProps) {
  const at = (name: string, start: number, kind?: "mass") =>
    valueAt(address, name, start, kind ?? "number");
  const sets = at("sets", 3);
  const reps = at("reps", 12);
  const loadKg = at("load", 30, "mass");
  const moreReps = at("morereps", 3);
  const moreKg = at("morekg", 2.5, "mass");
  const wantedKg = at("wanted", 1200, "mass");
  const hands = address.get("hands") === "2" ? 2 : 1;
  const ok =
    sets !== undefined &&
    reps !== undefined &&
    loadKg !== undefined &&
    sets > 0 &&
    reps > 0 &&
    loadKg >= 0;
  const line = ok ? { sets, reps, loadKg, hands: hands as 1 | 2 } : undefined;
  const kg = line && tonnageKg(line);
  useAnswer(
    line && kg !== undefined
      ? `${sets} × ${reps} × ${formatKg(line.loadKg, unit)} = ${formatKg(kg, unit, 1)}`
      : undefined,
  );
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <ToolField {...shared} label="Sets" name="sets" start={3} />
        <ToolField {...shared} label="Reps" name="reps" start={12} />
        <ToolField {...shared} label="Load" name="load" kind="mass" start={30} />
        <ToolChoice
          address={address}
          label="The load is"
          name="hands"
          options={[
            ["1", "in all, or one hand's work"],
            ["2", "per hand, both hands work"],
          ]}
        />
        <ToolField {...shared} label="Step in reps" name="morereps" start={3} />
        <ToolField {...shared} label="Step in load" name="morekg" kind="mass" start={2.5} />
        <ToolField {...shared} label="Wanted tonnage" name="wanted" kind="mass" start={1200} />
      </form>
      {line && kg !== undefined && moreReps !== undefined && moreKg !== undefined ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/tonnage" working={tonnageWorking(line)}>
              {formatKg(kg, unit, 1)}
            </Figure>
          </p>
          <table className="ledger mt-2 max-w-lg">
            <tbody>
              {progressions(line, { reps: moreReps, loadKg: moreKg, sets: 1 }).map((one) => (
                <tr key={readIn(one.name, unit)}>
                  <th scope="row">{readIn(one.name, unit)}</th>
                  <td className="text-right">{formatKg(one.tonnageKg, unit, 1)}</td>
                  <td className="text-right font-bold">+{formatKg(one.deltaKg, unit, 1)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {wantedKg === undefined ? null : <Ways line={line} wantedKg={wantedKg} unit={unit} />}
        </Figures>
      ) : (
        <Notice kind="problem" title="Sets and reps over 0, and a load." />
      )}
    </>
  );
}

const CHANGES = { reps: "Reps a set", load: "Load", sets: "Sets" } as const;

/** Back from a wanted tonnage: what one thing would have to be, the others as they are. */
function Ways({
  line,
  wantedKg,
  unit,
}: {
  line: Parameters<typeof waysToTonnage>[0];
  wantedKg: number;
  unit: ToolProps["unit"];
}) {
  const ways = waysToTonnage(line, wantedKg);
  if (ways.length === 0)
    return <p className="mt-3 text-muted">No line that somebody could do comes to that.</p>;
  return (
    <section aria-label="Back from a wanted tonnage" className="mt-4">
      <h2>For {formatKg(wantedKg, unit, 1)}, one thing changed</h2>
      <table className="ledger mt-1 max-w-lg">
        <tbody>
          {ways.map((way) => (
            <tr key={way.change}>
              <th scope="row">{CHANGES[way.change]}</th>
              <td className="text-right font-bold">
                {way.change === "load"
                  ? formatKg(way.line.loadKg, unit, 1)
                  : plainNumber(way.change === "reps" ? way.line.reps : way.line.sets, 0)}
              </td>
              <td className="text-right text-muted">
                {way.change === "load"
                  ? "to the figure; the bar takes the nearest"
                  : `${plainNumber(way.exact, 2)} to the figure; ${formatKg(way.overKg, unit, 1)} over`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
