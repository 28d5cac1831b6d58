import { act, fireEvent, screen, within } from '@testing-library/react';
import { createCommand, removePart, arrangeBulkheadPins, assignPins, findStandard, type Catalogue, type Job } from 'wattograph-core';
import { createCleanSkerry, createInlet, createSkerry } from 'wattograph-core/demo';
import { choose, listOptions, type, write } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { CircuitsStation } from './CircuitsStation';

let loom = 'chassis';
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: jest.fn() }),
  usePathname: () => '/jobs/job/circuits',
  useSearchParams: () => new URLSearchParams(`loom=${loom}`),
}));
// the worker, without one
jest.mock('../../client/arranger', () => ({
  arrange: ({ job, shop, mateId }: { job: Job; shop: Catalogue; mateId: string }, onDone: (answer: unknown) => void) => {
    const timer = setTimeout(() => onDone({ arrangement: arrangeBulkheadPins(job, shop, mateId, null, () => 0) }), 0);
    return () => clearTimeout(timer);
  },
}));
jest.mock('../../client/assigner', () => ({
  assign: ({ job, shop }: { job: Job; shop: Catalogue }, onDone: (answer: unknown) => void) => {
    const timer = setTimeout(() => onDone({ assignment: assignPins(job, shop, findStandard(job, shop)), ms: 12 }), 0);
    return () => clearTimeout(timer);
  },
}));

const open = (job: Job, loomId: string) => {
  loom = loomId;
  const store = new FakeStore(job);
  renderWith(store, <CircuitsStation />);
  return store;
};
const board = () => screen.getByRole('region', { name: 'Pins' });

describe('pin board', () => {
  test('a sensor without its ground stands out, and its fix joins it', () => {
    const store = open(createSkerry(), 'inlet');
    fireEvent.click(within(screen.getByRole('group', { name: 'Which pins' })).getByRole('button', { name: /^open/ }));
    const pegs = within(board()).getAllByRole('button');
    expect(pegs.map((peg) => peg.getAttribute('aria-label'))).toEqual(['charge pressure pin 2, sensor ground: open, CI1']);
    fireEvent.click(pegs[0]!);
    const panel = screen.getByRole('tabpanel', { name: 'Pin' });
    expect(panel.textContent).toContain('charge pressure has no sensor ground: cavity 2 is not connected.');
    fireEvent.click(within(panel).getByRole('button', { name: /^Join cavity 2/ }));
    expect(store.job.looms.inlet!.circuits.c216!.terminations).toContainEqual({ endId: 'chg', cavity: '2' });
    expect(within(board()).queryAllByRole('button')).toEqual([]);
  });
  test('a pin shows its way through every loom to the box', () => {
    open(createCleanSkerry(), 'inlet');
    fireEvent.click(within(board()).getByRole('button', { name: /^throttle pin 5, track 1: controller plug/ }));
    const way = screen.getByRole('table', { name: 'Way through the looms' });
    expect(
      within(way)
        .getAllByRole('row')
        .map((row) => row.textContent!.slice(0, 7)),
    ).toEqual(['chassis', 'engine1', 'inlet1 ']);
  });
  test('finds by device and by function, in this loom or the whole vehicle', () => {
    open(createCleanSkerry(), 'gearbox');
    fireEvent.change(screen.getByLabelText('Find a device or function'), { target: { value: 'track' } });
    expect(within(board()).queryAllByRole('button')).toHaveLength(0);
    fireEvent.click(screen.getByRole('button', { name: 'whole vehicle' }));
    expect(within(board()).getAllByRole('button').length).toBeGreaterThan(4);
  });
});

describe('assignment', () => {
  test('gives what is open a place, says why, keeps the rest, and is one edit', async () => {
    const job = createCleanSkerry();
    const { circuits } = job.looms.chassis!;
    for (const [id, { terminations }] of Object.entries(circuits))
      if (terminations.some(({ endId }) => endId === 'm-pedal')) delete circuits[id];
    const store = open(job, 'chassis');
    fireEvent.click(screen.getByRole('button', { name: /Assign what is open/ }));
    const told = await screen.findByRole('region', { name: 'Assignment' });
    expect(told.textContent).toMatch(/6 needs placed\./);
    expect(told.textContent).toMatch(/pedal track 1.*controller plug.*analogue: /);
    expect(store.labels).toEqual(['assign 6 needs']);
    expect(store.job.looms.chassis!.circuits.c107).toEqual(circuits.c107);
    fireEvent.click(screen.getByRole('button', { name: /Assign what is open/ }));
    expect(await screen.findByText('Nothing was open.')).toBeTruthy();
    expect(store.labels).toHaveLength(1);
  });
  test('what cannot be placed says what competes and what it would take', async () => {
    const job = createInlet();
    for (const need of Object.values(job.looms.inlet!.ends.map!.pins)) need.required = true;
    delete job.looms.inlet!.circuits.c217;
    open(job, 'inlet');
    fireEvent.click(screen.getByRole('button', { name: /Assign what is open/ }));
    expect((await screen.findByRole('region', { name: 'Assignment' })).textContent).toMatch(
      /manifold pressure signal: no free pin for analogue or digital or frequency or temperature in reach: add a box/,
    );
  });
});

test('an assignment that is stopped changes nothing', async () => {
  const store = open(createSkerry(), 'inlet');
  fireEvent.click(screen.getByRole('button', { name: /Assign what is open/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Stop assigning' }));
  await new Promise((done) => setTimeout(done, 20));
  expect(store.labels).toEqual([]);
  expect(screen.queryByRole('region', { name: 'Assignment' })).toBeNull();
});

describe('boxes', () => {
  test('a rail over its share offers to move what draws most', () => {
    const store = open(createSkerry(), 'chassis');
    const panel = screen.getByRole('tabpanel', { name: 'Boxes' });
    expect(within(panel).getByRole('meter', { name: '5 V rail A' }).getAttribute('aria-valuenow')).toBe('84');
    fireEvent.click(within(panel).getByRole('button', { name: /^Move damper/ }));
    expect(Number(screen.getByRole('meter', { name: '5 V rail A' }).getAttribute('aria-valuenow'))).toBeLessThanOrEqual(80);
    expect(store.labels[0]).toMatch(/^Move damper/);
  });
  test('a bus says who is on it, where it ends and what a meter reads', () => {
    const store = open(createCleanSkerry(), 'chassis');
    const bus = screen.getAllByRole('region', { name: /^CAN/ })[0]!;
    expect(bus.textContent).toMatch(/on it.*logger/);
    expect(bus.textContent).toMatch(/ended at .* and .*: 60 Ω across the pair with the power off/);
    const id = Object.keys(store.job.parts).find((one) => store.job.parts[one]!.kind === 'terminator')!;
    act(() => store.edit(removePart(id, { kind: 'resistor' })));
    expect(screen.getAllByRole('region', { name: /^CAN/ })[0]!.textContent).toMatch(/: 120 Ω across/);
    const other = Object.keys(store.job.parts).find((one) => store.job.parts[one]!.kind === 'terminator')!;
    act(() => store.edit(createCommand('the one that was in the drawer', (draft) => void (draft.parts[other]!.ohms = 100))));
    expect(screen.getAllByRole('region', { name: /^CAN/ })[0]!.textContent).toMatch(/: 100 Ω across/);
  });
  test('a job without any says where they come from', () => {
    open(createInlet(), 'inlet');
    expect(screen.getByRole('tabpanel', { name: 'Boxes' }).textContent).toContain(
      'There is no controller, module, fuse box or ground stud yet',
    );
  });
});

test('an end chosen on the tape narrows the board; arrows walk along it, Escape lets go', () => {
  open(createCleanSkerry(), 'chassis');
  const tape = screen.getByRole('group', { name: 'Tape of the chassis loom' });
  const devices = () =>
    [...screen.getByRole('region', { name: 'Pins' }).querySelectorAll('td[class*=device]')].map((one) => one.textContent);
  const all = devices().length;
  const marks = within(tape).getAllByRole('button', { name: / \d+ mm$/ });
  const distances = marks.map((one) => Number(/(\d+) mm$/.exec(one.getAttribute('aria-label')!)![1]));
  expect(distances).toEqual([...distances].sort((a, b) => a - b));
  fireEvent.click(within(tape).getByRole('button', { name: /^fuel pump, / }));
  expect(devices()).toEqual(['fuel pump']);
  expect(within(tape).getByText('fuel pump')).toBeTruthy();
  fireEvent.keyDown(tape, { key: 'ArrowLeft' });
  expect(within(tape).getByRole('button', { pressed: true }).getAttribute('aria-label')).not.toMatch(/^fuel pump/);
  fireEvent.keyDown(tape, { key: 'Escape' });
  expect(devices()).toHaveLength(all);
});

describe('a pin', () => {
  const openPin = (job: Job, name: RegExp) => {
    const store = open(job, 'chassis');
    fireEvent.click(screen.getByRole('button', { name }));
    return store;
  };
  test('is moved to another free pin of the box by hand, as one edit', () => {
    const job = structuredClone(createCleanSkerry());
    const { circuits } = job.looms.chassis!;
    for (const [id, { terminations }] of Object.entries(circuits))
      if (terminations.length === 2 && terminations.some(({ endId }) => endId === 'm-brake-pressure-rear')) delete circuits[id];
    const store = openPin(job, /^steering angle pin \d, signal/);
    const words = listOptions('Move it to').slice(1);
    expect(words.length).toBeGreaterThan(0);
    choose('Move it to', words[0]!);
    expect(store.labels).toEqual([expect.stringMatching(/^give steering angle \d to controller plug/)]);
  });
  test('no other pin that can is said', () => {
    openPin(createCleanSkerry(), /^steering angle pin \d, signal/);
    expect(screen.getByLabelText('Move it to')).toHaveProperty('disabled', true);
    expect(screen.getByText('no other free pin can do it')).toBeTruthy();
  });
  test('says what goes along where it shares', () => {
    openPin(createCleanSkerry(), /^steering angle pin \d, sensor ground/);
    expect(screen.getByText(/\d+ other pins share it and go along\./)).toBeTruthy();
  });
  test('is put into a noise group, and asks for what it wants', () => {
    const store = openPin(createCleanSkerry(), /^steering angle pin \d, sensor ground/);
    const group = noise();
    fireEvent.change(group, { target: { value: 'steering' } });
    fireEvent.blur(group);
    choose('wants', 'ground');
    write('Volts it needs', '5');
    const { pins } = store.job.looms.chassis!.ends['m-steering-angle']!;
    expect(Object.values(pins).find(({ kind }) => kind === 'sensor-ground')).toMatchObject({
      noise: 'steering',
      wants: 'ground',
      volts: 5,
    });
    expect(store.labels).toHaveLength(3);
    fireEvent.blur(noise());
    expect(store.labels).toHaveLength(3);
  });
});

const noise = () => screen.getByRole('combobox', { name: 'noise group' });

describe('breaks', () => {
  const openBreak = (job: Job, name: string) => {
    const store = open(job, 'chassis');
    fireEvent.click(screen.getByRole('tab', { name: 'Breaks' }));
    choose(
      'Which break',
      listOptions('Which break').find((words) => words.includes(name))!,
    );
    return store;
  };
  const rows = () =>
    within(screen.getByRole('table', { name: 'Both faces' }))
      .getAllByRole('row')
      .slice(1);

  test('both faces, colour to colour', () => {
    openBreak(createCleanSkerry(), 'gearbox');
    expect(rows().length).toBe(Object.values(createCleanSkerry().looms.gearbox!.circuits).length);
    for (const row of rows()) expect(row.textContent).toMatch(/C-\d+.*G-\d+/);
  });
  test('a better order is found, told with what it mends, taken as one edit, and then there is none', async () => {
    const store = openBreak(createCleanSkerry(), 'inlet');
    expect(screen.getByText(/crossings, in both looms: .* Power lies beside sensors or data \d+ times/)).toBeTruthy();
    const before = rows().length;
    fireEvent.click(screen.getByRole('button', { name: 'Find a better order' }));
    const proposal = await screen.findByRole('region', { name: 'Better order' });
    expect(proposal.textContent).toMatch(/wires move: crossings \d{3} → \d+, power beside sensors \d+ → 0/);
    expect(proposal.textContent).toContain('pulled and pinned again');
    fireEvent.click(within(proposal).getByRole('button', { name: 'Take it' }));
    expect(store.labels).toEqual([expect.stringMatching(/^rearrange \d+ cavities$/)]);
    expect(screen.queryByRole('region', { name: 'Better order' })).toBeNull();
    expect(rows()).toHaveLength(before);
    fireEvent.click(screen.getByRole('button', { name: 'Find a better order' }));
    expect(await screen.findByText('No swap of two cavities would make it better.')).toBeTruthy();
  });
  test('looking can be stopped, and a face that is too full says what the shop keeps', () => {
    const job = structuredClone(createCleanSkerry());
    const cavities = new Map<string, string>();
    for (const [loomId, plug] of [
      ['chassis', 'm-gearbox-plug'],
      ['gearbox', 'G1'],
    ] as const) {
      job.looms[loomId]!.ends[plug]!.familyId = 'quill-12p';
      for (const one of Object.values(job.looms[loomId]!.circuits).flatMap(({ terminations }) => terminations))
        if (one.endId === plug) {
          if (!cavities.has(one.cavity)) cavities.set(one.cavity, String(cavities.size + 1));
          one.cavity = cavities.get(one.cavity)!;
        }
    }
    openBreak(job, 'gearbox');
    expect(screen.getByText(/1 of 12 cavities to spare; the shop keeps 2/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Find a better order' }));
    fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(screen.getByRole('button', { name: 'Find a better order' })).toBeTruthy();
  });
});

describe('inline parts', () => {
  test('a resistor is entered with its reason, reads as it should, and goes again', () => {
    const store = open(createCleanSkerry(), 'chassis');
    fireEvent.click(screen.getByRole('tab', { name: 'Inline parts' }));
    const add = screen.getByRole('button', { name: 'Add part' });
    expect(add).toHaveProperty('disabled', true);
    choose('At which end', 'steering angle');
    choose('First cavity', '1');
    choose('Second cavity', '3');
    write('Ohms', '4k7');
    write('Why it is there', 'pull-up for the old sensor');
    fireEvent.click(add);
    const part = Object.values(store.job.parts).find(({ kind }) => kind === 'resistor')!;
    expect(part).toMatchObject({
      ohms: 4700,
      watts: null,
      at: { loomId: 'chassis', endId: 'm-steering-angle', cavities: ['1', '3'] },
      reason: 'pull-up for the old sensor',
    });
    expect(screen.getByRole('table', { name: 'Inline parts' }).textContent).toContain('4.7 kΩ');
    fireEvent.click(screen.getByRole('button', { name: 'Take the resistor at steering angle out' }));
    expect(Object.values(store.job.parts).some(({ kind }) => kind === 'resistor')).toBe(false);
  });
  test('resistors that lie about are gathered on one pigtail, in one edit', () => {
    const job = structuredClone(createCleanSkerry());
    for (const [id, endId] of [
      ['r1', 'm-steering-angle'],
      ['r2', 'm-brake-pressure-front'],
    ] as const)
      job.parts[id] = {
        kind: 'resistor',
        ohms: 2200,
        watts: null,
        at: { loomId: 'chassis', endId, cavities: ['1', '2'] },
        inside: false,
        reason: 'stands for the old gauge',
      };
    const store = open(job, 'chassis');
    fireEvent.click(screen.getByRole('tab', { name: 'Inline parts' }));
    expect(screen.getByText(/2 resistors of this loom lie at 2 places/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Gather on one pigtail' }));
    expect(store.labels).toEqual(['gather 2 resistors on one pigtail']);
    expect(new Set(['r1', 'r2'].map((id) => store.job.parts[id]!.at.endId)).size).toBe(1);
    expect(screen.queryByRole('button', { name: 'Gather on one pigtail' })).toBeNull();
    expect(screen.getAllByText(/resistor pigtail 1 and 2/).length).toBeGreaterThan(0);
  });
});

describe('unknown wire', () => {
  test('a reading gives likely functions with the next safe test, under the caution', () => {
    open(createCleanSkerry(), 'chassis');
    fireEvent.click(screen.getByRole('tab', { name: 'Unknown wire' }));
    const panel = screen.getByRole('tabpanel', { name: 'Unknown wire' });
    expect(panel.textContent).toContain('A cold filament or a motor at rest reads a tenth');
    type('Reading in ohms', '14');
    expect(within(panel).getAllByRole('row')[1]!.textContent).toMatch(/^injector, high impedance/);
    type('Reading in ohms', 'a lot');
    expect(panel.textContent).toContain('Expected a resistance such as 14, 4.7k or 1M, got “a lot”.');
  });
});
