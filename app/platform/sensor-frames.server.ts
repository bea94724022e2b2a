import { databases } from "./database.server";
import { log } from "./log.server";

/**
 * Frames of racks' sensors, from whatever process took them to whatever process has readers: told by
 * the database, stored nowhere. A rack has one sensor at a time: the first that sends keeps the rack
 * until it is silent.
 */

/** Moments and heights as whole numbers; what they are in is the sender's and the reader's to know. */
type PackedFrames = ReadonlyArray<readonly [number, number]>;

/** After so long without a frame a sensor is silent, ms. */
export const SILENT_MS = 2000;
/** A second sensor is told of for so long after its last try, ms. */
const TWO_MS = 5000;
/** The most that the database tells at once, bytes; its own limit is 8,000. */
const MOST_TOLD = 7000;

interface Told {
  team: string;
  rack: string;
  /** One start of a sensor's process. */
  boot: string;
  frames?: PackedFrames;
  /** Another sensor tried to send. */
  two?: true;
}

/** What is known of a rack's sensor. */
export interface SensorState {
  sending: boolean;
  /** Since the last frame, s; undefined where none came since this process began. */
  silentS: number | undefined;
  /** Two sensors are sent for this rack. */
  two: boolean;
}

interface Known {
  boot: string;
  lastMs: number;
  twoMs: number;
}

type Hear = (frames: PackedFrames) => void;
const known = new Map<string, Known>();
const readers = new Map<string, Set<Hear>>();
let listening: Promise<unknown> | undefined;
const key = (teamId: string, rackId: string) => `${teamId}/${rackId}`;

function take(payload: string): void {
  const { team, rack, boot, frames, two } = JSON.parse(payload) as Told;
  const at = key(team, rack);
  const before = known.get(at);
  const nowMs = Date.now();
  if (two) {
    if (before) before.twoMs = nowMs;
    return;
  }
  known.set(at, { boot, lastMs: nowMs, twoMs: before?.twoMs ?? 0 });
  for (const hear of readers.get(at) ?? []) hear(frames ?? []);
}

function listen(): Promise<unknown> {
  listening ??= databases()
    .app.client.listen("sprezza_sensor", take)
    .catch((error: unknown) => {
      listening = undefined;
      log.error({ err: error }, "listening for sensors failed");
      throw error;
    });
  return listening;
}

const tell = (told: Told) => databases().app.client.notify("sprezza_sensor", JSON.stringify(told));

/**
 * Passes a sensor's frames on to who follows its rack.
 * @returns "other" where another sensor sends for this rack
 */
export async function passFrames(
  of: { teamId: string; rackId: string; boot: string },
  frames: PackedFrames,
): Promise<"passed" | "other"> {
  await listen();
  const { teamId: team, rackId: rack, boot } = of;
  const before = known.get(key(team, rack));
  if (before && before.boot !== boot && Date.now() - before.lastMs < SILENT_MS) {
    await tell({ team, rack, boot, two: true });
    return "other";
  }
  let part: Array<readonly [number, number]> = [];
  let bytes = 0;
  const send = async () => {
    if (part.length > 0) await tell({ team, rack, boot, frames: part });
    part = [];
    bytes = 0;
  };
  for (const frame of frames) {
    const own = String(frame[0]).length + String(frame[1]).length + 4;
    if (bytes + own > MOST_TOLD - 300) await send();
    part.push(frame);
    bytes += own;
  }
  await send();
  return "passed";
}

/** Hears a rack's frames as they come; gives back how to stop. */
export async function followFrames(
  teamId: string,
  rackId: string,
  hear: Hear,
): Promise<() => void> {
  await listen();
  const at = key(teamId, rackId);
  const own = readers.get(at) ?? new Set();
  readers.set(at, own);
  own.add(hear);
  return () => {
    own.delete(hear);
    if (own.size === 0) readers.delete(at);
  };
}

export function sensorState(teamId: string, rackId: string): SensorState {
  const own = known.get(key(teamId, rackId));
  const nowMs = Date.now();
  return {
    sending: own !== undefined && nowMs - own.lastMs < SILENT_MS,
    silentS: own && Math.round((nowMs - own.lastMs) / 1000),
    two: own !== undefined && nowMs - own.twoMs < TWO_MS,
  };
}
