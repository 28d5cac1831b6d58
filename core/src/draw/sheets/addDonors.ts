import { DONOR_DECISIONS, type DonorWire } from '../../model';
import { findStandard, listDonorDispositions } from '../../plan';
import { compareIds, toCount } from '../../units';
import type { Cell, Column } from './flow/flowTypes';
import { mm, type SheetContext } from './sheetContext';

const COLUMNS: Column[] = [
  { title: '', share: 0.5 },
  { title: 'wire', share: 1.8, face: 'narrow-bold', isBig: true },
  { title: 'becomes', share: 2.2, face: 'narrow-bold', isBig: true },
  { title: 'mm', share: 1.4, align: 'end', face: 'narrow-bold', isBig: true },
  { title: '', share: 0.2 },
  { title: 'as found', share: 1.2, align: 'end' },
  { title: '', share: 0.2 },
  { title: 'looks', share: 2 },
  { title: 'from', share: 2.8 },
  { title: 'to', share: 2.8 },
  { title: 'note', share: 2.6 },
];

/** Old looms that the job draws on: wire by wire what becomes of it, in the order in which it is worked off. */
export function addDonors({ job, catalogue, flow }: SheetContext): void {
  const donors = Object.values(job.donors).filter(({ wires }) => Object.keys(wires).length > 0);
  if (donors.length === 0) return;
  flow.sheet(
    'Donor looms',
    'kit',
    'What goes is marked and taken out first, then what is shortened or extended. What is not decided stays untouched. A wire that goes is tested for what it really serves before it is cut.',
  );
  const { leastOffcutMm } = findStandard(job, catalogue);
  const orderOf = ({ decision }: DonorWire) => (decision === null ? ORDER.length : ORDER.indexOf(decision));
  for (const donor of donors) {
    const { counts, joins, recoveredMm, lost, aliases } = listDonorDispositions(donor, Object.values(job.devices), leastOffcutMm);
    const told = [
      ...DONOR_DECISIONS.filter((one) => counts[one] > 0).map((one) => `${one} ${counts[one]}`),
      ...(counts.undecided > 0 ? [`not decided ${counts.undecided}`] : []),
      ...(joins > 0 ? [toCount(joins, 'join')] : []),
      ...(recoveredMm > 0 ? [`${(recoveredMm / 1000).toFixed(1)} m to stock`] : []),
    ];
    flow.heading(donor.name, 24);
    flow.paragraph(`${told.join(' · ')}.`);
    if (lost.length > 0) flow.paragraph(`No wire serves any more: ${lost.map(({ name }) => name).join(', ')}.`, 'narrow-bold');
    if (aliases.length > 0)
      flow.paragraph(
        `Struck through and labelled anew at both ends and on each side of a breakout: ${aliases.map(({ printed, name }) => `${printed} becomes ${name || '(new name is OPEN)'}`).join(', ')}.`,
        'narrow-bold',
      );
    const wires = Object.values(donor.wires).sort((a, b) => orderOf(a) - orderOf(b) || compareIds(a.number, b.number));
    flow.table(COLUMNS, wires.map(toCells));
  }
}

const ORDER = ['remove', 'shorten', 'extend', 'repurpose', 'keep'];

const toCells = ({ number, newName, decision, newLengthMm, lengthMm, colour, size, from, fromPin, to, toPin, note }: DonorWire): Cell[] => [
  decision === null ? '' : { tick: true },
  number,
  decision ?? 'OPEN',
  newLengthMm === null ? '–' : mm(newLengthMm),
  '',
  lengthMm === null ? '?' : mm(lengthMm),
  '',
  [colour, size].filter(Boolean).join(', '),
  [from, fromPin].filter(Boolean).join(' · '),
  [to, toPin].filter(Boolean).join(' · '),
  [newName && `new name ${newName}`, note].filter(Boolean).join('; '),
];
