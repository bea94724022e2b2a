import { useState } from "react";
import { MOST_PIECES, PLATE_ACROSS_MM, readPlates } from "../../../core/gear/fields";
import type { Reading } from "../../../core/resistance/setup";
import { formatKg, formatMass, type MassUnit, plainNumber } from "../../../core/units/mass";

/** A small table over a typed field: what it says, piece by piece, changed by hand; the text follows. */
interface Rows {
  text: string;
  unit: MassUnit;
  onText: (text: string) => void;
}

const CELL = "field !min-h-8 !px-1.5";

/** Plates: how many pairs of each, by minus and plus, how thick, another size, one that goes. */
export function PlateRows({ text, unit, onText }: Rows) {
  const read = readPlates(text, unit);
  const [size, setSize] = useState("");
  if (!read.ok) return null;
  const write = (plates: typeof read.plates) =>
    onText(
      plates
        .map(
          (one) =>
            `${plainNumber(one.mass.amount, 3)}${one.mass.unit}x${one.pairs}@${plainNumber(one.thicknessMm, 1)}${one.diameterMm === undefined ? "" : `/${plainNumber(one.diameterMm, 1)}`}`,
        )
        .join(" "),
    );
  const change = (i: number, by: Partial<(typeof read.plates)[number]>) =>
    write(read.plates.map((one, k) => (k === i ? { ...one, ...by } : one)));
  const added = readPlates(size, unit);
  return (
    <table className="ledger ledger-tight [&_td]:!px-1 [&_th]:!px-1">
      <thead>
        <tr>
          <th scope="col">Plate</th>
          <th scope="col">Pairs</th>
          <th scope="col" className="w-12 !whitespace-normal leading-tight">
            mm thick
          </th>
          <th scope="col" className="w-12 !whitespace-normal leading-tight">
            mm across
          </th>
          <th scope="col">
            <span className="sr-only">Leave out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {read.plates.map((one, i) => {
          const name = formatMass(one.mass);
          return (
            <tr key={name}>
              <th scope="row" className="!text-base-content whitespace-nowrap">
                {name}
              </th>
              <td className="whitespace-nowrap">
                <Step
                  label={`One pair of ${name} fewer`}
                  off={one.pairs <= 0}
                  onPress={() => change(i, { pairs: one.pairs - 1 })}
                >
                  −
                </Step>
                <b className="inline-block w-6 text-center">{one.pairs}</b>
                <Step
                  label={`One pair of ${name} more`}
                  off={one.pairs >= MOST_PIECES}
                  onPress={() => change(i, { pairs: one.pairs + 1 })}
                >
                  +
                </Step>
              </td>
              <td>
                <input
                  key={one.thicknessMm}
                  aria-label={`Thickness of ${name}, mm`}
                  inputMode="decimal"
                  className={`${CELL} w-12`}
                  defaultValue={plainNumber(one.thicknessMm, 1)}
                  onBlur={(event) => {
                    const mm = Number(event.target.value.replace(",", "."));
                    if (mm > 0 && mm < 200) change(i, { thicknessMm: mm });
                  }}
                />
              </td>
              <td>
                <input
                  key={one.diameterMm}
                  aria-label={`${name} across, mm`}
                  inputMode="decimal"
                  placeholder="–"
                  className={`${CELL} w-12`}
                  defaultValue={one.diameterMm === undefined ? "" : plainNumber(one.diameterMm, 1)}
                  onBlur={(event) => {
                    const text = event.target.value.trim();
                    const mm = Number(text.replace(",", "."));
                    if (text === "") change(i, { diameterMm: undefined });
                    else if (mm >= PLATE_ACROSS_MM.least && mm <= PLATE_ACROSS_MM.most)
                      change(i, { diameterMm: mm });
                  }}
                />
              </td>
              <td>
                <Step
                  label={`Leave ${name} out`}
                  onPress={() => write(read.plates.filter((_, k) => k !== i))}
                >
                  ×
                </Step>
              </td>
            </tr>
          );
        })}
        <tr>
          <td colSpan={5} className="whitespace-nowrap">
            <input
              aria-label="Another size of plate"
              placeholder={unit === "lb" ? "35 lb" : "0.5"}
              className={`${CELL} w-20`}
              value={size}
              onChange={(event) => setSize(event.target.value)}
            />{" "}
            <button
              type="button"
              className="btn btn-sm"
              disabled={!added.ok || added.plates.length === 0}
              onClick={() => {
                if (!added.ok) return;
                write([...read.plates, ...added.plates]);
                setSize("");
              }}
            >
              Add this size
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** Readings of a hanging scale: a line each, another, one that goes. */
export function ReadingRows({
  readings,
  unit,
  onText,
}: {
  readings: readonly Reading[];
  unit: MassUnit;
  onText: (text: string) => void;
}) {
  const [length, setLength] = useState("");
  const [pull, setPull] = useState("");
  const write = (parts: readonly string[]) => onText(parts.join(", "));
  const asText = (one: Reading) =>
    `${plainNumber(one.lengthM, 3)} ${formatKg(one.tensionKg, unit, 2)}`;
  const ready = length.trim() !== "" && pull.trim() !== "";
  return (
    <table className="ledger ledger-tight">
      <thead>
        <tr>
          <th scope="col">Length</th>
          <th scope="col">Pull of one</th>
          <th scope="col">
            <span className="sr-only">Leave out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {readings.map((one) => (
          <tr key={one.lengthM}>
            <th scope="row" className="!text-base-content">
              {plainNumber(one.lengthM, 3)} m
            </th>
            <td>{formatKg(one.tensionKg, unit, 2)}</td>
            <td>
              <Step
                label={`Leave out the reading at ${plainNumber(one.lengthM, 3)} m`}
                onPress={() => write(readings.filter((two) => two !== one).map(asText))}
              >
                ×
              </Step>
            </td>
          </tr>
        ))}
        <tr>
          <td>
            <input
              aria-label="Length of another reading, m"
              placeholder="1.15"
              inputMode="decimal"
              className={`${CELL} w-16`}
              value={length}
              onChange={(event) => setLength(event.target.value)}
            />
          </td>
          <td>
            <input
              aria-label={`Pull of another reading, ${unit}`}
              placeholder="18"
              inputMode="decimal"
              className={`${CELL} w-16`}
              value={pull}
              onChange={(event) => setPull(event.target.value)}
            />
          </td>
          <td>
            <button
              type="button"
              className="btn btn-sm"
              disabled={!ready}
              onClick={() => {
                write([...readings.map(asText), `${length.trim()} ${pull.trim()}`]);
                setLength("");
                setPull("");
              }}
            >
              Add
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  );
}

const LADDER = { height: 340, topCm: 220, snapCm: 5 };

/** Hooks and safeties on one upright: a press on a rung takes it off, a press beside it makes one. */
export function RackLadder({
  hooks,
  safeties,
  onHooks,
  onSafeties,
}: {
  hooks: readonly number[];
  safeties: readonly number[];
  onHooks: (text: string) => void;
  onSafeties: (text: string) => void;
}) {
  const y = (cm: number) => LADDER.height - (cm / LADDER.topCm) * LADDER.height;
  const side = (
    all: readonly number[],
    write: (text: string) => void,
    of: {
      name: string;
      one: string;
      x1: number;
      x2: number;
      text: number;
      anchor: "start" | "end";
      stroke: string;
    },
  ) => (
    <g>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: heights are typed in the field above */}
      <rect
        x={of.x1}
        y={0}
        width={of.x2 - of.x1}
        height={LADDER.height}
        className="cursor-copy fill-transparent"
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const cm = (1 - (event.clientY - box.top) / box.height) * LADDER.topCm;
          const rung = Math.round(cm / LADDER.snapCm) * LADDER.snapCm;
          if (!all.includes(rung)) write([...all, rung].sort((a, b) => a - b).join(" "));
        }}
      />
      {all.map((cm, i) => (
        // biome-ignore lint/a11y/useSemanticElements: a rung of a drawing
        <g
          key={cm}
          role="button"
          tabIndex={0}
          aria-label={`${of.one} at ${cm} cm: take it off`}
          className="cursor-pointer"
          onClick={() => write(all.filter((one) => one !== cm).join(" "))}
          onKeyDown={(event) => {
            if (event.key !== "Enter" && event.key !== " " && event.key !== "Delete") return;
            event.preventDefault();
            write(all.filter((one) => one !== cm).join(" "));
          }}
        >
          <rect
            x={of.x1}
            y={y(cm) - 3.5}
            width={of.x2 - of.x1}
            height={7}
            className="fill-transparent"
          />
          <line
            x1={of.anchor === "start" ? of.x1 : of.x2 - 14}
            x2={of.anchor === "start" ? of.x1 + 14 : of.x2}
            y1={y(cm)}
            y2={y(cm)}
            strokeWidth={3}
            className={of.stroke}
          />
          <text
            // Rungs five centimetres apart: every other height stands further out.
            x={of.text + (i % 2) * (of.anchor === "start" ? 26 : -26)}
            y={y(cm) + 4}
            textAnchor={of.anchor}
            className="pointer-events-none fill-base-content"
          >
            {cm}
          </text>
        </g>
      ))}
    </g>
  );
  return (
    <figure>
      <svg
        viewBox={`0 0 200 ${LADDER.height + 4}`}
        className="block w-full max-w-[240px] text-[11px]"
        aria-label={`Hooks at ${hooks.join(", ")} cm, safeties at ${safeties.join(", ")} cm`}
      >
        <rect
          x={95}
          y={0}
          width={10}
          height={LADDER.height}
          className="fill-base-100 stroke-control"
        />
        {side(safeties, onSafeties, {
          name: "safeties",
          one: "Safety",
          x1: 30,
          x2: 95,
          text: 74,
          anchor: "end",
          stroke: "stroke-secondary",
        })}
        {side(hooks, onHooks, {
          name: "hooks",
          one: "Hook",
          x1: 105,
          x2: 170,
          text: 124,
          anchor: "start",
          stroke: "stroke-base-content",
        })}
        <line
          x1={10}
          x2={190}
          y1={LADDER.height}
          y2={LADDER.height}
          className="stroke-base-content"
        />
      </svg>
      <figcaption className="text-sm text-muted">
        Safeties left, hooks right, cm from the floor. Press a rung to take it off, beside the
        upright to add one.
      </figcaption>
    </figure>
  );
}

function Step({
  label,
  off = false,
  onPress,
  children,
}: {
  label: string;
  off?: boolean;
  onPress: () => void;
  children: string;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      disabled={off}
      onClick={onPress}
      className="inline-grid size-7 place-items-center border border-control hover:bg-base-100 disabled:opacity-40 pointer-coarse:size-11"
    >
      {children}
    </button>
  );
}
