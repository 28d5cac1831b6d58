'use client';

import { useCallback } from 'react';
import type { EventHeat, LoadEvent } from 'wattograph-core';
import { Chart, type ChartInk } from '../../ui/Chart';

/** Temperature of the worst stretch over time, with the band in which its fuse opens and what its insulation stands. */
export function EventChart({ event, heat, guardName }: { event: LoadEvent; heat: EventHeat; guardName: string | null }) {
  const { opens, seconds } = event;
  const make = useCallback(
    (ink: ChartInk) => {
      const { run, points } = heat;
      const isMinutes = seconds > 180;
      const isMilli = seconds < 1;
      const toAxis = (value: number) => (isMinutes ? value / 60 : isMilli ? value * 1000 : value);
      const label = { color: ink.ink, fontSize: 14 };
      const limit = (value: number, formatter: string) => ({ yAxis: value, label: { ...label, formatter, position: 'insideStartTop' } });
      const mostC = Math.max(heat.mostC, run.shortC);
      return {
        grid: { left: 62, right: 18, top: 36, bottom: 40 },
        legend: { top: 0, left: 0, textStyle: label, itemWidth: 18 },
        tooltip: {
          trigger: 'axis',
          valueFormatter: (value: unknown) => (typeof value === 'number' ? `${value.toFixed(0)} °C` : ''),
        },
        xAxis: {
          type: 'value',
          min: 0,
          max: Number(toAxis(seconds).toPrecision(3)),
          name: isMinutes ? 'min' : isMilli ? 'ms' : 's',
          nameLocation: 'end',
          nameGap: 4,
          splitLine: { lineStyle: { color: ink.hair } },
          axisLabel: { ...label, showMaxLabel: false },
          axisPointer: { label: { show: false } },
        },
        yAxis: {
          type: 'value',
          min: Math.floor(Math.min(run.ambientC, run.startC) / 50) * 50,
          max: Math.ceil((mostC + 8) / 50) * 50,
          axisLabel: { ...label, formatter: (value: number) => `${value} °C` },
          splitLine: { lineStyle: { color: ink.hair } },
        },
        series: [
          {
            name: 'wire',
            type: 'line',
            showSymbol: false,
            data: points.map(({ seconds: at, middleC }) => [toAxis(at), middleC]),
            lineStyle: { color: ink.action, width: 2.5 },
            itemStyle: { color: ink.action },
            markLine: {
              symbol: 'none',
              lineStyle: { color: ink.ink, type: 'dashed' },
              data: [limit(run.shortC, `short time ${run.shortC} °C`), limit(run.limitC, `for good ${run.limitC} °C`)],
            },
          },
          ...(opens === null
            ? []
            : [
                {
                  name: `${guardName} opens`,
                  type: 'custom',
                  itemStyle: { color: ink.brass },
                  tooltip: { show: false },
                  renderItem: ({ coordSys }: { coordSys: { y: number; height: number } }, api: { coord(point: number[]): number[] }) => {
                    const from = api.coord([toAxis(opens.shortestS), 0])[0]!;
                    const to = api.coord([toAxis(opens.longestS), 0])[0]!;
                    return {
                      type: 'rect',
                      shape: { x: from, y: coordSys.y, width: Math.max(2, to - from), height: coordSys.height },
                      style: { fill: ink.brass, opacity: 0.3, stroke: ink.brass },
                    };
                  },
                  data: [[toAxis(opens.shortestS), run.ambientC]],
                },
              ]),
        ],
      };
    },
    [heat, opens, seconds, guardName],
  );
  return (
    <Chart
      make={make}
      height={280}
      words={`Temperature of the worst stretch over ${seconds.toPrecision(2)} s, at most ${heat.mostC.toFixed(0)} °C`}
    />
  );
}
