import { fireEvent, screen, within } from '@testing-library/react';
import { CATALOGUE, measureEvent, plan, type Job, type LoadEvent } from 'wattograph-core';
import { createCleanSkerry, createInlet, createSkerry } from 'wattograph-core/demo';
import { choose } from '../../testing/act';
import { RETURN_WORDS } from '../../ui/returnWords';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { PowerStation } from './PowerStation';

jest.mock('next/navigation', () => ({
  usePathname: () => '/x',
  useRouter: () => ({ push: jest.fn() }),
  useSearchParams: () => new URLSearchParams('loom=chassis'),
}));
// a picture of a chart is looked at in a browser; what it is made of is tested in core
jest.mock('../../client/eventRunner', () => ({
  runEvent: (event: LoadEvent, onAnswer: (answer: unknown) => void) => {
    const timer = setTimeout(() => {
      onAnswer({ done: 1 });
      onAnswer({ heat: measureEvent(event), ms: 3 });
    }, 0);
    return () => clearTimeout(timer);
  },
}));
jest.mock('../../ui/Chart', () => ({ Chart: ({ words }: { words: string }) => <div role="img" aria-label={words} /> }));

const open = (job: Job) => {
  const store = new FakeStore(job);
  renderWith(store, <PowerStation />);
  return store;
};
const tree = () => screen.getByRole('region', { name: 'Power tree' });
const type = (label: string, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
  fireEvent.blur(screen.getByLabelText(label));
};
// found by its words: computing the name of every button of a tree of a vehicle takes seconds
const load = (name: string): HTMLElement => within(tree()).getByText(name, { selector: 'button' });
const row = (name: string): HTMLTableRowElement => load(name).closest('tr')!;

test('from the battery through fuse, switch and channel to the load', () => {
  open(createCleanSkerry());
  const words = within(tree())
    .getAllByRole('row')
    .map((one) => (one as HTMLTableRowElement).cells[0]!.textContent!.trim());
  const order = ['battery, 12.5 V', 'starter motor main feed', 'main fuse', 'kill switch main pole', 'fuel pump 12 V supply'].map((one) =>
    words.indexOf(one),
  );
  expect(order).toEqual([...order].sort((a, b) => a - b));
  expect(order).not.toContain(-1);
});

test('a pump that draws more drops more, is protected higher, and its ground follows', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(load('fuel pump 12 V supply'));
  const before = Number(row('fuel pump 12 V supply').querySelector('[role=meter]')!.getAttribute('aria-valuenow'));
  expect(screen.getByText(/channel 4: 10 A, computed|channel \d+: 10 A, computed/)).toBeTruthy();
  type('Current while on', '11');
  const { pins } = store.job.looms.chassis!.ends['m-fuel-pump']!;
  // its ground repeats nothing: what the supply draws comes home by it
  expect([pins['1']!.currentA, pins['2']!.currentA]).toEqual([11, null]);
  expect(screen.getByText(/channel \d+: 13 A, computed/)).toBeTruthy();
  expect(Number(row('fuel pump 12 V supply').querySelector('[role=meter]')!.getAttribute('aria-valuenow'))).not.toBe(before);
  for (const bad of ['-1', 'much', '', '1001']) type('Current while on', bad);
  expect(pins['1']!.currentA).toBe(11);
});

test('modes: what is off draws nothing, and a share that is not given counts as fully on', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(load('fuel pump 12 V supply'));
  fireEvent.click(screen.getByRole('button', { name: 'cranking' }));
  expect(row('fuel pump 12 V supply').cells[1]!.textContent).toBe('0.000');
  type('On in cranking, percent', '');
  expect(store.job.devices.fuelpump!.duty).toEqual({ idle: 1 });
  expect(row('fuel pump 12 V supply').cells[1]!.textContent).toBe('9.00');
  type('On in cranking, percent', '25');
  expect(store.job.devices.fuelpump!.duty.crank).toBe(0.25);
  // while it is on it draws all of it, for however short a share
  expect(row('fuel pump 12 V supply').cells[1]!.textContent).toBe('9.00');
});

test('how a load returns and how fast it turns act on its way and on the heat of its run', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(load('radiator fan 12 V supply'));
  const fan = () => plan(store.job, CATALOGUE).power.loads.find(({ name }) => name === 'radiator fan 12 V supply')!;
  expect(fan()).toMatchObject({ returns: true, returnBy: 'pin' });
  const idle = plan(store.job, CATALOGUE).power.modeIds.indexOf('idle');
  // on for 40 % of the time at idle: a long cycle is felt whole, a short one by its root
  expect(fan().heatA[idle]).toBeCloseTo(14, 9);
  type('Cycle', '5');
  expect(store.job.looms.chassis!.ends['m-radiator-fan']!.pins['1']!.cycleS).toBe(5);
  expect(fan().heatA[idle]).toBeCloseTo(14 * Math.sqrt(0.4), 9);
  expect(fan().onA[idle]).toBeCloseTo(14, 9);
  choose('Return', RETURN_WORDS['chassis-case']);
  expect(
    fan()
      .steps.filter(({ way }) => way === 'back')
      .map(({ words }) => words),
  ).toContain('by its case through the chassis');
  fireEvent.click(screen.getByRole('tab', { name: 'Source, modes' }));
  type('Chassis resistance', '');
  expect(store.job.source.chassisMilliohm).toBeNull();
  expect(screen.getByText('composite tub: every return needs a wire')).toBeTruthy();
  expect(fan().returns).toBe(false);
});

test('a ground stud has a way of its own through the chassis, or none', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(screen.getByRole('tab', { name: 'Source, modes' }));
  const loads = () => plan(store.job, CATALOGUE).power.loads;
  const through = () =>
    loads().filter(({ steps }) => steps.some(({ words, milliohm }) => words === 'through the chassis' && milliohm === 7));
  expect(through()).toEqual([]);
  const names = within(screen.getByRole('table', { name: 'Ground studs' }))
    .getAllByRole('row')
    .map((one) => (one as HTMLTableRowElement).cells[0]!.textContent!);
  expect(names.length).toBeGreaterThan(1);
  for (const name of names) type(`Chassis resistance at ${name}`, '7');
  expect(through().length).toBeGreaterThan(0);
  const before = loads().filter(({ returns }) => !returns).length;
  for (const name of names) fireEvent.click(screen.getByLabelText(`${name} is on a composite tub`));
  expect(loads().filter(({ returns }) => !returns).length).toBeGreaterThan(before);
});

test('the fuse over its wire and the feed over its budget have fixes that mend them', () => {
  const store = open(createSkerry());
  for (let fix = 0; fix < 2 && within(tree()).queryAllByText(/PO2|PO4/).length; fix += 1)
    fireEvent.click(within(tree()).getAllByRole('button', { name: 'Let the size be computed' })[0]!);
  expect(within(tree()).queryByText(/PO2|PO4/)).toBeNull();
  expect(store.labels.length).toBeGreaterThan(0);
});

test('a rating is pinned with a reason only, and let go again', async () => {
  const store = open(createSkerry());
  fireEvent.click(load('Sluice 24 feed'));
  expect(screen.getByText('main fuse: 150 A, pinned')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'let it be computed' }));
  expect(store.job.devices.fuse!.ratings).toEqual({});
});

test('source and modes are figures of the job', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(screen.getByRole('tab', { name: 'Source, modes' }));
  type('Source voltage', '13,8');
  type('Generator current', '20');
  expect(store.job.source).toMatchObject({ volts: 13.8, continuousA: 20 });
  expect(within(tree()).getAllByText(/the generator gives 20 A/).length).toBeGreaterThan(0);
  type('Generator current', '');
  expect(store.job.source.continuousA).toBeNull();
  type('Name of mode wet', 'rain stage');
  fireEvent.click(screen.getByRole('button', { name: 'Take mode idle out' }));
  const left = Object.keys(createCleanSkerry().modes).filter((id) => id !== 'idle');
  expect(Object.keys(store.job.modes).sort()).toEqual([...left].sort());
  // how its switches stood goes with it
  expect(Object.keys(store.job.devices.kill!.states.main!).sort()).toEqual([...left].sort());
  expect(store.job.modes.wet!.name).toBe('rain stage');
  expect(store.job.devices.fan!.duty).toEqual({ crank: 0, wet: 0.6 });
  fireEvent.click(screen.getByRole('button', { name: 'Add a mode' }));
  expect(Object.keys(store.job.modes)).toHaveLength(left.length + 1);
});

test('heat along the way to an end', () => {
  open(createCleanSkerry());
  fireEvent.click(screen.getByRole('tab', { name: 'Heat along it' }));
  expect(screen.getByRole('img', { name: 'Temperature along the chassis loom, worst mode' })).toBeTruthy();
  expect(screen.getByText(/Warmest on this way: \d+ °C/)).toBeTruthy();
});

test('a job without loads says where they come from', () => {
  const job = createInlet();
  for (const end of Object.values(job.looms.inlet!.ends)) end.pins = {};
  open(job);
  expect(screen.getByText(/No loads yet/)).toBeTruthy();
});

test('an end chosen on the tape narrows the tree to what it draws, or to what a box there feeds', () => {
  open(createCleanSkerry());
  const tape = within(screen.getByRole('group', { name: 'Tape of the chassis loom' }));
  const loads = () =>
    within(tree())
      .getAllByRole('row')
      .flatMap((one) => one.querySelector('button')?.textContent ?? []);
  const all = loads().length;
  fireEvent.click(tape.getByRole('button', { name: /^fuel pump, \d+ mm$/ }));
  expect(loads()).toEqual(['fuel pump 12 V supply']);
  expect(within(tree()).getByText(/Sluice 24 channel \d+/)).toBeTruthy();
  fireEvent.click(tape.getByRole('button', { name: /^module power plug, \d+ mm$/ }));
  expect(loads().length).toBeGreaterThan(3);
  expect(loads().length).toBeLessThan(all);
  fireEvent.click(tape.getByRole('button', { name: /^ground stud left, \d+ mm$/ }));
  expect(within(tree()).getByText('Nothing at ground stud left draws or feeds a current.')).toBeTruthy();
  fireEvent.click(tape.getByRole('button', { name: 'all ends' }));
  expect(loads()).toHaveLength(all);
});

test('in every mode: what flows, what is lost, and how warm it gets', () => {
  open(createCleanSkerry());
  fireEvent.click(load('radiator fan 12 V supply'));
  const lines = within(screen.getByRole('table', { name: 'In every mode' }))
    .getAllByRole('row')
    .map((one) => one.textContent);
  expect(lines).toHaveLength(1 + Object.keys(createCleanSkerry().modes).length);
  expect(lines.some((words) => /^cranking.*off$/.test(words))).toBe(true);
  const percent = (words: string) => Number(/mV, (\d+) %/.exec(words)?.[1] ?? 0);
  const most = Math.max(...lines.map((words) => percent(words ?? '')));
  expect(most).toBeGreaterThan(0);
  expect(most).toBeLessThanOrEqual(100);
  fireEvent.click(screen.getByRole('button', { name: 'cranking' }));
  expect(row('radiator fan 12 V supply').textContent).toContain('off in this mode');
  fireEvent.click(screen.getByRole('tab', { name: 'Heat along it' }));
  expect(screen.getByRole('img', { name: 'Temperature along the chassis loom, cranking' })).toBeTruthy();
  const cranking = Number(/Warmest on this way: (\d+) °C/.exec(screen.getByRole('tabpanel').textContent)![1]);
  fireEvent.click(screen.getByRole('button', { name: 'worst mode' }));
  expect(Number(/Warmest on this way: (\d+) °C/.exec(screen.getByRole('tabpanel').textContent)![1])).toBeGreaterThanOrEqual(cranking);
});

test('a longer run drops more or takes a thicker wire', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(load('fuel pump 12 V supply'));
  const ohms = () =>
    within(screen.getByRole('table', { name: 'Way out and back' }))
      .getAllByRole('row')
      .reduce((sum, one) => sum + Number(/([\d.]+) mΩ/.exec(one.textContent)![1]), 0);
  const before = ohms();
  type('Length of the last run', '2600');
  expect(store.labels).toEqual(['run to fuel pump 12 V supply 2600 mm']);
  expect(store.job.looms.chassis!.segments['r-fuel-pump']!.lengthMm).toBe(2600);
  expect(ohms()).not.toBe(before);
  for (const bad of ['0', '20001', 'far']) type('Length of the last run', bad);
  expect(store.labels).toHaveLength(1);
});

describe('in seconds', () => {
  const openEvent = (job: Job, name: string) => {
    const store = open(job);
    fireEvent.click(load(name));
    fireEvent.click(screen.getByRole('tab', { name: 'In seconds' }));
    return store;
  };
  const offered = () =>
    within(screen.getByRole('group', { name: 'What happens' }))
      .getAllByRole('button')
      .map((one) => one.textContent);

  test('a fan that is stuck: what it draws, when its channel opens, what its wire comes to', async () => {
    openEvent(createCleanSkerry(), 'radiator fan 12 V supply');
    expect(offered()).toEqual(['switched on', 'stuck', 'shorted at its pin']);
    fireEvent.click(screen.getByRole('button', { name: 'stuck' }));
    expect(await screen.findByText(/opens after 500 ms,/)).toBeTruthy();
    expect(screen.getByRole('img', { name: /Temperature of the worst stretch/ })).toBeTruthy();
    expect(screen.getByText(/^Worst from /).textContent).toMatch(/AWG \d+.*°C after/);
  });
  test('only the starter cranks, for as long as is said, and what is computed can be stopped', async () => {
    openEvent(createCleanSkerry(), 'starter motor main feed');
    fireEvent.click(within(screen.getByRole('group', { name: 'What happens' })).getByRole('button', { name: 'cranking' }));
    fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(screen.getByText('Stopped.')).toBeTruthy();
    type('Cranking time', '12');
    expect(await screen.findByText(/^Worst from /)).toBeTruthy();
    for (const bad of ['0', '61', 'long']) type('Cranking time', bad);
    expect(screen.getByText(/^Worst from /).textContent).toMatch(/after 1[0-9] s/);
  });
  test('what is not given is asked for', () => {
    const job = structuredClone(createCleanSkerry());
    job.looms.chassis!.ends['m-fuel-pump']!.pins['1']!.inrushA = null;
    openEvent(job, 'fuel pump 12 V supply');
    fireEvent.click(screen.getByRole('button', { name: 'switched on' }));
    expect(screen.getByText(/is not given: enter both under Load/)).toBeTruthy();
  });
});

test('a load shows the wire at its own pin; what it shares with others is in the why, with what each loses', () => {
  open(createCleanSkerry());
  const keypad = row('keypad 12 V supply');
  expect(keypad.cells[3]!.textContent).toBe('AWG 22, minimum');
  fireEvent.click(keypad.cells[3]!.firstElementChild!);
  const ways = screen.getAllByText(/ mV$/).map((one) => one.closest('tr')!.textContent);
  expect(ways[0]).toMatch(/^outC-\d+AWG 22, minimum\d+ mV$/);
  expect(ways.filter((words) => words.startsWith('back')).length).toBeGreaterThan(1);
});

test('switches: how each stands by mode acts on what is live, and all of a box is set at once', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(screen.getByRole('tab', { name: 'Switches' }));
  const panel = () => screen.getByRole('table', { name: 'Live nets' });
  // with the isolator open: the starter's lead, and what stands before the switch behind its fuse
  expect(within(panel()).getAllByRole('row')).toHaveLength(3);
  expect(within(panel()).getByText('starter motor main feed')).toBeTruthy();
  choose('kill switch main pole in isolator open', 'closed');
  expect(store.job.devices.kill!.states.main!.isolated).toBe('closed');
  // no mode is left in which it is open
  expect(screen.queryByRole('table', { name: 'Live nets' })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'key off' }));
  expect(within(panel()).getAllByRole('row')).toHaveLength(4);
  choose('All of Sluice 24 in key off', 'closed');
  expect(Object.values(store.job.devices['pdm-p']!.states).every((states) => states['key-off'] === 'closed')).toBe(true);
  expect(within(panel()).getAllByRole('row').length).toBeGreaterThan(20);
  choose('Sluice 24 channel 1 in key off', 'not said');
  expect(store.job.devices['pdm-p']!.states.ch1).not.toHaveProperty('key-off');
  choose('What Sluice 24 channel 2 works only with', 'starter relay contact gives');
  expect(store.job.devices['pdm-p']!.enabledBy.ch2).toEqual({ deviceId: 'starter', linkId: 'contact' });
  choose('Isolator', 'not said');
  expect(store.job.source.isolator).toBeNull();
});

test('how long the battery lasts follows its capacity and what the engine does in a mode', () => {
  const store = open(createCleanSkerry());
  fireEvent.click(screen.getByRole('tab', { name: 'Switches' }));
  const lasts = (name: string) =>
    within(screen.getByRole('table', { name: 'Battery time' }))
      .getByText(name)
      .closest('tr')!.cells[2]!.textContent;
  expect([lasts('parked, display on'), lasts('key off')]).toEqual(['5.3 h', 'nothing drawn']);
  type('Battery capacity', '32');
  expect(lasts('parked, display on')).toBe('10.7 h');
  type('Battery capacity', '');
  expect([store.job.source.capacityAh, lasts('parked, display on')]).toEqual([null, 'capacity not said']);
  fireEvent.click(screen.getByRole('tab', { name: 'Source, modes' }));
  choose('Engine in parked, display on', 'engine runs');
  expect(store.job.modes.display!.engine).toBe('running');
  fireEvent.click(screen.getByRole('tab', { name: 'Switches' }));
  expect(within(screen.getByRole('table', { name: 'Battery time' })).queryByText('parked, display on')).toBeNull();
});
