import { useEffect, useRef, useState } from "react";

const keyOf = (ids: ReadonlySet<string>) => [...ids].sort().join(" ");

/** Which columns a table shows: ticked, in its address, so that a link and a saved view have them. */
export function ChooseColumns({
  names,
  hidden,
  onHide,
}: {
  names: ReadonlyArray<[id: string, name: string]>;
  hidden: ReadonlySet<string>;
  onHide: (ids: string[]) => void;
}) {
  // A tick stands at once; the address follows it.
  const [off, setOff] = useState(hidden);
  const sent = useRef<string>(undefined);
  useEffect(() => {
    // The address of an earlier tick comes while a later one is on its way: passed over.
    if (sent.current !== undefined && sent.current !== keyOf(hidden)) return;
    sent.current = undefined;
    setOff(hidden);
  }, [hidden]);
  const shown = names.filter(([id]) => !off.has(id)).length;
  return (
    <details className="no-print relative self-end">
      <summary className="btn list-none">
        Columns, {shown} of {names.length}
      </summary>
      <fieldset className="absolute z-20 mt-1 grid w-60 gap-1 border border-control bg-base-100 p-3 shadow-lg">
        <legend className="sr-only">Columns that are shown</legend>
        {names.map(([id, name]) => (
          <label key={id} className="flex min-h-8 items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={!off.has(id)}
              onChange={(event) => {
                const next = new Set(names.flatMap(([one]) => (off.has(one) ? [one] : [])));
                if (event.target.checked) next.delete(id);
                else next.add(id);
                setOff(next);
                sent.current = keyOf(next);
                onHide([...next]);
              }}
            />
            {name}
          </label>
        ))}
      </fieldset>
    </details>
  );
}
