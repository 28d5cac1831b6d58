import { toCount } from '../../units';
import { drawSchematic, SMALL_SCHEMATIC } from './drawSchematic';
import type { Cell } from './flow/flowTypes';
import { mm, type SheetContext } from './sheetContext';

/** The board: splices by their distance from the datum. */
export function addSplices({ loom, plan, flow, wires }: SheetContext): void {
  flow.sheet(
    'Splices',
    'board',
    'Distances from the datum. Sleeve on the wire before the barrel; wires from the datum’s side | from the other. Hot-air tool parked nose-up, away from fuel.',
  );
  flow.heading(toCount(plan.splices.length, 'splice'), 20, {
    id: 'post board',
    here: drawSchematic(plan.tree, { segmentIds: plan.splices.map(({ place }) => place.segmentId) }, SMALL_SCHEMATIC),
  });
  flow.table(
    [
      { title: '', share: 0.5 },
      { title: 'splice', share: 1.2, face: 'narrow-bold', isBig: true },
      { title: 'at mm', share: 1.4, align: 'end', face: 'narrow-bold', isBig: true },
      { title: '', share: 0.2 },
      { title: 'circuit', share: 2.9 },
      { title: 'wires', share: 3.9, face: 'narrow-bold' },
      { title: 'barrel', share: 3.4 },
      { title: 'strip', share: 2.3 },
      { title: 'tool', share: 3 },
    ],
    plan.splices.map((splice): Cell[] => {
      const barrel = plan.barrels.find(({ spliceId }) => spliceId === splice.id)!;
      return [
        { tick: true },
        splice.label,
        mm(splice.distanceMm),
        '',
        loom.circuits[splice.circuitId]!.name,
        [barrel.sides.near, barrel.sides.far].map((ids) => ids.map((id) => wires.get(id)!.number).join(' ')).join(' | '),
        barrel.barrelName,
        { stripMm: barrel.stripMm },
        barrel.tool,
      ];
    }),
  );
}
