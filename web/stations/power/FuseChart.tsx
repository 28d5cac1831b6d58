'use client';

import { useCallback } from 'react';
import { type Job, type PlannedLoad, type PlannedProtection, listFuseCurves } from 'wattograph-core';
import { Chart, type ChartInk } from '../../ui/Chart';
import controls from '../../ui/controls.module.css';

const MOST_S = 1000;
const LEAST_S = 0.01;
const clip = (seconds: number) => Math.min(MOST_S, Math.max(LEAST_S, seconds));

/** The opening band of a fuse or channel over the damage curve of the weakest wire behind it, with load, inrush and far fault. */
export function FuseChart({ guard, loads, job }: { guard: PlannedProtection; loads: readonly PlannedLoad[]; job: Job }) {
  const { ratingA, tripS, weakest, leastFaultA } = guard;
  const make = useCallback(
    (ink: ChartInk) => {
      const { mostA, band, damage: harm } = listFuseCurves(guard);
      const damage = harm.map(({ currentA, seconds }) => [currentA, clip(seconds)]);
      const inrush = loads.flatMap(({ inrushA, inrushMs }) =>
        inrushA === null || inrushMs === null ? [] : [[inrushA, clip(inrushMs / 1000)]],
      );
      const line = (amperes: number, name: string) => ({
        xAxis: amperes,
        label: { formatter: name, color: ink.ink, fontSize: 14, position: 'insideEndTop' },
      });
      return {
        grid: { left: 58, right: 18, top: 34, bottom: 40 },
        legend: { top: 0, left: 0, textStyle: { color: ink.ink, fontSize: 14 }, itemWidth: 18 },
        tooltip: {
          trigger: 'item',
          formatter: ({ seriesName, value }: { seriesName: string; value: number[] }) =>
            `${seriesName}: ${value[0]!.toFixed(1)} A, ${value[1]!.toPrecision(2)} s`,
        },
        xAxis: {
          type: 'log',
          name: 'A',
          nameLocation: 'end',
          nameGap: 4,
          min: Math.max(0.5, Math.floor(ratingA! * 0.6)),
          max: Math.ceil(mostA),
          splitLine: { lineStyle: { color: ink.hair } },
          axisLabel: { color: ink.ink, fontSize: 14 },
        },
        yAxis: {
          type: 'log',
          min: LEAST_S,
          max: MOST_S,
          splitLine: { lineStyle: { color: ink.hair } },
          axisLabel: { color: ink.ink, fontSize: 14, formatter: (value: number) => `${value} s` },
        },
        series: [
          {
            name: 'opens between',
            type: 'custom',
            itemStyle: { color: ink.brass },
            renderItem: (_: unknown, api: { coord(point: number[]): number[]; style(): object }) => ({
              type: 'polygon',
              shape: {
                points: [
                  ...band.map(({ currentA, shortestS }) => api.coord([currentA, clip(shortestS)])),
                  ...[...band].reverse().map(({ currentA, longestS }) => api.coord([currentA, clip(longestS)])),
                ],
              },
              style: { fill: ink.brass, opacity: 0.35, stroke: ink.brass },
            }),
            data: [[ratingA!, 1]],
          },
          {
            name: 'wire is harmed',
            type: 'line',
            showSymbol: false,
            data: damage,
            lineStyle: { color: ink.action, width: 2.5 },
            itemStyle: { color: ink.action },
            markLine: {
              symbol: 'none',
              lineStyle: { color: ink.ink, type: 'dashed' },
              data: [...(leastFaultA === null ? [] : [line(leastFaultA, `far short ${leastFaultA.toFixed(0)} A`)])],
            },
          },
          {
            name: 'inrush',
            type: 'line',
            data: inrush,
            lineStyle: { width: 0 },
            symbol: 'diamond',
            symbolSize: 12,
            itemStyle: { color: ink.sea },
          },
        ],
      };
    },
    [guard, ratingA, leastFaultA, loads],
  );
  if (ratingA === null) return null;
  const name = weakest ? job.looms[weakest.loomId]!.circuits[weakest.circuitId]?.name : null;
  return (
    <>
      <Chart make={make} height={230} words={`Opening times of ${guard.name} at ${ratingA} A against what its weakest wire stands`} />
      <p className="faint">
        {weakest
          ? `Weakest behind it: ${name}, bears ${weakest.steadyA.toFixed(1)} A for good, ${weakest.shortA.toFixed(1)} A before its short-time limit of ${weakest.shortC} °C.`
          : 'No wire behind it lies in a known zone: give its runs a zone to see what it stands.'}{' '}
        {tripS === null ? 'Opening by ISO 8820-3.' : `A channel trips ${tripS} s after its setting is passed.`}
      </p>
      <span className={controls.alarm}>{guard.problems.includes('over-wire') ? 'The fuse is over its wire.' : ''}</span>
    </>
  );
}
