import { BarChart } from "echarts/charts";
import { GridComponent, LegendComponent, TooltipComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";

use([BarChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer]);

type Week = { readonly from: string; readonly began: number; readonly settled: number };

/** The weeks of a category as bars: what began in each, and what was settled in each. */
export default function CategoryTrend({ weeks }: { weeks: readonly Week[] }) {
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
        data: weeks.map(({ from }) => from),
        axisTick: { show: false },
        axisLine: { lineStyle: { color: rule } },
        axisLabel: { ...text, interval: 3, showMaxLabel: false, align: "left" },
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
          name: "began",
          type: "bar",
          data: weeks.map(({ began }) => began),
          color: ink,
          barGap: "8%",
          barCategoryGap: "36%",
        },
        {
          name: "settled",
          type: "bar",
          // Nothing has no edge either.
          data: weeks.map(({ settled }) => settled || null),
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
  }, [weeks]);
  return <div ref={place} role="img" aria-label={inWords(weeks)} className="mt-1 h-[172px] w-full" />;
}

function inWords(weeks: readonly Week[]): string {
  const sum = (of: "began" | "settled") => weeks.reduce((all, week) => all + week[of], 0);
  return `In ${weeks.length} weeks ${sum("began")} conversations began and ${sum("settled")} were settled.`;
}
