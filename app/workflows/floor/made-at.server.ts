import type { LogEntry } from "../../../core/floor/entries";
import {
  type BootClock,
  clocksOfBoots,
  lastClockOf,
  learnClock,
} from "../../../db/queries/device-clocks.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { SenderClock } from "../../forms/entries";

/** An offset that is less by under this says nothing new. */
const BETTER_MS = 50;
/** A wall clock is looked at again after this long. */
const LOOK_AGAIN_MS = 300_000;

export interface MadeAt {
  at: Date;
  by: "boot" | "device" | "unknown";
}

type Stamp = Pick<LogEntry, "deviceId" | "bootId" | "monoMs" | "wallTime">;

/**
 * When entries were made, by device, boot and monotonic time. A page that sends tells its clocks
 * with what it sends; its monotonic clock then stands for any moment of the same boot, whatever
 * its wall clock says. A boot that never told anything (the page was loaded again before it had a
 * link) goes by the wall clock and what was last learnt of how wrong that goes.
 */
export async function openClocks(
  tx: TeamTransaction,
  stamps: readonly Stamp[],
  senders: readonly SenderClock[],
  receivedAt: Date,
): Promise<(stamp: Stamp) => Promise<MadeAt>> {
  const nowMs = receivedAt.getTime();
  const key = (of: { deviceId: string; bootId: string }) => `${of.deviceId}/${of.bootId}`;
  const bootIds = new Set([...stamps, ...senders].map((one) => one.bootId));
  const boots = new Map<string, BootClock>(
    (await clocksOfBoots(tx, [...bootIds])).map((row) => [key(row), row]),
  );
  for (const { deviceId, bootId, monoMs, wallMs } of senders) {
    const told: BootClock = {
      deviceId,
      bootId,
      monoOffsetMs: nowMs - monoMs,
      wallOffsetMs: nowMs - wallMs,
      learntAt: receivedAt,
    };
    const known = boots.get(key(told));
    const nothingNew =
      known &&
      told.monoOffsetMs > known.monoOffsetMs - BETTER_MS &&
      nowMs < known.learntAt.getTime() + LOOK_AGAIN_MS;
    if (nothingNew) continue;
    await learnClock(tx, told);
    const monoOffsetMs = Math.min(told.monoOffsetMs, known?.monoOffsetMs ?? told.monoOffsetMs);
    boots.set(key(told), { ...told, monoOffsetMs });
  }

  const devices = new Map<string, Promise<BootClock | undefined>>();
  const lastOf = (deviceId: string) => {
    const asked = devices.get(deviceId) ?? lastClockOf(tx, deviceId);
    devices.set(deviceId, asked);
    return asked;
  };
  const notAfterNow = (ms: number) => new Date(Math.min(ms, nowMs));
  return async (stamp) => {
    const boot = boots.get(key(stamp));
    if (boot) return { at: notAfterNow(stamp.monoMs + boot.monoOffsetMs), by: "boot" };
    const wallMs = Date.parse(stamp.wallTime);
    const device = await lastOf(stamp.deviceId);
    if (device) return { at: notAfterNow(wallMs + device.wallOffsetMs), by: "device" };
    return { at: notAfterNow(wallMs), by: "unknown" };
  };
}
