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
  useTable,
} from "@tanstack/react-table";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useMemo, useRef } from "react";
import { Link } from "react-router";
import { SEASON_PHASE_NAMES, SEASON_PHASES } from "../../../core/maxes/season";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { Figure, Figures } from "../../ui/working";
import type { readAthletes } from "../../workflows/athletes/read-athletes.server";
import { QuickCell } from "./quick-cell";

type Loaded = Awaited<ReturnType<typeof readAthletes>>;
export type AthleteRow = Loaded["rows"][number];

export const SHOWS = ["all", "stale", "untested", "limited", "competition"] as const;
export type Show = (typeof SHOWS)[number];
export const SHOW_NAMES: Record<Show, string> = {
  all: "everybody",
  stale: "a stale max, or none",
  untested: "no profile",
  limited: "with a limit",
  competition: "near a competition",
};

export function shown(row: AthleteRow, show: Show): boolean {
  if (show === "stale") return row.maxes.length === 0 || row.maxes.some((max) => max.stale);
  if (show === "untested") return row.profileOn === undefined;
  if (show === "limited") return row.instructions.length > 0;
  if (show === "competition") return row.mark !== undefined;
  return true;
}

const features = tableFeatures({
  columnFilteringFeature,
  globalFilteringFeature,
  rowSortingFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
  filterFns: { includesString: filterFn_includesString },
  sortFns: { alphanumeric: sortFn_alphanumeric, text: sortFn_text },
});
const helper = createColumnHelper<typeof features, AthleteRow>();

/** The columns that the word to find is looked for in. */
const FOUND_IN = new Set(["name", "squadName", "profile", "phase", "notes"]);
/** Longer lists draw only the rows in sight. */
const VIRTUAL_FROM = 200;
const ROW_PX = 25;

/** What a coach compares, one row an athlete: sorted by any column, a few cells edited in place. */
export function SquadTable({
  rows,
  variants,
  find,
  mayEdit,
}: {
  rows: AthleteRow[];
  variants: Loaded["variants"];
  find: string;
  mayEdit: boolean;
}) {
  const columns = useMemo(
    () =>
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
        helper.accessor("squadName", { header: "Squad", sortFn: "text" }),
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
            header: variant.name.split(",")[0] ?? variant.name,
            sortUndefined: "last",
            cell: ({ row }) => {
              const max = row.original.maxes.find((one) => one.variantId === variant.id);
              if (!max) return <span className="text-muted">not set</span>;
              return (
                <Figure
                  id={`${row.original.id}/${variant.id}`}
                  working={max.working}
                  label={`${row.original.name}, ${variant.name}: ${formatKg(max.kg)}`}
                  className={(row.original.trainingYears ?? 9) < 1 ? "text-muted" : ""}
                >
                  {formatKg(max.kg, row.original.unit ?? "kg", 1)}
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
            row.original.trainingYears === undefined
              ? "not set"
              : `${row.original.trainingYears} y`,
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
          (row) => [...row.instructions, row.mark?.words ?? ""].filter(Boolean).join(" · "),
          {
            id: "notes",
            header: "Limits and competitions",
            sortFn: "text",
            cell: ({ row }) => (
              <span className="block truncate" title={row.getValue<string>("notes")}>
                <span className="text-secondary">{row.original.instructions.join(" · ")}</span>
                {row.original.instructions.length > 0 && row.original.mark ? " · " : ""}
                <span className={row.original.mark?.refused ? "text-secondary" : "text-muted"}>
                  {row.original.mark?.words}
                </span>
              </span>
            ),
          },
        ),
      ]),
    [variants, mayEdit],
  );
  const state = useMemo(() => ({ globalFilter: find }), [find]);
  const table = useTable({
    features,
    columns,
    data: rows,
    state,
    getRowId: (row) => row.id,
    globalFilterFn: "includesString",
    getColumnCanGlobalFilter: (column) => FOUND_IN.has(column.id),
    enableSortingRemoval: false,
    initialState: {
      sorting: [
        { id: "squadName", desc: false },
        { id: "name", desc: false },
      ],
    },
  });
  const all = table.getRowModel().rows;
  const body = useRef<HTMLTableSectionElement>(null);
  const virtual = useWindowVirtualizer({
    count: all.length,
    estimateSize: () => ROW_PX,
    overscan: 20,
    scrollMargin: body.current?.offsetTop ?? 0,
    enabled: all.length > VIRTUAL_FROM,
  });
  const long = all.length > VIRTUAL_FROM;
  const items = virtual.getVirtualItems();
  const visible = long
    ? items.map((item) => all[item.index]).filter((row) => row !== undefined)
    : all;
  const before = long ? (items[0]?.start ?? 0) - virtual.options.scrollMargin : 0;
  const after = long
    ? virtual.getTotalSize() - ((items.at(-1)?.end ?? 0) - virtual.options.scrollMargin)
    : 0;
  const right = new Set([
    "bodyMass",
    "age",
    "profile",
    "training",
    "born",
    ...variants.map((one) => one.id),
  ]);

  return (
    <Figures label="Squads" className="overflow-x-auto">
      <table className="ledger ledger-tight">
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map((header) => {
                const sorted = header.column.getIsSorted();
                return (
                  <th
                    key={header.id}
                    scope="col"
                    aria-sort={
                      sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"
                    }
                    className={right.has(header.column.id) ? "!text-right" : ""}
                  >
                    <button
                      type="button"
                      className="inline-flex min-h-6 items-center gap-0.5 hover:underline pointer-coarse:min-h-11"
                      onClick={header.column.getToggleSortingHandler()}
                    >
                      <table.FlexRender header={header} />
                      {sorted === "asc" ? <ArrowUp size={12} aria-hidden /> : null}
                      {sorted === "desc" ? <ArrowDown size={12} aria-hidden /> : null}
                    </button>
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody ref={body}>
          {before > 0 ? <tr style={{ height: before }} aria-hidden /> : null}
          {visible.map((row) => (
            <tr key={row.id}>
              {row.getAllCells().map((cell) =>
                cell.column.id === "name" ? (
                  <th key={cell.id} scope="row" className="!text-base-content">
                    <table.FlexRender cell={cell} />
                  </th>
                ) : (
                  <td
                    key={cell.id}
                    className={`${right.has(cell.column.id) ? "text-right" : ""} ${cell.column.id === "notes" ? "w-full max-w-0" : ""}`}
                  >
                    <table.FlexRender cell={cell} />
                  </td>
                ),
              )}
            </tr>
          ))}
          {after > 0 ? <tr style={{ height: after }} aria-hidden /> : null}
        </tbody>
      </table>
      {all.length === 0 && rows.length + find.length > 0 ? (
        <p className="py-3 text-muted">Nobody fits. Clear the filter above.</p>
      ) : null}
    </Figures>
  );
}
