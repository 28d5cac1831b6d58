import { DRESS_ROLE_WORDS, type DressPiece, type Parking } from '../../plan';
import { drawBreakoutStack, drawEndStack } from '../dress/drawStack';
import { toStackedRun } from '../dress/toStackedRun';
import { drawSchematic, SMALL_SCHEMATIC } from './drawSchematic';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const PIECES: Column[] = [
  { title: '', share: 0.5 },
  { title: 'no.', share: 0.6, align: 'end', face: 'mono' },
  { title: 'what', share: 1.6 },
  { title: 'part', share: 4.4 },
  { title: 'cut mm', share: 1.1, align: 'end', face: 'mono' },
  { title: 'lies mm', share: 1.6, align: 'end', face: 'mono' },
  { title: 'on mm', share: 1, align: 'end', face: 'mono' },
  { title: 'over it', share: 1.1, align: 'end', face: 'mono' },
];

/** Ends and breakouts that something goes over: drawn from the wire outwards, with what is cut and the order in which it slides on. */
export function addDress(context: SheetContext): void {
  const { flow, plan, loom } = context;
  const breakouts = plan.breakoutDress.filter(({ pieces }) => pieces.length > 0);
  const ends = plan.endDress.filter(({ pieces }) => pieces.length > 0);
  if (breakouts.length + ends.length === 0) return;
  flow.sheet(
    'Dress',
    'sleeve',
    'Pieces slide on by their numbers and are shrunk in the same order, after what they close over is made. Lined pieces have their inside drawn heavy.',
  );
  for (const dress of breakouts) {
    flow.heading(
      `Breakout ${loom.nodes[dress.nodeId]!.name}, ${Math.round(plan.tree.nodes[dress.nodeId]!.distanceMm)} mm from the datum`,
      95,
      { id: `fork ${dress.nodeId}`, here: drawSchematic(plan.tree, { nodeIds: [dress.nodeId] }, SMALL_SCHEMATIC) },
    );
    flow.picture(
      drawBreakoutStack(
        dress,
        toStackedRun(plan, dress.trunkSegmentId),
        dress.legSegmentIds.map((id) => toStackedRun(plan, id)),
      ),
    );
    addPieces(context, dress.pieces, 'middle');
  }
  for (const dress of ends) {
    const { nodeId, name } = loom.ends[dress.endId]!;
    flow.heading(`End ${name}`, 95, {
      id: `dress ${dress.endId}`,
      here: drawSchematic(plan.tree, { nodeIds: [nodeId], segmentIds: [dress.segmentId] }, SMALL_SCHEMATIC),
    });
    flow.picture(drawEndStack(dress, toStackedRun(plan, dress.segmentId)));
    addPieces(context, dress.pieces, 'rear');
    flow.paragraph(`While it is made: ${toParkingWords(dress.parking)}`);
  }
}

function addPieces({ flow }: SheetContext, pieces: readonly DressPiece[], from: string): void {
  flow.table(
    PIECES.map((column) => (column.title === 'lies mm' ? { ...column, title: `mm of ${from}` } : column)),
    pieces.map((piece, at): Cell[] => [
      { tick: true },
      String(at + 1),
      `${DRESS_ROLE_WORDS[piece.role]}${piece.isLined ? ', lined' : ''}`,
      piece.itemName,
      piece.table === 'coverings' ? String(piece.cutMm) : '–',
      `${Math.round(piece.fromMm)} to ${Math.round(piece.toMm)}`,
      piece.underMm.toFixed(1),
      piece.overMm.toFixed(1),
    ]),
  );
}

/** What stands back where, in a line. */
const toParkingWords = ({ pieces, because }: Parking): string =>
  `${because}${pieces.length > 0 ? ` (from the breakout: ${pieces.map(({ name, lengthMm }) => `${name}, ${Math.round(lengthMm)} mm`).join('; ')})` : ''}.`;
