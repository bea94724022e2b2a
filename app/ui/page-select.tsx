import { type ComponentProps, useEffect, useState } from "react";
import { useLocation, useNavigation } from "react-router";
import { Select } from "./field";

/**
 * A choice that another page is loaded for: it shows what was chosen at once, not what was there
 * before until the page has come. Where that page never comes, it shows again what stands.
 */
export function PageSelect({ value, onChange, ...select }: ComponentProps<typeof Select>) {
  const { key } = useLocation();
  const idle = useNavigation().state === "idle";
  const [picked, setPicked] = useState<{ value: string; at: string }>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: a page that came, or never comes
  useEffect(() => {
    // What is picked at this very moment is not what came.
    if (idle) setPicked((now) => (now === picked ? undefined : now));
  }, [idle]);
  return (
    <Select
      {...select}
      value={picked?.at === key ? picked.value : value}
      onChange={(event) => {
        setPicked({ value: event.target.value, at: key });
        onChange?.(event);
      }}
    />
  );
}
