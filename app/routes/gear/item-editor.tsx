import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { readGearField, writeGearItem } from "../../../core/gear/fields";
import { type FieldSpec, GEAR, type GearItem, type GearKind } from "../../../core/gear/kinds";
import type { Reading } from "../../../core/resistance/setup";
import type { LocalDate } from "../../../core/units/time";
import type { FormResult } from "../../ui/adder";
import { BandChart } from "../../ui/band-chart";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { Notice } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { PlateRows, RackLadder, ReadingRows } from "./field-rows";

interface Inspection {
  pieceId: string;
  date: LocalDate;
  finding: string;
  note: string;
  enteredBy: string;
}

interface Props {
  kind: GearKind;
  chosen: (GearItem & { id: string; awayOn: string | null }) | undefined;
  room: { items: Array<GearItem & { awayOn: string | null }>; inspections: Inspection[] };
  result: FormResult | undefined;
  /** Somebody wants to describe a new one: else no cursor, and no keyboard over the room's picture. */
  asked: boolean;
}

/** The form of one piece. Every field reads as one types; the server reads it the same way. */
export function ItemEditor({ kind, chosen, room, result, asked }: Props) {
  const spec = GEAR[kind];
  const unit = useUnit();
  const form = useRef<HTMLFormElement>(null);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const start = chosen ? writeGearItem(chosen, unit).fields : undefined;
  const problems = result?.problems ?? {};
  const bars = room.items.filter((one) => one.kind === "bar" && one.awayOn === null);

  // Kept: the form is ready for the next piece of the kind, the hand already in its name.
  const kept = useRef<FormResult | undefined>(undefined);
  useEffect(() => {
    if (result?.ok && result !== kept.current && !chosen) {
      form.current?.reset();
      setTyped({});
      form.current?.querySelector<HTMLInputElement>("input[name=name]")?.focus();
    }
    kept.current = result;
  }, [result, chosen]);

  const textOf = (field: FieldSpec) =>
    typed[field.name] ?? (start ? (start[field.name] ?? "") : (field.start ?? ""));
  const problemOf = (field: FieldSpec) => {
    const text = typed[field.name];
    if (text !== undefined && text.trim() !== "") {
      const reading = readGearField(field, text, unit);
      return reading.ok ? undefined : reading.text;
    }
    return problems[field.name];
  };
  const readings = (): Reading[] => {
    const field = spec.fields.find((one) => one.type === "readings");
    if (!field || textOf(field).trim() === "") return [];
    const reading = readGearField(field, textOf(field), unit);
    return reading.ok ? ((reading.value as Reading[] | undefined) ?? []) : [];
  };
  const points = readings();
  const type = (name: string, text: string) => setTyped((now) => ({ ...now, [name]: text }));
  const lengthsOf = (name: string): number[] => {
    const field = spec.fields.find((one) => one.name === name);
    if (!field || textOf(field).trim() === "") return [];
    const reading = readGearField(field, textOf(field), unit);
    return reading.ok && Array.isArray(reading.value)
      ? reading.value.filter((one): one is number => typeof one === "number")
      : [];
  };

  return (
    <div className="grid gap-4 lg:sticky lg:top-11 lg:max-h-[calc(100dvh-3rem)] lg:overflow-auto">
      <Form ref={form} method="post" aria-label="Piece of gear" className="grid gap-2" noValidate>
        <h2>
          {chosen ? (kind === "rack" ? `Rack ${chosen.name}` : chosen.name) : `New ${spec.one}`}
        </h2>
        <input type="hidden" name="intent" value="item" />
        <input type="hidden" name="id" value={chosen?.id ?? ""} />
        <input type="hidden" name="kind" value={kind} />
        <Field
          label={kind === "rack" ? "Number" : "Name"}
          name="name"
          inline
          autoFocus={asked && !chosen}
          defaultValue={chosen?.name}
          hint={kind === "rack" && !chosen ? "1-4 describes four alike" : undefined}
          problem={problems.name}
        />
        {spec.count ? (
          <Field
            label={spec.count}
            name="count"
            inline
            inputMode="numeric"
            defaultValue={chosen?.count ?? 1}
            problem={problems.count}
          />
        ) : null}
        {spec.fields.map((field) => {
          const shared = {
            label: "unit" in field && field.unit ? `${field.label}, ${field.unit}` : field.label,
            name: field.name,
            inline: true,
            problem: problemOf(field),
          };
          const options =
            field.type === "choice"
              ? field.choices
              : field.type === "yes"
                ? ["no", "yes"]
                : field.name === "bar"
                  ? bars.map((one) => one.name)
                  : undefined;
          return options ? (
            <Select
              key={field.name}
              {...shared}
              defaultValue={textOf(field)}
              onChange={(event) => type(field.name, event.target.value)}
            >
              {options.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </Select>
          ) : (
            <div key={field.name} className="grid gap-1">
              <Field
                {...shared}
                hint={field.hint}
                type={field.type === "date" ? "date" : "text"}
                value={textOf(field)}
                onChange={(event) => type(field.name, event.target.value)}
              />
              {field.type === "plates" ? (
                <PlateRows
                  text={textOf(field)}
                  unit={unit}
                  onText={(text) => type(field.name, text)}
                />
              ) : null}
              {field.type === "readings" ? (
                <ReadingRows
                  readings={points}
                  unit={unit}
                  onText={(text) => type(field.name, text)}
                />
              ) : null}
            </div>
          );
        })}
        {kind === "rack" ? (
          <RackLadder
            hooks={lengthsOf("hooks")}
            safeties={lengthsOf("safeties")}
            onHooks={(text) => type("hooks", text)}
            onSafeties={(text) => type("safeties", text)}
          />
        ) : null}
        {points.length >= 2 ? (
          <BandChart readings={points} restM={Math.min(...points.map((one) => one.lengthM))} />
        ) : null}
        {result?.message && !Object.keys(problems).length ? (
          <Notice kind="problem" title={result.message} />
        ) : null}
        {result?.ok ? (
          <p role="status" className="font-medium text-primary">
            Kept.
          </p>
        ) : null}
        {spec.caution ? <p className="text-sm text-muted">{spec.caution}</p> : null}
        <button type="submit" className="btn btn-primary">
          {chosen ? "Keep the change" : `Add the ${spec.one}`}
        </button>
      </Form>
      {chosen ? (
        <>
          <Form method="post" className="flex flex-wrap items-center gap-4">
            <input type="hidden" name="id" value={chosen.id} />
            {chosen.awayOn === null ? (
              <button type="submit" name="intent" value="away" className="underline">
                Put away
              </button>
            ) : null}
            {/* A room has one tree that its racks share. */}
            {kind === "store" ? null : (
              <Link to={`?kind=${kind}`} replace className="underline">
                Describe another {spec.one}
              </Link>
            )}
          </Form>
          {kind === "band" ? (
            <Inspections
              pieceId={chosen.id}
              rows={room.inspections.filter((one) => one.pieceId === chosen.id)}
            />
          ) : null}
        </>
      ) : null}
    </div>
  );
}

function Inspections({ pieceId, rows }: { pieceId: string; rows: Inspection[] }) {
  return (
    <section aria-labelledby="inspections">
      <h3 id="inspections" className="font-bold">
        Inspections
      </h3>
      {rows.length === 0 ? <p className="text-muted">None noted yet.</p> : null}
      <ul>
        {rows.map((one) => (
          <li key={`${one.date}${one.note}${one.finding}`} className="border-b border-faint py-0.5">
            <Day of={one.date} /> <strong>{one.finding}</strong>
            {one.note ? `, ${one.note}` : ""}
            <span className="text-muted"> {one.enteredBy}</span>
          </li>
        ))}
      </ul>
      <Form method="post" className="mt-2 grid gap-2">
        <input type="hidden" name="pieceId" value={pieceId} />
        <Select label="Seen today" name="finding" inline>
          <option value="sound">sound</option>
          <option value="worn">worn</option>
          <option value="nicked">nicked: out of use</option>
        </Select>
        <Field label="Note" name="note" inline />
        <button type="submit" name="intent" value="inspect" className="btn justify-self-start">
          Note the inspection
        </button>
      </Form>
    </section>
  );
}
