import { plainName } from "./names";

/** Column number (from 0) of each role that a file has; roles that it lacks are absent. */
export type Columns<Role extends string> = Partial<Record<Role, number>>;

/** A title as it is compared: small letters without marks, blanks and signs. */
export const plainTitle = (title: string): string => plainName(title).replace(/[^a-z]/g, "");

/**
 * A first guess at the columns from the header line: the first title that names a role has it.
 * @param known titles of each role, as `plainTitle` makes them
 * @example guessColumns(["Who", "Load (kg)"], { load: ["loadkg"] }) // { load: 1 }
 */
export function guessColumns<Role extends string>(
  header: readonly string[],
  known: Readonly<Record<Role, readonly string[]>>,
): Columns<Role> {
  const roles = Object.keys(known) as Role[];
  const columns: Columns<Role> = {};
  header.forEach((title, i) => {
    const plain = plainTitle(title);
    const role = roles.find((one) => known[one].includes(plain));
    if (role && columns[role] === undefined) columns[role] = i;
  });
  return columns;
}

/**
 * The columns with another role for one of them: a column has one role and a role one column.
 * @param role empty where the column is left aside
 */
export function withRole<Role extends string>(
  columns: Columns<Role>,
  column: number,
  role: NoInfer<Role> | "",
): Columns<Role> {
  const next: Columns<Role> = {};
  for (const one of Object.keys(columns) as Role[]) {
    const at = columns[one];
    if (at !== undefined && at !== column && one !== role) next[one] = at;
  }
  if (role !== "") next[role] = column;
  return next;
}
