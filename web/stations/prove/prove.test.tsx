import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import {
  CATALOGUE,
  createBuild,
  createRingOut,
  createStandInTester,
  examine,
  listEqualLeads,
  NOTHING_CARRIED,
  plan,
  toProofItem,
  type Planted,
  type ProofTest,
  type Step,
} from 'wattograph-core';
import { createCleanSkerry } from 'wattograph-core/demo';
import { choose, press } from '../../testing/act';
import { IMKE } from '../../testing/person';
import { outboxDatabase } from '../../client/outbox/outboxDatabase';
import type { FloorEvent } from '../../server/floorEvent';
import { ProveStation } from './ProveStation';
import type { ProvePack } from './provePack';

jest.mock('../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const job = createCleanSkerry();
const loomPlan = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'inlet')!;
const { steps, continuity } = createBuild(job, loomPlan, CATALOGUE);
const ringOut = createRingOut(job, CATALOGUE, loomPlan, continuity);
const PACK: ProvePack = {
  ...{ release: 2, newest: 2, job, plan: loomPlan, steps, families: CATALOGUE.families },
  ...{ carried: NOTHING_CARRIED, instruments: ['milliohmmeter'], leaseMin: 20, ringOut },
};
const total = ringOut.tests.length;
let serial = 0;
const event = (rest: Partial<FloorEvent> & Pick<FloorEvent, 'stepId' | 'itemId' | 'kind'>): FloorEvent => {
  serial += 1;
  const happenedAt = new Date(Date.UTC(2026, 10, 28, 8, 0, serial)).toISOString();
  return { id: `e${serial}`, serial, loomId: 'inlet', words: '', author: 'Tobin Ashgrove', happenedAt, ...rest };
};
const read = (test: ProofTest, value: number, instrument = 'milliohmmeter') =>
  event({ ...toProofItem(steps, test.kind)!, kind: 'reading', readId: test.id, value, unit: test.unit, instrument });
/** Readings of a loom, the table and all that its patterns ask for. */
const measure = (planted: Planted[], instrument?: string): FloorEvent[] => {
  const tester = createStandInTester(ringOut, planted, 5);
  const values = new Map(ringOut.tests.map((test) => [test.id, tester(test)]));
  const events = ringOut.tests.map((test) => read(test, values.get(test.id)!, instrument));
  for (let found = examine(ringOut, values); found.seeks.length > 0; found = examine(ringOut, values)) {
    const [seek] = found.seeks;
    values.set(seek!.id, tester(seek!));
    events.push(read(seek!, values.get(seek!.id)!, instrument));
  }
  return events;
};
const tickAll = (of: readonly Step[]) =>
  of.flatMap(({ id, items }) => items.map((item) => event({ stepId: id, itemId: item.id, kind: 'tick' })));
const open = async (pack: ProvePack | null, events: FloorEvent[] = [], person = IMKE) => {
  render(
    <MantineProvider env="test">
      <ProveStation person={person} jobId="job" pack={pack} events={events} />
    </MantineProvider>,
  );
  await waitFor(() => expect(screen.queryByText('Opening the readings …')).toBeNull());
};
const headings = () => screen.getAllByRole('heading').map(({ textContent }) => textContent);
const next = () => within(screen.getByRole('region', { name: 'Next measurement' }));
const kept = async () => (await outboxDatabase.rows.toArray()).map(({ body }) => body as unknown as FloorEvent);

beforeEach(async () => {
  localStorage.clear();
  await outboxDatabase.rows.clear();
  // the server is away: what is read stays here
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

test('nothing released: it says where a revision is made', async () => {
  await open(null);
  expect(screen.getByRole('link', { name: 'Release one on Sheets' }).getAttribute('href')).toBe('/jobs/job/sheets');
});

test('one measurement at a time: it needs an instrument, takes what the meter shows, goes on, and tells what failed', async () => {
  await open(PACK);
  expect(headings()).toContain('Nothing is measured yet');
  const [first, second, third] = ringOut.tests;
  const field = () => next().getByRole<HTMLInputElement>('textbox', { name: /^Reading/ });
  expect(next().getByText('Say above what it is read with.')).toBeTruthy();
  fireEvent.change(field(), { target: { value: '19 mΩ' } });
  expect(next().getByRole<HTMLButtonElement>('button', { name: 'Keep' }).disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Instrument'), { target: { value: 'milliohmmeter' } });
  expect(next().getByText(`black on ${job.looms.inlet!.ends[first!.from.endId]!.name}`)).toBeTruthy();
  fireEvent.change(field(), { target: { value: '19 mΩ' } });
  fireEvent.submit(field());
  expect(headings()).toContain(`1 of ${total} pass, none fails`);
  expect(next().getByText(`red on ${job.looms.inlet!.ends[second!.to!.endId]!.name}`)).toBeTruthy();
  press('OL, open');
  expect(headings()).toContain('1 measurement failed');
  const events = await waitFor(async () => {
    const rows = await kept();
    expect(rows).toHaveLength(2);
    return rows;
  });
  expect(events.map(({ readId, value, unit, instrument, stepId }) => [readId, value, unit, instrument, stepId])).toEqual([
    [first!.id, 0.019, 'Ω', 'milliohmmeter', 'test'],
    [second!.id, 1_000_000, 'Ω', 'milliohmmeter', 'test'],
  ]);
  // a row of the table is measured instead, and left again
  const row = within(screen.getByRole('table', { name: 'Measurements' })).getAllByText('✓ passed')[0]!;
  fireEvent.click(row);
  expect(next().getByText(/^last read 19 mΩ with milliohmmeter by Imke/)).toBeTruthy();
  press('Leave it');
  expect(next().getByText(`red on ${job.looms.inlet!.ends[third!.to!.endId]!.name}`)).toBeTruthy();
});

test('an exchanged pair is named; mended, its seats are done over, its readings are void and are asked for again', async () => {
  const planted: Planted = {
    kind: 'moved',
    endId: 'B1',
    moves: [
      ['3', '4'],
      ['4', '3'],
    ],
  };
  const seats = steps.filter(({ operation }) => operation === 'seat' || operation === 'crimp');
  await open(PACK, [...tickAll(seats), ...measure([planted])]);
  expect(headings()).toContain('3 and 4 of inlet bulkhead B1 are exchanged.');
  press('Mended: measure it again');
  expect(headings()).toContain('3 and 4 of inlet bulkhead B1 are exchanged.');
  press('Not yet');
  press('Mended: measure it again');
  press('Yes, it was done over');
  expect(headings()).not.toContain('3 and 4 of inlet bulkhead B1 are exchanged.');
  // both joins and both isolations, which have to be read anew
  expect(headings()).toContain(`${total - 4} of ${total} pass, none fails`);
  expect(screen.getByText(/4 to go, 4 of them read before something was done over\./)).toBeTruthy();
  const told = await waitFor(async () => {
    const rows = await kept();
    expect(rows.length).toBeGreaterThanOrEqual(4);
    return rows.map(({ kind, stepId, itemId }) => `${kind} ${stepId} ${itemId}`);
  });
  for (const cavity of ['3', '4']) {
    const seat = steps.find(({ operation, endId }) => operation === 'seat' && endId === 'B1')!;
    const item = seat.items.find((one) => one.cavity === cavity)!;
    expect(told).toContain(`untick ${seat.id} ${item.id}`);
    expect(told).toContain(`tick ${seat.id} ${item.id}`);
  }
});

test('a sound loom is ticked as tested on the floor, once', async () => {
  await open(PACK, measure([]));
  expect(headings()).toContain(`All ${total} measurements pass`);
  press('Tick the test on the floor');
  await waitFor(async () =>
    expect((await kept()).map(({ kind, stepId, itemId }) => `${kind} ${stepId} ${itemId}`)).toEqual([
      'tick test pairs',
      'tick test isolation',
    ]),
  );
  expect(screen.queryByRole('button', { name: 'Tick the test on the floor' })).toBeNull();
  expect(screen.getByRole('link', { name: /Somebody else looks it over/ })).toBeTruthy();
});

test('readings of the stand-in tester that came in by file pass no loom', async () => {
  await open(PACK, measure([], 'stand-in tester (not a real loom)'));
  expect(headings()).toContain(`All ${total} measurements pass`);
  expect(screen.getByText(/readings of the stand-in tester among these: they say nothing of this loom and prove nothing\.$/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Tick the test on the floor' })).toBeNull();
});

test('a loom whose steps have no order keeps no readings, and says so', async () => {
  await open({ ...PACK, steps: [] });
  expect(headings()).toEqual(['No order of work']);
});

test('the stand-in tester measures all and what would tell; mended and put right it is sound; nothing of it is stored or passes a loom', async () => {
  await open(PACK, [read(ringOut.tests[0]!, 0.02)]);
  const run = (kind: string) => {
    press('Stand-in tester');
    choose('The loom on it has', kind);
    press('Measure what is left');
  };
  run('a wire that is open');
  await waitFor(() => expect(headings().some((words) => /N-.* is open: /.test(words!))).toBe(true), { timeout: 30_000 });
  expect(screen.getByRole('note').textContent).toContain('nothing is stored');
  press('Mended: measure it again');
  press('Yes, it was done over');
  press('Stand-in tester');
  choose('The loom on it has', 'nothing wrong');
  press('Measure what is left');
  await waitFor(() => expect(headings()).toContain(`All ${total} measurements pass`), { timeout: 30_000 });
  expect(screen.queryByRole('button', { name: 'Tick the test on the floor' })).toBeNull();
  expect(await kept()).toEqual([]);
  press('End the practice');
  expect(headings()).toContain(`1 of ${total} pass, none fails`);
}, 60_000);

test('leads that look alike are found one by one, the last by what is left', async () => {
  // a loom made of one reel
  const { colour } = loomPlan.wires[0]!;
  const pack = { ...PACK, plan: { ...loomPlan, wires: loomPlan.wires.map((wire) => ({ ...wire, colour })) } };
  const [group] = ringOut.ends.flatMap(({ id }) => listEqualLeads(ringOut, pack.plan.wires, id));
  await open(pack);
  press('Which lead is which');
  const lead = () => within(screen.getByRole('region', { name: 'Next lead' }));
  expect(lead().getByRole('heading').textContent).toContain(`${group!.leads.length} leads without a mark`);
  for (const [at, { number }] of group!.leads.entries()) {
    expect(lead().getByText(number)).toBeTruthy();
    expect(lead().queryByText(/^The one that is left is/) !== null).toBe(at === group!.leads.length - 1);
    press('Marked');
  }
  expect(lead().getByText(new RegExp(`^All ${group!.leads.length} are marked, with ${group!.leads.length - 1} measurement`))).toBeTruthy();
  press('Back');
  expect(lead().getByText(group!.leads.at(-1)!.number)).toBeTruthy();
});

test('a loom with a guessed supply voltage may pass, and is held from power', async () => {
  const words = 'volts of fuel pump pin 1 only guessed';
  const doubt = { kind: 'pin' as const, id: 'fpt 1', stops: 'energise' as const, endId: 'fpt', words };
  const wires = loomPlan.wires.map((wire, at) => (at === 0 ? { ...wire, heldBy: [doubt] } : wire));
  await open({ ...PACK, plan: { ...loomPlan, wires } }, measure([]));
  expect(headings()).toContain(`All ${total} measurements pass`);
  expect(screen.getByText(new RegExp(`Held from power, whatever the measurements say: ${wires[0]!.number}, ${words}`))).toBeTruthy();
});

test('whoever only looks reads nothing in', async () => {
  await open(PACK, [], { ...IMKE, role: 'viewer' });
  expect(next().getByText('Imke Dorsey may look, and reads nothing in.')).toBeTruthy();
  for (const name of ['Read a file', 'Stand-in tester'])
    expect(screen.getByRole<HTMLButtonElement>('button', { name }).disabled).toBe(true);
});

test('the list for a tester is saved with what is left', async () => {
  const saved: string[] = [];
  URL.createObjectURL = (blob: Blob) => {
    const reader = new FileReader();
    reader.onload = () => saved.push(reader.result as string);
    reader.readAsText(blob);
    return 'blob:x';
  };
  URL.revokeObjectURL = () => undefined;
  await open(PACK, [read(ringOut.tests[0]!, 0.02)]);
  press('Export for a tester');
  await waitFor(() => expect(saved).toHaveLength(1));
  expect(saved[0]!.trimEnd().split('\r\n')).toHaveLength(total);
});
