'use client';

import { useMemo } from 'react';
import {
  drawBoardPlace,
  drawBreakoutStack,
  drawEndStack,
  drawFeed,
  drawStripTemplate,
  findScreen,
  type PlannedScreen,
  findDressed,
  findLaidLayer,
  layoutStrip,
  toStackedRun,
  type ConnectorFamily,
  type FloorBoard,
  type Job,
  type LoomPlan,
  type Step,
} from 'wattograph-core';
import type { FloorProgress } from '../../server/floorEvent';
import { FacePicture } from '../../ui/FacePicture';
import { StackPicture } from '../../ui/StackPicture';
import { Ruler, Traces } from '../../ui/strip/StripPicture';
import { findLaidSegment, findRunPlace } from './LayOnBoard';
import { LayerPicture } from './LayerPicture';

/**
 * The picture that belongs to a step: the face for an end, the bundle cut through for a layer, what goes over an end or breakout cut lengthwise,
 * else the place on the strip.
 */
export function StepPicture({
  pack: { plan, job, families, board },
  step,
  ticked,
}: {
  pack: { plan: LoomPlan; job: Job; families: Readonly<Record<string, ConnectorFamily>>; board: FloorBoard | null };
  step: Step;
  ticked: FloorProgress;
}) {
  const loom = job.looms[plan.loomId]!;
  const familyId = step.endId === null ? null : loom.ends[step.endId]!.familyId;
  const family = familyId === null ? undefined : families[familyId];
  const wireIds = useMemo(() => new Set(step.items.flatMap((item) => item.wireIds)), [step]);
  const dressed = findDressed(plan, step.id);
  if (dressed) return <StackPicture drawing={drawDressed(plan, dressed)} words={`${step.title}, cut lengthwise`} />;
  const screen = findScreen(plan.screens, step.id);
  if (screen) return <Template plan={plan} screen={screen} title={step.title} />;
  if (step.operation === 'route' && plan.feeds.length > 0) return <Holes plan={plan} job={job} />;
  if (family && step.operation !== 'label') {
    const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
    const chosen = step.items.find((item) => item.cavity !== null && !ticked.ticked.has(item.id))?.cavity ?? null;
    return (
      <div>
        <b>WIRE SIDE</b>
        <FacePicture
          family={family}
          side="wire"
          chosen={chosen}
          colourAt={(cavity) => {
            const used = plan.terminations.find((one) => one.endId === step.endId && one.cavity === cavity);
            return used ? wires.get(used.wireIds[0]!)!.colour : null;
          }}
        />
      </div>
    );
  }
  if ((step.operation === 'lay' || step.operation === 'splice') && board)
    return <OnBoard plan={plan} board={board} step={step} ticked={ticked} />;
  const laid = step.operation === 'layup' ? findLaidLayer(plan, step.id) : null;
  if (laid) return <LayerPicture plan={plan} {...laid} next={step.items.find(({ id }) => !ticked.ticked.has(id)) ?? null} />;
  return <StripPlace plan={plan} job={job} step={step} wireIds={wireIds} />;
}

/** The branch that is laid next on the board, or the run that a splice lies in. */
function OnBoard({ plan, board, step, ticked }: { plan: LoomPlan; board: FloorBoard; step: Step; ticked: FloorProgress }) {
  const next = step.items.find(({ id, heldBecause }) => heldBecause === null && !ticked.ticked.has(id));
  const segmentId = step.segmentId ?? (next ? findLaidSegment(plan, next.id) : null);
  const drawing = useMemo(() => drawBoardPlace(board.planned, findRunPlace(plan, board, segmentId)), [board, plan, segmentId]);
  const words = step.segmentId === null ? next?.words : step.title;
  return (
    <div>
      {words && step.segmentId === null && <b>{words}</b>}
      <StackPicture drawing={drawing} words={words ? `${words}, on the board` : 'the loom on its board'} />
    </div>
  );
}

/** A cable as it is opened, to lay on or to read off. */
function Template({ plan, screen, title }: { plan: LoomPlan; screen: PlannedScreen; title: string }) {
  const colours = screen.wireIds.map((id) => plan.wires.find((wire) => wire.id === id)!.colour);
  return <StackPicture drawing={drawStripTemplate(screen, colours)} words={`${title}: jacket back ${screen.backMm} mm`} />;
}

/** Every hole of the loom, part by part. */
function Holes({ plan, job }: { plan: LoomPlan; job: Job }) {
  const { nodes, ends } = job.looms[plan.loomId]!;
  return plan.feeds.map((feed) => (
    <div key={feed.nodeId}>
      <b>{nodes[feed.nodeId]!.name}</b>
      <StackPicture drawing={drawFeed(feed, (id) => ends[id]!.name)} words={`${nodes[feed.nodeId]!.name}, part by part in their order`} />
    </div>
  ));
}

/** An end or breakout with what goes over it, cut lengthwise. */
function drawDressed(plan: LoomPlan, dressed: NonNullable<ReturnType<typeof findDressed>>) {
  const toRun = (segmentId: string) => toStackedRun(plan, segmentId);
  return 'endId' in dressed
    ? drawEndStack(dressed, toRun(dressed.segmentId))
    : drawBreakoutStack(dressed, toRun(dressed.trunkSegmentId), dressed.legSegmentIds.map(toRun));
}

const PLACE = {
  row: 14,
  left: 20,
  top: 36,
  text: 10,
  sides: null,
  detail: { pitch: 4, thickest: { trunk: 120, branch: 24 }, both: false },
};

function StripPlace({ plan, job, step, wireIds }: { plan: LoomPlan; job: Job; step: Step; wireIds: ReadonlySet<string> }) {
  const loom = job.looms[plan.loomId]!;
  const reachMm = Math.max(100, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm));
  const scale = 560 / reachMm;
  const layout = useMemo(() => layoutStrip(loom, plan, { ...PLACE, scale }), [loom, plan, scale]);
  const traces = useMemo(
    () =>
      layout
        .listTraces()
        .map((trace) =>
          wireIds.size === 0 || wireIds.has(trace.wireId)
            ? trace
            : { ...trace, colour: null, parts: trace.parts.map(({ d }) => ({ d, width: 0.6 })) },
        ),
    [layout, wireIds],
  );
  const segmentId = step.segmentId ?? (step.endId === null ? null : plan.tree.nodes[loom.ends[step.endId]!.nodeId]!.parentSegmentId);
  const run = layout.runs.find((one) => one.segmentId === segmentId);
  const splice = layout.splices.find((one) => one.spliceId === step.spliceId);
  return (
    <svg viewBox={`0 0 600 ${layout.height + 10}`} role="img" aria-label="Where on the loom">
      <Ruler left={20} scale={scale} reachMm={reachMm} height={layout.height} />
      {run && <rect x={run.x} y={run.top} width={run.width} height={run.bottom - run.top} fill="var(--brass)" opacity={0.3} />}
      <Traces traces={traces} />
      {splice && <circle cx={splice.x} cy={splice.y} r={9} fill="var(--action)" stroke="var(--paper)" strokeWidth={2} />}
    </svg>
  );
}
