import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import { CATALOGUE, createBuild, NOTHING_CARRIED, plan, type Operation } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { NOT_TIMED, NOTHING_CRIMPED } from '../../testing/crimping';
import { IMKE } from '../../testing/person';
import { choose, press } from '../../testing/act';
import type { FloorEvent } from '../../server/floorEvent';
import { FloorStation } from './FloorStation';

jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));
jest.mock('../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const job = createInlet();
const loomPlan = plan(job, CATALOGUE).looms[0]!;
const { steps } = createBuild(job, loomPlan, CATALOGUE);
const pack = {
  ...{ release: 1, newest: 1, job, plan: loomPlan, steps, families: CATALOGUE.families, board: null },
  ...{ carried: NOTHING_CARRIED, needsSecond: true, instruments: [], leaseMin: 20, crimping: NOTHING_CRIMPED, times: NOT_TIMED },
};
const DONE = new Set<Operation>(['cut', 'twist', 'lay', 'fit', 'splice', 'slide']);
/** the anchor made, the loom laid, what slides on the runs there: only the ends are left */
const begun = steps
  .filter(({ endId, operation }) => endId === 'B1' || DONE.has(operation))
  .flatMap(({ id: stepId, items }): FloorEvent[] =>
    items.map(({ id: itemId }) => ({
      ...{ id: `${stepId} ${itemId}`, loomId: 'inlet', stepId, itemId, kind: 'tick', words: '', author: 'Tobin Ashgrove' },
      happenedAt: '2026-11-24T08:00:00Z',
    })),
  );
const open = async (events = begun, card: string | null = null) => {
  cleanup();
  render(
    <MantineProvider env="test">
      <FloorStation person={IMKE} jobId="job" pack={pack} events={events} card={card} />
    </MantineProvider>,
  );
  await waitFor(() => expect(screen.queryByText('Opening the job card …')).toBeNull());
};
/** the end that is farthest from the datum */
const far = Object.values(job.looms.inlet!.ends).reduce((a, b) =>
  loomPlan.tree.nodes[a.nodeId]!.distanceMm > loomPlan.tree.nodes[b.nodeId]!.distanceMm ? a : b,
).name;
const headings = () => screen.getAllByRole('heading', { level: 2 }).map(({ textContent }) => textContent);
const next = () => screen.getByRole('heading', { level: 1 }).textContent;

beforeEach(() => {
  localStorage.clear();
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

test('the order chosen on a tablet is that of its list and of what comes next, and is there when the card is opened again', async () => {
  await open();
  const byOperation = next();
  press('Steps');
  press(/^All /);
  const before = headings();
  choose('In which order', 'sensors inwards');
  const inwards = headings();
  expect(inwards).not.toEqual(before);
  expect([...inwards].sort()).toEqual([...before].sort());
  choose('In which order', 'anchor outwards');
  expect(headings().indexOf(far)).toBeGreaterThan(inwards.indexOf(far));
  await open();
  const outwards = next();
  localStorage.setItem('wattograph.orders', JSON.stringify({ 'job inlet': 'inwards' }));
  await open();
  expect(next()).not.toBe(outwards);
  // what an older or newer page kept there is no reason to stop
  localStorage.setItem('wattograph.orders', JSON.stringify({ 'job inlet': 'by the moon' }));
  await open();
  expect(next()).toBe(byOperation);
});

test('a step that is to be done otherwise in the next revision is held with why, and what comes next is another one', async () => {
  await open();
  const step = steps.find(({ title }) => title === next())!;
  const of = { loomId: 'inlet', stepId: step.id, happenedAt: '2026-11-24T09:00:00Z' };
  const told: FloorEvent[] = [
    { ...of, id: 'p', itemId: 'step', kind: 'problem', words: 'too short', author: 'Tobin Ashgrove' },
    { ...of, id: 'a', itemId: 'change', kind: 'answer', words: 'a longer leg', author: IMKE.name },
  ];
  const items = () => within(screen.getByRole('list', { name: 'To do' })).getAllByRole<HTMLButtonElement>('button');
  expect(items().some(({ disabled }) => disabled)).toBe(false);
  await open([...begun, ...told], `step ${step.id}`);
  expect(next()).toBe(step.title);
  expect(
    items().map(({ disabled, textContent }) => [disabled, textContent!.includes('done otherwise in the next revision: a longer leg')]),
  ).toEqual(step.items.map(() => [true, true]));
  await open([...begun, ...told]);
  expect(next()).not.toBe(step.title);
});
