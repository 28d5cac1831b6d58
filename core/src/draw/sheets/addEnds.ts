import { findFamily, toSizeWords } from '../../catalogue';
import { planPottings, type PlannedPotting } from '../../plan';
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

/** What is mixed, how long it cures, what lies behind it. */
const toPottingWords = ({
  resin,
  pouredMl,
  partAG,
  partBG,
  potLifeMin,
  cureH,
  workshopC,
  straightMm,
  loopRadiusMm,
  loopMm,
}: PlannedPotting) =>
  `Potted with ${resin.name}: ${pouredMl.toFixed(2)} ml = ${partAG.toFixed(2)} + ${partBG.toFixed(2)} g, ${potLifeMin} min to pour, ${cureH.toFixed(1)} h of cure at ${workshopC} °C. Gloves, glasses, air. Rung before and after. Behind it ${straightMm} mm straight and three quarters of a turn of ${Math.ceil(loopRadiusMm)} mm radius (${Math.round(loopMm)} mm).`;

/** One block an end: its face from the wire side, and what goes into every cavity. */
export function addEnds({ job, loom, plan, catalogue, flow, wires }: SheetContext): void {
  flow.sheet('Ends', 'Faces are drawn from the WIRE SIDE, the side the wires go in. The mating side is its mirror image.');
  const pottings = new Map(planPottings(job, plan, catalogue).map((one) => [one.endId, one]));
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
    const potting = pottings.get(endId);
    if (potting) flow.paragraph(toPottingWords(potting));
  }
}
