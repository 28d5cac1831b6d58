import { MantineProvider } from '@mantine/core';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { CATALOGUE, createBuild, plan, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { press } from '../../testing/act';
import type { FloorEvent } from '../../server/releases';
import { askReason } from '../../ui/askReason';
import { FloorStation } from './FloorStation';

jest.mock('../../ui/askReason', () => ({ askReason: jest.fn() }));
jest.mock('../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const create = (change: (job: Job) => void = () => undefined) => {
  const job = createInlet();
  change(job);
  const loomPlan = plan(job, CATALOGUE).looms[0]!;
  return { release: 2, newest: 2, job, plan: loomPlan, steps: createBuild(job, loomPlan, CATALOGUE).steps };
};
type Pack = ReturnType<typeof create>;
const open = (pack: Pack | null, events: FloorEvent[] = []) =>
  render(
    <MantineProvider env="test">
      <FloorStation jobId="job" pack={pack} events={events} />
    </MantineProvider>,
  );
const tick = (stepId: string, itemId: string, kind: FloorEvent['kind'] = 'tick', words = ''): FloorEvent => ({
  id: `${stepId} ${itemId} ${kind}`,
  loomId: 'inlet',
  stepId,
  itemId,
  kind,
  words,
  author: 'Tobin Ashgrove',
  happenedAt: '2026-11-24T08:00:00Z',
});
const all = (pack: Pack, until: number) =>
  pack.steps
    .slice(0, until)
    .flatMap(({ id, items }) => items.filter(({ heldBecause }) => heldBecause === null).map((item) => tick(id, item.id)));
const goTo = (at: number) => {
  for (let count = 0; count < at; count += 1) press(/^(Skip for now|Next step)$/);
};
const title = () => screen.getByRole('heading').textContent;
const boxes = () => within(screen.getByRole('list')).getAllByRole<HTMLButtonElement>('button');

beforeEach(() => {
  localStorage.clear();
  // the server is away: what is ticked stays here
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

test('nothing released: it says where a revision is made', () => {
  open(null);
  expect(screen.getByRole('link', { name: 'Release one on Sheets' }).getAttribute('href')).toBe('/jobs/job/sheets');
});

test('a loom without wires in this revision says so', () => {
  open(
    create((job) => {
      job.looms.inlet!.circuits = {};
    }),
  );
  expect(screen.getByText(/This loom has no wires in revision 2/)).toBeTruthy();
});

test('work goes on at the first step with something left, and ticks move it forward', async () => {
  const pack = create();
  open(pack, all(pack, 3));
  expect(title()).toBe(pack.steps[3]!.title);
  expect(screen.getByText(`4 of ${pack.steps.length}`)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Skip for now' })).toBeTruthy();
  for (const box of boxes()) if (!box.disabled) await act(() => Promise.resolve(fireEvent.click(box)));
  expect(boxes().filter((box) => box.getAttribute('aria-pressed') !== 'true' && !box.disabled)).toEqual([]);
  expect(screen.getByRole('status').textContent).toMatch(/^\d+ kept here, server away$/);
  press('Next step');
  expect(title()).toBe(pack.steps[4]!.title);
  press('Back');
  expect(title()).toBe(pack.steps[3]!.title);
});

test('a wire from a guessed length is held: its reason stands there and it cannot be ticked', () => {
  const pack = create();
  const at = pack.steps.findIndex(({ items }) => items.some(({ heldBecause }) => heldBecause !== null));
  open(pack);
  // where nothing is ticked yet the card opens at its first step that can be worked on
  goTo(at - pack.steps.findIndex(({ title: words }) => words === title()));
  const held = boxes().filter((box) => box.disabled);
  expect(held.length).toBeGreaterThan(0);
  for (const box of held) expect(box.textContent).toContain('HELD: ');
});

test('a step whose needs are not done says what comes first, and why', () => {
  const pack = create();
  const at = pack.steps.findIndex(({ needs }) => needs.length > 2);
  open(pack);
  goTo(at - pack.steps.findIndex(({ title: words }) => words === title()));
  const { needs } = pack.steps[at]!;
  const first = pack.steps.find(({ id }) => id === needs[0]!.stepId)!;
  expect(screen.getByText(/^First: /).textContent).toContain(`${first.title} (${needs[0]!.because})`);
  expect(screen.getByText(/^First: /).textContent).toMatch(new RegExp(`and ${needs.length - 2} more$`));
});

test('a problem is told with its words, stands at its step, and is solved', async () => {
  const pack = create();
  open(pack);
  press('Problem');
  expect(jest.mocked(askReason).mock.calls.at(-1)![0]).toBe('What is wrong?');
  await act(() => Promise.resolve(jest.mocked(askReason).mock.calls.at(-1)![1]('spool is empty')));
  expect(screen.getByText(/^Problem: spool is empty/)).toBeTruthy();
  await act(() => Promise.resolve(press('solved')));
  expect(screen.queryByText(/^Problem: /)).toBeNull();
});

test('a cut shows the place on the loom, an end its face from the side of the wires', () => {
  const pack = create();
  open(pack);
  expect(pack.steps[0]!.operation).toBe('cut');
  expect(screen.getByRole('img', { name: 'Where on the loom' })).toBeTruthy();
  cleanup();
  const at = pack.steps.findIndex(({ operation, endId }) => operation === 'crimp' && endId === 'map');
  open(pack, all(pack, at));
  expect(title()).toBe(pack.steps[at]!.title);
  expect(screen.getByText('WIRE SIDE')).toBeTruthy();
  expect(screen.queryByRole('img', { name: 'Where on the loom' })).toBeNull();
});

test('another revision that is out is said, and another loom is a link', () => {
  const pack = { ...create(), newest: 5 };
  open(pack);
  expect(screen.getByText('Revision 5 is out; this card is revision 2.')).toBeTruthy();
});

test('with every step done the last one says so', () => {
  const pack = create((job) => {
    job.looms.inlet!.segments['s-knk'] = { ...job.looms.inlet!.segments['s-knk']!, status: 'roped', method: 'tape' };
  });
  open(pack, all(pack, pack.steps.length));
  expect(screen.getByText('Every step is done.')).toBeTruthy();
  expect(screen.getByRole('progressbar', { name: 'Steps done' }).getAttribute('aria-valuenow')).toBe(String(pack.steps.length));
});
