import type { ArchiveManifest } from "./archive-shape";

/**
 * What has to be done with an archive of an earlier version beyond what the database does by itself:
 * a table that came later is empty, a column that came later has its usual value.
 */
export interface VersionStep {
  /** Changes the team's settings. */
  settings?: (settings: ArchiveManifest["settings"]) => ArchiveManifest["settings"];
  /** Statements after all rows are in, inside the same transaction, as the role that imports. */
  rows?: Readonly<Record<string, (rows: Row[]) => Row[]>>;
}
export type Row = Record<string, unknown>;

/**
 * By the version that is brought up, to the next. Version 1: before teams had a zone and squads an
 * order (the first year's archives).
 */
export const VERSION_STEPS: Readonly<Record<number, VersionStep>> = {
  1: {
    rows: {
      // Squads stood by their names.
      squad: (rows) =>
        [...rows]
          .sort((a, b) => (String(a.name) < String(b.name) ? -1 : 1))
          .map((row, i) => ({ ...row, position: i + 1 })),
    },
  },
};

/** Whether a file has to be changed row by row on the way from a version to this one. */
export function changesOf(version: number, table: string, newest: number) {
  const steps: Array<(rows: Row[]) => Row[]> = [];
  for (let at = version; at < newest; at++) {
    const step = VERSION_STEPS[at]?.rows?.[table];
    if (step) steps.push(step);
  }
  return steps;
}
