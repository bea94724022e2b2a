import { useWindowVirtualizer } from "@tanstack/react-virtual";
import type { RefObject } from "react";

const ROW_PX = 25;

/**
 * The rows to draw of a long list, and the height of those above and below them.
 * @param from longer lists than this draw only the rows in sight
 */
export function useRowsInSight<Row>(
  all: readonly Row[],
  body: RefObject<HTMLElement | null>,
  from: number,
) {
  const long = all.length > from;
  const top = body.current?.getBoundingClientRect().top;
  const virtual = useWindowVirtualizer({
    count: all.length,
    estimateSize: () => ROW_PX,
    overscan: 12,
    scrollMargin: top === undefined ? 0 : top + window.scrollY,
    enabled: long,
  });
  if (!long) return { visible: all.map((row, index) => ({ row, index })), before: 0, after: 0 };
  const items = virtual.getVirtualItems();
  const { scrollMargin } = virtual.options;
  return {
    visible: items.flatMap(({ index }) => {
      const row = all[index];
      return row === undefined ? [] : [{ row, index }];
    }),
    before: (items[0]?.start ?? scrollMargin) - scrollMargin,
    after: virtual.getTotalSize() - ((items.at(-1)?.end ?? scrollMargin) - scrollMargin),
  };
}
