import { createContext, type ReactNode, useCallback, useContext } from "react";
import {
  type DateOrder,
  datesIn,
  formatDay,
  formatDayShort,
  orderOfLanguage,
} from "../../core/units/date-order";

export const DATE_ORDERS: ReadonlyArray<{ order: DateOrder; name: string }> = [
  { order: "dmy", name: "10 Mar 2026" },
  { order: "mdy", name: "Mar 10, 2026" },
  { order: "ymd", name: "2026-03-10" },
];

/** What this browser was told; else what the reader's language writes. */
export function readDateOrder(cookies: string | null, languages: string | null): DateOrder {
  const chosen = /(?:^|;\s*)dates=(ymd|dmy|mdy)/.exec(cookies ?? "")?.[1];
  return (chosen as DateOrder | undefined) ?? orderOfLanguage(languages);
}

/** For this browser and the next year; pages that are loaded from now on are written so. */
export function switchDateOrder(order: DateOrder): void {
  // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store API is missing where tablets need it
  document.cookie = `dates=${order}; Path=/; Max-Age=31536000; SameSite=Lax`;
}

const OrderContext = createContext<DateOrder>("ymd");

/** The order in which whoever looks reads dates. */
export function DateOrderProvider({ order, children }: { order: DateOrder; children: ReactNode }) {
  return <OrderContext value={order}>{children}</OrderContext>;
}

export const useDateOrder = (): DateOrder => useContext(OrderContext);

/** Writes a date; `short` leaves the year out. What is no date comes back as it is. */
export function useDay(): (date: string, length?: "short") => string {
  const order = useDateOrder();
  return useCallback(
    (date, length) => (length ? formatDayShort(date, order) : formatDay(date, order)),
    [order],
  );
}

/** Writes a sentence with the dates in it. */
export function useDated(): (text: string) => string {
  const order = useDateOrder();
  return useCallback((text) => datesIn(text, order), [order]);
}

/** A date in its reader's order. */
export function Day({ of, short }: { of: string | undefined | null; short?: boolean }) {
  const day = useDay();
  return of == null ? null : day(of, short ? "short" : undefined);
}

/** Words with the dates in them in their reader's order. */
export function Dated({ children }: { children: string | readonly string[] }) {
  const dated = useDated();
  return dated(typeof children === "string" ? children : children.join(""));
}
