import { listTrims } from '../../make';
import { toSumWords } from '../../plan';
import type { Cell } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const mm = (value: number | null) => (value === null ? '–' : String(Math.round(value)));

/** The trim sheet: after the trial fit, per end, how much comes off each wire. */
export function addTrims({ loom, plan, flow, wires }: SheetContext): void {
  flow.sheet(
    'Trim',
    'board',
    'After the trial fit, with the datum clamped: what comes off each wire at the end named. Cut as the readings said; final as fitted.',
  );
  for (const { name, trims } of listTrims(loom, plan)) {
    flow.heading(name, 12);
    flow.table(
      [
        { title: '', share: 0.5 },
        { title: 'wire', share: 2, face: 'mono' },
        { title: 'cut', share: 1.2, align: 'end', face: 'mono' },
        { title: 'final', share: 1.2, align: 'end', face: 'mono' },
        { title: 'take off', share: 1.4, align: 'end', face: 'mono' },
        { title: '', share: 6 },
      ],
      trims.map(({ wireId, number, cutMm, finalMm, offMm, waitsFor }): Cell[] => [
        offMm === null || offMm < 0 ? '' : { tick: true },
        number,
        mm(cutMm),
        mm(finalMm),
        offMm === null ? '–' : offMm < 0 ? `${mm(-offMm)} short` : mm(offMm),
        offMm === null
          ? `not final: ${waitsFor.join(', ')} not fitted`
          : offMm < 0
            ? 'TOO SHORT: cut it again'
            : `final is ${toSumWords(wires.get(wireId)!.addends)}`,
      ]),
    );
  }
}
