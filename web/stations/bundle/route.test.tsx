import { screen } from '@testing-library/react';
import { CATALOGUE, checkJob, createLookup, createTree, findStandard, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { choose, listOptions, press, type } from '../../testing/act';
import { openLoom, type FakeStore } from '../../testing/fakeStore';
import { AddEndDialog, SplitDialog } from './RouteDialogs';

const closed = jest.fn();
const open = (Dialog: typeof AddEndDialog, change?: (job: Job) => void) =>
  openLoom((planned) => <Dialog planned={planned} onClose={closed} />, change);
const loom = (store: FakeStore) => store.job.looms.inlet!;
const distances = (store: FakeStore) => {
  const tree = createTree(loom(store), findStandard(store.job, CATALOGUE));
  return Object.fromEntries(Object.values(tree.nodes).map(({ id, distanceMm }) => [loom(store).nodes[id]!.name, Math.round(distanceMm)]));
};
const isDisabled = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name }).disabled;
const isGood = (store: FakeStore) => checkJob(store.job, createLookup(CATALOGUE));
beforeEach(() => closed.mockClear());

describe('a new end', () => {
  test('is a connector on a leg: with its family, its leg and how that was read', () => {
    const store = open(AddEndDialog);
    expect(listOptions('Where')).not.toContain('at the datum: the anchor end');
    type('Name', 'boost solenoid');
    expect(isDisabled('Add end')).toBe(true);
    choose('Family', 'Tarn 2');
    choose('Where', 'on a leg from secondary rail');
    type('Leg, mm', '0');
    expect(isDisabled('Add end')).toBe(true);
    type('Leg, mm', '185');
    choose('Zone', 'engine bay');
    press('Add end');
    const [endId, end] = Object.entries(loom(store).ends).find(([, { name }]) => name === 'boost solenoid')!;
    expect(end).toMatchObject({ kind: 'connector', familyId: 'tarn-2' });
    const segment = Object.values(loom(store).segments).find(({ toNodeId }) => toNodeId === end.nodeId)!;
    expect(segment).toMatchObject({ fromNodeId: 'bk3', lengthMm: 185, method: 'tape', status: 'roped' });
    expect(store.job.zones[segment.zoneId!]!.name).toBe('engine bay');
    expect([store.labels, closed.mock.calls.length, endId in createInlet().looms.inlet!.ends]).toEqual([['add boost solenoid'], 1, false]);
    expect(isGood(store)).toMatchObject({ ok: true });
  });
  test('on an estimate counts as guessed, which is said', () => {
    const store = open(AddEndDialog);
    type('Name', 'spare tail');
    choose('It is', 'bare tails');
    type('Leg, mm', '90');
    choose('Measured by', 'estimate');
    expect(screen.getByText('its wires are held from cutting')).toBeTruthy();
    press('Add end');
    const end = Object.values(loom(store).ends).find(({ name }) => name === 'spare tail')!;
    expect(end).toMatchObject({ kind: 'tail', familyId: null, studMm: null });
    expect(Object.values(loom(store).segments).find(({ toNodeId }) => toNodeId === end.nodeId)).toMatchObject({
      method: 'estimate',
      status: 'guessed',
      zoneId: null,
    });
  });
  test('of blades says how wide the tongues are, of those that the shop has blades for', () => {
    const store = open(AddEndDialog);
    type('Name', 'fan relay');
    choose('It is', 'blades on tongues');
    expect(listOptions('Tongues')).toEqual(['2.8 mm', '4.8 mm', '6.3 mm', '9.5 mm']);
    choose('Tongues', '9.5 mm');
    type('Leg, mm', '120');
    press('Add end');
    const end = Object.values(loom(store).ends).find(({ name }) => name === 'fan relay')!;
    expect(end).toMatchObject({ kind: 'blade', tongueMm: 9.5, studMm: null, familyId: null });
    expect(isGood(store)).toMatchObject({ ok: true });
  });
  test('of rings says the stud; at a free datum it needs no leg', () => {
    const store = open(AddEndDialog, (job) => {
      const now = job.looms.inlet!;
      delete now.ends.B1;
      for (const circuit of Object.values(now.circuits)) circuit.terminations = circuit.terminations.filter(({ endId }) => endId !== 'B1');
      job.devices = {};
      job.mates = {};
      job.parts = {};
    });
    type('Name', 'battery stud');
    choose('It is', 'rings on a stud');
    choose('Stud', 'M8');
    expect(screen.queryByLabelText('Leg, mm')).toBeNull();
    press('Add end');
    expect(Object.values(loom(store).ends).find(({ name }) => name === 'battery stud')).toMatchObject({
      kind: 'ring',
      studMm: 8,
      nodeId: 'datum',
    });
  });
  test('is not there when it is left', () => {
    const store = open(AddEndDialog);
    type('Name', 'x');
    press('Leave it');
    expect([store.labels, closed.mock.calls.length]).toEqual([[], 1]);
  });
});

describe('a breakout or a hole in a run', () => {
  test('keeps every distance; where it lies is typed from the datum', () => {
    const store = open(SplitDialog);
    const before = distances(store);
    type('Name', 'coil leg');
    choose('In the run', 'primary rail to throttle body');
    const at = Math.round((before['primary rail']! + before['throttle body']!) / 2);
    type('From the datum, mm', String(at));
    press('Add it');
    expect(distances(store)).toEqual({ ...before, 'coil leg': at });
    expect(store.labels).toEqual(['add breakout coil leg']);
    expect(isGood(store)).toMatchObject({ ok: true });
  });
  test('lies inside its run, or the run says where it lies', () => {
    const store = open(SplitDialog);
    const before = distances(store);
    type('Name', 'x');
    choose('In the run', 'primary rail to throttle body');
    type('From the datum, mm', String(before['throttle body']! + 5));
    expect(screen.getByText(`this run lies between ${before['primary rail']} and ${before['throttle body']} mm`)).toBeTruthy();
    expect(isDisabled('Add it')).toBe(true);
    type('From the datum, mm', '');
    expect(isDisabled('Add it')).toBe(true);
  });
  test('a hole has a bore or not yet', () => {
    const store = open(SplitDialog);
    const before = distances(store);
    type('Name', 'grommet');
    choose('It is', 'a hole it passes');
    choose('In the run', 'throttle body to secondary rail');
    type('From the datum, mm', String(before['throttle body']! + 20));
    type('Bore, mm', '26');
    press('Add it');
    expect(Object.values(loom(store).nodes).find(({ name }) => name === 'grommet')).toMatchObject({ kind: 'pass', holeMm: 26 });
    expect(store.labels).toEqual(['add hole grommet']);
  });
});
