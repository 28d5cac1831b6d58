import { findFamily, toSizeWords } from '../../catalogue';
import { toColourWords, type ConnectorFamily, type End } from '../../model';
import { findStandard, planPottings, type PlannedPotting, type PlannedScreen, type PlannedStud, type PlannedTermination } from '../../plan';
import { compareIds } from '../../units';
import { drawStripTemplate } from '../strip/drawStripTemplate';
import { drawFacePicture } from '../drawFacePicture';
import type { Drawing } from '../drawing';
import type { Cell, Column } from './flow/flowTypes';
import { drawSchematic } from './drawSchematic';
import type { SheetContext } from './sheetContext';

const KINDS: Column[] = [
  { title: 'work', share: 0.7, face: 'narrow-bold', isBig: true },
  { title: 'size', share: 1.4 },
  { title: 'contact', share: 3.6 },
  { title: 'seal', share: 2.2 },
  { title: 'strip, true size', share: 3.2 },
  { title: 'tool and setting', share: 4.2 },
  { title: 'pull N', share: 1.1, align: 'end', face: 'narrow-bold', isBig: true },
];
const WIRES: Column[] = [
  { title: 'cavity', share: 1.1, face: 'narrow-bold', isBig: true },
  { title: 'wire', share: 2.6, face: 'narrow-bold', isBig: true },
  { title: 'colour', share: 3 },
  { title: 'work', share: 0.9, face: 'narrow-bold', isBig: true },
  { title: 'crimp', share: 0.9 },
  { title: 'pull', share: 0.8 },
  { title: 'seat', share: 0.8 },
];
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';
/** a face wider than this stands below the head of its card, mm */
const HEAD_FACE_MM = 62;

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

/** The crimp bench: a card an end, its face from the wire side, its wires in the order in which they are seated. */
export function addEnds(context: SheetContext): void {
  const { loom, flow } = context;
  flow.sheet(
    'Ends',
    'crimp',
    'Faces are drawn from the WIRE SIDE, the side the wires go in. Rows are in the order of seating. The letter says which contact, strip length, tool and pull: hold the wire against the copper drawn.',
  );
  const pottings = new Map(planPottings(context.job, context.plan, context.catalogue).map((one) => [one.endId, one]));
  for (const endId of Object.keys(loom.ends).sort(compareIds)) addEnd(context, endId, pottings.get(endId));
}

function addEnd(context: SheetContext, endId: string, potting: PlannedPotting | undefined): void {
  const { job, loom, plan, catalogue, flow, wires } = context;
  const end = loom.ends[endId]!;
  const family = end.kind === 'connector' ? findFamily(job, catalogue, end.familyId) : undefined;
  const stud = plan.studs.find((one) => one.endId === endId);
  const here = listInOrder(context, endId, stud);
  const face = family
    ? drawFacePicture(family, (cavity) => {
        const used = here.find((one) => one.cavity === cavity);
        return used ? wires.get(used.wireIds[0]!)!.colour : null;
      })
    : null;
  const isSmall = face !== null && face.widthMm <= HEAD_FACE_MM;
  const legIds = plan.tree.nodes[end.nodeId]?.parentSegmentId;
  const head = {
    id: `end ${endId}`,
    title: end.name,
    words: toKindWords(end, family, stud),
    here: drawSchematic(plan.tree, { nodeIds: [end.nodeId], segmentIds: legIds ? [legIds] : [] }),
    picture: isSmall ? face : null,
  };
  flow.card(head, () => {
    if (face && !isSmall) flow.picture(face);
    addWires(context, here);
    addRest(context, endId, stud, potting);
  });
}

const toKindWords = (end: End, family: ConnectorFamily | undefined, stud: PlannedStud | undefined) => {
  if (family) return `${family.name}${end.key === null ? '' : `, key ${end.key}`} · ${family.seating}`;
  if (end.kind === 'ring') return `rings on M${end.studMm}${stud ? `, ${stud.rings.length}` : ''}`;
  if (end.kind === 'blade') return `blades on tongues of ${end.tongueMm} mm`;
  return end.kind === 'connector' ? 'housing still to be chosen' : 'bare tails';
};

/** Terminations as they are seated; rings as they lie on their stud. */
function listInOrder({ plan, build }: SheetContext, endId: string, stud: PlannedStud | undefined): PlannedTermination[] {
  const stacked = stud?.rings.map(({ wireIds }) => wireIds.join(' '));
  const seated = build.steps.find(({ id }) => id === `seat.${endId}`)?.items.map(({ cavity }) => cavity);
  const placeOf = ({ wireIds, cavity }: PlannedTermination) =>
    stacked ? stacked.indexOf(wireIds.join(' ')) : seated ? seated.indexOf(cavity) : 0;
  return plan.terminations.filter((one) => one.endId === endId).sort((a, b) => placeOf(a) - placeOf(b));
}

/** What is done alike is said once, under a letter. */
function addWires({ flow, wires }: SheetContext, here: readonly PlannedTermination[]): void {
  if (here.length === 0) {
    flow.paragraph('No wire ends here.');
    return;
  }
  const toSizes = ({ wireIds }: PlannedTermination) => wireIds.map((id) => toSizeWords(wires.get(id)!.conductor)).join(', ');
  const keyOf = (one: PlannedTermination) =>
    JSON.stringify([toSizes(one), one.contactName, one.sealName, one.stripMm, one.tool, one.positioner, one.pullOffsN]);
  const kinds = [...new Map(here.map((one) => [keyOf(one), one])).entries()];
  const letterOf = new Map(kinds.map(([key], at) => [key, LETTERS[at] ?? String(at + 1)]));
  flow.table(
    KINDS,
    kinds.map(([key, one]): Cell[] => [
      letterOf.get(key)!,
      toSizes(one),
      one.contactName,
      one.sealName,
      one.stripMm === null ? '–' : { stripMm: one.stripMm },
      [one.tool, one.positioner].filter(Boolean).join(', '),
      one.pullOffsN.map((force) => force ?? '–').join(', '),
    ]),
  );
  flow.twin(
    WIRES,
    here.map((one): Cell[] => {
      const list = one.wireIds.map((id) => wires.get(id)!);
      return [
        one.cavity,
        list.map(({ number }) => number).join(' '),
        // two in one crimp: neither is left out
        list.length === 1 ? { colour: list[0]!.colour } : list.map(({ colour }) => toColourWords(colour)).join(' + '),
        letterOf.get(keyOf(one))!,
        one.contactId === null ? '–' : { tick: true },
        one.pullOffsN.some((force) => force !== null) ? { tick: true } : '–',
        { tick: true },
      ];
    }),
  );
}

/** Screened cables, plugs, the stack of a stud, potting. */
function addRest(
  { job, plan, catalogue, flow, wires }: SheetContext,
  endId: string,
  stud: PlannedStud | undefined,
  potting: PlannedPotting | undefined,
): void {
  const { screenLeastMegohm } = findStandard(job, catalogue);
  const addTemplate = (screen: PlannedScreen) => {
    const cores = screen.wireIds.map((id) => wires.get(id)!);
    flow.paragraph(
      `${screen.cableName}, ${cores.map(({ number }) => number).join(', ')}: lay it on the paper and cut by it; at least ${screenLeastMegohm} MΩ from each core to the screen before anything is seated.`,
    );
    const template: Drawing = drawStripTemplate(
      screen,
      cores.map(({ colour }) => colour),
    );
    flow.picture(template);
  };
  for (const screen of plan.screens.filter((one) => one.endId === endId)) addTemplate(screen);
  const plugs = plan.plugs.filter((one) => one.endId === endId);
  if (plugs.length) flow.paragraph(`Plugs in ${plugs.map(({ cavity }) => cavity).join(', ')}.`, 'narrow-bold');
  if (stud) flow.paragraph(toStudWords(stud));
  if (potting) flow.paragraph(toPottingWords(potting));
}
