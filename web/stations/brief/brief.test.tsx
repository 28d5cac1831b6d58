import { fireEvent, screen, within } from '@testing-library/react';
import type { ReactElement } from 'react';
import { createDemoStart, createDevice, createJob, type Job } from 'wattograph-core';
import { createFenRanger, createInlet, createSkerry } from 'wattograph-core/demo';
import { useJob } from '../../client/jobContext';
import { choose, listOptions } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { AnchorsTable } from './AnchorsTable';
import { DevicesTable } from './DevicesTable';
import { DonorLedger } from './DonorLedger';
import { HouseStyle } from './HouseStyle';
import { MatesTable } from './MatesTable';
import { OpenItems } from './OpenItems';
import { ProvingsTable } from './ProvingsTable';
import { TasksTable } from './TasksTable';
import { ZonesTable } from './ZonesTable';

const push = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ push }), useParams: () => ({ id: 'job' }) }));

function Show({ part: Part }: { part: (props: { job: Job }) => ReactElement }) {
  return <Part job={useJob(({ document }) => document)} />;
}
const open = (job: Job, part: (props: { job: Job }) => ReactElement) => {
  const store = new FakeStore(job);
  renderWith(store, <Show part={part} />);
  return store;
};
const type = (label: string, value: string) => {
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
  fireEvent.blur(screen.getByLabelText(label));
};

describe('devices', () => {
  const job = () => {
    const made = createInlet();
    made.devices = { d1: createDevice('radio', 'data', { templateId: 'radio' }) };
    return made;
  };
  test('deciding "later" asks what is made meanwhile, and any other decision forgets it', () => {
    const store = open(job(), DevicesTable);
    choose('Decision on radio', '… later');
    expect(store.job.devices.d1).toMatchObject({ decision: 'later', unknownPolicy: 'connector', decidedBy: 'Imke Dorsey' });
    choose('Unknown place of radio', 'full length, coiled');
    expect(store.job.devices.d1!.unknownPolicy).toBe('coil');
    choose('Decision on radio', '+ fit');
    expect(store.job.devices.d1!.unknownPolicy).toBeNull();
    expect(screen.queryByLabelText('Unknown place of radio')).toBeNull();
  });
  test('one that goes has no place to be put, one that stays is put on a free end', () => {
    const store = open(job(), DevicesTable);
    expect(listOptions('Put radio on')).toHaveLength(17);
    choose('Put radio on', 'inlet · throttle');
    expect(store.job.devices.d1!.at).toEqual({ loomId: 'inlet', endId: 'thr' });
    // an end that has wires keeps its housing and what is known of its pins
    expect(store.job.looms.inlet!.ends.thr!.familyId).toBe('pellow-6');
    fireEvent.click(screen.getByRole('button', { name: 'inlet · throttle' }));
    expect(push).toHaveBeenLastCalledWith('ends?loom=inlet&end=thr');
    fireEvent.click(screen.getByRole('button', { name: 'Take radio off its end' }));
    expect(store.job.devices.d1!.at).toBeNull();
    choose('Decision on radio', '× remove');
    expect(screen.queryByLabelText('Put radio on')).toBeNull();
  });
  test('a name may not be empty: it stays as it was', () => {
    const store = open(job(), DevicesTable);
    type('Name of radio', '  ');
    expect(store.labels).toEqual([]);
    type('Name of radio', 'pit radio');
    expect(store.job.devices.d1!.name).toBe('pit radio');
  });
  test('Escape leaves words as they were', () => {
    const store = open(job(), DevicesTable);
    fireEvent.change(screen.getByLabelText('Reason for radio'), { target: { value: 'half a thought' } });
    fireEvent.keyDown(screen.getByLabelText('Reason for radio'), { key: 'Escape' });
    expect(screen.getByLabelText('Reason for radio')).toHaveProperty('value', '');
    expect(store.labels).toEqual([]);
  });
  test('its pins open with what each needs', () => {
    open(job(), DevicesTable);
    fireEvent.click(screen.getByRole('button', { name: 'radio, 4 pins' }));
    expect(screen.getByRole('cell', { name: 'talk switch' })).toBeTruthy();
    expect(screen.getAllByText('its maker’s sheet decides')).toHaveLength(4);
  });
  test('an empty list says what it is for', () => {
    open(createJob('x', '', 'larkhollow', createDemoStart()), DevicesTable);
    expect(screen.getByText(/The want-list and the delete-list/)).toBeTruthy();
  });
});

describe('open items', () => {
  test('noted, blocked by, answered and struck off', () => {
    const store = open(createInlet(), OpenItems);
    fireEvent.change(screen.getByLabelText('Open item'), { target: { value: 'Which way does it turn?' } });
    fireEvent.click(screen.getByRole('button', { name: 'Note it' }));
    const [id] = Object.keys(store.job.openItems);
    expect(store.job.openItems[id!]).toMatchObject({ kind: 'question', owner: 'Imke Dorsey', answer: null });
    choose('Blocked by Which way does it turn?', 'inlet · throttle');
    choose('Blocked by Which way does it turn?', `inlet · circuit ${createInlet().looms.inlet!.circuits.c209!.name}`);
    expect(store.job.openItems[id!]!.blocks).toEqual([
      { loomId: 'inlet', kind: 'end', id: 'thr' },
      { loomId: 'inlet', kind: 'circuit', id: 'c209' },
    ]);
    fireEvent.click(screen.getAllByRole('button', { name: 'Does not block this' })[0]!);
    expect(store.job.openItems[id!]!.blocks).toHaveLength(1);
    expect(screen.getByText('⬣')).toBeTruthy();
    type('Answer to Which way does it turn?', 'clockwise');
    expect(store.job.openItems[id!]).toMatchObject({ answer: 'clockwise', evidence: 'guessed', answeredBy: 'Imke Dorsey' });
    expect(screen.getByText('⬣')).toBeTruthy();
    choose('Evidence for Which way does it turn?', 'measured');
    expect(screen.queryByText('⬣')).toBeNull();
    type('Answer to Which way does it turn?', '');
    expect(store.job.openItems[id!]).toMatchObject({ answer: null, evidence: null, answeredBy: '' });
    fireEvent.click(screen.getByRole('button', { name: 'strike off' }));
    expect(store.job.openItems).toEqual({});
    expect(screen.getByText(/Nothing is open/)).toBeTruthy();
  });
  test('owner, day and place of an item', () => {
    const store = open(createSkerry(), OpenItems);
    choose('Owner of Does the alternator want its lamp wire fused?', 'Penhallow Hillclimb');
    fireEvent.change(screen.getByLabelText('Due: Does the alternator want its lamp wire fused?'), { target: { value: '24 Dec 2026' } });
    fireEvent.click(screen.getByLabelText('Answer at the vehicle: Does the alternator want its lamp wire fused?'));
    expect(store.job.openItems.q1).toMatchObject({ owner: 'Penhallow Hillclimb', due: '2026-12-24', atVisit: false });
  });
  test('the first work that waits for an item is chosen; a concession stops none', () => {
    const store = open(createSkerry(), OpenItems);
    choose('Held by Does the alternator want its lamp wire fused?', 'covering');
    expect(store.job.openItems.q1!.stops).toBe('cover');
    expect(screen.queryByLabelText('Held by Coils share one fuse until the power module is fitted')).toBeNull();
  });
  test('an anchor is given its places on the looms, and says what it holds while it is open', () => {
    const job = createInlet();
    const store = open(job, AnchorsTable);
    expect(screen.queryByText(/^open: /)).toBeNull();
    choose('State of controller', 'open');
    expect(store.job.anchors.controller).toMatchObject({ state: 'open', by: 'Imke Dorsey' });
    expect(screen.getByText('open: nothing is cut before somebody says where it is')).toBeTruthy();
    choose('Where controller lies', 'inlet · throttle body');
    expect(store.job.anchors.controller!.nodes).toEqual([{ loomId: 'inlet', nodeId: 'bk2' }]);
    expect(screen.getByText('open: these are not cut, all others are')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'controller is not at inlet · throttle body' }));
    expect(store.job.anchors.controller!.nodes).toEqual([]);
  });
  test('what an item blocked may be gone since', () => {
    const job = createInlet();
    job.openItems.q = { ...createSkerry().openItems.q1!, blocks: [{ loomId: 'inlet', kind: 'end', id: 'gone' }] };
    open(job, OpenItems);
    expect(screen.getByText('what is no longer there')).toBeTruthy();
  });
});

describe('donor ledger', () => {
  test('deciding forgets a new length that no longer means anything', () => {
    const store = open(createFenRanger(), DonorLedger);
    expect(store.job.donors.old!.wires.w7!.newLengthMm).toBe(720);
    choose('Decision on donor wire 7', '= keep');
    expect(store.job.donors.old!.wires.w7).toMatchObject({ decision: 'keep', newLengthMm: null });
    choose('Decision on donor wire 7', '? undecided');
    expect(store.job.donors.old!.wires.w7!.decision).toBeNull();
    expect(screen.getByRole('status', { name: 'Ledger' }).textContent).toContain('? undecided 2');
  });
  test('lengths are typed as found, or left open', () => {
    const store = open(createFenRanger(), DonorLedger);
    type('Length of donor wire 18', '640');
    expect(store.job.donors.old!.wires.w18!.lengthMm).toBe(640);
    expect(screen.getByRole('status', { name: 'Ledger' }).textContent).toContain('5.13 m');
    type('Length of donor wire 18', '');
    expect(store.job.donors.old!.wires.w18!.lengthMm).toBeNull();
  });
  test('a wire put to other use is given a new name, and loses it where it serves again what it served', () => {
    const store = open(createFenRanger(), DonorLedger);
    expect(screen.queryByLabelText('New name of donor wire 20')).toBeNull();
    expect(screen.getByText('over the 19 printed on it')).toBeTruthy();
    type('New name of donor wire 19', 'P-1');
    expect(store.job.donors.old!.wires.w19!.newName).toBe('P-1');
    expect(screen.queryByText('over the 19 printed on it')).toBeNull();
    choose('Decision on donor wire 19', '= keep');
    expect(store.job.donors.old!.wires.w19!.newName).toBe('');
  });
  test('a wire that stays and leads to a device that goes says so in its row', () => {
    const job = createFenRanger();
    job.donors.old!.wires.w17!.decision = 'keep';
    open(job, DonorLedger);
    expect(screen.getByText(/leads to horn, which goes/)).toBeTruthy();
  });
  test('without a donor it says what it is for', () => {
    open(createInlet(), DonorLedger);
    expect(screen.getByText(/Where an old loom is used again/)).toBeTruthy();
  });
});

describe('zones', () => {
  test('heat and flags are changed; what is no temperature is not kept', () => {
    const store = open(createInlet(), ZonesTable);
    type('Ambient of hot side', '165,5');
    expect(store.job.zones.hot!.ambientC).toBe(165.5);
    type('Ambient of hot side', 'very');
    type('Ambient of hot side', '900');
    expect(store.job.zones.hot!.ambientC).toBe(165.5);
    fireEvent.click(screen.getByLabelText('hot side: must be opened later'));
    expect(store.job.zones.hot!.reopen).toBe(true);
  });
  test('a zone that something lies in is not removed, a free one is', () => {
    const store = open(createInlet(), ZonesTable);
    fireEvent.click(screen.getByRole('button', { name: 'Add zone' }));
    const rows = screen.getAllByRole('row');
    const remove = (name: string) =>
      within(rows.find((row) => within(row).queryByDisplayValue(name))!).getByRole('button', { name: 'remove' });
    expect(remove('hot side')).toHaveProperty('disabled', true);
    fireEvent.click(remove('cabin'));
    expect(Object.keys(store.job.zones)).not.toContain('cabin');
    expect(Object.values(store.job.zones).map(({ name }) => name)).toContain('new zone');
  });
});

describe('mates', () => {
  test('only ends of the same family on another loom are offered', () => {
    const job = createSkerry();
    job.mates = {};
    const store = open(job, MatesTable);
    choose('This end', 'inlet · inlet bulkhead B1');
    expect(listOptions('Plugs into')).toEqual(['an end of another loom …', 'engine · inlet plug']);
    choose('Plugs into', 'engine · inlet plug');
    fireEvent.click(screen.getByRole('button', { name: 'Mate them' }));
    expect(Object.values(store.job.mates)).toEqual([
      { a: { loomId: 'inlet', endId: 'B1' }, b: { loomId: 'engine', endId: 'm-inlet-plug' } },
    ]);
    // a mated end is not offered again
    expect(listOptions('This end')).not.toContain('inlet · inlet bulkhead B1');
    fireEvent.click(screen.getByRole('button', { name: 'take apart' }));
    expect(store.job.mates).toEqual({});
  });
  test('an end that nothing fits says so', () => {
    open(createSkerry(), MatesTable);
    choose('This end', 'chassis · module power plug');
    expect(screen.getByText('no end on another loom that it goes into')).toBeTruthy();
  });
});

describe('house style', () => {
  const create = () => {
    const job = createSkerry();
    job.brief.departures = {
      retermination: { side: 3, reason: 'the plenum comes off at every meeting' },
      colour: { side: 2, reason: 'of an older version' },
    };
    return job;
  };
  test('the side the house takes is taken back without a reason; another one asks for one', () => {
    const store = open(create(), HouseStyle);
    expect(screen.getByText(/departs: the plenum comes off/)).toBeTruthy();
    fireEvent.click(within(screen.getByRole('radiogroup', { name: 'Slack' })).getByRole('radio', { name: 'two' }));
    expect(Object.keys(store.job.brief.departures)).toEqual(['colour']);
    expect(screen.getByText('length kept back at every end that states none of its own')).toBeTruthy();
  });
  test('what nothing hangs on is not asked; noted in an older job it is shown, and can be forgotten', () => {
    const store = open(create(), HouseStyle);
    expect(screen.queryByRole('radiogroup', { name: 'Colour' })).toBeNull();
    expect(screen.getByText(/of an older version/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'forget' }));
    expect(Object.keys(store.job.brief.departures)).toEqual(['retermination']);
  });
});

describe('tasks', () => {
  test('noted with what it takes, placed, put before other work, and struck off', () => {
    const store = open(createInlet(), TasksTable);
    expect(screen.getByText(/Nothing else is waited for/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Task'), { target: { value: ' Stud for the ground ' } });
    expect(screen.getByRole('button', { name: 'Note it' })).toHaveProperty('disabled', true);
    type('Minutes that it takes', '30');
    fireEvent.click(screen.getByRole('button', { name: 'Note it' }));
    expect(screen.getByLabelText('Minutes that it takes')).toHaveProperty('value', '');
    const id = Object.keys(store.job.tasks)[0]!;
    expect(store.job.tasks[id]).toMatchObject({ kind: 'fabricate', what: 'Stud for the ground', minutes: 30, before: 'fit', places: [] });
    expect(screen.getByText('on no floor yet')).toBeTruthy();
    choose('Waits for Stud for the ground', 'inlet · throttle');
    choose('Waits for Stud for the ground', 'all of inlet');
    choose('Before which work: Stud for the ground', 'seating');
    choose('Can hurt at Stud for the ground', 'welding');
    choose('Owner of Stud for the ground', 'Jun Okafor');
    type('Where: Stud for the ground', 'left rail');
    type('Minutes of Stud for the ground', '50.4');
    expect(store.job.tasks[id]).toMatchObject({
      ...{ before: 'seat', hazards: ['weld'], owner: 'Jun Okafor', where: 'left rail', minutes: 50 },
      places: [
        { loomId: 'inlet', kind: 'end', id: 'thr' },
        { loomId: 'inlet', kind: 'loom', id: 'inlet' },
      ],
    });
    fireEvent.click(screen.getAllByRole('button', { name: 'Does not wait for it' })[0]!);
    fireEvent.click(screen.getByRole('button', { name: 'No welding' }));
    expect(store.job.tasks[id]).toMatchObject({ hazards: [], places: [{ kind: 'loom' }] });
    expect(screen.queryByText('on no floor yet')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Strike off: Stud for the ground' }));
    expect(store.job.tasks).toEqual({});
  });
});

test('what is to be proved is noted with its device and its condition; a stand is chosen for the first start', () => {
  const made = createInlet();
  made.devices = { d1: createDevice('radio', 'data', { templateId: 'radio' }) };
  const store = open(made, ProvingsTable);
  expect(screen.getByText(/What a module has to be taught/)).toBeTruthy();
  choose('Kind of proof', 'not provable standing');
  fireEvent.change(screen.getByLabelText('To be proved'), { target: { value: ' heard at speed ' } });
  fireEvent.click(screen.getByRole('button', { name: 'Note it' }));
  const [id] = Object.keys(store.job.provings);
  choose('Device of heard at speed', 'radio');
  type('Condition of heard at speed', 'at 200 km/h');
  expect(store.job.provings[id!]).toEqual({ kind: 'later', what: 'heard at speed', deviceId: 'd1', when: 'at 200 km/h' });
  fireEvent.click(screen.getByRole('button', { name: 'on a stand' }));
  expect(store.job.startsOn).toBe('stand');
  expect(screen.getByText('first power looks over the stand before it')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Strike off: heard at speed' }));
  expect(store.job.provings).toEqual({});
});

test('a loom with wire that was in use before is ticked, and what that makes of its isolation is said', () => {
  const store = open(createInlet(), ProvingsTable);
  expect(screen.getByText('isolation 10 MΩ at 100 V there, 100 MΩ at 500 V elsewhere')).toBeTruthy();
  fireEvent.click(screen.getByRole('checkbox', { name: 'inlet' }));
  expect(store.job.looms.inlet!.hasReusedWire).toBe(true);
  fireEvent.click(screen.getByRole('checkbox', { name: 'inlet' }));
  expect(store.job.looms.inlet!.hasReusedWire).toBe(false);
});
