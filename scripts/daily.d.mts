/** Types of daily.mjs, for the tests that are written in TypeScript. */
export function backupName(at: Date): string;
export function newestAt(names: readonly string[]): number | undefined;
export function tooMany(names: readonly string[], keep: number): string[];
export function nextAt(from: Date, at: [hour: number, minute: number]): Date;
export function dailySettings(
  env: Record<string, string | undefined>,
): { folder?: string; at?: [number, number]; keep?: number; refused?: string } | undefined;
