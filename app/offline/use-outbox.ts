import { useEffect, useSyncExternalStore } from "react";
import { browserOutbox, startSending } from "./browser";
import type { Outbox, OutboxState } from "./outbox";

const NOTHING: OutboxState = {
  waiting: [],
  unkept: new Set(),
  keeping: new Set(),
  refused: [],
  link: "ok",
};

/** This browser's outbox and its state; no outbox while the page is drawn on the server. */
export function useOutbox(): { outbox: Outbox | undefined; state: OutboxState } {
  useEffect(startSending, []);
  const outbox = typeof window === "undefined" ? undefined : browserOutbox();
  const state = useSyncExternalStore(
    (watch) => outbox?.subscribe(watch) ?? (() => {}),
    () => outbox?.state() ?? NOTHING,
    () => NOTHING,
  );
  return { outbox, state };
}
