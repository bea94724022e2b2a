import type { EChartsCoreOption } from "echarts/core";
import { init } from "./echarts";

/**
 * A chart as SVG of the size given, px, for a page's first sight: no script of a chart need come
 * with it. Rules of hovering are left out; they come with the chart that answers.
 */
export function drawChart(
  option: EChartsCoreOption,
  size: { widthPx: number; heightPx: number },
): string {
  const chart = init(null, null, {
    renderer: "svg",
    ssr: true,
    width: size.widthPx,
    height: size.heightPx,
  });
  try {
    chart.setOption(option);
    return chart
      .renderToSVGString()
      .replace(/<style[\s\S]*?<\/style>/g, "")
      .replace(/^<svg width="[^"]*" height="[^"]*"/, '<svg width="100%" height="100%"');
  } finally {
    chart.dispose();
  }
}
