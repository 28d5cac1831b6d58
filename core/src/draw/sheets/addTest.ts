import type { ContinuityRow } from '../../make';
import { pushTo } from '../../units';
import type { Cell, Column } from './flow/flowTypes';
import { drawSchematic, SMALL_SCHEMATIC } from './drawSchematic';
import { toPlaceWords, type SheetContext } from './sheetContext';

const COLUMNS: Column[] = [
  { title: '', share: 0.5 },
  { title: 'from', share: 0.9, face: 'narrow-bold', isBig: true },
  { title: 'to', share: 3.4 },
  { title: 'circuit', share: 3.7 },
  { title: 'by', share: 3.4 },
  { title: 'expect', share: 1.4, align: 'end', face: 'narrow' },
  { title: 'at most', share: 1.4, align: 'end', face: 'narrow-bold' },
  { title: '', share: 0.3 },
  { title: 'read', share: 1.4 },
];

/** The ring-out cards: one probe stays at an end, the other goes from place to place. */
export function addTest(context: SheetContext): void {
  const { loom, plan, build, flow } = context;
  flow.sheet(
    'Continuity',
    'test',
    'Wires at 20 °C with contacts, rings and splices; passes up to the larger of 20 % or 0.1 Ω above. What carries much is proved in mV, four-wire, at the current given. Loom unplugged at both ends, controllers disconnected.',
  );
  const byEnd = new Map<string, ContinuityRow[]>();
  for (const row of build.continuity) pushTo(byEnd, row.from.endId, row);
  flow.bands(
    COLUMNS,
    [...byEnd].map(([endId, rows]) => {
      const { name, nodeId } = loom.ends[endId]!;
      const nodeIds = [nodeId, ...rows.map(({ to }) => loom.ends[to.endId]!.nodeId)];
      return {
        ...{ id: `test ${endId}`, title: `One probe on ${name}`, words: `${rows.length} to read` },
        here: drawSchematic(plan.tree, { nodeIds }, SMALL_SCHEMATIC),
        rows: rows.map((row) => toCells(context, row)),
      };
    }),
  );
}

const toCells = (context: SheetContext, { circuitId, from, to, wires, millivolts, expectedOhm, mostOhm }: ContinuityRow): Cell[] => [
  { tick: true },
  from.cavity,
  toPlaceWords(context, to.endId, to.cavity),
  context.loom.circuits[circuitId]!.name,
  `${wires.join(' ')}${millivolts ? ` at ${millivolts.atA} A` : ''}`,
  millivolts ? `${millivolts.expectedMv.toFixed(1)} mV` : `${expectedOhm.toFixed(3)} Ω`,
  millivolts ? `${millivolts.mostMv.toFixed(1)} mV` : `${mostOhm.toFixed(3)} Ω`,
  '',
  '______',
];
