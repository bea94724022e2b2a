import { type EntryBody, type LogEntry, withoutPlace } from "../../core/floor/entries";
import type { FrozenSession } from "../../core/floor/frozen";
import { FloorFold, type FloorState } from "../../core/floor/state";
import type { DeviceClock } from "./clock";
import type { LiveMessage } from "./live";
import type { LinkState, Outbox, OutboxNews } from "./outbox";
import type { RefusedEntry } from "./outbox-store";

/** A running session as this browser sees it; a new object whenever anything changes. */
export interface SessionView {
  floor: FloorState;
  /** How many entries of this session the server has not acknowledged. */
  unsent: number;
  /** Of those, what this browser's store did not take: it lives on this page only. */
  unkept: number;
  /** Of those, what is on its way into the store. */
  keeping: number;
  /** Entries of other sessions that this browser still holds. */
  elsewhere: number;
  link: LinkState;
  refused: readonly RefusedEntry[];
  ended: boolean;
}

/** How the server's entries come in; gives back how to stop. */
export type Follow = (heard: () => number, hear: (message: LiveMessage) => void) => () => void;

/**
 * One session in this browser: the server's entries, the live ones and this browser's own, folded
 * together. What it shows is the fold's state and nothing else; an entry that is appended is in
 * the state when `append` returns.
 */
export class SessionLog {
  readonly sessionId: string;
  readonly fold: FloorFold;
  readonly #outbox: Outbox;
  readonly #clock: DeviceClock;
  readonly #stamp: (body: EntryBody, supersedes: string[]) => LogEntry;
  readonly #watchers = new Set<() => void>();
  #heard: number;
  #ended: boolean;
  #streamDown = false;
  #view: SessionView | undefined;

  constructor(input: {
    sessionId: string;
    frozen: FrozenSession;
    entries: readonly LogEntry[];
    ended: boolean;
    /** Up to which number everything is here that this screen needs; that of the newest where left out. */
    heard?: number | undefined;
    outbox: Outbox;
    clock: DeviceClock;
    stamp: (body: EntryBody, supersedes: string[]) => LogEntry;
  }) {
    this.sessionId = input.sessionId;
    this.fold = new FloorFold(input.frozen).add(input.entries);
    this.#outbox = input.outbox;
    this.#clock = input.clock;
    this.#stamp = input.stamp;
    this.#ended = input.ended;
    this.#heard =
      input.heard ?? input.entries.reduce((most, entry) => Math.max(most, entry.seq ?? 0), 0);
  }

  /** Follows the server and the outbox; gives back how to stop. */
  start(follow: Follow): () => void {
    const stops = [
      this.#outbox.listen((news) => this.#hearOutbox(news)),
      this.#outbox.subscribe(() => this.#changed()),
      follow(
        () => this.#heard,
        (message) => this.#hearLive(message),
      ),
    ];
    return () => {
      for (const stop of stops) stop();
    };
  }

  subscribe(watch: () => void): () => void {
    this.#watchers.add(watch);
    return () => this.#watchers.delete(watch);
  }

  view(): SessionView {
    if (this.#view) return this.#view;
    const { waiting, unkept, keeping, refused, link } = this.#outbox.state();
    const mine = waiting.filter((kept) => kept.sessionId === this.sessionId);
    const count = (ids: ReadonlySet<string>) =>
      mine.filter((kept) => ids.has(kept.entry.id)).length;
    this.#view = {
      floor: this.fold.state(),
      unsent: mine.length,
      unkept: count(unkept),
      keeping: count(keeping),
      elsewhere: waiting.length - mine.length,
      link: link === "ok" && this.#streamDown ? "away" : link,
      refused: refused.filter((row) => row.sessionId === this.sessionId),
      ended: this.#ended,
    };
    return this.#view;
  }

  /** Keeps an entry on this browser, shows it at once and sends it. */
  append(body: EntryBody, supersedes: string[] = []): LogEntry {
    const entry = this.#stamp(body, supersedes);
    this.fold.add([withoutPlace(entry)]);
    this.#changed();
    void this.#outbox.put(this.sessionId, entry);
    return entry;
  }

  /** Takes entries of the server's that this screen did not begin with. */
  take(entries: readonly LogEntry[]): void {
    this.fold.add(entries);
    this.#changed();
  }

  /** The server's clock now, ms. */
  readonly nowMs = (): number => this.#clock.nowMs();

  #hearOutbox(news: OutboxNews): void {
    if (news.kind === "found") {
      const mine = news.kept.filter((kept) => kept.sessionId === this.sessionId);
      this.fold.add(mine.map((kept) => withoutPlace(kept.entry)));
    } else if (news.sessionId !== this.sessionId) return;
    else if (news.kind === "refused") this.fold.remove(news.ids);
    else
      this.fold.add(
        news.answers.flatMap(({ id, seq, madeAt, doubt }) => {
          const entry = this.fold.entry(id);
          return entry
            ? [
                {
                  ...entry,
                  seq,
                  ...(madeAt === undefined ? {} : { madeAt }),
                  ...(doubt === undefined ? {} : { doubt }),
                },
              ]
            : [];
        }),
      );
    this.#changed();
  }

  #hearLive(message: LiveMessage): void {
    if (message.kind === "entries") {
      for (const { seq } of message.entries) this.#heard = Math.max(this.#heard, seq ?? 0);
      this.fold.add(message.entries);
    } else if (message.kind === "status") this.#ended = message.ended;
    else if (message.kind === "link") this.#streamDown = !message.up;
    this.#changed();
  }

  #changed(): void {
    this.#view = undefined;
    for (const watch of [...this.#watchers]) watch();
  }
}
