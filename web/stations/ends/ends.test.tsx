import { fireEvent, screen, within } from '@testing-library/react';
import { CATALOGUE, checkJob, createLookup, type Job } from 'wattograph-core';
import { createInlet, createSkerry } from 'wattograph-core/demo';
import { choose, listOptions, press, type, write } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { CursorProvider } from '../../ui/cursor';
import { EndsStation } from './EndsStation';

const address = { value: '' };
jest.mock('next/navigation', () => ({
  useSearchParams: () => new URLSearchParams(address.value),
  useRouter: () => ({ push: jest.fn() }),
}));

const open = (at: string, change: (job: Job) => void = () => undefined, start = createInlet()) => {
  change(start);
  address.value = at;
  const store = new FakeStore(start);
  renderWith(
    store,
    <CursorProvider>
      <EndsStation />
    </CursorProvider>,
  );
  return store;
};
const end = (store: FakeStore, id: string) => store.job.looms.inlet!.ends[id]!;
const isGood = (store: FakeStore) => expect(checkJob(store.job, createLookup(CATALOGUE))).toMatchObject({ ok: true });

describe('an end', () => {
  test('is listed from the datum outwards, with a count of what stands against it', () => {
    open('');
    const ends = within(screen.getByRole('navigation', { name: 'Ends' })).getAllByRole('button');
    expect(ends[0]!.textContent).toBe('inlet bulkhead B1');
    expect(ends.find(({ textContent }) => textContent!.startsWith('charge pressure'))!.textContent).toBe('charge pressure▲2');
    expect(ends.find(({ textContent }) => textContent!.startsWith('injector 1'))!.textContent).toBe('injector 1');
  });
  test('shows its face from the side of the wires first, and from the other on demand', () => {
    open('end=thr');
    const face = screen.getByRole('region', { name: 'Face of throttle' });
    expect(within(face).getByText('WIRE SIDE')).toBeTruthy();
    press('flip to mating side');
    expect(within(face).getByText('MATING SIDE')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /^plenum ground stud/ }));
    expect(screen.getByText(/Rings on a stud of M\d: no face to show/)).toBeTruthy();
  });
  test('what goes into a cavity: wire, contact, strip length, tool and pull-off force; and what nothing serves', () => {
    open('end=chg');
    const rows = screen.getAllByRole('row').map(({ textContent }) => textContent!);
    const signal = rows.find((words) => words.includes('charge pressure signal'))!;
    expect(signal).toMatch(/^3N-218/);
    expect(signal).toMatch(/AWG 22/);
    expect(signal).toMatch(/40$/);
    expect(rows.some((words) => /^2.*: not connected$/.test(words))).toBe(true);
  });
  test('one wire of it may have a loop of its own, for a test clamp', () => {
    const store = open('end=chg');
    write('Loop of the wire in cavity 3', '60');
    expect(end(store, 'chg').wireLoops).toEqual({ '3': 60 });
    write('Loop of the wire in cavity 3', '');
    expect(end(store, 'chg').wireLoops).toEqual({});
    expect(store.labels).toEqual(Array(2).fill('loop at charge pressure, cavity 3'));
    isGood(store);
  });
  test('gets labels of warning, in their own order whatever is pressed first', () => {
    const store = open('end=chg');
    fireEvent.click(screen.getByRole('checkbox', { name: 'KEEP OPEN' }));
    fireEvent.click(screen.getByRole('checkbox', { name: 'LIVE WHEN OPEN' }));
    expect(end(store, 'chg').cautions).toEqual(['live', 'open']);
    fireEvent.click(screen.getByRole('checkbox', { name: 'KEEP OPEN' }));
    expect(end(store, 'chg').cautions).toEqual(['live']);
    isGood(store);
  });
  test('is renamed with its node, not to nothing', () => {
    const store = open('end=map');
    write('Name of the end', '  boost ');
    write('Name of the end', '   ');
    expect([end(store, 'map').name, store.job.looms.inlet!.nodes['n-map']!.name]).toEqual(['boost', 'boost']);
    expect(store.labels).toEqual(['rename manifold pressure']);
    isGood(store);
  });
  test('may become another housing and have a key; its key goes with the housing', () => {
    const store = open('end=map');
    choose('Key', 'black');
    expect(end(store, 'map').key).toBe('black');
    choose('Family', CATALOGUE.families['tarn-4']!.name);
    expect(end(store, 'map')).toMatchObject({ familyId: 'tarn-4', kind: 'connector', key: null });
    expect(listOptions('Family')).not.toContain('bare tails');
    isGood(store);
  });
  test('its service loop and re-terminations lengthen its wires; none is none', () => {
    const store = open('end=map');
    const cutOf = () =>
      store
        .get()
        .result!.looms[0]!.wires.filter(({ number }) => number === 'N-217')
        .map(({ cutMm }) => cutMm)[0]!;
    const before = cutOf();
    write('Service loop', '40');
    expect(cutOf()).toBe(before + 40);
    choose('Re-terminations', '0');
    expect(end(store, 'map').reterminations).toBe(0);
    expect(cutOf()).toBeLessThan(before + 40);
    choose('Re-terminations', 'as the shop standard');
    write('Service loop', '');
    expect([end(store, 'map').reterminations, end(store, 'map').serviceLoopMm, cutOf()]).toEqual([null, 0, before]);
  });
  test('may turn by an angle at a radius: kept when both are given, gone with the angle', () => {
    const store = open('end=map');
    write('Turn angle', '90');
    expect(end(store, 'map').clocking).toBeNull();
    write('Turn radius', '20');
    expect(end(store, 'map').clocking).toEqual({ angleDeg: 90, radiusMm: 20 });
    write('Turn angle', '');
    expect(end(store, 'map').clocking).toBeNull();
  });
  test('a need is added, changed, shown with its evidence, and forgotten', () => {
    const store = open('end=knk');
    choose('Add a need', '1');
    expect(end(store, 'knk').pins['1']).toMatchObject({ kind: 'signal', function: 'signal' });
    choose('Need at cavity 1', 'supply');
    expect(end(store, 'knk').pins['1']).toMatchObject({ kind: 'supply', function: 'supply' });
    choose('Evidence at cavity 1', 'measured');
    expect(end(store, 'knk').pins['1']!.evidence).toBe('measured');
    choose('Evidence at cavity 1', 'guessed');
    // of what has no figures only the cavity can be wrong; what else is, is said
    expect(end(store, 'knk').pins['1']).toMatchObject({ evidence: 'guessed', doubts: ['place'] });
    const guessed = within(screen.getByRole('group', { name: 'Guessed: Evidence at cavity 1' }));
    fireEvent.click(guessed.getByRole('button', { name: 'current' }));
    expect(end(store, 'knk').pins['1']!.doubts).toEqual(['place', 'current']);
    fireEvent.click(guessed.getByRole('button', { name: 'cavity' }));
    expect(end(store, 'knk').pins['1']!.doubts).toEqual(['current']);
    choose('Evidence at cavity 1', 'read');
    expect(end(store, 'knk').pins['1']!.doubts).toEqual([]);
    isGood(store);
    press('Forget the need at cavity 1');
    expect(end(store, 'knk').pins).toEqual({});
  });
  test('is removed with its leg, its pins, its device and its inline parts', () => {
    const store = open('loom=chassis&end=m-logger', () => undefined, createSkerry());
    const part = Object.entries(store.job.parts).find(([, { at }]) => at.endId === 'm-logger')![0];
    press('remove this end');
    const { looms, parts, devices } = store.job;
    expect(looms.chassis!.ends['m-logger']).toBeUndefined();
    expect(parts[part]).toBeUndefined();
    expect(Object.values(devices).filter(({ at }) => at?.endId === 'm-logger')).toEqual([]);
    expect(
      Object.values(looms.chassis!.circuits)
        .flatMap(({ terminations }) => terminations)
        .filter(({ endId }) => endId === 'm-logger'),
    ).toEqual([]);
    expect(store.labels).toEqual(['remove logger']);
    isGood(store);
  });
  test('an address that names none shows the first', () => {
    open('end=nothing');
    expect(screen.getByRole('heading', { name: 'inlet bulkhead B1' })).toBeTruthy();
  });
});

describe('a family of her own', () => {
  const openDialog = () => {
    const store = open('');
    press('New family');
    return store;
  };
  const isDisabled = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep family' }).disabled;
  const numbers = (values: Record<string, string>) => {
    for (const [label, value] of Object.entries(values)) type(label, value);
  };
  const WHOLE = { 'Pitch, mm': '4.5', 'Entry depth, mm': '14', 'Passes a hole of, mm': '22', 'Mass, g': '6' };
  test('is kept when everything that lengths and holes need is known', () => {
    const store = openDialog();
    type('Name', 'Brack own');
    type('How many in each', '3 4, 3');
    choose('Cavities lie in', 'rows, top first');
    const contact = CATALOGUE.contacts.find(({ cavitySize }) => cavitySize === CATALOGUE.families['tarn-2']!.cavitySize)!;
    choose('Contacts', contact.name.replace(/, fine$/, ''));
    choose('Seating', 'pull-to-seat');
    expect(isDisabled()).toBe(true);
    numbers({ ...WHOLE, 'Rear, mm': '17.5' });
    fireEvent.click(screen.getByLabelText('Sealed'));
    press('Keep family');
    const [made] = Object.values(store.job.families).filter(({ name }) => name === 'Brack own');
    expect(made).toEqual({
      name: 'Brack own',
      arrangement: { kind: 'rows', rows: [3, 4, 3] },
      cavityNames: null,
      cavitySize: contact.cavitySize,
      otherSizes: {},
      gender: null,
      mateId: null,
      pitchMm: 4.5,
      envelopeMm: 22,
      entryDepthMm: 14,
      seating: 'pull-to-seat',
      sealed: false,
      secondaryLock: false,
      keys: [],
      massG: 6,
      adapterMm: 17.5,
    });
    isGood(store);
  });
  test('its cavities are named as they are printed; a name too few or twice is told', () => {
    const store = openDialog();
    type('Name', 'Brack relay base');
    type('How many in each', '2, 2');
    choose('Contacts', 'Brack 6 mm blade');
    numbers(WHOLE);
    for (const [words, problem] of [
      ['30, 85, 86', 'expected 4 names, one for each cavity, got 3'],
      ['30, 85, 86, 86', 'expected a name of its own, got "86", which cavity 3 has'],
      ['Z to A', 'expected a range of letters or of numbers such as A to H or A1 to A8, got "Z to A"'],
    ] as const) {
      type('Marked on its cavities', words);
      expect([screen.queryByText(problem) !== null, isDisabled()]).toEqual([true, true]);
    }
    type('Marked on its cavities', '30, 85 to 87');
    press('Keep family');
    const [made] = Object.values(store.job.families).filter(({ name }) => name === 'Brack relay base');
    expect(made!.cavityNames).toEqual(['30', '85', '86', '87']);
    isGood(store);
  });
  test.each(['0', '3, x', '41', '1,1,1,1,1,1,1,1,1', ''])('counts of %p are none', (counts) => {
    openDialog();
    type('How many in each', counts);
    expect(screen.getByText('whole numbers from 1 to 40')).toBeTruthy();
    expect(isDisabled()).toBe(true);
  });
});
