import { NOTHING_CARRIED, type ProvedStep } from 'wattograph-core';
import type { FloorEvent } from '../floorEvent';
import { createUnproved, type ProvedLooms } from './unproved';

const item = (id: string) => ({ id, words: id, asks: [], wireIds: [], cavity: null, reads: [], heldBecause: null });
const STEPS: ProvedStep[] = [
  { id: 'crimp.a', operation: 'crimp', items: [item('1')], needs: [] },
  { id: 'test', operation: 'test', items: [item('pairs'), item('isolation')], needs: [{ stepId: 'crimp.a', because: '' }] },
  // pinned in the vehicle, after it was tested
  { id: 'crimp.late', operation: 'crimp', items: [item('2')], needs: [{ stepId: 'test', because: '' }] },
];
let serial = 0;
const tick = (loomId: string, stepId: string, itemId: string, kind: FloorEvent['kind'] = 'tick'): FloorEvent => {
  serial += 1;
  return {
    id: `e${serial}`,
    serial,
    loomId,
    stepId,
    itemId,
    kind,
    words: '',
    author: 'Jun Okafor',
    happenedAt: '2026-11-29T08:00:00.000Z',
  };
};
const test1 = (loomId: string) => [tick(loomId, 'test', 'pairs'), tick(loomId, 'test', 'isolation')];
const looms = ['engine', 'inlet'].map((loomId) => ({ loomId, name: `${loomId} loom`, steps: STEPS, carried: NOTHING_CARRIED }));
const open = (stored: FloorEvent[], of: ProvedLooms['looms'] = looms) => {
  const read = jest.fn(() => Promise.resolve({ looms: of, stored }));
  return { read, find: createUnproved(read) };
};

test('looms without their whole ring-out are named; it is read once, and not before it is asked for', async () => {
  const { read, find } = open([...test1('engine'), tick('inlet', 'test', 'pairs')]);
  expect(read).not.toHaveBeenCalled();
  expect(await find([])).toEqual(['inlet loom']);
  expect(await find([tick('inlet', 'test', 'isolation')])).toEqual([]);
  expect(read).toHaveBeenCalledTimes(1);
});

test('what is done over, or taken back, is not rung out until it is again; what comes after the test by itself leaves it as it is', async () => {
  const done = [...test1('engine'), ...test1('inlet')];
  expect(await open([...done, tick('engine', 'crimp.a', '1')]).find([])).toEqual(['engine loom']);
  expect(await open([...done, tick('inlet', 'test', 'pairs', 'untick')]).find([])).toEqual(['inlet loom']);
  expect(await open([...done, tick('engine', 'crimp.a', '1'), ...test1('engine')]).find([])).toEqual([]);
  expect(await open([...done, tick('engine', 'crimp.late', '2')]).find([])).toEqual([]);
});

test('what was told before in the same request counts, as far as it was told; readings of the vehicle change nothing', async () => {
  const { find } = open(test1('inlet'));
  const told = [...test1('engine'), tick('', 'power', 'bare', 'reading'), tick('engine', 'crimp.a', '1')];
  expect(await find(told.slice(0, 1))).toEqual(['engine loom']);
  expect(await find(told.slice(0, 2))).toEqual([]);
  expect(await find(told.slice(0, 3))).toEqual([]);
  expect(await find(told)).toEqual(['engine loom']);
});

test('a ring-out of an earlier revision counts where nothing of it changed; a loom without a test has none', async () => {
  const carried = { ...NOTHING_CARRIED, carried: ['pairs', 'isolation'].map((itemId) => ({ stepId: 'test', itemId, revision: 1 })) };
  const one = { ...looms[0]!, carried };
  expect(await open([], [one]).find([])).toEqual([]);
  expect(await open([tick('engine', 'crimp.a', '1')], [one]).find([])).toEqual(['engine loom']);
  expect(await open([], [{ ...one, steps: STEPS.slice(0, 1) }]).find([])).toEqual(['engine loom']);
});
