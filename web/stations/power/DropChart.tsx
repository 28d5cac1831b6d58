'use client';

import { useCallback, useMemo } from 'react';
import { listVoltageSteps, type VoltageStep } from 'wattograph-core';
import type { PlannedLoad } from 'wattograph-core';
import { Chart, type ChartInk } from '../../ui/Chart';

/** Voltage along the way: out from the source to the load, and what the return is lifted by. */
export function DropChart({ load, volts }: { load: PlannedLoad; volts: number }) {
  const lost = useMemo(() => listVoltageSteps(load), [load]);
  const make = useCallback(
    (ink: ChartInk) => {
      const toData = (steps: readonly VoltageStep[]) =>
        steps.map(({ lostV, words }, index) => ({ value: [index / Math.max(1, steps.length - 1), lostV], words }));
      return {
        grid: { left: 52, right: 12, top: 30, bottom: 22 },
        legend: { top: 0, left: 0, textStyle: { color: ink.ink, fontSize: 14 }, itemWidth: 18 },
        tooltip: {
          trigger: 'item',
          formatter: ({ data }: { data: { words: string; value: number[] } }) =>
            `${data.words}: ${(data.value[1]! * 1000).toFixed(0)} mV lost so far`,
        },
        xAxis: {
          type: 'value',
          min: 0,
          max: 1,
          axisLabel: {
            show: true,
            color: ink.ink,
            fontSize: 14,
            formatter: (at: number) => (at === 0 ? 'source' : at === 1 ? 'load' : ''),
          },
          splitLine: { show: false },
          interval: 1,
        },
        yAxis: {
          type: 'value',
          name: '',
          axisLabel: { color: ink.ink, fontSize: 14, formatter: (value: number) => `${value} V` },
          splitLine: { lineStyle: { color: ink.hair } },
        },
        series: [
          {
            name: 'lost on the way out',
            type: 'line',
            step: 'end',
            symbolSize: 5,
            data: toData(lost.out),
            lineStyle: { color: ink.action, width: 2.5 },
            itemStyle: { color: ink.action },
          },
          {
            name: 'return lifted by',
            type: 'line',
            step: 'end',
            symbolSize: 5,
            data: toData(lost.back),
            lineStyle: { color: ink.sea, width: 2.5 },
            itemStyle: { color: ink.sea },
          },
        ],
      };
    },
    [lost],
  );
  return (
    <Chart
      make={make}
      height={170}
      words={`${load.name}: of ${volts} V, ${(lost.out.at(-1)!.lostV + lost.back.at(-1)!.lostV).toFixed(2)} V is lost between battery and load`}
    />
  );
}
