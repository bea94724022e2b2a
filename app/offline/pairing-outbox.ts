import { useCallback, useEffect, useRef, useState } from "react";
import { uuidv7 } from "uuidv7";
import type { RunEntry } from "../../core/contrast/run";
import { deviceId } from "./device";

const RETRY_MS = 2000;
const POLL_MS = 2000;

const key = (runId: string) => `pairing-unsent/${runId}`;

function kept(runId: string): RunEntry[] {
  try {
    return JSON.parse(localStorage.getItem(key(runId)) ?? "[]") as RunEntry[];
  } catch {
    return [];
  }
}

/** An entry without the id that it is given here. */
export type Tap = RunEntry extends infer One
  ? One extends RunEntry
    ? Omit<One, "id">
    : never
  : never;

/**
 * The taps of a running pairing: what the server has, then what waits in this browser. A tap
 * counts at once, is kept over a reload, and is sent again until it is acknowledged; other
 * tablets' taps come in by asking.
 */
export function usePairingLog(
  runId: string,
  first: ReadonlyArray<{ seq: number; body: RunEntry }>,
) {
  const [stored, setStored] = useState(() => new Map(first.map((one) => [one.body.id, one.body])));
  const [unsent, setUnsent] = useState<RunEntry[]>([]);
  const after = useRef(first[first.length - 1]?.seq ?? 0);
  const waiting = useRef<RunEntry[]>([]);
  const busy = useRef(false);

  const keep = useCallback(
    (entries: RunEntry[]) => {
      waiting.current = entries;
      setUnsent(entries);
      if (entries.length === 0) localStorage.removeItem(key(runId));
      else localStorage.setItem(key(runId), JSON.stringify(entries));
    },
    [runId],
  );

  const send = useCallback(async () => {
    if (busy.current || waiting.current.length === 0) return;
    busy.current = true;
    try {
      const entries = waiting.current.slice(0, 100);
      const response = await fetch(`/api/pairing/${runId}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ entries }),
      });
      if (!response.ok) return;
      const answer = (await response.json()) as { stored: string[] };
      const there = new Set(answer.stored);
      setStored((old) => {
        const next = new Map(old);
        for (const one of entries) if (there.has(one.id)) next.set(one.id, one);
        return next;
      });
      keep(waiting.current.filter((one) => !there.has(one.id)));
    } catch {
      // Away: the same taps are sent again.
    } finally {
      busy.current = false;
    }
  }, [runId, keep]);

  useEffect(() => {
    keep(kept(runId));
    const retry = setInterval(send, RETRY_MS);
    const ask = setInterval(async () => {
      if (document.hidden) return;
      const response = await fetch(`/api/pairing/${runId}?after=${after.current}`).catch(
        () => undefined,
      );
      if (!response?.ok) return;
      const { entries } = (await response.json()) as {
        entries: Array<{ seq: number; body: RunEntry }>;
      };
      if (entries.length === 0) return;
      after.current = entries[entries.length - 1]?.seq ?? after.current;
      setStored((old) => {
        const next = new Map(old);
        for (const one of entries) next.set(one.body.id, one.body);
        return next;
      });
    }, POLL_MS);
    return () => {
      clearInterval(retry);
      clearInterval(ask);
    };
  }, [runId, keep, send]);

  const tap = useCallback(
    (entry: Tap): string => {
      const id = uuidv7();
      keep([...waiting.current, { ...entry, id, device: deviceId() } as RunEntry]);
      void send();
      return id;
    },
    [keep, send],
  );
  return {
    entries: [...stored.values(), ...unsent.filter((one) => !stored.has(one.id))],
    unsent: unsent.length,
    tap,
  };
}
