import { type PointerEvent, useEffect, useRef } from "react";
import type { PlateMark, Rim } from "../../../core/track/rim";

export interface PathPoint {
  timeS: number;
  xPx: number;
  yPx: number;
}

/**
 * A picture of the clip with what is marked and found on it: the circle about the plate, which is
 * pulled (its edge: made larger), the plumb line, and the way of the bar.
 */
export function ClipPicture({
  bitmap,
  widthPx,
  heightPx,
  mark,
  onMark,
  leanDeg,
  path,
  atS,
  rim,
  line,
  onPoint,
}: {
  bitmap: ImageBitmap | undefined;
  widthPx: number;
  heightPx: number;
  mark: PlateMark;
  onMark: (mark: PlateMark) => void;
  /** The plumb line against the picture's own upright, degrees; to the right is positive. */
  leanDeg: number;
  path: readonly PathPoint[];
  /** Time of the picture that is shown, s. */
  atS: number;
  /** The rim that was found under the mark. */
  rim: Rim | undefined;
  /** Points of the back in this picture: hip, then shoulder. */
  line: ReadonlyArray<{ xPx: number; yPx: number }>;
  /** A press marks a point, where one is asked for. */
  onPoint: ((at: { xPx: number; yPx: number }) => void) | undefined;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pulled = useRef<{ edge: boolean; x: number; y: number; mark: PlateMark }>(undefined);
  useEffect(() => {
    if (bitmap) canvas.current?.getContext("2d")?.drawImage(bitmap, 0, 0);
  }, [bitmap]);
  const place = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width) * widthPx,
      y: ((event.clientY - box.top) / box.height) * heightPx,
    };
  };
  const here = path.find((one) => one.timeS >= atS - 1e-6);
  const thick = widthPx / 320;
  const lean = (leanDeg * Math.PI) / 180;
  const reach = 0.35 * heightPx;
  return (
    <div
      className="relative w-full bg-neutral"
      style={{
        aspectRatio: `${widthPx} / ${heightPx}`,
        maxHeight: "70vh",
        maxWidth: `calc(70vh * ${widthPx / heightPx})`,
      }}
    >
      <canvas ref={canvas} width={widthPx} height={heightPx} className="size-full" />
      <svg
        viewBox={`0 0 ${widthPx} ${heightPx}`}
        className="absolute inset-0 size-full touch-none"
        role="img"
        aria-label={`The picture with the mark on the plate at ${mark.xPx.toFixed(0)}, ${mark.yPx.toFixed(0)}, radius ${mark.radiusPx.toFixed(0)} px${path.length > 0 ? `, and the bar's way over ${path.length} pictures` : ""}. Fields beside it set the same.`}
        onPointerDown={(event) => {
          const { x, y } = place(event);
          if (onPoint) return onPoint({ xPx: x, yPx: y });
          const far = Math.hypot(x - mark.xPx, y - mark.yPx) / mark.radiusPx;
          event.currentTarget.setPointerCapture(event.pointerId);
          // A press away from the circle brings it there.
          const from = far > 1.4 ? { ...mark, xPx: x, yPx: y } : mark;
          if (far > 1.4) onMark(from);
          pulled.current = { edge: far > 0.75 && far <= 1.4, x, y, mark: from };
        }}
        onPointerMove={(event) => {
          const pull = pulled.current;
          if (!pull) return;
          const { x, y } = place(event);
          if (pull.edge)
            onMark({
              ...pull.mark,
              radiusPx: Math.max(8, Math.hypot(x - pull.mark.xPx, y - pull.mark.yPx)),
            });
          else
            onMark({
              ...pull.mark,
              xPx: pull.mark.xPx + x - pull.x,
              yPx: pull.mark.yPx + y - pull.y,
            });
        }}
        onPointerUp={() => {
          pulled.current = undefined;
        }}
      >
        <line
          x1={mark.xPx - reach * Math.sin(lean)}
          y1={mark.yPx + reach * Math.cos(lean)}
          x2={mark.xPx + reach * Math.sin(lean)}
          y2={mark.yPx - reach * Math.cos(lean)}
          className="stroke-primary-content"
          strokeWidth={thick}
          strokeDasharray={`${4 * thick} ${4 * thick}`}
        />
        {path.length > 1 ? (
          <>
            <polyline
              points={path.map((one) => `${one.xPx.toFixed(1)},${one.yPx.toFixed(1)}`).join(" ")}
              className="fill-none stroke-black"
              strokeWidth={3 * thick}
              opacity={0.6}
            />
            <polyline
              points={path.map((one) => `${one.xPx.toFixed(1)},${one.yPx.toFixed(1)}`).join(" ")}
              className="fill-none stroke-white"
              strokeWidth={1.4 * thick}
            />
          </>
        ) : null}
        {[
          ["stroke-black", 3.4],
          ["stroke-white", 1.6],
        ].map(([stroke, width]) => (
          <g key={stroke} className={`fill-none ${stroke}`} strokeWidth={Number(width) * thick}>
            <circle cx={mark.xPx} cy={mark.yPx} r={mark.radiusPx} />
            <path
              d={`M${mark.xPx - 5 * thick} ${mark.yPx}h${10 * thick}M${mark.xPx} ${mark.yPx - 5 * thick}v${10 * thick}`}
            />
          </g>
        ))}
        {rim ? (
          <ellipse
            {...axesOf(rim)}
            className="fill-none stroke-white"
            strokeWidth={thick}
            strokeDasharray={`${2 * thick} ${2 * thick}`}
          />
        ) : null}
        {line.length > 1 ? (
          <polyline
            points={line.map((one) => `${one.xPx},${one.yPx}`).join(" ")}
            className="fill-none stroke-white"
            strokeWidth={2 * thick}
          />
        ) : null}
        {line.map((one) => (
          <circle
            key={`${one.xPx},${one.yPx}`}
            cx={one.xPx}
            cy={one.yPx}
            r={4 * thick}
            className="fill-black stroke-white"
            strokeWidth={1.4 * thick}
          />
        ))}
        {here ? (
          <circle
            cx={here.xPx}
            cy={here.yPx}
            r={4 * thick}
            className="fill-white stroke-black"
            strokeWidth={thick}
          />
        ) : null}
      </svg>
    </div>
  );
}

/** An ellipse as SVG draws one. */
function axesOf({ xPx, yPx, m11, m12, m22 }: Rim) {
  const middle = (m11 + m22) / 2;
  const off = Math.hypot((m11 - m22) / 2, m12);
  const turn = Math.atan2(2 * m12, m11 - m22) / 2;
  return {
    cx: xPx,
    cy: yPx,
    rx: 1 / Math.sqrt(middle + off),
    ry: 1 / Math.sqrt(middle - off),
    transform: `rotate(${(turn * 180) / Math.PI} ${xPx} ${yPx})`,
  };
}
