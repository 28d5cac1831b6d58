import { listBreak, toPartWords, toMeterReading } from '../../make';
import { toColourWords, type Circuit } from '../../model';
import type { PlannedProtection } from '../../plan';
import { compareIds } from '../../units';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const MOST_NAMED = 4;

/** What is fitted beside the wires: fuses and settings of the boxes on this loom, both faces of its breaks, inline parts. */
export function addBoxes(context: SheetContext): void {
  const { job, plan, whole } = context;
  const ways = whole.power.protections.filter(
    ({ deviceId, netId, kind }) =>
      netId !== null && (kind === 'fuse' || kind === 'channel') && job.devices[deviceId]?.at?.loomId === plan.loomId,
  );
  const mateIds = Object.keys(job.mates)
    .filter((id) => [job.mates[id]!.a, job.mates[id]!.b].some(({ loomId }) => loomId === plan.loomId))
    .sort(compareIds);
  const partIds = Object.keys(job.parts)
    .filter((id) => job.parts[id]!.at.loomId === plan.loomId)
    .sort(compareIds);
  if (ways.length + mateIds.length + partIds.length === 0) return;
  context.flow.sheet('Boxes and breaks', 'vehicle');
  if (ways.length) addWays(context, ways);
  for (const id of mateIds) addBreak(context, id);
  if (partIds.length) addParts(context, partIds);
}

function addWays({ flow, whole }: SheetContext, ways: readonly PlannedProtection[]): void {
  flow.heading('Fuses and settings');
  flow.paragraph(
    'Fuses go in last: battery off, pairs rung out, one at a time. The makers’ sheets, local rules and licensed practice come first.',
  );
  const nameOf = new Map(whole.power.loads.map(({ id, name }) => [id, name]));
  const columns: Column[] = [
    { title: '', share: 0.5 },
    { title: 'way', share: 3.4 },
    { title: 'fit or set', share: 2.4, face: 'narrow-bold' },
    { title: 'carries A', share: 1.3, align: 'end', face: 'mono' },
    { title: '', share: 0.2 },
    { title: 'feeds', share: 4.2 },
    { title: 'because', share: 4.4 },
  ];
  flow.table(
    columns,
    ways.map(({ name, kind, ratingA, tripS, loadA, inrushA, inrushMs, loadIds, pinned, because }): Cell[] => [
      ratingA === null ? '' : { tick: true },
      name,
      ratingA === null
        ? 'NOT CHOSEN'
        : kind === 'fuse'
          ? `${ratingA} A fuse`
          : `set to ${ratingA} A, ${tripS} s${inrushA > ratingA ? `, ${inrushA.toFixed(0)} A for ${inrushMs.toFixed(0)} ms let through` : ''}`,
      loadA.toFixed(1),
      '',
      toNames(loadIds.map((id) => nameOf.get(id) ?? id)),
      pinned ? `by hand: ${because}` : because,
    ]),
  );
}

const toNames = (names: readonly string[]) =>
  names.length > MOST_NAMED ? `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more` : names.join(', ');

function addBreak({ job, catalogue, flow }: SheetContext, mateId: string): void {
  const { sides, rows, spare } = listBreak(job, catalogue, mateId);
  flow.heading(sides.map(({ words }) => words).join(' to '));
  flow.paragraph('The same cavity on both faces; seen from the wire side the other half is mirrored: go by the numbers.');
  const toCells = (circuit: Circuit | null, prefix: string): Cell[] =>
    circuit === null ? ['nothing', ''] : [`${prefix}-${circuit.number}`, toColourWords(circuit.colour)];
  flow.table(
    [
      { title: 'cavity', share: 1, face: 'mono' },
      ...sides.flatMap(({ words }): Column[] => [
        { title: words, share: 2.2, face: 'mono' },
        { title: '', share: 2 },
      ]),
      { title: 'carries', share: 4 },
    ],
    rows.map(({ cavity, circuits: [one, other] }) => [
      cavity,
      ...toCells(one, sides[0].prefix),
      ...toCells(other, sides[1].prefix),
      one === null || other === null ? `ONE SIDE ONLY: ${(one ?? other)!.name}` : one.name,
    ]),
  );
  flow.paragraph(spare.length ? `Spare: ${spare.join(', ')}.` : 'No cavity to spare.');
}

function addParts({ job, loom, flow }: SheetContext, ids: readonly string[]): void {
  flow.heading('Inline parts');
  flow.table(
    [
      { title: '', share: 0.5 },
      { title: 'part', share: 3 },
      { title: 'between', share: 3 },
      { title: 'reads', share: 4 },
      { title: 'because', share: 4 },
    ],
    ids.map((id): Cell[] => {
      const part = job.parts[id]!;
      const { endId, cavities } = part.at;
      return [{ tick: true }, toPartWords(part), `${loom.ends[endId]!.name} ${cavities.join(' and ')}`, toMeterReading(part), part.reason];
    }),
  );
}
