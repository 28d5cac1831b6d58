import { act, fireEvent, screen, within } from '@testing-library/react';
import { CATALOGUE, isShrink, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { choose, chosen, listOptions, press, write } from '../../testing/act';
import { openLoom, type FakeStore } from '../../testing/fakeStore';
import { askReason } from '../../ui/fields/askReason';
import { DressStation } from './DressStation';
import { SleevesTable } from './SleevesTable';

// the dialog that asks is a part of the page around; what it is asked, and what becomes of the answer, is tested here
jest.mock('../../ui/fields/askReason', () => ({ askReason: jest.fn() }));
jest.mock('next/navigation', () => ({
  useSearchParams: () => new URLSearchParams('loom=inlet'),
  useRouter: () => ({ push: jest.fn() }),
  usePathname: () => '/',
}));
const asked = jest.mocked(askReason);
const answer = (reason: string) => act(() => asked.mock.calls.at(-1)![1](reason));
beforeEach(() => asked.mockClear());

const CLEAN = createInlet();
/** without what is for the eye alone: how far along, or its sign */
const nameOf = (button: HTMLElement) => button.textContent!.replace(/^(\d+|Y|▣)/, '');
const loomOf = (store: FakeStore) => store.job.looms.inlet!;
const segment = (store: FakeStore, id: string) => loomOf(store).segments[id]!;

describe('sleeves', () => {
  const sleeves = (change?: (job: Job) => void) => openLoom((planned) => <SleevesTable planned={planned} />, change);
  test('one chosen by hand is asked for its reason, and can be computed again', () => {
    const store = sleeves();
    const { id, kind, name } = CATALOGUE.coverings.find((one) => one.kind === 'braid')!;
    choose('Covering of primary rail to injector 1', name);
    expect(asked.mock.calls[0]![0]).toBe(`Why ${id} on primary rail to injector 1?`);
    expect(segment(store, 's-inj1').coveringPin).toBeNull();
    answer('chafes on the rail');
    expect(segment(store, 's-inj1').coveringPin).toEqual({ kind, itemId: id, reason: 'chafes on the rail' });
    choose('Covering of primary rail to injector 1', 'computed');
    expect(segment(store, 's-inj1').coveringPin).toBeNull();
    expect(store.labels).toEqual([`${id} on primary rail to injector 1`, 'let the covering of primary rail to injector 1 be computed']);
  });
  test('a kind alone leaves its size to the computation', () => {
    const store = sleeves();
    choose('Covering of primary rail to injector 1', 'braid, any size');
    answer('to see it');
    expect(segment(store, 's-inj1').coveringPin).toEqual({ kind: 'braid', itemId: null, reason: 'to see it' });
    expect(chosen('Covering of primary rail to injector 1')).toBe('braid, any size');
  });
  test('when it goes on changes what it must pass, and with that the sleeve', () => {
    const store = sleeves();
    const bundleOf = () => screen.getByLabelText('Covering of secondary rail to injector 5').closest('tr')!.textContent;
    expect(bundleOf()).toContain('cannot pass');
    choose('When the sleeve of secondary rail to injector 5 goes on', 'before its ends are closed');
    expect(segment(store, 's-inj5').slideOn).toBe('before-ends');
    expect(bundleOf()).not.toContain('cannot pass');
  });
});

describe('the station', () => {
  const station = (change: (job: Job) => void = () => undefined) => openLoom(() => <DressStation />, change);
  const list = () => screen.getByRole('navigation', { name: 'Runs, holes, breakouts and ends' });
  const open = (name: RegExp) => fireEvent.click(within(list()).getAllByRole('button', { name })[0]!);
  const view = (name: string) => screen.getByRole('region', { name });
  const booted = (job: Job) => void (job.looms.inlet!.dressing = 'boots');

  test('the loom stands from the datum on, every run before what is at its end', () => {
    station();
    const names = within(list())
      .getAllByRole('button')
      .map((one) => nameOf(one));
    expect(names.filter((name) => name.startsWith('run ')).length).toBe(Object.keys(CLEAN.looms.inlet!.segments).length);
    expect(names[0]).toMatch(/^end /);
    expect(names.findIndex((name) => /^run .*to injector 1\D/.test(name))).toBe(
      names.findIndex((name) => /^end injector 1\D/.test(name)) - 1,
    );
  });
  test('clips are put where one writes, refused where there is no place, and computed again', () => {
    const store = station();
    open(/^run primary rail to injector 1/);
    const field = () => screen.getByLabelText<HTMLInputElement>('Clips, mm from primary rail');
    const computed = field().value;
    write('Clips, mm from primary rail', '30, 9000');
    expect(screen.getByText(/^expected whole mm below \d+, got 9000$/)).toBeTruthy();
    expect(segment(store, 's-inj1').clipsAtMm).toBeNull();
    write('Clips, mm from primary rail', '60 30');
    expect(segment(store, 's-inj1').clipsAtMm).toEqual([30, 60]);
    expect(field().value).toBe('30, 60');
    press('Let clips be computed');
    expect(segment(store, 's-inj1').clipsAtMm).toBeNull();
    expect(field().value).toBe(computed);
  });
  test('↓ and ↑ walk along it, and stop at its ends', () => {
    station();
    const buttons = within(list()).getAllByRole('button');
    const current = () => within(list()).getByRole('button', { current: true });
    expect(current()).toBe(buttons[0]);
    fireEvent.keyDown(list(), { key: 'ArrowUp' });
    expect(current()).toBe(buttons[0]);
    fireEvent.keyDown(list(), { key: 'ArrowDown' });
    fireEvent.keyDown(list(), { key: 'ArrowDown' });
    expect(current()).toBe(buttons[2]);
    fireEvent.keyDown(list(), { key: 'ArrowUp' });
    expect(current()).toBe(buttons[1]);
  });
  test('a run has every covering of the shop beside the one taken, with why not; another is taken with a reason, and given up again', () => {
    const store = station();
    open(/^run primary rail to injector 1/);
    const name = 'primary rail to injector 1';
    const rows = () =>
      within(within(view(name)).getByRole('table'))
        .getAllByRole('row')
        .slice(1);
    // tape for ends and clear sleeves for labels are not for runs
    const kinds = new Set(CATALOGUE.coverings.flatMap(({ kind }) => (kind === 'pvc-tape' || kind === 'clear-shrink' ? [] : [kind])));
    expect(rows()).toHaveLength(kinds.size);
    expect(rows().filter((row) => within(row).queryByText('taken'))).toHaveLength(1);
    fireEvent.click(within(view(name)).getByRole('button', { name: 'Take braid' }));
    expect(asked.mock.calls[0]![0]).toBe('Why braid on primary rail to injector 1?');
    answer('it chafes');
    expect(segment(store, 's-inj1').coveringPin).toEqual({ kind: 'braid', itemId: null, reason: 'it chafes' });
    expect(within(rows().find((row) => within(row).queryByText('taken'))!).getByRole('rowheader').textContent).toMatch(/^braid/);
    press('Let it be computed');
    expect(segment(store, 's-inj1').coveringPin).toBeNull();
  });
  test('boots and transitions are chosen for the loom, and what they come to is summed', () => {
    const store = station();
    expect(screen.getByTestId('dress-sums').textContent).toContain('0 moulded parts, 0 pieces');
    choose('How ends and breakouts of this loom are finished', 'boots on ends, transitions on breakouts');
    expect(loomOf(store).dressing).toBe('boots');
    expect(screen.getByTestId('dress-sums').textContent).not.toContain('0 pieces');
    choose('How ends and breakouts of this loom are finished', 'as the shop: sleeves meet, nothing over the joints');
    expect(loomOf(store).dressing).toBeNull();
  });
  test('an end shows its pieces in the order they slide on, and its boot can be chosen or left out with a reason', () => {
    const store = station(booted);
    const anchor = Object.entries(loomOf(store).ends).find(([, { nodeId }]) => nodeId === 'datum')!;
    open(new RegExp(`^end ${anchor[1].name}`));
    const pick = `What closes ${anchor[1].name}`;
    expect(
      within(view(anchor[1].name))
        .getByRole('img', { name: /cut lengthwise/ })
        .querySelector('svg'),
    ).not.toBeNull();
    expect(listOptions(pick)).toEqual(
      expect.arrayContaining(['computed', 'nothing', CATALOGUE.boots[0]!.name, CATALOGUE.coverings.find(isShrink)!.name]),
    );
    choose(pick, 'nothing');
    answer('it stays open');
    expect(loomOf(store).ends[anchor[0]]!.bootPin).toEqual({ itemId: null, reason: 'it stays open' });
    expect(within(view(anchor[1].name)).queryByRole('table')).toBeNull();
    choose(pick, 'computed');
    expect(loomOf(store).ends[anchor[0]]!.bootPin).toBeNull();
    expect(within(view(anchor[1].name)).getAllByRole('row').length).toBeGreaterThan(1);
  });
  test('a breakout shows what goes over it; left out by hand it is open', () => {
    const store = station(booted);
    const at = within(list()).getAllByRole('button', { name: /^breakout / })[0]!;
    const name = at.querySelector('[title]')!.getAttribute('title')!;
    fireEvent.click(at);
    expect(within(view(name)).getAllByRole('row').length).toBeGreaterThan(1);
    choose(`What goes over ${name}`, 'nothing');
    answer('taped');
    const [, node] = Object.entries(loomOf(store).nodes).find(([, one]) => one.name === name)!;
    expect(node.transitionPin).toEqual({ itemId: null, reason: 'taped' });
    expect(within(list()).getByRole('button', { name: new RegExp(`^breakout ${name} ?open$`) })).toBeTruthy();
  });
  test('what has no room to stand back is said at the end, in the list and in the sum', () => {
    station((job) => {
      booted(job);
      const loom = job.looms.inlet!;
      for (const id of Object.keys(loom.segments))
        loom.segments[id] = { ...loom.segments[id]!, lengthMm: 30, secondLengthMm: null, fittedMm: null };
    });
    expect(screen.getByText(/^no room to stand back at \d+ places?$/)).toBeTruthy();
    const wrong = within(list()).getAllByRole('button', { name: /^end injector/ })[0]!;
    fireEvent.click(wrong);
    expect(screen.getByRole('figure', { name: 'Room to stand back' }).textContent).toContain('no room to stand back');
  });
  test('a loom without wires says what will stand here', () => {
    station((job) => {
      job.looms.inlet!.circuits = {};
      job.looms.inlet!.segments = {};
      job.looms.inlet!.ends = {};
      job.looms.inlet!.nodes = { datum: job.looms.inlet!.nodes.datum! };
    });
    expect(screen.getByText(/^Nothing to cover yet/)).toBeTruthy();
  });
});
