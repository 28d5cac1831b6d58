import { findFamily, toSizeWords } from '../../catalogue';
import { findStandard, planPottings, type PlannedPotting, type PlannedScreen, type PlannedStud } from '../../plan';
import { compareIds } from '../../units';
import { drawStripTemplate } from '../strip/drawStripTemplate';
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

/** Order of the rings, band and torque. */
const toStudWords = ({ studMm, band, torqueNm, stackMm, threadMm }: PlannedStud) =>
  `Rings in this order from the foot of the stud, thickest copper first${band ? `, each with a ${band} band` : ''}; nut M${studMm} ${torqueNm === null ? 'to the maker’s torque' : `${torqueNm} Nm (the maker’s figure comes first)`}.${stackMm === null ? '' : ` With washer and nut ${stackMm.toFixed(1)} mm high${threadMm === null ? ', thread not measured' : ` on ${threadMm} mm of thread`}.`}`;

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
  const { screenLeastMegohm } = findStandard(job, catalogue);
  const addTemplate = (screen: PlannedScreen) => {
    const numbers = screen.wireIds.map((id) => wires.get(id)!.number).join(', ');
    flow.paragraph(
      `${screen.cableName}, ${numbers}: lay it on the paper and cut by it; at least ${screenLeastMegohm} MΩ from each core to the screen before anything is seated.`,
    );
    flow.picture(
      drawStripTemplate(
        screen,
        screen.wireIds.map((id) => wires.get(id)!.colour),
      ),
    );
  };
  const studs = new Map(plan.studs.map((one) => [one.endId, one]));
  const pottings = new Map(planPottings(job, plan, catalogue).map((one) => [one.endId, one]));
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const end = loom.ends[endId]!;
    const family = end.kind === 'connector' ? findFamily(job, catalogue, end.familyId) : undefined;
    const stacked = studs.get(endId)?.rings.map(({ wireIds }) => wireIds.join(' '));
    const here = plan.terminations
      .filter((one) => one.endId === endId)
      .sort((a, b) => (stacked ? stacked.indexOf(a.wireIds.join(' ')) - stacked.indexOf(b.wireIds.join(' ')) : 0));
    const kind = family
      ? `${family.name}${end.key === null ? '' : `, key ${end.key}`}, ${family.seating}`
      : end.kind === 'ring'
        ? `rings on M${end.studMm}`
        : end.kind === 'blade'
          ? `blades on tongues of ${end.tongueMm} mm`
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
    for (const screen of plan.screens.filter((one) => one.endId === endId)) addTemplate(screen);
    const plugs = plan.plugs.filter((one) => one.endId === endId);
    if (plugs.length) flow.paragraph(`Plugs in ${plugs.map(({ cavity }) => cavity).join(', ')}.`);
    const stud = studs.get(endId);
    if (stud) flow.paragraph(toStudWords(stud));
    const potting = pottings.get(endId);
    if (potting) flow.paragraph(toPottingWords(potting));
  }
}
