import type { EChartsCoreOption, EChartsType } from "echarts/core";
import { useEffect, useRef } from "react";
import { useDated } from "./dates";

/** The theme's colours, read where the chart stands. */
export interface ChartColors {
  ink: string;
  muted: string;
  rule: string;
  primary: string;
  secondary: string;
  accent: string;
  wash: string;
  paper: string;
}

function colorsAt(element: Element): ChartColors {
  const style = getComputedStyle(element);
  const get = (name: string) => style.getPropertyValue(name).trim();
  return {
    ink: get("--color-base-content"),
    muted: get("--muted"),
    rule: get("--color-base-300"),
    primary: get("--color-primary"),
    secondary: get("--color-secondary"),
    accent: get("--color-accent"),
    wash: get("--wash"),
    paper: get("--color-base-100"),
  };
}

/** By name: what the server draws follows the theme, and paper, by itself. */
const COLORS_BY_NAME: ChartColors = {
  ink: "var(--color-base-content)",
  muted: "var(--muted)",
  rule: "var(--color-base-300)",
  primary: "var(--color-primary)",
  secondary: "var(--color-secondary)",
  accent: "var(--color-accent)",
  wash: "var(--wash)",
  paper: "var(--color-base-100)",
};

type Draw = (option: EChartsCoreOption, size: { widthPx: number; heightPx: number }) => string;
let drawOnServer: Draw | undefined;

/** The server says how it draws; a browser never does. */
export function drawChartsWith(draw: Draw): void {
  drawOnServer = draw;
}

const complete = (option: EChartsCoreOption): EChartsCoreOption => ({
  animation: false,
  textStyle: { fontFamily: "inherit" },
  // Days are days, wherever the server and the reader are.
  useUTC: true,
  ...option,
});

/** Long after a page is ready to be worked with, ms. */
const AT_REST_MS = 4000;
/** A drawing this much wider or narrower than it was meant has letters too large or too small. */
const STRETCH = 0.15;

/**
 * A chart. A page comes with it drawn; ECharts is loaded when somebody points at it, when its
 * figures change, or where it has quite another width. For a screen reader the label says what it
 * shows, and the figures stand beside it as text.
 */
export function Chart({
  label,
  height,
  drawnPx,
  build,
  onPick,
}: {
  label: string;
  /** px */
  height: number;
  /** The width that it has at a desk, px: what the server draws it for. */
  drawnPx: number;
  build: (colors: ChartColors) => EChartsCoreOption;
  /** The id of a point that was clicked. */
  onPick?: (id: string) => void;
}) {
  const dated = useDated();
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType>(undefined);
  const load = useRef<() => void>(undefined);
  const latest = useRef({ build, onPick, drawnPx });
  latest.current = { build, onPick, drawnPx };

  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let gone = false;
    const draw = () => {
      chart.current?.setOption(complete(latest.current.build(colorsAt(element))), true);
    };
    const themed = new MutationObserver(draw);
    // Paper has colours of its own, whatever the screen's theme is.
    const paper = window.matchMedia("print");
    const onPaper = () => {
      chart.current?.resize();
      draw();
    };
    const begin = async () => {
      // Without a link it stays as it is; its figures stand beside it.
      const loaded = await import("./echarts").catch(() => undefined);
      if (!loaded || gone || chart.current) return;
      element.replaceChildren();
      chart.current = loaded.init(element, undefined, { renderer: "svg" });
      chart.current.on("click", (event) => {
        const id = (event.data as { id?: string } | undefined)?.id;
        if (id) latest.current.onPick?.(id);
      });
      draw();
      themed.observe(document.documentElement, { attributeFilter: ["data-theme"] });
      paper.addEventListener("change", onPaper);
    };
    const asked = () => void begin();
    load.current = asked;
    const drawIfStretched = () => {
      const { clientWidth } = element;
      // Not laid out: what is hidden has no width.
      if (clientWidth === 0) return;
      const stretch = clientWidth / latest.current.drawnPx;
      const fits = element.firstElementChild !== null && Math.abs(stretch - 1) <= STRETCH;
      if (!fits) void begin();
    };
    const resized = new ResizeObserver(() =>
      chart.current ? chart.current.resize() : drawIfStretched(),
    );
    const pointed = ["pointerenter", "pointerdown", "focusin"] as const;
    for (const one of pointed) element.addEventListener(one, asked, { once: true });
    // Loaded and drawn when it comes into sight; else once the page is at rest, for paper shows all.
    const sight = new IntersectionObserver(
      (seen) => {
        if (!seen.some((one) => one.isIntersecting)) return;
        sight.disconnect();
        drawIfStretched();
        resized.observe(element);
      },
      { rootMargin: "200px" },
    );
    sight.observe(element);
    const atRest = setTimeout(drawIfStretched, AT_REST_MS);
    return () => {
      gone = true;
      sight.disconnect();
      clearTimeout(atRest);
      load.current = undefined;
      for (const one of pointed) element.removeEventListener(one, asked);
      resized.disconnect();
      themed.disconnect();
      paper.removeEventListener("change", onPaper);
      chart.current?.dispose();
      chart.current = undefined;
    };
  }, []);

  const first = useRef(build);
  useEffect(() => {
    if (first.current === build) return;
    const element = box.current;
    if (element && chart.current) chart.current.setOption(complete(build(colorsAt(element))), true);
    else load.current?.();
  }, [build]);

  const drawn = drawOnServer?.(complete(build(COLORS_BY_NAME)), {
    widthPx: drawnPx,
    heightPx: height,
  });
  return (
    <div
      ref={box}
      role="img"
      aria-label={dated(label)}
      style={{ height }}
      className="w-full min-w-0"
      // The browser keeps what the server drew.
      suppressHydrationWarning
      // biome-ignore lint/security/noDangerouslySetInnerHtml: ECharts' own SVG of our figures, its texts escaped
      dangerouslySetInnerHTML={{ __html: drawn ?? "" }}
    />
  );
}
