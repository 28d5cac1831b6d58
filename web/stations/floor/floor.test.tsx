import { MantineProvider } from '@mantine/core';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { CATALOGUE, createBuild, plan, type CarriedWork, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { press } from '../../testing/act';
import { NOTHING_CARRIED } from '../../client/floorProgress';
import type { FloorEvent } from '../../server/releases';
import { askReason } from '../../ui/askReason';
import { FloorStation } from './FloorStation';

jest.mock('../../ui/askReason', () => ({ askReason: jest.fn() }));
jest.mock('../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const create = (change: (job: Job) => void = () => undefined, carried: CarriedWork = NOTHING_CARRIED) => {
  const job = createInlet();
  change(job);
  const loomPlan = plan(job, CATALOGUE).looms[0]!;
  const { steps } = createBuild(job, loomPlan, CATALOGUE);
  return {
    release: 2,
    newest: 2,
    job,
    plan: loomPlan,
    steps,
    families: CATALOGUE.families,
    carried,
    people: ['Imke Dorsey', 'Tobin Ashgrove'],
  };
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

test('another revision that is out is said, with the way there', () => {
  const pack = { ...create(), newest: 5 };
  open(pack);
  expect(screen.getByText(/Revision 5 is out; this card is revision 2/)).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Go on in revision 5' }).getAttribute('href')).toBe('/jobs/job/floor?loom=inlet');
});

test('with every step done the last one says so', () => {
  const pack = create((job) => {
    job.looms.inlet!.segments['s-knk'] = { ...job.looms.inlet!.segments['s-knk']!, status: 'roped', method: 'tape' };
  });
  open(pack, all(pack, pack.steps.length));
  expect(screen.getByText('Every step is done.')).toBeTruthy();
  expect(screen.getByRole('progressbar', { name: 'Steps done' }).getAttribute('aria-valuenow')).toBe(String(pack.steps.length));
});

describe('a revision after work was done', () => {
  const { steps } = create();
  const [first, second] = steps;
  const [one, other] = first!.items;
  const carried: CarriedWork = {
    carried: [{ stepId: first!.id, itemId: one!.id, revision: 1 }],
    reopened: [
      {
        stepId: first!.id,
        itemId: other!.id,
        revision: 1,
        differences: ['final 230 → 235 mm'],
        serves: 'the piece in hand is 280 mm long',
      },
    ],
    undo: [],
  };

  test('what is the same is ticked and says since when; what changed is open and says what differs', () => {
    open(create(undefined, carried));
    expect(boxes()[0]!.getAttribute('aria-pressed')).toBe('true');
    expect(boxes()[0]!.textContent).toContain('done in revision 1, and the same now');
    expect(boxes()[1]!.getAttribute('aria-pressed')).toBe('false');
    expect(boxes()[1]!.textContent).toContain('Done in revision 1, changed since: final 230 → 235 mm (the piece in hand is 280 mm long)');
    // done anew it is a tick of this revision
    fireEvent.click(boxes()[1]!);
    expect(boxes()[1]!.getAttribute('aria-pressed')).toBe('true');
    expect(boxes()[1]!.textContent).not.toContain('changed since');
    fireEvent.click(boxes()[0]!);
    expect([boxes()[0]!.getAttribute('aria-pressed'), boxes()[0]!.textContent!.includes('done in revision')]).toEqual(['false', false]);
  });

  test('work is gone on with behind all that is done, whoever did it in whichever revision', () => {
    const done = steps[0]!.items.map(({ id }) => ({ stepId: first!.id, itemId: id, revision: 1 }));
    open(create(undefined, { ...carried, carried: done, reopened: [] }));
    expect(title()).toBe(second!.title);
  });

  test('what this revision has no more is undone first, with what was done about it', () => {
    const undo = [{ id: 'a1', title: 'Remove N-226', done: ['Seat the contacts, cavity 5', 'Cut and mark'], revision: 1 }];
    open(create(undefined, { carried: [], reopened: [], undo }));
    expect(title()).toBe('Undo what this revision does not ask for any more');
    expect(boxes().map(({ textContent }) => textContent)).toEqual([
      'Remove N-226. Done in revision 1, the last first: Seat the contacts, cavity 5 · Cut and mark',
    ]);
    fireEvent.click(boxes()[0]!);
    press('Next step');
    expect(title()).toBe(first!.title);
    expect(localStorage.getItem('wattograph.floor.job.2')).toContain('"stepId":"undo","itemId":"a1","kind":"tick"');
  });

  test('ticks of another loom do not count here, though its steps have the same names', () => {
    open(create(), [{ ...tick(first!.id, one!.id), loomId: 'chassis' }]);
    expect(boxes()[0]!.getAttribute('aria-pressed')).toBe('false');
  });
});
