import { findStandard, planClips } from '../../plan';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const COLUMNS: Column[] = [
  { title: '', share: 0.4 },
  { title: 'run', share: 3.4 },
  { title: 'clip', share: 3 },
  { title: 'at, mm from where the run begins', share: 4.4, face: 'mono' },
  { title: 'pitch', share: 0.8, align: 'end', face: 'mono' },
];

/** What holds the loom in the vehicle, run by run; a tick each as it is put on there. */
export function addClips({ job, loom, plan, catalogue, flow }: SheetContext): void {
  const held = planClips(job, plan, catalogue).filter(({ atMm }) => atMm.length > 0);
  if (held.length === 0) return;
  flow.sheet(
    'Clips',
    'vehicle',
    `In the vehicle, from the datum on. Each run begins at its end nearer to the datum. A clip holds, it does not pinch: between two the loom gives by up to ${findStandard(job, catalogue).sagMostMm} mm by hand.`,
  );
  flow.table(
    COLUMNS,
    held.map(({ segmentId, item, atMm, everyMm, ambientC }): Cell[] => {
      const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
      return [
        { tick: true },
        `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`,
        `${atMm.length} × ${item?.name ?? 'none of the shop'}${item && ambientC === null ? ', heat there not known' : ''}`,
        atMm.map((at) => Math.round(at)).join(', '),
        String(everyMm),
      ];
    }),
  );
}
