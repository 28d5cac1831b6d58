import { findFamily, toSizeWords } from '../../catalogue';
import { compareIds } from '../../units';
import { drawFacePicture } from '../drawFacePicture';
import type { Cell, Column } from './createFlow';
import type { SheetContext } from './sheetContext';

const COLUMNS: Column[] = [
  { title: '', share: 0.5 },
  { title: 'cavity', share: 0.9, face: 'mono' },
  { title: 'wire', share: 1.8, face: 'mono' },
  { title: 'colour', share: 2.4 },
  { title: 'size', share: 1.3 },
  { title: 'contact', share: 3.2 },
  { title: 'seal', share: 2.2 },
  { title: 'strip', share: 0.9, align: 'end', face: 'mono' },
  { title: 'tool', share: 3.8 },
  { title: 'pull N', share: 1.1, align: 'end', face: 'mono' },
];

/** One block an end: its face from the wire side, and what goes into every cavity. */
export function addEnds({ job, loom, plan, catalogue, flow, wires }: SheetContext): void {
  flow.sheet('Ends', 'Faces are drawn from the WIRE SIDE, the side the wires go in. The mating side is its mirror image.');
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const end = loom.ends[endId]!;
    const family = end.kind === 'connector' ? findFamily(job, catalogue, end.familyId) : undefined;
    const here = plan.terminations.filter((one) => one.endId === endId);
    const kind = family
      ? `${family.name}${end.key === null ? '' : `, key ${end.key}`}, ${family.seating}`
      : end.kind === 'ring'
        ? `rings on M${end.studMm}`
        : 'bare tails';
    const face = family
      ? drawFacePicture(family, (cavity) => {
          const used = here.find((one) => one.cavity === cavity);
          return used ? wires.get(used.wireIds[0]!)!.colour : null;
        })
      : null;
    flow.heading(`${end.name}: ${kind}`, (face?.heightMm ?? 0) + 22);
    if (face) flow.picture(face);
    flow.table(
      COLUMNS,
      here.map((one): Cell[] => {
        const list = one.wireIds.map((id) => wires.get(id)!);
        return [
          { tick: true },
          one.cavity,
          list.map(({ number }) => number).join(' '),
          { colour: list[0]!.colour },
          list.map(({ conductor }) => toSizeWords(conductor)).join(', '),
          one.contactName,
          one.sealName,
          one.stripMm === null ? '–' : String(one.stripMm),
          [one.tool, one.positioner].filter(Boolean).join(', '),
          one.pullOffsN.map((force) => force ?? '–').join(', '),
        ];
      }),
    );
    const plugs = plan.plugs.filter((one) => one.endId === endId);
    if (plugs.length) flow.paragraph(`Plugs in ${plugs.map(({ cavity }) => cavity).join(', ')}.`);
  }
}
