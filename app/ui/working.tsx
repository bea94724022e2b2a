import {
  createContext,
  type KeyboardEvent,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useRef,
  useState,
  useSyncExternalStore,
} from "react";
import { type Working, workingIn } from "../../core/units/working";
import { useDated } from "./dates";
import { useUnit } from "./unit";

interface Selection {
  key: string;
  working: Working;
}

/**
 * Which figure is selected. A store beside React's state: a page holds thousands of figures, and
 * only those that are pressed or let go may be drawn again.
 */
class WorkingStore {
  #selected: Selection | undefined;
  #last: Selection | undefined;
  readonly #watchers = new Set<() => void>();

  readonly selected = (): Selection | undefined => this.#selected;

  readonly select = (next: Selection | undefined): void => {
    if (next) this.#last = next;
    this.#selected = next;
    for (const watch of this.#watchers) watch();
  };

  /** The working of the open figure as it is now: the recipe may have changed under it. */
  readonly refresh = (next: Selection): void => {
    if (this.#selected?.key === next.key) this.select(next);
  };

  /** Closes what is open, or opens what was. */
  readonly toggle = (): void => this.select(this.#selected ? undefined : this.#last);

  readonly subscribe = (watch: () => void): (() => void) => {
    this.#watchers.add(watch);
    return () => this.#watchers.delete(watch);
  };
}

const WorkingContext = createContext<WorkingStore | undefined>(undefined);

function useStore(): WorkingStore {
  const store = useContext(WorkingContext);
  if (!store) throw new Error("A figure stands outside WorkingProvider.");
  return store;
}

const NOTHING = () => undefined;

/** What is selected, for who shows it. */
export function useWorking() {
  const store = useStore();
  const selected = useSyncExternalStore(store.subscribe, store.selected, NOTHING);
  return { selected, select: store.select };
}

/**
 * Whether one figure is selected, and how to select it. While it is open its working follows it.
 * @param working as it is now; a stable one where it is an object of the page's data
 */
export function useFigure(id: string, working: Working | (() => Working | undefined) | undefined) {
  const store = useStore();
  const pressed = useSyncExternalStore(
    store.subscribe,
    () => store.selected()?.key === id,
    () => false,
  );
  useEffect(() => {
    if (!pressed) return;
    const now = typeof working === "function" ? working() : working;
    if (now) store.refresh({ key: id, working: now });
  }, [store, pressed, working, id]);
  return { pressed, select: store.select };
}

/** Holds which figure is selected; `w` closes and opens the working again, Escape closes it. */
export function WorkingProvider({ children }: { children: ReactNode }) {
  const [store] = useState(() => new WorkingStore());
  useEffect(() => {
    window.addEventListener("sprezza:working", store.toggle);
    return () => window.removeEventListener("sprezza:working", store.toggle);
  }, [store]);
  return <WorkingContext.Provider value={store}>{children}</WorkingContext.Provider>;
}

/** A computed figure: click it, or reach it by the arrow keys and press Enter. */
export function Figure({
  id,
  children,
  unit,
  working,
  label,
  className = "",
}: {
  id: string;
  children: ReactNode;
  unit?: string;
  working: Working | undefined;
  /** Said by a screen reader in place of the bare figure. */
  label?: string;
  className?: string;
}) {
  const { pressed, select } = useFigure(id, working);
  if (!working) {
    return (
      <span className={className}>
        {children}
        {unit ? <Unit>{unit}</Unit> : null}
      </span>
    );
  }
  return (
    <button
      type="button"
      data-figure={id}
      className={`figure ${className}`}
      aria-pressed={pressed}
      aria-label={label}
      onClick={() => select(pressed ? undefined : { key: id, working })}
    >
      {children}
      {unit ? <Unit>{unit}</Unit> : null}
    </button>
  );
}

export function Unit({ children }: { children: ReactNode }) {
  return <span className="ml-0.5 text-[0.8em] font-normal opacity-80">{children}</span>;
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * A region of figures: one tab stop, and the arrow keys go to the nearest figure in their
 * direction.
 */
export function Figures({
  children,
  className,
  label,
}: {
  children: ReactNode;
  className?: string;
  label: string;
}) {
  const region = useRef<HTMLElement>(null);
  useEffect(() => {
    const all = [...(region.current?.querySelectorAll<HTMLElement>("[data-figure]") ?? [])];
    if (all.some((one) => one === document.activeElement)) return;
    all.forEach((one, i) => {
      one.tabIndex = i === 0 ? 0 : -1;
    });
  });
  const move = (event: KeyboardEvent) => {
    const direction = ARROWS[event.key];
    const from = (event.target as HTMLElement).closest<HTMLElement>("[data-figure]");
    if (!direction || !from || !region.current) return;
    const next = nearest(region.current, from, direction);
    if (!next) return;
    event.preventDefault();
    from.tabIndex = -1;
    next.tabIndex = 0;
    next.focus();
  };
  return (
    <section ref={region} data-figures className={className} aria-label={label} onKeyDown={move}>
      {children}
    </section>
  );
}

/** Nearest figure whose centre lies within the cone of the direction. */
function nearest(region: HTMLElement, from: HTMLElement, [dx, dy]: [number, number]) {
  const here = centre(from);
  let best: HTMLElement | undefined;
  let bestCost = Number.POSITIVE_INFINITY;
  for (const one of region.querySelectorAll<HTMLElement>("[data-figure]")) {
    if (one === from) continue;
    const there = centre(one);
    const along = (there.x - here.x) * dx + (there.y - here.y) * dy;
    const across = Math.abs((there.x - here.x) * dy) + Math.abs((there.y - here.y) * dx);
    if (along <= 1 || across > along * 3) continue;
    const cost = along + 4 * across;
    if (cost < bestCost) {
      bestCost = cost;
      best = one;
    }
  }
  return best;
}

function centre(element: HTMLElement) {
  const box = element.getBoundingClientRect();
  return { x: box.left + box.width / 2, y: box.top + box.height / 2 };
}

/** The working of the selected figure, for the margin. */
export function WorkingPanel() {
  const { selected, select } = useWorking();
  const unit = useUnit();
  const dated = useDated();
  const close = useCallback(() => select(undefined), [select]);
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key === "Escape" && selected) close();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [selected, close]);
  if (!selected) return null;
  const working = workingIn(selected.working, unit);
  return (
    <section aria-live="polite" aria-label="Working" className="working-panel">
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-muted font-medium">Working: {dated(working.title)}</h2>
        <button
          type="button"
          className="min-h-8 min-w-8 px-2 underline"
          onClick={close}
          aria-label="Close the working"
        >
          Close
        </button>
      </div>
      <dl className="mt-1">
        {working.lines.map((line, i) => (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: lines never move within a working
            key={i}
            className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-faint py-1"
          >
            <dt className="text-muted">{dated(line.label)}</dt>
            <dd className={line.emphasis ? "text-right font-bold" : "text-right"}>
              {dated(line.value)}
            </dd>
            {line.detail ? (
              <dd className="col-span-2 text-sm text-muted">{dated(line.detail)}</dd>
            ) : null}
          </div>
        ))}
      </dl>
      {working.sources?.length ? (
        <p className="mt-2 text-sm text-muted">From: {dated(working.sources.join("; "))}</p>
      ) : null}
      {working.changes?.length ? (
        <p className="mt-1 text-sm text-muted">
          Would change it: {dated(working.changes.join(" "))}
        </p>
      ) : null}
    </section>
  );
}
