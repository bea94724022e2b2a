/** The wave set by set over its real dates: a bar a set, height by what was asked. */
export interface WaveColumn {
  title: string;
  sets: Array<{
    key: string;
    /** 0 to 1: how high it stands in the column. */
    height: number;
    /** Shade by grip or stance. */
    shade: number;
    /** Said above the bar where it differs from the one before. */
    label: string | undefined;
  }>;
  /** In place of bars: what the week is, or why it has none. */
  words?: string | undefined;
}

const HEIGHT_PX = 104;
const HEAD = 20;

/** A picture for the head of a table's column: as wide as the column below it. */
export function WaveColumnPicture({
  column,
  heightPx = HEIGHT_PX,
}: {
  column: WaveColumn;
  heightPx?: number | undefined;
}) {
  const { sets } = column;
  const places = Math.max(6, sets.length);
  const left = (i: number) => 2 + (96 * i) / places;
  return (
    <span
      className="relative block w-full overflow-hidden border-b border-rule"
      style={{ height: heightPx }}
      role="img"
      aria-label={`${column.title}: ${column.words ?? sets.flatMap((set) => set.label ?? []).join(", ")}`}
    >
      <svg
        viewBox={`0 0 100 ${heightPx}`}
        preserveAspectRatio="none"
        className="absolute inset-0 h-full w-full"
        aria-hidden="true"
      >
        {sets.map((set, i) => {
          const height = Math.max(2, set.height * (heightPx - HEAD));
          return (
            <rect
              key={set.key}
              x={left(i)}
              y={heightPx - height}
              width={(96 / places) * 0.8}
              height={height}
              className="fill-primary"
              opacity={1 - 0.2 * set.shade}
            />
          );
        })}
      </svg>
      {sets.map((set, i) =>
        set.label ? (
          <span
            key={set.key}
            className="absolute text-[12px] leading-none whitespace-nowrap text-muted"
            style={{
              left: `${left(i)}%`,
              top: heightPx - Math.max(2, set.height * (heightPx - HEAD)) - 14,
            }}
          >
            {set.label}
          </span>
        ) : null,
      )}
      {column.words ? (
        <span className="absolute inset-x-1 bottom-1 text-[12px] whitespace-normal text-muted">
          {column.words}
        </span>
      ) : null}
    </span>
  );
}
