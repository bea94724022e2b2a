import { now } from "./clock.server";
import { databases } from "./database.server";
import { log } from "./log.server";

/**
 * Signs of life of the tablets at a session's stations, in every process's memory: told by the
 * database from the one that took a sign to all; what is lost with a process comes again within half
 * a minute, and nothing else depends on it.
 */
export interface StationSign {
  stationId: string;
  /** Of the tablet, 0 to 100; undefined where it does not say. */
  batteryPercent: number | undefined;
  /** Entries that it keeps and has not sent. */
  unsent: number;
}

/** A sign, and how long ago it came, s. */
export interface HeardSign extends StationSign {
  agoS: number;
}

interface Told {
  session: { teamId: string; id: string };
  sign: StationSign;
}

let listening: Promise<unknown> | undefined;

/** Begins to hear signs that other processes take. */
export function hearSigns(): Promise<unknown> {
  listening ??= databases()
    .app.client.listen("sprezza_sign", (payload) => {
      const { session, sign } = JSON.parse(payload) as Told;
      noteSign(session, sign, now().getTime());
    })
    .catch((error: unknown) => {
      listening = undefined;
      log.error({ err: error }, "listening for signs of life failed");
      throw error;
    });
  return listening;
}

/** Tells every process of a sign, this one too. */
export async function tellSign(session: Told["session"], sign: StationSign): Promise<void> {
  await hearSigns();
  await databases().app.client.notify("sprezza_sign", JSON.stringify({ session, sign }));
}

/** Older signs are forgotten. */
const KEPT_MS = 30 * 60_000;
const MOST_SESSIONS = 500;
const MOST_STATIONS = 100;

const heard = new Map<string, Map<string, { sign: StationSign; atMs: number }>>();

export function noteSign(
  session: { teamId: string; id: string },
  sign: StationSign,
  nowMs: number,
) {
  const key = `${session.teamId}/${session.id}`;
  const stations = heard.get(key) ?? new Map();
  // The session that was heard of longest ago goes first.
  heard.delete(key);
  heard.set(key, stations);
  for (const oldest of heard.keys()) {
    if (heard.size <= MOST_SESSIONS) break;
    heard.delete(oldest);
  }
  if (stations.size < MOST_STATIONS || stations.has(sign.stationId))
    stations.set(sign.stationId, { sign, atMs: nowMs });
}

export function signsOf(session: { teamId: string; id: string }, nowMs: number): HeardSign[] {
  const stations = heard.get(`${session.teamId}/${session.id}`);
  if (!stations) return [];
  for (const [id, { atMs }] of stations) if (nowMs - atMs > KEPT_MS) stations.delete(id);
  return [...stations.values()].map(({ sign, atMs }) => ({
    ...sign,
    agoS: Math.max(0, Math.round((nowMs - atMs) / 1000)),
  }));
}
