import {
  columnFilteringFeature,
  createColumnHelper,
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_text,
  tableFeatures,
} from "@tanstack/react-table";
import { Link } from "react-router";
import { SEASON_PHASE_NAMES, SEASON_PHASES } from "../../../core/maxes/season";
import { formatKg, kgToGrains, type MassUnit, massIn, plainNumber } from "../../../core/units/mass";
import { Figure } from "../../ui/working";
import type { readAthletes } from "../../workflows/athletes/read-athletes.server";
import { QuickCell } from "./quick-cell";

export type Loaded = Awaited<ReturnType<typeof readAthletes>>;
export type AthleteRow = Loaded["rows"][number];

export const features = tableFeatures({
  columnFilteringFeature,
  globalFilteringFeature,
  rowSortingFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
  filterFns: { includesString: filterFn_includesString },
  sortFns: { alphanumeric: sortFn_alphanumeric, text: sortFn_text },
});
const helper = createColumnHelper<typeof features, AthleteRow>();

/** A lift's column says as much of its name as tells it from the other columns. */
function headOf(name: string, all: Loaded["variants"]): string {
  const [lift, ...how] = name.split(", ");
  const alike = all.filter((one) => one.name.split(", ")[0] === lift);
  return alike.length > 1 ? `${lift}, ${how.join(", ")}` : (lift ?? name);
}

/** What a coach compares, a column each; a few cells are edited in place. */
export const squadColumns = (variants: Loaded["variants"], mayEdit: boolean, unit: MassUnit) =>
  helper.columns([
    helper.accessor("name", {
      header: "Athlete",
      sortFn: "text",
      cell: ({ row }) => (
        <Link className="hover:underline" to={`/athletes/${row.original.id}`}>
          {row.original.name}
        </Link>
      ),
    }),
    helper.accessor("squadName", { id: "squadName", header: "Squad", sortFn: "text" }),
    helper.accessor((row) => row.bodyMassKg, {
      id: "bodyMass",
      header: "Mass",
      sortUndefined: "last",
      cell: ({ row }) => (
        <QuickCell
          athlete={row.original}
          field="bodyMass"
          label="body mass"
          value={
            row.original.bodyMassKg === undefined ? "" : plainNumber(row.original.bodyMassKg, 1)
          }
          mayEdit={mayEdit}
        />
      ),
    }),
    ...variants.map((variant) =>
      helper.accessor((row) => row.maxes.find((max) => max.variantId === variant.id)?.kg, {
        id: variant.id,
        header: headOf(variant.name, variants),
        sortUndefined: "last",
        cell: ({ row }) => {
          const max = row.original.maxes.find((one) => one.variantId === variant.id);
          if (!max) return <span className="text-muted">not set</span>;
          return (
            <Figure
              id={`${row.original.id}/${variant.id}`}
              working={max.working}
              label={`${row.original.name}, ${variant.name}: ${formatKg(max.kg, unit, 1)}`}
              className={(row.original.trainingYears ?? 9) < 1 ? "text-muted" : ""}
            >
              {plainNumber(massIn(kgToGrains(max.kg), unit), 1)}
            </Figure>
          );
        },
      }),
    ),
    helper.accessor((row) => Math.max(-1, ...row.maxes.map((max) => max.ageDays)), {
      id: "age",
      header: "Tested",
      cell: ({ row }) => {
        const ages = row.original.maxes.map((max) => max.ageDays);
        return (
          <span>
            {row.original.maxes.some((max) => max.stale) ? (
              <b className="mr-1 text-secondary">stale</b>
            ) : null}
            {ages.length > 0 ? `${Math.max(...ages)} d` : ""}
          </span>
        );
      },
    }),
    helper.accessor((row) => row.profileDays, {
      id: "profile",
      header: "Profile",
      sortUndefined: "last",
      cell: ({ row }) =>
        row.original.profileDays === undefined ? (
          <span className="text-muted">none</span>
        ) : (
          <span title={row.original.profileOn}>{row.original.profileDays} d</span>
        ),
    }),
    helper.accessor((row) => row.trainingYears, {
      id: "training",
      header: "Trains",
      sortUndefined: "last",
      cell: ({ row }) =>
        row.original.trainingYears === undefined ? "not set" : `${row.original.trainingYears} y`,
    }),
    helper.accessor((row) => row.birthYear ?? undefined, {
      id: "born",
      header: "Born",
      sortUndefined: "last",
      cell: ({ row }) => (
        <QuickCell
          athlete={row.original}
          field="birthYear"
          label="birth year"
          value={row.original.birthYear === null ? "" : String(row.original.birthYear)}
          mayEdit={mayEdit}
        />
      ),
    }),
    helper.accessor((row) => row.seasonPhase ?? "", {
      id: "phase",
      header: "Phase",
      sortFn: "text",
      cell: ({ row }) => (
        <QuickCell
          athlete={row.original}
          field="seasonPhase"
          label="season phase"
          value={row.original.seasonPhase ?? ""}
          choices={SEASON_PHASES.map((phase) => [phase, SEASON_PHASE_NAMES[phase]])}
          mayEdit={mayEdit}
        />
      ),
    }),
    helper.accessor(
      (row) =>
        [...row.instructions, row.byAge.length > 0 ? "refused by age" : "", row.mark?.words ?? ""]
          .filter(Boolean)
          .join(" · "),
      {
        id: "notes",
        header: "Limits",
        sortFn: "text",
        cell: ({ row }) => <Holds row={row.original} />,
      },
    ),
  ]);

/** What holds for somebody, whole: a limit that is cut off is none. */
function Holds({ row }: { row: AthleteRow }) {
  const parts = [
    ...row.instructions.map((words) => ({ words, strict: true })),
    ...(row.byAge.length > 0
      ? [{ words: `✕ Refused by age: ${row.byAge.join(", ")}`, strict: true }]
      : []),
    ...(row.mark ? [{ words: row.mark.words, strict: row.mark.refused }] : []),
  ];
  return (
    <span className="block min-w-40 whitespace-normal leading-tight">
      {parts.map((one, i) => (
        <span key={one.words} className={one.strict ? "text-secondary" : "text-muted"}>
          {i > 0 ? " · " : ""}
          {one.words}
        </span>
      ))}
    </span>
  );
}

/** Columns by id with their names, for who chooses which are shown. */
export const columnNames = (variants: Loaded["variants"]): Array<[id: string, name: string]> => [
  ["squadName", "Squad"],
  ["bodyMass", "Mass"],
  ...variants.map((one): [string, string] => [one.id, one.name.split(",")[0] ?? one.name]),
  ["age", "Tested"],
  ["profile", "Profile"],
  ["training", "Trains"],
  ["born", "Born"],
  ["phase", "Phase"],
  ["notes", "Limits"],
];

/** Left out until somebody wants them: with them a desk's width cuts the limits. */
export const HIDDEN_AT_FIRST: readonly string[] = ["training", "born"];

/** The columns that hold numbers stand to the right. */
export const rightColumns = (variants: Loaded["variants"]): ReadonlySet<string> =>
  new Set(["bodyMass", "age", "profile", "training", "born", ...variants.map((one) => one.id)]);
