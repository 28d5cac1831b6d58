import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { editDocument, type Job } from '../../model';
import { plan } from '../../plan';
import { createBuild } from '../createBuild';
import {
  carryPower,
  createFirstPower,
  judgePower,
  listPowerProofs,
  POWER_STEP,
  toWokenId,
  type EarlierPower,
  type FirstPower,
  type PowerEvent,
} from './index';

const read = (job: Job) => {
  const planned = plan(job, CATALOGUE);
  const sheet = createFirstPower(job, planned, CATALOGUE)!;
  const looms = planned.looms.map((loom) => ({
    ...{ loomId: loom.loomId, steps: createBuild(job, loom, CATALOGUE).steps },
    carried: { reopened: [], undo: [] } as Parameters<typeof carryPower>[2][number]['carried'],
  }));
  const ends = new Map(
    planned.looms.flatMap(({ loomId, wires }) =>
      wires.map(({ id, from, to }): [string, string[]] => [
        `${loomId}/${id}`,
        [from, to].flatMap((end) => (end.kind === 'cavity' ? [`${loomId}/${end.endId}`] : [])),
      ]),
    ),
  );
  return { sheet, looms, ends };
};
const job = createCleanSkerry();
const before = read(job);
const live = before.sheet.tests.find(({ part, expected, path }) => part === 'unplugged' && (expected ?? 0) > 5 && path.length > 3)!;
const wires = live.path.flatMap((id) => before.sheet.elements.find((one) => one.id === id)!.wire ?? []);
const [wire] = wires;

let serial = 0;
const event = (part: Partial<PowerEvent>): PowerEvent => {
  serial += 1;
  return {
    ...{ loomId: '', stepId: POWER_STEP, itemId: live.part, kind: 'reading', author: 'Jun', serial },
    ...{ happenedAt: new Date(Date.UTC(2026, 10, 28, 8, 0, serial)).toISOString(), instrument: 'meter 4' },
    ...part,
  } as PowerEvent;
};
const reading = (readId = live.id, value = 12.4) => event({ readId, value });
const worked = (of: { loomId: string; wireId: string }) => {
  const { steps } = before.looms.find(({ loomId }) => loomId === of.loomId)!;
  const step = steps.find(({ operation, items }) => operation === 'crimp' && items.some(({ wireIds }) => wireIds.includes(of.wireId)))!;
  const item = step.items.find(({ wireIds }) => wireIds.includes(of.wireId))!;
  return { step, item, event: event({ loomId: of.loomId, stepId: step.id, itemId: item.id, kind: 'tick', readId: null, value: null }) };
};
const carry = (events: readonly PowerEvent[], now = before, sheet: FirstPower | null = before.sheet) =>
  carryPower(now.sheet, [{ number: 1, sheet, events }], now.looms);
const proofOf = (earlier: readonly EarlierPower[], own: readonly PowerEvent[] = [], now = before) => {
  const carried = carryPower(now.sheet, earlier, now.looms);
  return listPowerProofs(now.sheet, now.looms, now.ends, [...carried.events, ...own], carried).get(live.id);
};
const withWork = (part: Partial<(typeof before.looms)[number]['carried']>) => ({
  ...before,
  looms: before.looms.map((loom) => (loom.loomId === wire!.loomId ? { ...loom, carried: { ...loom.carried, ...part } } : loom)),
});

test('what was read in a revision before counts in the next, with the revision; read again it is of this one', () => {
  const first: EarlierPower = { number: 1, sheet: before.sheet, events: [reading()] };
  expect(proofOf([first])).toMatchObject({ value: 12.4, release: 1, voidBecause: null });
  expect(proofOf([first], [reading(live.id, 12.1)])).toMatchObject({ value: 12.1, release: null, voidBecause: null });
  // through a revision in which nothing was read
  expect(proofOf([first, { number: 2, sheet: null, events: [] }])).toMatchObject({ release: 1 });
  const woke = toWokenId(live, 'fan');
  expect(carry([reading(woke, 1)]).events.map(({ readId }) => readId)).toEqual([woke]);
});

test('a wire that comes out longer is the same wire: the reading stays, and is judged by what is expected now', () => {
  const longer = editDocument(job, (draft) => {
    for (const segment of Object.values(draft.looms[wire!.loomId]!.segments)) if (segment.lengthMm !== null) segment.lengthMm += 900;
  }).next;
  const now = read(longer);
  expect(proofOf([{ number: 1, sheet: before.sheet, events: [reading()] }], [], now)).toMatchObject({ release: 1, voidBecause: null });
  const otherwise = structuredClone(before.sheet);
  Object.assign(
    otherwise.tests.find(({ id }) => id === live.id)!,
    { expected: 8, least: 7.6, most: 8.4 },
  );
  const carried = carry([reading()], { ...before, sheet: otherwise });
  const values = new Map(
    [...listPowerProofs(otherwise, before.looms, before.ends, carried.events, carried)].map(([id, { value }]) => [id, value]),
  );
  expect(judgePower(otherwise, values).failed.map(({ test: { id } }) => id)).toEqual([live.id]);
});

test.each<[string, (sheet: FirstPower) => void]>([
  [
    'switches that stand otherwise',
    ({ states }) => states.find(({ id }) => id === live.stateId)!.settings.push({ name: 'pump', state: 'open' }),
  ],
  ['another way there', ({ tests }) => tests.find(({ id }) => id === live.id)!.path.pop()],
  ['another plug', ({ tests }) => tests.find(({ id }) => id === live.id)!.endIds.push('engine/elsewhere')],
  ['no such cavity any more', (sheet) => (sheet.tests = sheet.tests.filter(({ id }) => id !== live.id))],
])('%s: what was read says nothing of it', (_, change) => {
  const sheet = structuredClone(before.sheet);
  change(sheet);
  expect(carry([reading()]).events).toHaveLength(1);
  expect(carry([reading()], { ...before, sheet }).events).toEqual([]);
});

test('a revision whose sheet is not known leaves no readings; where nothing was read nothing is sent', () => {
  expect(carry([reading()], before, null).events).toEqual([]);
  expect(carry([worked(wire!).event]).events).toEqual([]);
});

test('work on its way after it voids it, in whichever revision it was done; work before it does not', () => {
  const { event: tick } = worked(wire!);
  expect(proofOf([{ number: 1, sheet: before.sheet, events: [tick, reading()] }])).toMatchObject({ voidBecause: null });
  const said = [reading()];
  const after = worked(wire!).event;
  expect(proofOf([{ number: 1, sheet: before.sheet, events: [...said, after] }])!.voidBecause).toMatch(/done after it, by Jun/);
  expect(
    proofOf([
      { number: 1, sheet: before.sheet, events: said },
      { number: 2, sheet: null, events: [after] },
    ])!.voidBecause,
  ).toMatch(/done after it/);
  expect(proofOf([{ number: 1, sheet: before.sheet, events: said }], [after])!.voidBecause).toMatch(/done after it/);
});

test('what is open again on its way, or has to be undone in its loom, voids it until it is read again', () => {
  const { step, item } = worked(wire!);
  const reopened = withWork({ reopened: [{ stepId: step.id, itemId: item.id, revision: 1, differences: ['contact'], serves: null }] });
  const earlier: EarlierPower[] = [{ number: 1, sheet: before.sheet, events: [reading()] }];
  expect(proofOf(earlier, [], reopened)!.voidBecause).toBe(`${step.title}: open again in this revision`);
  expect(proofOf(earlier, [reading()], reopened)!.voidBecause).toBeNull();
  const undo = withWork({ undo: [{ id: 'x', title: 'N-9 out', done: [], revision: 1 }] });
  expect(proofOf(earlier, [], undo)!.voidBecause).toBe('to be undone in this revision: N-9 out');
  const elsewhere = before.looms.find(({ loomId }) => !wires.some((one) => one.loomId === loomId))!;
  const away = {
    ...before,
    looms: before.looms.map((loom) =>
      loom === elsewhere ? { ...loom, carried: { ...loom.carried, undo: [{ id: 'x', title: 'y', done: [], revision: 1 }] } } : loom,
    ),
  };
  expect(proofOf(earlier, [], away)!.voidBecause).toBeNull();
});
