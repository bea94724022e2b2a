import { type BoxSlot, NEW_BOX_SLOT, offsetWords } from "../../../../core/boxsquat/slot";
import { BOX_STYLES, CONTACTS, PURPOSES, ROLES, styleById } from "../../../../core/boxsquat/styles";
import type { Json } from "../../../../core/plan/edits";
import { readLength } from "../../../../core/units/length";
import type { Edit } from "../setup-edit";

const select = "field-select !w-auto";

/** What a slot on the box is for and how it is done. */
export function BoxPart({
  slotId,
  name,
  box,
  smallestStopS,
  mayEdit,
  edit,
}: {
  slotId: string;
  name: string;
  box: BoxSlot | undefined;
  /** The team's own smallest stop, proposed with a style that asks for one. */
  smallestStopS: number | undefined;
  mayEdit: boolean;
  edit: Edit;
}) {
  const now = box ?? NEW_BOX_SLOT;
  const keep = (over: Partial<BoxSlot>) => {
    const next = { ...now, ...over };
    edit({
      words: `${name} on the box: ${PURPOSES[next.purpose]}, ${styleById(next.styleId)?.name ?? ""}`,
      sets: [{ path: ["slots", slotId, "box"], value: JSON.parse(JSON.stringify(next)) as Json }],
    });
  };
  if (!mayEdit) {
    return box ? (
      <span className="block text-sm font-normal text-muted">
        {PURPOSES[box.purpose]} · {ROLES[box.role]} · {styleById(box.styleId)?.name} ·{" "}
        {CONTACTS[box.contact]}
        {box.smallestStopS === undefined ? "" : ` · stop ${box.smallestStopS} s`}
        {box.offsetCm ? ` · ${offsetWords(box.offsetCm)}` : ""}
      </span>
    ) : null;
  }
  const options = (names: Record<string, string>) =>
    Object.entries(names).map(([id, words]) => (
      <option key={id} value={id}>
        {words}
      </option>
    ));
  return (
    <span className="mt-1 flex flex-wrap items-center gap-2 text-sm font-normal">
      <span className="text-muted">On the box:</span>
      <select
        className={select}
        aria-label={`${name}, purpose`}
        value={box?.purpose ?? ""}
        onChange={(e) => keep({ purpose: e.target.value as BoxSlot["purpose"] })}
      >
        {box ? null : <option value="">what for?</option>}
        {options(PURPOSES)}
      </select>
      {box ? (
        <>
          <select
            className={select}
            aria-label={`${name}, role`}
            value={box.role}
            onChange={(e) => keep({ role: e.target.value as BoxSlot["role"] })}
          >
            {options(ROLES)}
          </select>
          <select
            className={select}
            aria-label={`${name}, style`}
            value={box.styleId}
            onChange={(e) => {
              const style = styleById(e.target.value);
              keep({ styleId: e.target.value, ...(style ? { contact: style.contact } : {}) });
            }}
          >
            {BOX_STYLES.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
          <select
            className={select}
            aria-label={`${name}, contact`}
            value={box.contact}
            onChange={(e) => keep({ contact: e.target.value as BoxSlot["contact"] })}
          >
            {options(CONTACTS)}
          </select>
          <label className="flex items-center gap-1">
            smallest stop
            <input
              key={box.smallestStopS ?? "none"}
              className="field !w-16"
              inputMode="decimal"
              aria-label={`${name}, smallest stop, s`}
              placeholder={smallestStopS === undefined ? "not set" : String(smallestStopS)}
              defaultValue={box.smallestStopS ?? ""}
              onBlur={(e) => {
                const text = e.target.value.trim().replace(",", ".");
                const value = text === "" ? undefined : Number(text);
                if (value === box.smallestStopS) return;
                const { smallestStopS: _, ...rest } = box;
                edit({
                  words: `${name}: smallest stop ${value === undefined ? "not set" : `${value} s`}`,
                  sets: [
                    {
                      path: ["slots", slotId, "box"],
                      value: JSON.parse(JSON.stringify({ ...rest, smallestStopS: value })) as Json,
                    },
                  ],
                });
              }}
            />
            s
          </label>
          <label className="flex items-center gap-1">
            off the own height
            <input
              key={`off ${box.offsetCm ?? 0}`}
              className="field !w-20"
              aria-label={`${name}, off the own height, cm`}
              placeholder="0 cm"
              defaultValue={box.offsetCm ?? ""}
              onBlur={(e) => {
                const reading = readLength(e.target.value, "cm");
                const value = reading.ok ? reading.value : undefined;
                if ((value ?? 0) === (box.offsetCm ?? 0)) return;
                const { offsetCm: _, ...rest } = box;
                edit({
                  words: `${name}: ${offsetWords(value) || "at the own height"}`,
                  sets: [
                    {
                      path: ["slots", slotId, "box"],
                      value: JSON.parse(JSON.stringify({ ...rest, offsetCm: value })) as Json,
                    },
                  ],
                });
              }}
            />
            cm
          </label>
        </>
      ) : null}
    </span>
  );
}
