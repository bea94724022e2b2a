import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { EntryBody, LogEntry } from "../../core/floor/entries";
import type { FrozenSession } from "../../core/floor/frozen";
import { type FloorState, reduceFloor } from "../../core/floor/state";
import { newEntry } from "./device";
import { Keeping } from "./keeping";
import { followSession, type LiveMessage } from "./live";
import { keepUnsent, refusedOf, unsentOf } from "./outbox";
import { sendWaiting } from "./send";

export type LinkState = "ok" | "waiting" | "away" | "sign-in";

export interface SessionLog {
  floor: FloorState;
  entries: readonly LogEntry[];
  /** Keeps an entry on this browser, shows it at once and sends it. */
  append: (body: EntryBody, supersedes?: string[]) => LogEntry;
  unsent: number;
  /** Of the unsent, those that this browser's store did not take: they live on this page only. */
  unkept: number;
  link: LinkState;
  refused: Array<{ reason: string }>;
  ended: boolean;
  /** The server's clock now, ms. */
  nowMs: () => number;
}

const RESEND_MS = 3000;

/** A running session in this browser: server entries, live ones and the unsent, folded together. */
export function useSessionLog(input: {
  sessionId: string;
  frozen: FrozenSession;
  entries: LogEntry[];
  serverNowMs: number;
  ended: boolean;
}): SessionLog {
  const { sessionId, frozen } = input;
  const [entries, setEntries] = useState<ReadonlyMap<string, LogEntry>>(
    () => new Map(input.entries.map((entry) => [entry.id, entry])),
  );
  const [unsent, setUnsent] = useState<ReadonlySet<string>>(new Set());
  const [unkept, setUnkept] = useState(0);
  const [link, setLink] = useState<LinkState>("ok");
  const [refused, setRefused] = useState<Array<{ reason: string }>>([]);
  const [ended, setEnded] = useState(input.ended);
  const offset = useRef(0);
  const offsetKnown = useRef(false);
  if (!offsetKnown.current && typeof window !== "undefined") {
    offset.current = input.serverNowMs - Date.now();
    offsetKnown.current = true;
  }

  const mine = useMemo(
    () => new Set(frozen.racks.flatMap((rack) => rack.lifters.map((lifter) => lifter.athleteId))),
    [frozen],
  );
  const merge = useCallback(
    (more: readonly LogEntry[]) => {
      const wanted = more.filter(
        (entry) => entry.body.kind === "void" || mine.has(entry.body.athleteId),
      );
      if (wanted.length === 0) return;
      setEntries((before) => {
        const after = new Map(before);
        for (const entry of wanted) {
          if (after.get(entry.id)?.seq === undefined) after.set(entry.id, entry);
        }
        return after;
      });
    },
    [mine],
  );

  const [keeping] = useState(() => new Keeping<LogEntry>((entry) => keepUnsent(sessionId, entry)));
  const counted = useRef(0);
  counted.current = unsent.size;
  const sending = useRef<Promise<void>>(undefined);
  const again = useRef(false);
  const flush = useCallback((): Promise<void> => {
    if (sending.current) {
      again.current = true;
      return sending.current;
    }
    const run = async () => {
      do {
        again.current = false;
        const result = await sendWaiting(sessionId);
        if (result.state === "sent") {
          const seqs = new Map(result.acknowledged.map((one) => [one.id, one.seq]));
          if (seqs.size > 0) {
            setEntries((before) => {
              const after = new Map(before);
              for (const [id, seq] of seqs) {
                const entry = after.get(id);
                if (entry) after.set(id, { ...entry, seq });
              }
              return after;
            });
          }
          setLink("ok");
        } else setLink(result.state);
        const stored = (await unsentOf(sessionId)).map((entry) => entry.id);
        setUnsent(new Set([...stored, ...keeping.notKept]));
        setRefused((await refusedOf(sessionId)).map(({ reason }) => ({ reason })));
      } while (again.current);
    };
    sending.current = run().finally(() => {
      sending.current = undefined;
    });
    return sending.current;
  }, [sessionId, keeping]);

  useEffect(() => {
    void unsentOf(sessionId).then((waiting) => {
      merge(waiting);
      return flush();
    });
    const timer = window.setInterval(() => {
      if (keeping.failed > 0)
        void keeping.again().then((kept) => {
          setUnkept(keeping.failed);
          if (kept) void flush();
        });
      // Another tab may have sent what this one still counts as waiting: look again either way.
      void unsentOf(sessionId).then((waiting) =>
        waiting.length > 0 || counted.current > 0 ? flush() : undefined,
      );
    }, RESEND_MS);
    return () => window.clearInterval(timer);
  }, [sessionId, merge, flush, keeping]);

  const heard = useRef(Math.max(0, ...input.entries.map((entry) => entry.seq ?? 0)));
  useEffect(() => {
    const hear = (message: LiveMessage) => {
      if (message.kind === "entries") {
        heard.current = Math.max(heard.current, ...message.entries.map((entry) => entry.seq ?? 0));
        merge(message.entries);
      } else if (message.kind === "ended") setEnded(true);
      else if (message.kind === "link") {
        setLink((before) => (message.up ? "ok" : before === "sign-in" ? before : "away"));
      }
    };
    return followSession(sessionId, () => heard.current, hear);
  }, [sessionId, merge]);

  const append = useCallback(
    (body: EntryBody, supersedes: string[] = []) => {
      const entry = newEntry(body, supersedes, offset.current);
      setEntries((before) => new Map(before).set(entry.id, entry));
      setUnsent((before) => new Set(before).add(entry.id));
      void keeping.put(entry).then(() => {
        setUnkept(keeping.failed);
        return flush();
      });
      return entry;
    },
    [keeping, flush],
  );

  const list = useMemo(() => [...entries.values()], [entries]);
  const floor = useMemo(() => reduceFloor(frozen, list), [frozen, list]);
  const nowMs = useCallback(() => Date.now() + offset.current, []);
  return {
    floor,
    entries: list,
    append,
    unsent: unsent.size,
    unkept,
    link,
    refused,
    ended,
    nowMs,
  };
}
