import { progressions, tonnageKg, tonnageWorking } from "../../../../core/session/tonnage";
import { plainNumber } from "../../../../core/units/mass";
import { Field, Select } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { numberAt, type ToolProps } from "./tool";

/** Tonnage of an accessory, and what each way to progress adds. */
export function Tonnage({ address }: ToolProps) {
  const { get, set } = address;
  const at = (name: string, start: number) => numberAt(address, name, start);
  const sets = at("sets", 3);
  const reps = at("reps", 12);
  const loadKg = at("load", 30);
  const moreReps = at("morereps", 3);
  const moreKg = at("morekg", 2.5);
  const hands = get("hands") === "2" ? 2 : 1;
  const ok =
    sets !== undefined &&
    reps !== undefined &&
    loadKg !== undefined &&
    sets > 0 &&
    reps > 0 &&
    loadKg >= 0;
  const line = ok ? { sets, reps, loadKg, hands: hands as 1 | 2 } : undefined;
  const field = (label: string, name: string, start: string) => (
    <Field
      label={label}
      inputMode="decimal"
      defaultValue={get(name) || start}
      onChange={(event) => set(name, event.target.value)}
      problem={numberAt(address, name, 0) === undefined ? "A number is needed." : undefined}
    />
  );
  return (
    <>
      <form className="grid max-w-4xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        {field("Sets", "sets", "3")}
        {field("Reps", "reps", "12")}
        {field("Load, kg", "load", "30")}
        <Select
          label="The load is"
          value={String(hands)}
          onChange={(event) => set("hands", event.target.value === "2" ? "2" : "")}
        >
          <option value="1">in all, or one hand's work</option>
          <option value="2">per hand, both hands work</option>
        </Select>
        {field("Step in reps", "morereps", "3")}
        {field("Step in load, kg", "morekg", "2.5")}
      </form>
      {line && moreReps !== undefined && moreKg !== undefined ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/tonnage" working={tonnageWorking(line)}>
              {plainNumber(tonnageKg(line), 1)} kg
            </Figure>
          </p>
          <table className="ledger mt-2 max-w-lg">
            <tbody>
              {progressions(line, { reps: moreReps, loadKg: moreKg, sets: 1 }).map((one) => (
                <tr key={one.name}>
                  <th scope="row">{one.name}</th>
                  <td className="text-right">{plainNumber(one.tonnageKg, 1)} kg</td>
                  <td className="text-right font-bold">+{plainNumber(one.deltaKg, 1)} kg</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Figures>
      ) : (
        <Notice kind="problem" title="Sets and reps over 0, and a load." />
      )}
    </>
  );
}
