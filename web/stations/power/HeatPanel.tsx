'use client';

import { useCallback, useMemo, useState } from 'react';
import { findStandard, listTrunk, measureModeHeats, type Job, type LoomPlan, type PlannedHeat } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { Chart, type ChartInk } from '../../ui/Chart';
import { useLoomId } from '../../ui/JobShell';
import { Pick } from '../../ui/fields/Pick';
import controls from '../../ui/controls.module.css';

/** Temperature of the middle of the bundle along the trunk, against what surrounds it and what it may reach. mode: null for the worst. */
export function HeatPanel({
  looms,
  job,
  modeIds,
  mode,
}: {
  looms: readonly LoomPlan[];
  job: Job;
  modeIds: readonly string[];
  mode: number | null;
}) {
  const loomId = useLoomId();
  const plan = looms.find((one) => one.loomId === loomId);
  return plan ? <LoomHeat plan={plan} job={job} modeIds={modeIds} mode={mode} /> : null;
}

function LoomHeat({ plan, job, modeIds, mode }: { plan: LoomPlan; job: Job; modeIds: readonly string[]; mode: number | null }) {
  const shop = useShop();
  const [branch, setBranch] = useState<string | null>(null);
  const way = listWay(plan, branch);
  const heats = useMemo(
    () => (mode === null ? plan.heats : measureModeHeats(job, plan, modeIds, mode, findStandard(job, shop))),
    [plan, job, shop, modeIds, mode],
  );
  const loom = job.looms[plan.loomId]!;
  const ends = Object.keys(loom.ends).filter((id) => plan.tree.nodes[loom.ends[id]!.nodeId]!.parentSegmentId !== null);
  const hottest = heats
    .filter(({ segmentId }) => way.includes(segmentId))
    .sort((a, b) => (b.middleC ?? Infinity) - (a.middleC ?? Infinity))[0];
  return (
    <div className={controls.facts}>
      <div className={controls.sentence}>
        <label>
          {loom.name}, from the datum to{' '}
          <Pick
            label="To which end"
            value={branch}
            none="the end of the trunk"
            options={ends.map((id) => ({ value: loom.ends[id]!.nodeId, label: loom.ends[id]!.name }))}
            onChange={setBranch}
          />
        </label>
      </div>
      <HeatChart
        plan={plan}
        heats={heats}
        branch={branch}
        name={loom.name}
        mode={mode === null ? 'worst mode' : job.modes[modeIds[mode]!]!.name}
      />
      {hottest ? (
        <p>
          Warmest on this way: {hottest.middleC === null ? 'heats up without end' : `${hottest.middleC.toFixed(0)} °C`}
          {hottest.modeId !== null && ` in “${job.modes[hottest.modeId]!.name}”`},{' '}
          {hottest.wattsPerM === null ? '' : `${hottest.wattsPerM.toFixed(1)} W/m, `}
          {hottest.ambientC} °C around it.
          {hottest.uncounted > 0 && ` ${hottest.uncounted} wires there carry a current nobody gave.`}
        </p>
      ) : (
        <p>No run on this way lies in a known zone: give it one in Bundle, under Lengths.</p>
      )}
    </div>
  );
}

/** Segments from the datum to a node; null: along the trunk as far as it goes. */
function listWay(plan: LoomPlan, nodeId: string | null): string[] {
  const { nodes } = plan.tree;
  if (nodeId === null || !nodes[nodeId]) return listTrunk(plan);
  const way: string[] = [];
  for (let at = nodes[nodeId]; at.parentSegmentId !== null; at = nodes[at.parentNodeId!]!) way.unshift(at.parentSegmentId);
  return way;
}

function HeatChart({
  plan,
  heats,
  branch,
  name,
  mode,
}: {
  plan: LoomPlan;
  heats: readonly PlannedHeat[];
  branch: string | null;
  name: string;
  mode: string;
}) {
  const make = useCallback(
    (ink: ChartInk) => {
      const points = listWay(plan, branch).flatMap((segmentId) => {
        const heat = heats.find((one) => one.segmentId === segmentId);
        const segment = plan.tree.segments[segmentId]!;
        return heat ? [{ from: segment.startMm, to: segment.startMm + segment.lengthMm, heat }] : [];
      });
      const stairs = (of: (heat: (typeof points)[number]['heat']) => number | null) =>
        points.flatMap(({ from, to, heat }) => [
          [from, of(heat)],
          [to, of(heat)],
          [to, null],
        ]);
      const series = (name: string, color: string, data: unknown[], type: 'solid' | 'dashed' = 'solid') => ({
        name,
        type: 'line',
        showSymbol: false,
        data,
        lineStyle: { color, width: 2.5, type },
        itemStyle: { color },
      });
      return {
        grid: { left: 52, right: 16, top: 54, bottom: 40 },
        legend: { top: 0, left: 0, textStyle: { color: ink.ink, fontSize: 14 }, itemWidth: 18 },
        tooltip: { trigger: 'axis' },
        xAxis: {
          type: 'value',
          name: 'mm from the datum',
          nameLocation: 'middle',
          nameGap: 26,
          splitLine: { lineStyle: { color: ink.hair } },
          axisLabel: { color: ink.ink, fontSize: 14 },
        },
        yAxis: {
          type: 'value',
          axisLabel: { color: ink.ink, fontSize: 14, formatter: (value: number) => `${value} °C` },
          splitLine: { lineStyle: { color: ink.hair } },
        },
        series: [
          series(
            'around it',
            ink.faint,
            stairs(({ ambientC }) => ambientC),
          ),
          series(
            `middle, ${mode}`,
            ink.action,
            stairs(({ middleC }) => (middleC === null ? null : Number(middleC.toFixed(1)))),
          ),
          series(
            'insulation',
            ink.ink,
            stairs(({ limitC }) => limitC),
            'dashed',
          ),
        ],
      };
    },
    [plan, heats, branch, mode],
  );
  return <Chart make={make} height={300} words={`Temperature along the ${name} loom, ${mode}`} />;
}
