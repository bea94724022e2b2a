import { useEffect, useSyncExternalStore } from "react";

/** What was just done, with a way back for as long as it stands. */
interface Said {
  text: string;
  action: { label: string; run: () => void } | undefined;
}

/** Long enough to read and to reach; it stays while the pointer or the keyboard is on it. */
const STANDS_MS = 8000;

let said: Said | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;
const listeners = new Set<() => void>();

function set(next: Said | undefined): void {
  said = next;
  for (const tell of listeners) tell();
}

function start(): void {
  clearTimeout(timer);
  timer = setTimeout(() => set(undefined), STANDS_MS);
}

/** Says it at the foot of the page; what was said before goes. */
export function say(text: string, action?: Said["action"]): void {
  set({ text, action });
  start();
}

/** Whether something stands at the foot of the page now. */
export const isSaid = (): boolean => said !== undefined;

const subscribe = (tell: () => void) => {
  listeners.add(tell);
  return () => listeners.delete(tell);
};

/** The place at the foot of the page where it is said; once a page. */
export function SaidHere() {
  const now = useSyncExternalStore(
    subscribe,
    () => said,
    () => undefined,
  );
  useEffect(
    () => () => {
      clearTimeout(timer);
      said = undefined;
    },
    [],
  );
  return (
    <div
      role="status"
      className="no-print fixed bottom-4 left-4 z-30 max-w-[min(28rem,calc(100vw-2rem))]"
    >
      {now ? (
        // biome-ignore lint/a11y/noStaticElementInteractions: it only waits while somebody is on it
        <div
          className="flex items-center gap-3 rounded border border-control bg-base-200 px-3 py-2 shadow-md"
          onMouseEnter={() => clearTimeout(timer)}
          onMouseLeave={start}
          onFocus={() => clearTimeout(timer)}
          onBlur={start}
        >
          <span>{now.text}</span>
          {now.action ? (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => {
                now.action?.run();
                set(undefined);
              }}
            >
              {now.action.label}
            </button>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
