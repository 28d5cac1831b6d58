'use client';

import { useElementSize } from '@mantine/hooks';
import { memo, useDeferredValue, useEffect, useMemo, useRef } from 'react';
import { layoutStrip, SCREEN_DETAILS, type Job, type LoomPlan, type StripLayout, toCount } from 'wattograph-core';
import type { SurveyState } from '../../client/surveyStore';
import { LEFT } from '../../ui/strip/StripParts';
import { RouteLines } from '../../ui/strip/RouteLines';
import { Ruler } from '../../ui/strip/StripPicture';
import styles from './Survey.module.css';

const LABELS = 150;
const ROUTE = { row: 22, left: LEFT, top: 34, text: 15, sides: null, detail: SCREEN_DETAILS[0]! };

/** The loom as measured so far. Tap a breakout to read a leg from it, a run to see its readings. */
export const SurveyStrip = memo(function SurveyStrip({
  state,
  loomId,
  zeroNodeId,
  onZero,
  onRun,
}: {
  state: SurveyState;
  loomId: string;
  zeroNodeId: string;
  onZero: (nodeId: string) => void;
  onRun: (segmentId: string) => void;
}) {
  const { ref, width } = useElementSize();
  const result = useDeferredValue(state.result);
  const plan = result?.looms.find((one) => one.loomId === loomId);
  return (
    <div className={styles.strip} ref={ref} data-testid="survey-strip" role="region" aria-label="Strip" tabIndex={0}>
      {plan && result ? (
        <Picture
          job={result.job}
          plan={plan}
          width={width}
          zeroNodeId={zeroNodeId}
          photos={countPhotos(state, loomId)}
          onZero={onZero}
          onRun={onRun}
        />
      ) : null}
    </div>
  );
});

function countPhotos({ photos, waitingPhotos }: SurveyState, loomId: string): Map<string, number> {
  const counts = new Map<string, number>();
  const add = (nodeId: string) => counts.set(nodeId, (counts.get(nodeId) ?? 0) + 1);
  for (const photo of photos) if (photo.loomId === loomId) add(photo.nodeId);
  for (const photo of waitingPhotos) if (photo.loom === loomId) add(photo.node);
  return counts;
}

function Picture({
  job,
  plan,
  width,
  zeroNodeId,
  photos,
  onZero,
  onRun,
}: {
  job: Job;
  plan: LoomPlan;
  width: number;
  zeroNodeId: string;
  photos: Map<string, number>;
  onZero: (nodeId: string) => void;
  onRun: (segmentId: string) => void;
}) {
  const loom = job.looms[plan.loomId]!;
  const reachMm = Math.max(200, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm));
  const scale = Math.max(140, width - LEFT - LABELS) / reachMm;
  // the route alone: wires are the desk's concern, and would hide the runs on a phone
  const layout = useMemo(() => layoutStrip(loom, { ...plan, wires: [], splices: [] }, { ...ROUTE, scale }), [loom, plan, scale]);
  const isEmpty = layout.runs.length === 0;
  return (
    <svg
      width={Math.max(width, layout.width + LABELS)}
      height={Math.max(90, layout.height + 14)}
      role="group"
      aria-label={`Strip of ${loom.name}`}
    >
      <Ruler left={LEFT} scale={scale} reachMm={reachMm} height={layout.height + 10} />
      {isEmpty && (
        <text x={LEFT + 6} y={62} className={styles.hint}>
          The first mark starts the strip.
        </text>
      )}
      <rect
        x={LEFT - 10}
        y={30}
        width={10}
        height={Math.max(20, Math.min(layout.height - 30, 60))}
        fill="var(--ink)"
        onClick={() => onZero(plan.tree.datumId)}
      />
      <RouteLines loom={loom} plan={plan} layout={layout} />
      {layout.runs.map((run) => {
        const y = (run.top + run.bottom) / 2;
        const segment = loom.segments[run.segmentId]!;
        return (
          <g key={run.segmentId}>
            {segment.ticks.length > 0 && (
              <text x={run.x + run.width / 2} y={y - 4} className={styles.tick} textAnchor="middle">
                {run.width > segment.ticks.length * 44 ? segment.ticks.join(' ') : segment.ticks.map((tick) => tick[0]).join('')}
              </text>
            )}
            <rect
              x={run.x}
              y={run.top}
              width={run.width}
              height={run.bottom - run.top}
              fill="transparent"
              style={{ cursor: 'pointer' }}
              onClick={() => onRun(run.segmentId)}
            />
          </g>
        );
      })}
      <Marks layout={layout} zeroNodeId={zeroNodeId} photos={photos} onZero={onZero} />
    </svg>
  );
}

function Marks({
  layout,
  zeroNodeId,
  photos,
  onZero,
}: {
  layout: StripLayout;
  zeroNodeId: string;
  photos: Map<string, number>;
  onZero: (nodeId: string) => void;
}) {
  return (
    <>
      {layout.nodes.map((node) => (
        <g key={node.nodeId} onClick={() => onZero(node.nodeId)} style={{ cursor: 'pointer' }}>
          <Target isZero={node.nodeId === zeroNodeId} x={node.x} y={(node.top + node.bottom) / 2} />
          {node.kind === 'pass' ? (
            <rect
              x={node.x - 3}
              y={(node.top + node.bottom) / 2 - 9}
              width={6}
              height={18}
              fill="var(--paper)"
              stroke="var(--ink)"
              strokeDasharray="3 2"
            />
          ) : (
            <circle
              cx={node.x}
              cy={(node.top + node.bottom) / 2}
              r={6}
              fill={node.nodeId === zeroNodeId ? 'var(--brass)' : 'var(--paper)'}
              stroke="var(--ink)"
              strokeWidth={2}
            />
          )}
          <PhotoMark count={photos.get(node.nodeId) ?? 0} x={node.x} y={(node.top + node.bottom) / 2 - 12} />
        </g>
      ))}
      {layout.ends.map((end) =>
        end.segmentId === null ? null : (
          <g key={end.endId}>
            <rect x={end.x} y={(end.top + end.bottom) / 2 - 5} width={7} height={10} fill="var(--ink)" />
            <text x={end.x + 11} y={(end.top + end.bottom) / 2 + 5} className={styles.end}>
              {end.name} <tspan className={styles.leg}>+{Math.round(end.legMm ?? 0)}</tspan>
            </text>
            <PhotoMark count={photos.get(end.nodeId) ?? 0} x={end.x} y={(end.top + end.bottom) / 2 - 10} />
          </g>
        ),
      )}
    </>
  );
}

function PhotoMark({ count, x, y }: { count: number; x: number; y: number }) {
  if (count === 0) return null;
  return (
    <g aria-label={toCount(count, 'photo')}>
      <rect x={x - 9} y={y - 11} width={18} height={12} fill="var(--brass)" />
      <circle cx={x} cy={y - 5} r={3.5} fill="var(--paper)" />
    </g>
  );
}

/** Where a node is touched. The zero of the line stays in view as the strip grows. */
function Target({ isZero, x, y }: { isZero: boolean; x: number; y: number }) {
  const circle = useRef<SVGCircleElement>(null);
  useEffect(() => {
    if (isZero) circle.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [isZero, x, y]);
  return <circle ref={circle} cx={x} cy={y} r={14} fill="transparent" />;
}
