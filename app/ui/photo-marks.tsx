import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";

export interface Mark {
  x: number;
  y: number;
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * A photo that is marked where it is: it is read in this browser and never sent. A click sets the
 * next mark; each mark can be dragged, or moved by the arrow keys (with Shift by ten).
 */
export function PhotoMarks({
  names,
  marks,
  lines,
  onChange,
}: {
  names: readonly string[];
  marks: ReadonlyArray<Mark | undefined>;
  /** Pairs of marks that are joined, by their index. */
  lines: ReadonlyArray<readonly [number, number]>;
  onChange: (index: number, mark: Mark) => void;
}) {
  const [photo, setPhoto] = useState<{ url: string; width: number; height: number }>();
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<number>();
  useEffect(
    () => () => {
      if (photo) URL.revokeObjectURL(photo.url);
    },
    [photo],
  );
  const width = photo?.width ?? 640;
  const height = photo?.height ?? 480;
  const next = marks.indexOf(undefined);

  const at = (event: PointerEvent): Mark | undefined => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return undefined;
    return {
      x: Math.round(((event.clientX - box.left) / box.width) * width),
      y: Math.round(((event.clientY - box.top) / box.height) * height),
    };
  };
  const load = (file: File | undefined) => {
    if (!file) return;
    const url = URL.createObjectURL(file);
    const image = new Image();
    image.onload = () => setPhoto({ url, width: image.naturalWidth, height: image.naturalHeight });
    image.src = url;
  };
  const onKey = (event: KeyboardEvent, index: number) => {
    const way = ARROWS[event.key];
    const mark = marks[index];
    if (!way || !mark) return;
    event.preventDefault();
    const step = event.shiftKey ? 10 : 1;
    onChange(index, { x: mark.x + way[0] * step, y: mark.y + way[1] * step });
  };
  const radius = Math.max(5, width / 90);

  return (
    <div>
      <label className="no-print grid max-w-md gap-1">
        <span className="text-muted">Photo, read here and never sent</span>
        <input
          type="file"
          accept="image/*"
          className="file-input w-full"
          onChange={(event) => load(event.target.files?.[0])}
        />
      </label>
      <p className="my-1" aria-live="polite">
        {next < 0
          ? "All marks set: drag one, or move it by the arrow keys."
          : `Mark: ${names[next]}`}
      </p>
      <svg
        ref={svg}
        viewBox={`0 0 ${width} ${height}`}
        className="max-h-[60dvh] w-full max-w-3xl touch-none border border-control bg-base-200"
        onPointerDown={(event) => {
          const mark = at(event);
          if (mark && held === undefined && next >= 0) onChange(next, mark);
        }}
        onPointerMove={(event) => {
          const mark = at(event);
          if (held !== undefined && mark) onChange(held, mark);
        }}
        onPointerUp={() => setHeld(undefined)}
      >
        <title>The photo with its marks</title>
        {photo ? <image href={photo.url} width={width} height={height} /> : null}
        {lines.map(([a, b]) => {
          const from = marks[a];
          const to = marks[b];
          return from && to ? (
            <line
              key={`${a}-${b}`}
              x1={from.x}
              y1={from.y}
              x2={to.x}
              y2={to.y}
              className="stroke-accent"
              strokeWidth={radius / 2.5}
            />
          ) : null;
        })}
        {marks.map((mark, i) =>
          mark ? (
            // biome-ignore lint/a11y/useSemanticElements: a button inside a drawing
            <g
              key={names[i]}
              role="button"
              tabIndex={0}
              aria-label={`${names[i]} at ${mark.x}, ${mark.y}`}
              onKeyDown={(event) => onKey(event, i)}
              onPointerDown={(event) => {
                event.stopPropagation();
                setHeld(i);
              }}
              className="cursor-move"
            >
              <circle
                cx={mark.x}
                cy={mark.y}
                r={radius}
                className="fill-base-100 stroke-accent"
                strokeWidth={radius / 3}
              />
              <text
                x={mark.x + (mark.x > 0.7 * width ? -1.6 : 1.6) * radius}
                textAnchor={mark.x > 0.7 * width ? "end" : "start"}
                y={mark.y - radius}
                className="fill-accent"
                fontSize={radius * 2.6}
                paintOrder="stroke"
                stroke="var(--color-base-100)"
                strokeWidth={radius / 2}
              >
                {names[i]}
              </text>
            </g>
          ) : null,
        )}
      </svg>
    </div>
  );
}
