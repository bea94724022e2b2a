import { isDate } from "../../../core/units/time";
import type { VelocityMetric } from "../../../core/units/velocity";
import { Field, Select } from "../../ui/field";
import type { FileHead } from "../../workers/read-file";
import type { Route } from "./+types/import";
import type { StreamChoice } from "./stream-sets";

/** Which columns hold time and position, and whose test of which lift it is. */
export function StreamFields({
  head,
  data,
  value,
  onChange,
}: {
  head: FileHead;
  data: Route.ComponentProps["loaderData"];
  value: StreamChoice;
  onChange: (next: StreamChoice) => void;
}) {
  const set = (over: Partial<StreamChoice>) => onChange({ ...value, ...over });
  return (
    <div className="mt-1 grid max-w-4xl gap-2 sm:grid-cols-3">
      {(
        [
          ["Time, s", "time"],
          ["Position, m", "position"],
        ] as const
      ).map(([label, field]) => (
        <Select
          key={label}
          label={`${label} is in`}
          value={value[field]}
          onChange={(event) => set({ [field]: Number(event.target.value) })}
        >
          {head.header.map((title, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns keep their places
            <option key={i} value={i}>
              {title || `column ${i + 1}`} (first: {head.sample[0]?.[i] ?? ""})
            </option>
          ))}
        </Select>
      ))}
      <Select
        label="The profile is of"
        value={value.metric}
        onChange={(event) => set({ metric: event.target.value as VelocityMetric })}
      >
        <option value="MCV">mean concentric (MCV)</option>
        <option value="MPV">mean propulsive (MPV)</option>
        <option value="PV">peak (PV)</option>
      </Select>
      <Select
        label="Athlete"
        value={value.athleteId}
        onChange={(event) => set({ athleteId: event.target.value })}
      >
        {data.athletes.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
      <Select
        label="Lift"
        value={value.variantId}
        onChange={(event) => set({ variantId: event.target.value })}
      >
        {data.variants.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
      <Field
        label="Date"
        type="date"
        value={value.date}
        max={data.today}
        onChange={(event) => {
          // While a date is typed, the field is empty or half a year.
          if (isDate(event.target.value)) set({ date: event.target.value });
        }}
      />
    </div>
  );
}
