import { act, fireEvent, screen, within } from '@testing-library/react';
import { findStandard, isLookAlike, proposeColours, proposeScheme, toColourWords, CATALOGUE, type Job } from 'wattograph-core';
import { proposeLooks } from '../../client/colourer';
import { choose, press, write } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import type { ColoursAnswer, ColoursQuestion } from '../../workers/colours.worker';
import { ColoursDialog } from './ColoursDialog';

// answered at once, by what the worker runs
jest.mock('../../client/colourer', () => ({ proposeLooks: jest.fn() }));
const proposed = jest.mocked(proposeLooks);
const answer = ({ job, plan, shop, way }: ColoursQuestion): ColoursAnswer => {
  const standard = findStandard(job, shop);
  return way === 'least'
    ? { way, proposal: proposeColours(job.looms[plan.loomId]!, plan, standard) }
    : { way, proposal: proposeScheme(job, plan, standard) };
};
const giveUp = jest.fn();
beforeEach(() => {
  giveUp.mockClear();
  proposed.mockImplementation((question, onDone) => {
    onDone(answer(question));
    return giveUp;
  });
});

const onClose = jest.fn();
const open = (change: (job: Job) => void = () => undefined) =>
  openLoom((planned) => <ColoursDialog planned={planned} onClose={onClose} />, change);
beforeEach(() => onClose.mockClear());

test('circuits that are taken for one beside them get another colour, all in one step; looked at again none is left', () => {
  const store = open();
  const rows = within(screen.getByRole('table', { name: 'Circuits in another colour' }))
    .getAllByRole('row')
    .slice(1);
  const before = store.job;
  expect(rows.length).toBeGreaterThan(0);
  press('Take these colours');
  expect(store.labels).toEqual([`other colours for ${rows.length} circuits`]);
  expect(onClose).toHaveBeenCalledTimes(1);
  const standard = findStandard(store.job, CATALOGUE);
  for (const row of rows) {
    const [name, , from, to, like] = within(row)
      .getAllByRole('cell')
      .map(({ textContent }) => textContent!.trim()) as [string, string, string, string, string];
    const [id, circuit] = Object.entries(store.job.looms.inlet!.circuits).find(
      ([, one]) => one.name === name && toColourWords(one.colour) === to,
    )!;
    const was = before.looms.inlet!.circuits[id]!;
    expect(toColourWords(was.colour)).toBe(from);
    // it was taken for what is named, and is not any more
    const other = Object.values(before.looms.inlet!.circuits).find((one) => like.startsWith(`${one.name} (`))!;
    expect(isLookAlike(was.colour, other.colour, standard)).toBe(true);
    expect(isLookAlike(circuit.colour, was.colour, standard)).toBe(false);
  }
});

test('the whole loom by the scheme of the house, in one step: another scheme, another proposal', () => {
  const look = (side: number) => {
    const store = open((job) => (job.brief.departures = { colours: { side, reason: 'to see' } }));
    fireEvent.click(screen.getByRole('radio', { name: /^Whole loom/ }));
    return store;
  };
  const store = look(2);
  expect(screen.getByRole('radio', { name: 'Whole loom, by bands on one colour' })).toBeTruthy();
  expect(screen.getByText(/ reels become 4\. \d+ bands to put on/)).toBeTruthy();
  press('Take these colours');
  const loose = Object.values(store.job.looms.inlet!.circuits).filter(({ cable }) => cable === null);
  expect(new Set(loose.map(({ colour }) => colour.base))).toEqual(new Set(['white']));
  expect(loose.some(({ colour }) => colour.bands.length > 0)).toBe(true);
  expect(store.labels).toHaveLength(1);
});

test('where all are apart there is nothing to take, and it says so', () => {
  open((job) => {
    const { circuits } = job.looms.inlet!;
    for (const id of Object.keys(circuits).slice(2)) delete circuits[id];
    Object.values(circuits).forEach((circuit, at) => (circuit.colour = { base: at === 0 ? 'red' : 'blue', stripe: null, bands: [] }));
  });
  expect(screen.getByText(/^No wire is taken for one beside it/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take these colours' }).disabled).toBe(true);
});

test('more wires than looks: those that stay alike are counted, not hidden', () => {
  open((job) => {
    for (const circuit of Object.values(job.looms.inlet!.circuits)) circuit.cable = null;
    for (const circuit of Object.values(job.looms.inlet!.circuits)) circuit.colour = { base: 'red', stripe: null, bands: [] };
  });
  const words = screen.getByRole('dialog').textContent!;
  expect(words).toMatch(/circuits? in another colour/);
  // 27 looks are apart in stock at the bulkhead of this loom at least: what is over is told
  expect(words.includes('stay alike') || words.includes('no smaller change does')).toBe(true);
});

describe('one circuit by hand', () => {
  const byHand = (change?: (job: Job) => void) => {
    const store = open(change);
    fireEvent.click(screen.getByRole('radio', { name: 'One by hand' }));
    return store;
  };
  const circuit = (store: ReturnType<typeof byHand>, name: string) =>
    Object.values(store.job.looms.inlet!.circuits).find((one) => one.name === name)!;
  // its list bears the same name
  const colour = (words: string) => fireEvent.change(screen.getByRole('combobox', { name: 'Colour' }), { target: { value: words } });
  const pickFirst = (store: ReturnType<typeof byHand>) => {
    const [, loose] = Object.values(store.job.looms.inlet!.circuits).filter(({ cable }) => cable === null);
    choose('Circuit', `${store.job.looms.inlet!.prefix}-${loose!.number} ${loose!.name}`);
    return loose!.name;
  };
  test('gets its colour and why, and a scheme leaves it; what it would be taken for is said before', () => {
    const store = byHand();
    const name = pickFirst(store);
    const beside = Object.values(store.job.looms.inlet!.circuits).find((one) => one.name !== name && one.cable === null)!;
    colour('violet/green (red)');
    expect(screen.getByText(/is taken for none beside it/)).toBeTruthy();
    write('Why (empty: a scheme may change it)', 'as the old loom');
    press('Take this colour');
    expect(store.labels).toEqual([`${name} in violet/green (red): as the old loom`]);
    expect(circuit(store, name)).toMatchObject({ colourPin: { reason: 'as the old loom' } });
    expect(toColourWords(circuit(store, name).colour)).toBe('violet/green (red)');
    expect(onClose).toHaveBeenCalledTimes(1);
    expect(beside.colourPin).toBeNull();
  });
  test('words that are no colour are not taken, and say what is', () => {
    const store = byHand();
    colour('redish');
    expect(screen.getByText('expected colours as in red/black or white (red blue)')).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take this colour' }).disabled).toBe(true);
    expect(store.labels).toEqual([]);
  });
  test('which ones have a reason is listed; let go, the colour stays and the reason goes', () => {
    const store = byHand((job) => {
      const [id] = Object.keys(job.looms.inlet!.circuits).filter((one) => job.looms.inlet!.circuits[one]!.cable === null);
      job.looms.inlet!.circuits[id!]!.colourPin = { reason: 'hers' };
    });
    const list = screen.getByRole('region', { name: 'Colours with a reason' });
    const kept = Object.values(store.job.looms.inlet!.circuits).find(({ colourPin }) => colourPin !== null)!;
    expect(list.textContent).toContain(`${kept.name}: hers`);
    press(`Let ${kept.name} go by the scheme`);
    expect(circuit(store, kept.name)).toMatchObject({ colour: kept.colour, colourPin: null });
    expect(screen.queryByRole('region', { name: 'Colours with a reason' })).toBeNull();
  });
});

describe('while a worker compares', () => {
  const take = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Take these colours' });
  test('it says so and nothing can be taken; another way gives the first up, and a late answer is not shown', () => {
    const waiting: (() => void)[] = [];
    proposed.mockImplementation((question, onDone) => {
      waiting.push(() => onDone(answer(question)));
      return giveUp;
    });
    open();
    expect(screen.getByRole('status').textContent).toMatch(/^Comparing the wires/);
    expect(take().disabled).toBe(true);
    fireEvent.click(screen.getByRole('radio', { name: /^Whole loom/ }));
    expect(giveUp).toHaveBeenCalledTimes(1);
    act(() => waiting[0]!());
    expect(screen.getByRole('status').textContent).toMatch(/^Comparing the wires/);
    act(() => waiting[1]!());
    expect(screen.queryByRole('status')).toBeNull();
    expect(screen.getByText('is for')).toBeTruthy();
  });
  test('a worker that stops is told', () => {
    proposed.mockImplementation((_, onDone) => {
      onDone({ failure: 'out of memory' });
      return giveUp;
    });
    open();
    expect(screen.getByText('Colours could not be compared: out of memory.')).toBeTruthy();
  });
});
