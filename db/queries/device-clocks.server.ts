import { desc, eq, sql } from "drizzle-orm";
import { deviceClock } from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf } from "./any-of.server";

/** What is known of one start of a device's page. */
export interface BootClock {
  deviceId: string;
  bootId: string;
  /** Server's clock less the page's monotonic clock, ms. */
  monoOffsetMs: number;
  /** Server's clock less the device's wall clock, ms. */
  wallOffsetMs: number;
  learntAt: Date;
}

/** Keeps what was learnt of a boot; of its monotonic offset the least stands, which waited least. */
export async function learnClock(tx: TeamTransaction, row: BootClock): Promise<void> {
  await tx
    .insert(deviceClock)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({
      target: [deviceClock.teamId, deviceClock.bootId],
      set: {
        monoOffsetMs: sql`least(${deviceClock.monoOffsetMs}, excluded.mono_offset_ms)`,
        wallOffsetMs: sql`excluded.wall_offset_ms`,
        learntAt: sql`excluded.learnt_at`,
      },
    });
}

/** What is known of some boots; those that never told their clock are left out. */
export function clocksOfBoots(
  tx: TeamTransaction,
  bootIds: readonly string[],
): Promise<BootClock[]> {
  return tx.select().from(deviceClock).where(anyOf(deviceClock.bootId, bootIds));
}

/** What was learnt of a device last, in whatever boot. */
export async function lastClockOf(
  tx: TeamTransaction,
  deviceId: string,
): Promise<BootClock | undefined> {
  const [row] = await tx
    .select()
    .from(deviceClock)
    .where(eq(deviceClock.deviceId, deviceId))
    .orderBy(desc(deviceClock.learntAt))
    .limit(1);
  return row;
}
