import { useEffect, useRef } from "react";
import type { Drawing, Guide } from "./guides";

/** A page's guide over it: a drawn example, and a minute's words. */
export function GuideDialog({ guide, onClose }: { guide: Guide; onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    dialog.current?.showModal();
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-labelledby="guide-title"
      onClose={onClose}
      className="m-auto w-[min(94vw,560px)] border border-control bg-base-100 p-5 text-base-content backdrop:bg-black/40"
    >
      <div className="flex items-baseline justify-between gap-4">
        <h2 id="guide-title">{guide.title}</h2>
        <form method="dialog">
          <button type="submit" className="btn btn-sm">
            Close
          </button>
        </form>
      </div>
      <figure className="my-3">
        <GuideDrawing drawing={guide.drawing} />
        <figcaption className="text-sm text-muted">{guide.shows}</figcaption>
      </figure>
      <ol className="list-decimal pl-5">
        {guide.steps.map((step) => (
          <li key={step} className="py-0.5">
            {step}
          </li>
        ))}
      </ol>
    </dialog>
  );
}

const INK = "stroke-base-content fill-none";
const BLUE = "fill-primary";

function GuideDrawing({ drawing }: { drawing: Drawing }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 500 110" className="block w-full">
      {DRAWINGS[drawing]}
    </svg>
  );
}

const bars = (heights: readonly number[], left: number, width: number, gap: number) =>
  heights.map((height, i) => (
    <rect
      // biome-ignore lint/suspicious/noArrayIndexKey: a fixed drawing
      key={i}
      x={left + i * (width + gap)}
      y={100 - height}
      width={width}
      height={height}
      className={BLUE}
    />
  ));

const DRAWINGS: Record<Drawing, React.ReactNode> = {
  strip: (
    <>
      <rect x={20} y={22} width={460} height={22} className="fill-[var(--wash)]" />
      {bars([74, 76, 73, 71, 70], 50, 40, 24)}
      <rect x={370} y={52} width={40} height={48} className="fill-accent" />
      <path d="M20 100H480" className={INK} />
      <path d="M430 30v70" className="stroke-accent" strokeDasharray="4 4" />
      <text x={436} y={70} className="fill-accent text-[14px]">
        ended
      </text>
    </>
  ),
  waves: (
    <>
      {[40, 44, 50, 30, 44, 48, 54].map((height, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a fixed drawing
        <g key={i}>{bars([height, height, height + 4], 24 + i * 66, 14, 3)}</g>
      ))}
      <path d="M20 100H480" className={INK} />
      <text x={224} y={60} className="fill-secondary text-[14px]">
        deload
      </text>
    </>
  ),
  line: (
    <>
      <path d="M40 8V100H480" className={INK} />
      <path d="M60 20L420 88" className="stroke-primary" strokeWidth={2} />
      <path d="M40 88H480" className="stroke-accent" strokeDasharray="3 4" />
      {[60, 140, 220, 300, 370].map((x) => (
        <circle key={x} cx={x} cy={20 + (x - 60) * 0.189} r={5} className="fill-base-content" />
      ))}
      <path d="M395 88h60" className="stroke-base-content" strokeWidth={5} />
      <text x={404} y={76} className="fill-base-content text-[14px]">
        1RM
      </text>
    </>
  ),
  noise: (
    <>
      <rect x={20} y={26} width={460} height={56} className="fill-[var(--wash)]" />
      <path d="M20 54H480" className={INK} strokeDasharray="3 5" />
      <polyline
        points="40,62 100,46 160,66 220,52 280,58 340,40 400,44 460,18"
        className="fill-none stroke-primary"
        strokeWidth={2}
      />
      {[
        [40, 62],
        [100, 46],
        [160, 66],
        [220, 52],
        [280, 58],
        [340, 40],
        [400, 44],
        [460, 18],
      ].map(([x, y]) => (
        <circle key={x} cx={x} cy={y} r={5} className="fill-base-100 stroke-primary" />
      ))}
    </>
  ),
  film: (
    <>
      <circle cx={120} cy={56} r={44} className="fill-none stroke-iron" strokeWidth={7} />
      <circle cx={120} cy={56} r={8} className="fill-iron" />
      <path d="M120 56C128 40 112 30 122 10M120 56C114 74 126 86 120 104" className={INK} />
      <path d="M180 12h24M180 100h24M192 12v88" className="stroke-primary" />
      <text x={212} y={60} className="fill-base-content text-[14px]">
        45 cm
      </text>
      {bars([60, 62, 58, 55], 320, 26, 14)}
      <path d="M300 100H480" className={INK} />
    </>
  ),
  plates: (
    <>
      <rect x={30} y={52} width={430} height={6} className="fill-iron" />
      {[
        [160, 84, 20],
        [184, 84, 20],
        [208, 56, 14],
        [226, 36, 9],
      ].map(([x = 0, height = 0, width = 0]) => (
        <rect key={x} x={x} y={55 - height / 2} width={width} height={height} className={BLUE} />
      ))}
      <text x={260} y={42} className="fill-base-content text-[14px]">
        side 20 · 20 · 10 · 2.5
      </text>
    </>
  ),
  gap: (
    <>
      <path d="M40 70H480" className={INK} />
      <path d="M40 46H480" className="stroke-secondary" strokeDasharray="5 4" />
      <path
        d="M60 92C140 80 190 30 260 28S400 52 460 58"
        className="fill-none stroke-primary"
        strokeWidth={2}
      />
      <text x={240} y={20} className="fill-base-content text-[14px]">
        go
      </text>
      <text x={60} y={106} className="fill-[var(--muted)] text-[13px]">
        ¼ min
      </text>
      <text x={440} y={106} className="fill-[var(--muted)] text-[13px]">
        12
      </text>
    </>
  ),
  rungs: (
    <>
      {["chair", "held", "free", "box", "bar", "speed"].map((name, i) => (
        <g key={name}>
          <path d={`M${30 + i * 74} ${96 - i * 14}h66v-14`} className={INK} strokeWidth={2} />
          <text x={34 + i * 74} y={90 - i * 14} className="fill-base-content text-[13px]">
            {name}
          </text>
        </g>
      ))}
    </>
  ),
  flow: (
    <>
      {[30, 190, 350].map((x, i) => (
        <g key={x}>
          <rect x={x} y={30} width={110} height={50} className={INK} strokeWidth={1.5} />
          <circle cx={x + 24} cy={55} r={7} className={BLUE} />
          <circle cx={x + 54} cy={55} r={7} className={BLUE} />
          <circle cx={x + 84} cy={55} r={7} className={i === 2 ? "fill-secondary" : BLUE} />
          {i < 2 ? (
            <path d={`M${x + 116} 55h32m-8 -6l8 6l-8 6`} className={INK} strokeWidth={1.5} />
          ) : null}
        </g>
      ))}
    </>
  ),
};
