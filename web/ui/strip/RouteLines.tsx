import { memo } from 'react';
import type { Loom, LoomPlan, StripLayout } from 'wattograph-core';

const middle = ({ top, bottom }: { top: number; bottom: number }) => (top + bottom) / 2;

/** The bare route: a line for each run, dashed where it is only guessed, sea green where it is fitted. */
export const RouteLines = memo(function RouteLines({
  loom,
  plan,
  layout,
  only,
}: {
  loom: Loom;
  plan: LoomPlan;
  layout: StripLayout;
  /** which runs; all where left out */
  only?: (run: StripLayout['runs'][number]) => boolean;
}) {
  const nodeAt = new Map(layout.nodes.map((node) => [node.nodeId, node]));
  return layout.runs.map((run) => {
    const segment = loom.segments[run.segmentId];
    const planned = plan.tree.segments[run.segmentId];
    if (!segment || !planned || (only && !only(run))) return null;
    const near = nodeAt.get(planned.nearNodeId);
    const y = middle(run);
    const from = near ? middle(near) : y;
    return (
      <path
        key={run.segmentId}
        d={Math.abs(from - y) < 1 ? `M${run.x} ${y}H${run.x + run.width}` : `M${run.x} ${from}V${y}H${run.x + run.width}`}
        fill="none"
        stroke={segment.fittedMm === null ? 'var(--ink)' : 'var(--sea)'}
        strokeWidth={3}
        strokeDasharray={segment.status === 'guessed' ? '5 4' : undefined}
        strokeLinejoin="round"
        pointerEvents="none"
      />
    );
  });
});
