import type { EChartsCoreOption, EChartsType } from "echarts/core";
import { useEffect, useRef } from "react";

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

/** Long after a page is ready to be worked with, ms. */
const AT_REST_MS = 4000;

/**
 * A chart. ECharts comes with its first chart; until then, and for a screen reader, the label
 * says what it shows, and the figures stand beside it as text.
 */
export function Chart({
  label,
  height,
  build,
  onPick,
}: {
  label: string;
  /** px */
  height: number;
  build: (colors: ChartColors) => EChartsCoreOption;
  /** The id of a point that was clicked. */
  onPick?: (id: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType>(undefined);
  const latest = useRef({ build, onPick });
  latest.current = { build, onPick };

  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let gone = false;
    const draw = () => {
      chart.current?.setOption(
        {
          animation: false,
          textStyle: { fontFamily: "inherit" },
          ...latest.current.build(colorsAt(element)),
        },
        true,
      );
    };
    const resized = new ResizeObserver(() => chart.current?.resize());
    const themed = new MutationObserver(draw);
    // Paper has colours of its own, whatever the screen's theme is.
    const paper = window.matchMedia("print");
    const onPaper = () => {
      chart.current?.resize();
      draw();
    };
    const begin = async () => {
      // Without a link it stays undrawn; its figures stand beside it.
      const loaded = await import("./echarts").catch(() => undefined);
      if (!loaded || gone || chart.current) return;
      const { init } = loaded;
      chart.current = init(element, undefined, { renderer: "svg" });
      chart.current.on("click", (event) => {
        const id = (event.data as { id?: string } | undefined)?.id;
        if (id) latest.current.onPick?.(id);
      });
      draw();
      resized.observe(element);
      themed.observe(document.documentElement, { attributeFilter: ["data-theme"] });
      paper.addEventListener("change", onPaper);
    };
    // Loaded and drawn when it comes into sight; else once the page is at rest, for paper shows all.
    const sight = new IntersectionObserver(
      (seen) => {
        if (!seen.some((one) => one.isIntersecting)) return;
        sight.disconnect();
        void begin();
      },
      { rootMargin: "200px" },
    );
    sight.observe(element);
    const atRest = setTimeout(() => void begin(), AT_REST_MS);
    return () => {
      gone = true;
      sight.disconnect();
      clearTimeout(atRest);
      resized.disconnect();
      themed.disconnect();
      paper.removeEventListener("change", onPaper);
      chart.current?.dispose();
      chart.current = undefined;
    };
  }, []);

  useEffect(() => {
    const element = box.current;
    if (!element || !chart.current) return;
    chart.current.setOption(
      { animation: false, textStyle: { fontFamily: "inherit" }, ...build(colorsAt(element)) },
      true,
    );
  }, [build]);

  return (
    <div ref={box} role="img" aria-label={label} style={{ height }} className="w-full min-w-0" />
  );
}
