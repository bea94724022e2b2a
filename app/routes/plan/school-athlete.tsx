import type { School } from "../../../core/checks/school";
import { underSchool } from "../../../core/checks/under-school";
import { daysOf, slotsOf, slotWeek } from "../../../core/plan/block";
import { variantIn } from "../../../core/plan/block-loads";
import { atLift, basisFacts } from "../../../core/prescribe/lifter";
import { type Lift, MVT_DEFAULTS_MPS } from "../../../core/profile/threshold";
import { describeBasis } from "../../../core/recipe/basis";
import { formatKg } from "../../../core/units/mass";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import type { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { slotName } from "./slot-picker";

/** What one athlete would do in a week of this plan under each of two schools. */
export function SchoolAthlete({
  data,
  own,
  other,
  address,
}: {
  data: PlanPage;
  own: School;
  other: School;
  address: ReturnType<typeof useAddress>;
}) {
  const { block } = data;
  const athlete =
    data.athletes.find((one) => one.id === address.get("athlete")) ?? data.athletes[0];
  const week = Math.min(block.weeks, Math.max(1, Number(address.get("week")) || 1));
  const unit = useUnit();
  if (!athlete) return null;
  const rows = daysOf(block).flatMap((day) =>
    slotsOf(block, day.id).flatMap((slot) => {
      const wave = slotWeek(block, slot, week, data.room.settings);
      const variantId = wave && variantIn(slot, wave);
      const lift = data.lifts.find((one) => one.id === variantId);
      if (!wave || !variantId || !lift) return [];
      const facts = basisFacts(atLift(athlete, variantId), variantId, data.room.metric);
      const asks = new Map<string, { sets: number; set: (typeof wave.sets)[number] }>();
      for (const set of wave.sets) {
        const key = `${describeBasis(set.basis, unit)} × ${set.reps}`;
        const found = asks.get(key);
        if (found) found.sets++;
        else asks.set(key, { sets: 1, set });
      }
      const thresholdMps =
        data.room.metric === "MCV" ? MVT_DEFAULTS_MPS[lift.lift as Lift]?.mps : undefined;
      const under = (school: School, set: (typeof wave.sets)[number]) =>
        underSchool({
          school,
          recipe: slot.recipe,
          set,
          facts,
          thresholdMps,
          gear: data.room.gear,
          mode: data.room.rounding,
          unit,
        });
      return [...asks].map(([key, { sets, set }]) => ({
        key: `${slot.id}/${key}`,
        name: `${day.name}: ${slotName(data, block, slot, week)}`,
        sets,
        asked: `${sets} × ${set.reps} at ${describeBasis(set.basis, unit)}`,
        a: under(own, set),
        b: under(other, set),
      }));
    }),
  );
  return (
    <section aria-labelledby="schools-athlete" className="mt-5">
      <h2 id="schools-athlete">On one athlete</h2>
      <div className="my-2 flex flex-wrap gap-4">
        <div className="w-60">
          <PageSelect
            label="Athlete"
            value={athlete.id}
            onChange={(event) => address.set("athlete", event.target.value)}
          >
            {data.athletes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
        <div className="w-32">
          <PageSelect
            label="Week"
            value={String(week)}
            onChange={(event) =>
              address.set("week", event.target.value === "1" ? "" : event.target.value)
            }
          >
            {Array.from({ length: block.weeks }, (_, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the number is the identity
              <option key={i} value={i + 1}>
                week {i + 1}
              </option>
            ))}
          </PageSelect>
        </div>
      </div>
      {rows.length === 0 ? (
        <p className="text-muted">No lift in this week.</p>
      ) : (
        <Figures label="One athlete under two schools" className="overflow-x-auto">
          <table className="ledger max-w-5xl">
            <thead>
              <tr>
                <th scope="col">The recipe asks</th>
                <th scope="col">{own.name}</th>
                <th scope="col">{other.name}</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.key} className="align-top">
                  <th scope="row" className="!text-base-content">
                    {row.name}
                    <span className="block font-normal text-muted">{row.asked}</span>
                  </th>
                  <Side id={`${row.key}/a`} sets={row.sets} found={row.a} unit={unit} />
                  <Side id={`${row.key}/b`} sets={row.sets} found={row.b} unit={unit} />
                </tr>
              ))}
            </tbody>
          </table>
        </Figures>
      )}
    </section>
  );
}

function Side({
  id,
  sets,
  found,
  unit,
}: {
  id: string;
  sets: number;
  found: ReturnType<typeof underSchool>;
  unit: "kg" | "lb";
}) {
  return (
    <td>
      {found.loading && found.working ? (
        <span className="font-bold">
          <Figure id={id} working={found.working}>
            {formatKg(found.loading.totalKg, unit)}
          </Figure>
        </span>
      ) : (
        <span className="text-secondary">{found.reason}</span>
      )}{" "}
      <span className="text-muted">{found.basis ? describeBasis(found.basis, unit) : ""}</span>
      <span className="block text-muted">
        {sets} × {found.reps} · rest {found.rest.leastS} to {found.rest.mostS} s · ends{" "}
        {found.ends.startsWith("at ") ? found.ends : `by ${found.ends}`}
      </span>
    </td>
  );
}
