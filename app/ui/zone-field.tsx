import { useEffect, useState } from "react";
import { Field } from "./field";

/** A time zone: proposed from this browser's clock, and any other by its name. */
export function ZoneField({
  defaultValue,
  problem,
  inline,
}: {
  defaultValue?: string | undefined;
  problem?: string | undefined;
  inline?: boolean;
}) {
  const [zones, setZones] = useState<string[]>([]);
  const [own, setOwn] = useState("");
  useEffect(() => {
    setZones(Intl.supportedValuesOf?.("timeZone") ?? []);
    setOwn(Intl.DateTimeFormat().resolvedOptions().timeZone);
  }, []);
  return (
    <>
      <Field
        key={defaultValue || own}
        label="Time zone"
        name="zone"
        list="time-zones"
        autoComplete="off"
        defaultValue={defaultValue || own}
        problem={problem}
        {...(inline ? { inline } : {})}
      />
      <datalist id="time-zones">
        {zones.map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
    </>
  );
}
