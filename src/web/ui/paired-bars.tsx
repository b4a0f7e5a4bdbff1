import { BarChart } from "echarts/charts";
import { GridComponent, LegendComponent, TooltipComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";

use([BarChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer]);

type PairedBarsProps = {
  readonly points: readonly { readonly label: string; readonly first: number; readonly second: number }[];
  readonly names: { readonly first: string; readonly second: string };
  /** The same in a sentence, for whoever does not see it. */
  readonly words: string;
  /** How many labels are left out between two that stand. */
  readonly interval: number;
};

/** Two counts for each stretch of time, as bars beside each other. */
export default function PairedBars({ points, names: { first, second }, words, interval }: PairedBarsProps) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (place.current === null) return;
    const chart = init(place.current, null, { renderer: "svg" });
    const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
    const text = { color: token("soft"), fontFamily: getComputedStyle(document.body).fontFamily, fontSize: 12 };
    const [ink, rule] = [token("act"), token("rule")];
    chart.setOption({
      animation: false,
      textStyle: text,
      grid: { left: 26, right: 2, top: 26, bottom: 22 },
      legend: { top: 0, left: 0, itemWidth: 10, itemHeight: 10, itemGap: 14, textStyle: text, selectedMode: false },
      tooltip: { trigger: "axis", axisPointer: { type: "none" }, textStyle: { fontSize: 13 } },
      xAxis: {
        type: "category",
        data: points.map(({ label }) => label),
        axisTick: { show: false },
        axisLine: { lineStyle: { color: rule } },
        axisLabel: { ...text, interval, showMaxLabel: false, align: "left" },
      },
      yAxis: {
        type: "value",
        minInterval: 1,
        splitNumber: 2,
        axisLabel: text,
        splitLine: { lineStyle: { color: rule } },
      },
      series: [
        {
          name: first,
          type: "bar",
          data: points.map(({ first }) => first),
          color: ink,
          barGap: "8%",
          barCategoryGap: "36%",
        },
        {
          name: second,
          type: "bar",
          // Nothing has no edge either.
          data: points.map(({ second }) => second || null),
          // Told apart by its edge as well: it is hollow.
          itemStyle: { color: token("paper"), borderColor: ink, borderWidth: 1.2 },
        },
      ],
    });
    const resize = () => chart.resize();
    window.addEventListener("resize", resize);
    return () => {
      window.removeEventListener("resize", resize);
      chart.dispose();
    };
  }, [points, first, second, interval]);
  return <div ref={place} role="img" aria-label={words} className="mt-1 h-[172px] w-full" />;
}
