import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createBuild, type Asking, type InHand } from '../../make';
import { plan } from '../../plan';
import type { SheetPage } from '../drawing';
import { createPinningPages } from './createPinningPages';

const META = { paper: 'A4', job: 'Skerry 12', loom: 'chassis', revision: 'revision 1', date: '2026-11-30' } as const;
const job = createCleanSkerry();
const loom = job.looms.chassis!;
const planned = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'chassis')!;
const { steps } = createBuild(job, planned, CATALOGUE);
const asking: Asking = { author: 'Imke Dorsey', device: 'b', nowMs: 1e9, leaseMin: 20, takenHere: new Set() };
const create = (id: string, done: readonly string[] = [], hands: readonly InHand[] = []) => {
  const step = steps.find((one) => one.id === id)!;
  const family = CATALOGUE.families[loom.ends[step.endId!]!.familyId!]!;
  const inHand = new Map(hands.map((one) => [`${one.stepId} ${one.itemId}`, one]));
  const work = { loom, plan: planned, step, family, isDone: (itemId: string) => done.includes(itemId), inHand, asking };
  return { step, pages: createPinningPages(work, META) };
};
const words = (page: SheetPage) => page.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
const boxes = (page: SheetPage) => page.marks.filter((mark) => mark.kind === 'rect' && mark.fill === null && mark.w === mark.h).length;

describe('the paper twin of pinning (craft D2)', () => {
  test('twelve cavities a sheet, each on one of them, in the order of the step, with a box for each stand', () => {
    const { step, pages } = create('crimp.F1');
    expect(step.items.length).toBeGreaterThan(36);
    expect(pages).toHaveLength(Math.ceil(step.items.length / 12));
    const numberOf = new Map(planned.wires.map(({ id, number }) => [id, number]));
    pages.forEach((page, at) => {
      const part = step.items.slice(12 * at, 12 * at + 12);
      const said = words(page);
      const numbers = part.map(({ wireIds }) => wireIds.map((id) => numberOf.get(id)).join(' '));
      expect(said.filter((one) => numbers.includes(one))).toEqual(numbers);
      expect(boxes(page)).toBe(3 * part.length);
      expect(said).toEqual(expect.arrayContaining(['in hand', 'crimped', 'pulled']));
      expect(page.codes!.map(({ card }) => card)).toEqual(['step crimp.F1']);
    });
    expect(words(pages.at(-1)!).join(' ')).toContain('Done by');
  });

  test('interrupted at the nineteenth: eighteen are crossed, that one is doubtful, by whoever had it', () => {
    const { items } = steps.find(({ id }) => id === 'crimp.F1')!;
    const hand: InHand = { stepId: 'crimp.F1', itemId: items[18]!.id, author: 'Tobin Ashgrove', device: 'a', atMs: 0 };
    const { pages } = create(
      'crimp.F1',
      items.slice(0, 18).map(({ id }) => id),
      [hand],
    );
    expect(pages.slice(0, 2).map((page) => words(page).filter((one) => one === 'done').length)).toEqual([12, 6]);
    expect(pages.slice(0, 2).map(boxes)).toEqual([0, 18]);
    expect(words(pages[1]!)).toContain('DOUBTFUL');
    expect(words(pages[1]!).join(' ')).toContain(`Doubtful: ${items[18]!.cavity}. Tug, look, ring; then go on.`);
    expect(pages.flatMap(words).filter((one) => one === 'DOUBTFUL')).toHaveLength(1);
  });

  test('seating asks for click and tug, says what is held, and ends with what is looked at before it leaves the hand', () => {
    const at = steps.findIndex(({ id }) => id === 'seat.F1');
    const held = {
      ...steps[at]!,
      items: steps[at]!.items.map((item, index) => (index === 2 ? { ...item, heldBecause: 'place guessed' } : item)),
    };
    const family = CATALOGUE.families[loom.ends.F1!.familyId!]!;
    const work = { loom, plan: planned, step: held, family, isDone: () => false, inHand: new Map<string, InHand>(), asking };
    const pages = createPinningPages(work, META);
    expect(words(pages[0]!)).toEqual(expect.arrayContaining(['seated', 'tugged', 'HELD', `${held.items[2]!.cavity} HELD: place guessed`]));
    expect(words(pages.at(-1)!).join(' ')).toContain('No wire of this end hangs free.');
  });

  test('nothing on it is smaller than nine points', () => {
    for (const page of create('crimp.F1').pages)
      for (const mark of page.marks) if (mark.kind === 'text') expect([mark.text, mark.size >= 3.17]).toEqual([mark.text, true]);
  });
});
