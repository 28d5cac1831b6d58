import { findStandard } from '../../plan';
import { listCrimpSeries, type CrimpSeries } from '../../make';
import type { ShopStandard } from '../../model';
import { compareIds, toRunWords } from '../../units';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

/** more columns of samples are not written in: what comes after goes on the back */
const MOST_SAMPLES = 6;

/** For the wall of the crimp bench: samples before the first crimp of each kind and when the last is made (craft D3), on the day the tablet is dead. */
export function addFirstOffs(context: SheetContext): void {
  const { job, plan, build, catalogue, flow } = context;
  const standard = findStandard(job, catalogue);
  if (standard.sampleFirst === 0) return;
  const series = listCrimpSeries(plan, build.steps, catalogue.contacts).sort(
    (a, b) => compareIds(a.contactName, b.contactName) || compareIds(a.wires, b.wires),
  );
  if (series.length === 0) return;
  const names = [...Array.from({ length: Math.min(standard.sampleFirst, MOST_SAMPLES) }, (_, at) => String(at + 1)), 'last'];
  flow.sheet(
    'First-offs',
    'wall',
    `Hangs at the crimp bench. Calibration and gauge of the tool first, eyes covered. Look (brush, wings, strands, bell), measure, pull slowly until it parts; write the N in, of several wires that of each. All pass before the first that counts; below the second figure look at the die. One more after ${standard.sampleEvery}, at another reel, lot or setting, and when the last is made. A bad one: everything crimped since the last good one is done over. Anew by each person and session.`,
  );
  const columns: Column[] = [
    { title: 'contact, tool', share: 4.2 },
    { title: 'on', share: 2.6 },
    { title: 'make', share: 0.9, align: 'end' },
    { title: '', share: 0.2 },
    { title: 'height mm', share: 1.6, align: 'end', face: 'narrow' },
    { title: 'least N', share: 1.3, align: 'end', face: 'narrow-bold', isBig: true },
    { title: 'look <', share: 1.1, align: 'end' },
    { title: '', share: 0.2 },
    ...names.map((title): Column => ({ title, share: 1 })),
  ];
  flow.table(
    columns,
    series.map((one) => toCells(one, names, standard)),
  );
}

function toCells(
  { contactName, tool, positioner, wires, places, leastN, heightMm }: CrimpSeries,
  names: readonly string[],
  { sampleWarnShare, crimpHeightMm }: ShopStandard,
): Cell[] {
  const each = (words: (least: number) => string) =>
    toRunWords(
      leastN.map((least) => (least === null ? '–' : words(least))),
      ' / ',
    );
  return [
    `${contactName}, ${tool}${positioner ? `, ${positioner}` : ''}`,
    wires,
    String(places.length),
    '',
    heightMm === null ? '–' : `${heightMm.toFixed(2)} ± ${crimpHeightMm}`,
    each(String),
    each((least) => String(Math.ceil(least * sampleWarnShare - 1e-9))),
    '',
    ...names.map(() => '____'),
  ];
}
