import { isDoubtful, listEndCheck, toHandState, type Asking, type HandState, type InHand, type Step } from '../../make';
import type { ConnectorFamily, Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import { drawFacePicture } from '../drawFacePicture';
import type { SheetPage } from '../drawing';
import { drawSchematic, SMALL_SCHEMATIC } from '../sheets/drawSchematic';
import { createFlow } from '../sheets/flow/createFlow';
import type { Cell, Column, SheetMeta } from '../sheets/flow/flowTypes';

/** Cavities on one sheet (craft D2). */
const A_SHEET = 12;

/** A step that goes cavity by cavity, as the floor has it. */
export interface PinningWork {
  loom: Loom;
  plan: Pick<LoomPlan, 'tree' | 'wires' | 'terminations' | 'plugs'>;
  step: Step;
  /** housing of its end; null: none, or not known */
  family: ConnectorFamily | null;
  isDone: (itemId: string) => boolean;
  inHand: ReadonlyMap<string, InHand>;
  asking: Asking;
}

const BOXES: Readonly<Record<string, readonly string[]>> = {
  crimp: ['in hand', 'crimped', 'pulled'],
  seat: ['in hand', 'seated', 'tugged'],
};
const NOW: Readonly<Record<HandState, string>> = {
  'to do': '',
  'in hand': 'in hand',
  doubtful: 'DOUBTFUL',
  crimped: 'done',
  seated: 'done',
  held: 'HELD',
};

/**
 * The screen of a cavity on paper (craft D2): twelve cavities a sheet, boxes for where each is on its way, and how each stood when it was
 * printed. For the day on which the tablet is dead; what is crossed there is ticked afterwards.
 */
export function createPinningPages({ loom, plan, step, family, ...hand }: PinningWork, meta: SheetMeta): SheetPage[] {
  const flow = createFlow(meta);
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const end = step.endId === null ? undefined : loom.ends[step.endId];
  const items = step.items.filter(({ cavity }) => cavity !== null);
  const boxes = BOXES[step.operation] ?? ['in hand', 'done'];
  const columns: Column[] = [
    { title: 'cavity', share: 1.2, face: 'narrow-bold', isBig: true },
    { title: 'wire', share: 2.2, face: 'narrow-bold', isBig: true },
    { title: 'colour', share: 2.6 },
    { title: 'contact', share: 3 },
    { title: 'strip, true size', share: 2.6 },
    ...boxes.map((title): Column => ({ title, share: 1.1 })),
    { title: 'now', share: 1.6, face: 'narrow-bold' },
  ];
  const toRow = (item: Step['items'][number]): Cell[] => {
    const cavity = item.cavity!;
    const here = item.wireIds.flatMap((id) => wires.get(id) ?? []);
    const contact = plan.terminations.find((one) => one.endId === step.endId && one.cavity === cavity);
    const state = toHandState(step, item, hand.isDone(item.id), hand.inHand, hand.asking);
    return [
      cavity,
      here.map(({ number }) => number).join(' '),
      here.length === 1 ? { colour: here[0]!.colour } : here.map(({ colour }) => colour.base).join(' + '),
      contact?.contactName ?? '–',
      contact?.stripMm ? { stripMm: contact.stripMm } : '–',
      ...boxes.map((): Cell => (state === 'crimped' || state === 'seated' ? 'x' : { tick: true })),
      NOW[state],
    ];
  };
  for (let from = 0; from < items.length; from += A_SHEET) {
    const part = items.slice(from, from + A_SHEET);
    const lit = new Set(part.map(({ cavity }) => cavity));
    flow.sheet(
      step.title,
      'crimp',
      `Cavities ${from + 1} to ${from + part.length} of ${items.length}, in this order. Cross each box as it is done and tick them on a tablet afterwards. Whatever was in a hand at an interruption is doubtful: tug, look, ring, then go on.`,
    );
    if (end) {
      const leg = plan.tree.nodes[end.nodeId]?.parentSegmentId;
      flow.heading(end.name, 40, {
        id: `step ${step.id}`,
        here: drawSchematic(plan.tree, { nodeIds: [end.nodeId], segmentIds: leg ? [leg] : [] }, SMALL_SCHEMATIC),
      });
    }
    if (family)
      flow.picture(
        drawFacePicture(family, (cavity) => {
          const item = lit.has(cavity) ? part.find((one) => one.cavity === cavity) : undefined;
          return item ? (wires.get(item.wireIds[0] ?? '')?.colour ?? null) : null;
        }),
      );
    flow.table(columns, part.map(toRow));
    const doubtful = part.filter(({ id }) => {
      const one = hand.inHand.get(`${step.id} ${id}`);
      return one !== undefined && !hand.isDone(id) && isDoubtful(one, hand.asking);
    });
    if (doubtful.length > 0)
      flow.paragraph(`Doubtful: ${doubtful.map(({ cavity }) => cavity).join(', ')}. Tug, look, ring; then go on.`, 'narrow-bold');
    for (const { cavity, heldBecause } of part) if (heldBecause !== null) flow.paragraph(`${cavity} HELD: ${heldBecause}`, 'narrow-bold');
  }
  const check = listEndCheck(step, plan, loom, family && end?.familyId ? { [end.familyId]: family } : {});
  if (check.length > 0) flow.paragraph(`Before it leaves your hand: ${check.join(' ')}`, 'narrow-bold');
  flow.paragraph('Done by ______________________   day and hour ______________________');
  return flow.finish();
}
