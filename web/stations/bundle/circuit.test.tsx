import { act, fireEvent, screen } from '@testing-library/react';
import { CATALOGUE, createCircuit, type Job } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { choose, listOptions, press, type } from '../../testing/act';
import { openLoom, type FakeStore } from '../../testing/fakeStore';
import { CircuitsTable } from './CircuitsTable';

const open = (change?: (job: Job) => void) => openLoom((planned) => <CircuitsTable planned={planned} />, change);
const circuits = (store: FakeStore) => store.job.looms.inlet!.circuits;
const isKeepable = () => !screen.getByRole<HTMLButtonElement>('button', { name: 'Keep circuit' }).disabled;

const openChange = (number: string, change?: (job: Job) => void) => {
  const store = open(change);
  press(`Change circuit ${number}`);
  return store;
};
const keep = () => press('Keep circuit');

describe('a circuit', () => {
  test('of its own gets the next number, its pins in order, and is kept only whole', () => {
    const store = open();
    press('Add circuit');
    expect(screen.getByLabelText('Number')).toHaveProperty('value', '231');
    expect(isKeepable()).toBe(false);
    type('Name', ' sump level ');
    choose('Kind', 'signal');
    // the first free cavity of the plug, and the first of the two of a temperature sensor that serve nothing
    choose('Add a pin at', 'inlet bulkhead B1');
    choose('Colour', 'violet');
    choose('Stripe', 'white');
    type('Current, A', '0.02');
    keep();
    expect(store.labels).toEqual(['add circuit 231']);
    expect(Object.values(circuits(store)).find(({ number }) => number === '231')).toMatchObject({
      name: 'sump level',
      kind: 'signal',
      terminations: [{ endId: 'B1', cavity: '30' }],
      colour: { base: 'violet', stripe: 'white', bands: [] },
      currentA: 0.02,
      sizePin: null,
      cable: null,
    });
  });
  test('has bands as they are typed, from the end on; what is no colour is not kept', () => {
    const store = openChange('217');
    type('Bands', 'red, teal');
    expect(screen.getByText(/^expected up to 3 of black, brown/)).toBeTruthy();
    expect(isKeepable()).toBe(false);
    type('Bands', 'red blue green yellow');
    expect(isKeepable()).toBe(false);
    type('Bands', 'red, blue');
    keep();
    expect(circuits(store).c217!.colour.bands).toEqual(['red', 'blue']);
  });
  test('has a reason for its colour, or none', () => {
    const store = openChange('217');
    type('Why this colour', 'as the old loom');
    keep();
    expect(circuits(store).c217!.colourPin).toEqual({ reason: 'as the old loom' });
    press('Change circuit 217');
    expect(screen.getByLabelText('Why this colour')).toHaveProperty('value', 'as the old loom');
    type('Why this colour', ' ');
    keep();
    expect(circuits(store).c217!.colourPin).toBeNull();
  });
  test('is left as it was where nothing is kept', () => {
    const store = openChange('217');
    type('Name', 'other');
    press('Leave it');
    expect([store.labels, circuits(store).c217!.name]).toEqual([[], 'manifold pressure signal']);
  });
  test('has a number of its own, of letters and digits', () => {
    openChange('217');
    type('Number', '218');
    expect(screen.getByText('circuit charge pressure signal has it')).toBeTruthy();
    expect(isKeepable()).toBe(false);
    type('Number', '21-7');
    expect(isKeepable()).toBe(false);
    type('Number', '299a');
    expect(screen.getByLabelText('Number')).toHaveProperty('value', '299A');
    expect(isKeepable()).toBe(true);
  });
  test('takes no cavity that another has; its source may be another pin, and a pin may go', () => {
    const store = openChange('216');
    expect(listOptions('Cavity at inlet bulkhead B1')).toEqual(['16', '30', '31', '32', '33', '34', '35']);
    expect(listOptions('Add a pin at')).toContain('charge pressure');
    expect(listOptions('Add a pin at')).not.toContain('injector 1');
    press('Take fuel pressure and temp out');
    choose('Add a pin at', 'charge pressure');
    fireEvent.click(screen.getAllByRole('button', { name: 'make it the source' })[0]!);
    keep();
    expect(circuits(store).c216!.terminations).toEqual([
      { endId: 'map', cavity: '2' },
      { endId: 'B1', cavity: '16' },
      { endId: 'air', cavity: '2' },
      { endId: 'chg', cavity: '2' },
    ]);
  });
  test('of a chosen size says why; another kind of wire lets its size be computed again', () => {
    const store = openChange('224');
    choose('Size', '16');
    expect(isKeepable()).toBe(false);
    expect(screen.getByText('a pinned size needs a reason')).toBeTruthy();
    type(/^Why this size/, 'as the maker asks');
    keep();
    expect(circuits(store).c224!.sizePin).toEqual({ size: '16', reason: 'as the maker asks' });
    press('Change circuit 224');
    choose('Wire', 'thin-wall, mm², 125 °C');
    keep();
    expect(circuits(store).c224).toMatchObject({ wireTable: 'thinwall', sizePin: null });
  });
  test('lies twisted with others by a name, at a pitch that can be twisted', () => {
    const store = openChange('217');
    expect(screen.getByLabelText('Pitch, mm')).toHaveProperty('disabled', true);
    type('Twisted with', 'map pair');
    type('Pitch, mm', '2');
    type('Pitch, mm', '18');
    keep();
    expect(circuits(store).c217!.twist).toEqual({ groupId: 'mappair', pitchMm: 18 });
    press('Change circuit 217');
    type('Twisted with', '');
    keep();
    expect(circuits(store).c217!.twist).toBeNull();
  });
  test('in a cable brings the whole cable along when the cable becomes another', () => {
    const cable = { groupId: 'knock', itemId: 'etfe-2x22s' };
    const store = openChange('222', (job) => {
      job.looms.inlet!.circuits.c222!.cable = { ...cable };
      job.looms.inlet!.circuits.c223!.cable = { ...cable };
    });
    expect(screen.getAllByLabelText('Size').find(({ tagName }) => tagName === 'INPUT')).toHaveProperty('disabled', true);
    const [other] = listOptions('Cable').filter((words) => words !== CATALOGUE.cables.find(({ id }) => id === cable.itemId)!.name);
    choose('Cable', other!);
    keep();
    const itemId = CATALOGUE.cables.find(({ name }) => name === other)!.id;
    expect([circuits(store).c222!.cable, circuits(store).c223!.cable]).toEqual([
      { groupId: 'knock', itemId },
      { groupId: 'knock', itemId },
    ]);
  });
  test('that joins a cable by its name takes the kind of that cable', () => {
    const { id } = CATALOGUE.cables[2]!;
    const store = openChange('221', (job) => {
      job.looms.inlet!.circuits.c222!.cable = { groupId: 'knock', itemId: id };
    });
    type('In cable', 'knock');
    keep();
    expect(circuits(store).c221!.cable).toEqual({ groupId: 'knock', itemId: id });
  });
  test('is removed with its number in the history', () => {
    const store = open();
    press('Remove circuit 230');
    expect([store.labels, circuits(store).c230]).toEqual([['remove circuit 230'], undefined]);
    expect(screen.queryByRole('button', { name: 'Change circuit 230' })).toBeNull();
  });
  test('the list says how more than two pins are joined, and what is not known', () => {
    open((job) => {
      job.looms.inlet!.circuits.c216!.join = 'chain';
      job.looms.inlet!.circuits.c217!.currentA = null;
      job.looms.inlet!.circuits.c217!.terminations = [];
    });
    const row = (number: string) => screen.getByRole('button', { name: `Change circuit ${number}` }).closest('tr')!.textContent;
    expect(row('216')).toContain('inlet bulkhead B1 · 16, manifold pressure · 2, fuel pressure and temp · 2, air temp · 2chain');
    expect(row('217')).toContain('none yet');
    expect(row('217')).toContain('?');
    expect(row('209')).toContain('twisted motor, ');
  });
  test('cannot be added to a loom without ends', () => {
    open((job) => {
      const loom = job.looms.inlet!;
      job.looms.inlet = { ...loom, ends: {}, circuits: {}, segments: {}, nodes: { datum: loom.nodes.datum! }, splicePins: {} };
      job.devices = {};
      job.openItems = {};
      job.accepted = {};
    });
    expect(screen.getByRole('button', { name: 'Add circuit' })).toHaveProperty('disabled', true);
    expect(screen.getByText(/^No circuits yet/)).toBeTruthy();
  });
});

describe('a dialog that is opened while the last change is still being planned', () => {
  /** The table as it stood before an edit, as a page shows it until the plan of that edit has come. */
  const openBehind = (change: (job: Job) => void) => {
    let behind: PlannedLoom | null = null;
    const store = openLoom((planned) => <CircuitsTable planned={(behind ??= planned)} />);
    act(() => store.edit({ label: 'meanwhile', apply: change }));
    return store;
  };
  test('offers no cavity that was given meanwhile, gives the next number, and takes no place of anything', () => {
    const store = openBehind(({ looms }) => {
      looms.inlet!.circuits.c29 = createCircuit('231', 'meanwhile', [{ endId: 'B1', cavity: '30' }], { wireTable: 'etfe' });
    });
    press('Add circuit');
    expect(screen.getByLabelText('Number')).toHaveProperty('value', '232');
    type('Name', 'sump level');
    choose('Add a pin at', 'inlet bulkhead B1');
    keep();
    const kept = Object.values(circuits(store));
    expect(kept.find(({ name }) => name === 'meanwhile')!.terminations).toEqual([{ endId: 'B1', cavity: '30' }]);
    expect(kept.find(({ name }) => name === 'sump level')).toMatchObject({ number: '232', terminations: [{ endId: 'B1', cavity: '31' }] });
  });
});
