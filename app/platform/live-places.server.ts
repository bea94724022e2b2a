import type { Principal } from "./rights";

/**
 * Places for live streams in this process. A person or tablet that opens more than theirs loses
 * the oldest (most often one whose reader has long gone); a process that is full takes no more.
 */
export const STREAMS_EACH = 16;
export const STREAMS_IN_ALL = 1000;

const held = new Map<string, Set<AbortController>>();
let count = 0;

const holderOf = (principal: Principal) =>
  principal.kind === "rack" ? `rack:${principal.deviceId}` : `person:${principal.userId}`;

/**
 * Closes every stream of a person or tablet; each comes back only with the right to.
 * @param teamId undefined for the person's streams in whatever team
 */
export function closeStreamsOf(teamId: string | undefined, holder: string): void {
  for (const [key, places] of [...held]) {
    const theirs =
      teamId === undefined ? key.endsWith(`/${holder}`) : key === `${teamId}/${holder}`;
    if (theirs) for (const place of [...places]) place.abort();
  }
}

/** Closes every stream of this process; each comes back only with the right to. */
export function closeAllStreams(): void {
  for (const places of [...held.values()]) for (const place of [...places]) place.abort();
}

export interface Place {
  /** Aborted when the place is needed for another. */
  readonly lost: AbortSignal;
  giveBack(): void;
}

/** A place for one stream; undefined where the process is full. */
export function takePlace(principal: Principal): Place | undefined {
  const holder = `${principal.teamId}/${holderOf(principal)}`;
  const places = held.get(holder) ?? new Set();
  if (places.size >= STREAMS_EACH) {
    const [oldest] = places;
    oldest?.abort();
  }
  if (count >= STREAMS_IN_ALL) return undefined;
  const place = new AbortController();
  const giveBack = () => {
    if (!places.delete(place)) return;
    count--;
    if (places.size === 0) held.delete(holder);
  };
  place.signal.addEventListener("abort", giveBack);
  places.add(place);
  held.set(holder, places);
  count++;
  return { lost: place.signal, giveBack };
}
