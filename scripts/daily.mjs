/**
 * A backup a day, by setting: BACKUP_FOLDER switches it on, BACKUP_AT says when (the machine's own
 * time), BACKUP_KEEP how many stay. Runs beside the server, in the process that keeps it up; Node's
 * own modules only.
 */
import { spawn } from "node:child_process";
import { accessSync, constants, existsSync, mkdirSync, readdirSync, rmSync } from "node:fs";
import path from "node:path";
import { bin } from "./run.mjs";

const DAY_MS = 86_400_000;
/** After a failure. */
const AGAIN_MS = 30 * 60_000;
/** A name of ours: nothing else in the folder is ever taken away. */
const OURS = /^sprezza-(\d{4})(\d{2})(\d{2})-(\d{2})(\d{2})(\d{2})\.zip$/;

/** "sprezza-20261129-033000.zip", in UTC: names sort as they were made. */
export function backupName(at) {
  const digits = at.toISOString().replace(/\D/g, "");
  return `sprezza-${digits.slice(0, 8)}-${digits.slice(8, 14)}.zip`;
}

/** When the newest file of ours was made, ms; undefined where there is none. */
export function newestAt(names) {
  const times = names.flatMap((name) => {
    const [, year, month, day, hour, minute, second] = OURS.exec(name) ?? [];
    return year ? [Date.UTC(year, month - 1, day, hour, minute, second)] : [];
  });
  return times.length > 0 ? Math.max(...times) : undefined;
}

/** The oldest of ours beyond `keep`. */
export function tooMany(names, keep) {
  return names
    .filter((name) => OURS.test(name))
    .sort()
    .slice(0, -keep);
}

/** The next moment of this time of day after `from`, on the machine's own clock. */
export function nextAt(from, [hour, minute]) {
  const next = new Date(from);
  next.setHours(hour, minute, 0, 0);
  // By the calendar, not by 24 hours: on the day when the clocks change too.
  if (next.getTime() <= from.getTime()) next.setDate(next.getDate() + 1);
  return next;
}

/**
 * The settings of the daily backup.
 * @returns undefined where there is none; `{ refused }` with a sentence where they cannot be used
 */
export function dailySettings(env) {
  const folder = env.BACKUP_FOLDER;
  if (!folder) return undefined;
  const at = /^([01]?\d|2[0-3]):([0-5]\d)$/.exec(env.BACKUP_AT ?? "03:30");
  if (!at) return { refused: `BACKUP_AT is a time such as 03:30, not "${env.BACKUP_AT}".` };
  const keep = Number(env.BACKUP_KEEP ?? 14);
  if (!Number.isInteger(keep) || keep < 1 || keep > 10_000)
    return {
      refused: `BACKUP_KEEP is a whole number from 1 to 10,000, not "${env.BACKUP_KEEP}".`,
    };
  if (!env.BACKUP_DATABASE_URL)
    return {
      refused:
        "BACKUP_FOLDER asks for a daily backup and BACKUP_DATABASE_URL is not set: the database as the role sprezza_backup. npm run database:prepare makes it and writes the setting.",
    };
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch (error) {
    return {
      refused: `BACKUP_FOLDER ${folder} cannot be written (${error.code}). Name a folder that this user may write.`,
    };
  }
  return { folder, at: [Number(at[1]), Number(at[2])], keep };
}

/** Runs one backup to its end; true where it was kept. */
function backUpOnce(folder) {
  const file = path.join(folder, backupName(new Date()));
  const child = spawn(bin("tsx"), ["scripts/backup-database.ts", path.resolve(file)], {
    stdio: ["ignore", "inherit", "inherit"],
  });
  return new Promise((resolve) => {
    child.on("error", () => resolve(false));
    child.on("exit", (code) => resolve(code === 0));
  });
}

/**
 * Keeps a backup a day: at its time, and soon after a start where the last is over a day old (the
 * machine was off at night). A failed one is tried again in half an hour; older ones stay until a
 * new one is whole.
 * @returns how to stop
 */
export function keepDaily({ folder, at, keep }) {
  let timer;
  let stopped = false;
  const plan = (ms) => {
    if (!stopped) timer = setTimeout(work, ms);
  };
  const next = () => plan(nextAt(new Date(), at).getTime() - Date.now());
  async function work() {
    const good = await backUpOnce(folder);
    if (!good) {
      plan(AGAIN_MS);
      return;
    }
    for (const name of tooMany(readdirSync(folder), keep))
      rmSync(path.join(folder, name), { force: true });
    next();
  }
  const newest = existsSync(folder) ? newestAt(readdirSync(folder)) : undefined;
  if (newest === undefined || Date.now() - newest > DAY_MS) plan(2_000);
  else next();
  return () => {
    stopped = true;
    clearTimeout(timer);
  };
}
