import { FlexRender, type Row, useTable } from "@tanstack/react-table";
import { ArrowDown, ArrowUp } from "lucide-react";
import { memo, useCallback, useDeferredValue, useMemo, useRef } from "react";
import { useUnit } from "../../ui/unit";
import { useRowsInSight } from "../../ui/use-rows-in-sight";
import { Figures } from "../../ui/working";
import {
  type AthleteRow,
  features,
  type Loaded,
  rightColumns,
  squadColumns,
} from "./squad-columns";

export const SHOWS = ["all", "stale", "newer", "untested", "limited", "competition"] as const;
export type Show = (typeof SHOWS)[number];
export const SHOW_NAMES: Record<Show, string> = {
  all: "everybody",
  stale: "a stale max, or none",
  newer: "a newer record than in use",
  untested: "no profile",
  limited: "with a limit",
  competition: "near a competition",
};

export function shown(row: AthleteRow, show: Show): boolean {
  if (show === "stale") return row.maxes.length === 0 || row.maxes.some((max) => max.stale);
  if (show === "newer") return row.newer.length > 0;
  if (show === "untested") return row.profileOn === undefined;
  if (show === "limited") return row.instructions.length + row.byAge.length > 0;
  if (show === "competition") return row.mark !== undefined;
  return true;
}

/** The columns that the word to find is looked for in. */
const FOUND_IN = new Set(["name", "squadName", "profile", "phase", "notes"]);
/** Longer lists draw only the rows in sight. */
const VIRTUAL_FROM = 200;

/** What a coach compares, one row an athlete: sorted by any column, a few cells edited in place. */
export function SquadTable({
  rows,
  variants,
  find,
  hidden,
  mayEdit,
  marked,
  onMark,
}: {
  /** Columns that are left out. */
  hidden: ReadonlySet<string>;
  rows: AthleteRow[];
  variants: Loaded["variants"];
  find: string;
  mayEdit: boolean;
  /** Who is marked for a change of several; undefined where nobody marks. */
  marked: ReadonlySet<string> | undefined;
  onMark: (ids: readonly string[], on: boolean) => void;
}) {
  const unit = useUnit();
  // Of the same lifts the same columns, though the page was loaded anew: others would take every
  // cell's field from the hand that is typing in it.
  const lifts = JSON.stringify(variants);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the lifts by what they say
  const columns = useMemo(
    () => squadColumns(variants, mayEdit, unit).filter((one) => !hidden.has(one.id ?? "")),
    [lifts, mayEdit, unit, hidden],
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
  // The head says at once what was pressed; the rows follow.
  const listed = useDeferredValue(all);
  const latest = useRef(onMark);
  latest.current = onMark;
  const markOne = useCallback<Mark>((ids, on) => latest.current(ids, on), []);
  const right = useMemo(() => rightColumns(variants), [variants]);

  return (
    <Figures label="Squads" className="overflow-x-auto">
      <table className="ledger ledger-tight">
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {marked ? (
                <th scope="col">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    aria-label="Mark everybody listed"
                    checked={all.length > 0 && all.every((row) => marked.has(row.id))}
                    onChange={(event) =>
                      onMark(
                        all.map((row) => row.id),
                        event.target.checked,
                      )
                    }
                  />
                </th>
              ) : null}
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
                      className={`inline-flex min-h-6 items-center gap-0.5 hover:underline pointer-coarse:min-h-11 whitespace-normal ${
                        right.has(header.column.id)
                          ? "max-w-20 justify-end text-right"
                          : "text-left"
                      }`}
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
        <SquadRows all={listed} columns={columns} right={right} marked={marked} onMark={markOne} />
      </table>
      {all.length === 0 && rows.length + find.length > 0 ? (
        <p className="py-3 text-muted">Nobody fits. Clear the filter above.</p>
      ) : null}
    </Figures>
  );
}

type ListedRow = Row<typeof features, AthleteRow>;
type Mark = (ids: readonly string[], on: boolean) => void;

/** The rows in sight; each is drawn again only when it, its columns or its mark is another. */
const SquadRows = memo(function SquadRows({
  all,
  columns,
  right,
  marked,
  onMark,
}: {
  all: readonly ListedRow[];
  columns: unknown;
  right: ReadonlySet<string>;
  marked: ReadonlySet<string> | undefined;
  onMark: Mark;
}) {
  const body = useRef<HTMLTableSectionElement>(null);
  const { visible, before, after } = useRowsInSight(all, body, VIRTUAL_FROM);
  return (
    <tbody ref={body}>
      {before > 0 ? <tr style={{ height: before }} aria-hidden /> : null}
      {visible.map(({ row }) => (
        <SquadRow
          key={row.id}
          row={row}
          columns={columns}
          right={right}
          marked={marked?.has(row.id)}
          onMark={onMark}
        />
      ))}
      {after > 0 ? <tr style={{ height: after }} aria-hidden /> : null}
    </tbody>
  );
});

const SquadRow = memo(function SquadRow({
  row,
  right,
  marked,
  onMark,
}: {
  row: ListedRow;
  /** Another one draws the cells another way. */
  columns: unknown;
  right: ReadonlySet<string>;
  /** Undefined where nobody marks. */
  marked: boolean | undefined;
  onMark: Mark;
}) {
  return (
    <tr>
      {marked === undefined ? null : (
        <td>
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            aria-label={`Mark ${row.original.name}`}
            checked={marked}
            onChange={(event) => onMark([row.id], event.target.checked)}
          />
        </td>
      )}
      {row.getAllCells().map((cell) =>
        cell.column.id === "name" ? (
          <th key={cell.id} scope="row" className="!text-base-content">
            <FlexRender cell={cell} />
          </th>
        ) : (
          <td key={cell.id} className={right.has(cell.column.id) ? "text-right" : ""}>
            <FlexRender cell={cell} />
          </td>
        ),
      )}
    </tr>
  );
});
