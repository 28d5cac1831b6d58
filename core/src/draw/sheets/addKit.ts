import { pushTo, roundUp } from '../../units';
import type { PartLine } from '../../make';
import { findStandard } from '../../plan';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const COLUMNS: Column[] = [
  { title: '', share: 0.6 },
  { title: 'part', share: 6 },
  { title: 'pieces', share: 1.2, align: 'end', face: 'narrow-bold' },
  { title: 'm', share: 1.1, align: 'end', face: 'narrow-bold' },
  { title: 'packs', share: 1, align: 'end' },
];

/** What to have in the kit before work begins, group by group. */
export function addKit({ job, catalogue, build, flow }: SheetContext): void {
  const { kitStepMm } = findStandard(job, catalogue);
  flow.sheet('Parts', 'kit', 'Kit complete before work begins. Held wires are counted: they will be needed.');
  const groups = new Map<string, PartLine[]>();
  for (const line of build.parts) pushTo(groups, line.group, line);
  for (const [group, lines] of groups) {
    flow.heading(`${group.charAt(0).toUpperCase()}${group.slice(1)}`, 12);
    flow.twin(
      COLUMNS,
      lines.map(({ name, pieces, lengthMm, packs }): Cell[] => [
        { tick: true },
        name,
        String(pieces),
        lengthMm === null ? '–' : (roundUp(lengthMm, kitStepMm) / 1000).toFixed(1),
        packs === null ? '–' : String(packs),
      ]),
    );
  }
}
