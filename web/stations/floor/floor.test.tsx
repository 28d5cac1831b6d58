import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { CATALOGUE, createBuild, createFloorBoard, NOTHING_CARRIED, plan, type CarriedWork, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { NOT_TIMED, NOTHING_CRIMPED } from '../../testing/crimping';
import { IMKE } from '../../testing/person';
import { press } from '../../testing/act';
import { outboxDatabase } from '../../client/outbox/outboxDatabase';
import type { FloorEvent } from '../../server/floorEvent';
import { askProblem } from './askProblem';
import { FloorStation } from './FloorStation';

jest.mock('./askProblem', () => ({ askProblem: jest.fn() }));
const push = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ push }) }));
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
    board: createFloorBoard(job, CATALOGUE, loomPlan),
    carried,
    needsSecond: true,
    ...{ instruments: ['pull tester', 'milliohmmeter'], leaseMin: 20, crimping: NOTHING_CRIMPED, times: NOT_TIMED },
  };
};
type Pack = ReturnType<typeof create>;
const open = async (pack: Pack | null, events: FloorEvent[] = [], card: string | null = null) => {
  render(
    <MantineProvider env="test">
      <FloorStation person={IMKE} jobId="job" pack={pack} events={events} card={card} />
    </MantineProvider>,
  );
  // what this tablet kept is read first
  await waitFor(() => expect(screen.queryByText('Opening the job card …')).toBeNull());
};
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
const boxes = () =>
  within(screen.getByRole('list', { name: 'To do' }))
    .getAllByRole<HTMLButtonElement>('button', { pressed: undefined })
    .filter((one) => one.hasAttribute('aria-pressed'));

beforeEach(async () => {
  await outboxDatabase.rows.clear();
  // the server is away: what is ticked stays here
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

test('nothing released: it says where a revision is made', async () => {
  await open(null);
  expect(screen.getByRole('link', { name: 'Release one on Sheets' }).getAttribute('href')).toBe('/jobs/job/sheets');
});

test('a card of the pack opens at its first step that is not done; one that is not of this loom says so', async () => {
  const pack = create();
  await open(pack, [], 'end thr');
  expect(title()).toMatch(/throttle/);
  cleanup();
  const crimps = pack.steps.filter(({ endId, operation }) => endId === 'thr' && operation !== 'label' && operation !== 'boot');
  const [first] = crimps;
  await open(
    pack,
    first!.items.map(({ id }) => tick(first!.id, id)),
    'end thr',
  );
  expect(title()).not.toBe(first!.title);
  expect(title()).toMatch(/throttle/);
  cleanup();
  await open(pack, all(pack, 3), 'end nowhere');
  expect(screen.getByText('The card that was opened is not of this loom in revision 2: work goes on where it was.')).toBeTruthy();
  expect(title()).toBe(pack.steps[3]!.title);
});

test('the test leads to Prove, for the loom and revision that are on the bench', async () => {
  const pack = create();
  await open(pack, [], 'post test');
  expect(title()).toBe('Ring out every pair against the continuity table');
  expect(screen.getByRole('link', { name: 'Ring it out on Prove' }).getAttribute('href')).toBe('/jobs/job/prove?loom=inlet&release=2');
});

test('laying on a board: each wire with its pegs and pages, and the mark of a page that hangs is told true or not', async () => {
  const pack = create((job) => (job.looms.inlet!.board.at = { xMm: 200, yMm: 600 }));
  const at = pack.steps.findIndex(({ operation }) => operation === 'lay');
  await open(pack, all(pack, at), 'post board');
  expect(title()).toBe(pack.steps[at]!.title);
  const said = boxes().filter(({ textContent }) => /(pegs? [\da-z, –]+ · )?pages? [\d, –]+$/.test(textContent));
  expect(said).toHaveLength(boxes().length);
  expect(screen.getByRole('img', { name: /mm from the datum.*, on the board$/ })).toBeTruthy();
  const field = screen.getByRole('textbox', { name: 'Mark of any page that hangs' });
  const { fingerprint, number } = pack.board!.tiles[1]!;
  fireEvent.change(field, { target: { value: ` ${fingerprint.toUpperCase()} ` } });
  expect(screen.getByText(`Page ${number} of this revision. Lay on it.`)).toBeTruthy();
  fireEvent.change(field, { target: { value: 'deadbeef' } });
  expect(screen.getByText(/No page of revision 2 has this mark/)).toBeTruthy();
});

test('a loom that was not spread is laid as before', async () => {
  const pack = create();
  expect(pack.board).toBeNull();
  await open(
    pack,
    all(
      pack,
      pack.steps.findIndex(({ operation }) => operation === 'lay'),
    ),
  );
  expect(screen.queryByRole('textbox', { name: 'Mark of any page that hangs' })).toBeNull();
});

test('a loom without wires in this revision says so', async () => {
  await open(
    create((job) => {
      job.looms.inlet!.circuits = {};
    }),
  );
  expect(screen.getByText(/This loom has no wires in revision 2/)).toBeTruthy();
});

test('work goes on at the first step with something left, and ticks move it forward', async () => {
  const pack = create();
  await open(pack, all(pack, 3));
  expect(title()).toBe(pack.steps[3]!.title);
  expect(screen.getByText(`4 of ${pack.steps.length}`)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Skip for now' })).toBeTruthy();
  for (const box of boxes()) if (!box.disabled) await act(() => Promise.resolve(fireEvent.click(box)));
  expect(boxes().filter((box) => box.getAttribute('aria-pressed') !== 'true' && !box.disabled)).toEqual([]);
  await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/^\d+ kept here, server away$/));
  press('Next step');
  expect(title()).toBe(pack.steps[4]!.title);
  press('Back');
  expect(title()).toBe(pack.steps[3]!.title);
});

test('a wire from a guessed length is held: its reason stands there and it cannot be ticked', async () => {
  const pack = create();
  const at = pack.steps.findIndex(({ items }) => items.some(({ heldBecause }) => heldBecause !== null));
  await open(pack);
  // where nothing is ticked yet the card opens at its first step that can be worked on
  goTo(at - pack.steps.findIndex(({ title: words }) => words === title()));
  const held = boxes().filter((box) => box.disabled);
  expect(held.length).toBeGreaterThan(0);
  for (const box of held) expect(box.textContent).toContain('HELD: ');
});

test('a step whose needs are not done says what comes first, and why', async () => {
  const pack = create();
  const at = pack.steps.findIndex(({ needs }) => needs.length > 2);
  await open(pack);
  goTo(at - pack.steps.findIndex(({ title: words }) => words === title()));
  const { needs } = pack.steps[at]!;
  const first = pack.steps.find(({ id }) => id === needs[0]!.stepId)!;
  expect(screen.getByText(/^First: /).textContent).toContain(`${first.title} (${needs[0]!.because})`);
  expect(screen.getByText(/^First: /).textContent).toMatch(new RegExp(`and ${needs.length - 2} more$`));
});

test('a problem is told with its words, stands at its step, and is solved', async () => {
  const pack = create();
  await open(pack);
  press('Problem');
  await act(() => Promise.resolve(jest.mocked(askProblem).mock.calls.at(-1)![0]('spool is empty', null)));
  expect(screen.getByText(/^Problem: spool is empty/)).toBeTruthy();
  await act(() => Promise.resolve(press('solved')));
  expect(screen.queryByText(/^Problem: /)).toBeNull();
});

test('a cut shows the place on the loom, an end its face from the side of the wires', async () => {
  const pack = create();
  await open(pack);
  expect(pack.steps[0]!.operation).toBe('cut');
  expect(screen.getByRole('img', { name: 'Where on the loom' })).toBeTruthy();
  cleanup();
  const at = pack.steps.findIndex(({ operation, endId }) => operation === 'crimp' && endId === 'map');
  await open(pack, all(pack, at));
  expect(title()).toBe(pack.steps[at]!.title);
  expect(screen.getByText('WIRE SIDE')).toBeTruthy();
  expect(screen.queryByRole('img', { name: 'Where on the loom' })).toBeNull();
});

test('the list of steps leads to one and back; what is taken there is at once one’s own; the code of another loom leads there', async () => {
  const pack = create();
  await open(pack);
  expect(title()).toMatch(/^Cut and mark/);
  press('Steps');
  expect(screen.queryByRole('button', { name: 'Problem' })).toBeNull();
  press(/^All /);
  await act(() => Promise.resolve(press('Take injector 1')));
  expect(screen.getByRole('button', { name: 'Leave injector 1' })).toBeTruthy();
  press(/^Crimp injector 1/);
  press('Steps');
  press('Back');
  expect(title()).toBe('Crimp injector 1');
  press('Steps');
  const scan = (loom: string, card: string) => {
    const field = screen.getByLabelText('Find an end, a wire or a step');
    fireEvent.change(field, { target: { value: `http://x/jobs/5ee12000-0000-4000-8000-000000000012/floor?loom=${loom}&card=${card}` } });
    fireEvent.submit(field.closest('form')!);
  };
  scan('engine', 'post+kit');
  expect(push).toHaveBeenCalledWith('/jobs/5ee12000-0000-4000-8000-000000000012/floor?loom=engine&card=post+kit');
});

test('somebody else at the same end is named, and work goes on where nobody is', async () => {
  const pack = create();
  const at = pack.steps.findIndex(({ endId, operation }) => operation === 'crimp' && endId === 'inj1');
  const now = new Date().toISOString();
  const take: FloorEvent = { ...tick('', 'end inj1', 'take'), happenedAt: now };
  await open(pack, [...all(pack, at), take]);
  // the end that Tobin has is not offered as the next
  expect(title()).not.toContain('injector 1');
  press('Steps');
  press(/^All /);
  press(/^Crimp injector 1/);
  expect(screen.getByText('injector 1: Tobin Ashgrove is here')).toBeTruthy();
});

test('another revision that is out is said, with the way there', async () => {
  const pack = { ...create(), newest: 5 };
  await open(pack);
  expect(screen.getByText(/Revision 5 is out; this card is revision 2/)).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Go on in revision 5' }).getAttribute('href')).toBe('/jobs/job/floor?loom=inlet');
});

test('with every step done the last one says so', async () => {
  const pack = create((job) => {
    job.looms.inlet!.segments['s-knk'] = { ...job.looms.inlet!.segments['s-knk']!, status: 'roped', method: 'tape' };
  });
  await open(pack, all(pack, pack.steps.length));
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

  test('what is the same is ticked and says since when; what changed is open and says what differs', async () => {
    await open(create(undefined, carried));
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

  test('work is gone on with behind all that is done, whoever did it in whichever revision', async () => {
    const done = steps[0]!.items.map(({ id }) => ({ stepId: first!.id, itemId: id, revision: 1 }));
    await open(create(undefined, { ...carried, carried: done, reopened: [] }));
    expect(title()).toBe(second!.title);
  });

  test('what this revision has no more is undone first, with what was done about it', async () => {
    const undo = [{ id: 'a1', title: 'Remove N-226', done: ['Seat the contacts, cavity 5', 'Cut and mark'], revision: 1 }];
    await open(create(undefined, { carried: [], reopened: [], undo }));
    expect(title()).toBe('Undo what this revision does not ask for any more');
    expect(boxes().map(({ textContent }) => textContent)).toEqual([
      'Remove N-226. Done in revision 1, the last first: Seat the contacts, cavity 5 · Cut and mark',
    ]);
    fireEvent.click(boxes()[0]!);
    press('Next step');
    expect(title()).toBe(first!.title);
    await waitFor(async () =>
      expect((await outboxDatabase.rows.toArray()).map(({ line, body }) => [line, body])).toMatchObject([
        ['event/job/2', { stepId: 'undo', itemId: 'a1', kind: 'tick' }],
      ]),
    );
  });

  test('ticks of another loom do not count here, though its steps have the same names', async () => {
    await open(create(), [{ ...tick(first!.id, one!.id), loomId: 'chassis' }]);
    expect(boxes()[0]!.getAttribute('aria-pressed')).toBe('false');
  });
});

describe('readings', () => {
  const openCrimp = async (events: FloorEvent[] = []) => {
    const pack = create();
    const at = pack.steps.findIndex(({ operation, items }) => operation === 'crimp' && items.some(({ reads }) => reads.length > 0));
    await open(pack, [...all(pack, at), ...events]);
    expect(title()).toBe(pack.steps[at]!.title);
    const item = pack.steps[at]!.items.find(({ reads }) => reads.length > 0)!;
    return { pack, step: pack.steps[at]!, item, expected: item.reads[0]! };
  };
  const waiting = async () => (await outboxDatabase.rows.toArray()).map(({ body }) => body as FloorEvent);
  const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
  beforeEach(() => localStorage.clear());

  test('one is a number in its unit, taken with an instrument by a person; without the instrument it is not kept', async () => {
    const { step, item, expected } = await openCrimp();
    fireEvent.click(screen.getAllByRole('button', { name: '0 of 1 reading' })[0]!);
    const label = `${expected.words}, N`;
    type(label, '62,5');
    expect(screen.getByText('A reading needs the instrument it was taken with.')).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' }).disabled).toBe(true);
    type('Instrument', 'pull tester');
    await act(() => Promise.resolve(press('Keep')));
    expect(screen.getByText(/read 62.5 N, pull tester, Imke Dorsey/)).toBeTruthy();
    await waitFor(async () => expect(await waiting()).toHaveLength(1));
    expect((await waiting())[0]).toMatchObject({
      ...{ kind: 'reading', stepId: step.id, itemId: item.id, readId: expected.id },
      ...{ value: 62.5, unit: 'N', instrument: 'pull tester', author: 'Imke Dorsey' },
    });
    expect(localStorage.getItem('wattograph.instruments')).toBe('{"crimp":"pull tester"}');
  });

  test('what does not pass is not done though it is ticked, until it is read again', async () => {
    const { step, item, expected } = await openCrimp();
    const reading = (value: number): FloorEvent => ({
      ...{
        id: `r${value}`,
        loomId: 'inlet',
        stepId: step.id,
        itemId: item.id,
        kind: 'reading',
        words: expected.words,
        author: 'Tobin Ashgrove',
      },
      ...{ readId: expected.id, value, unit: 'N', instrument: 'pull tester', happenedAt: '2026-11-24T08:00:00Z' },
    });
    cleanup();
    const ticks = step.items.map((one) => tick(step.id, one.id));
    await openCrimp([reading(expected.least! - 1), ...ticks]);
    expect(screen.getByText('Not done: a reading is outside its limit.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Skip for now' })).toBeTruthy();
    expect(screen.getByText(', 1 outside the limit')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /^1 of 1 reading\s*, 1 outside/ }));
    type('Instrument', 'pull tester');
    type(`${expected.words}, N`, String(expected.least));
    await act(() => Promise.resolve(press('Keep')));
    expect(screen.queryByText('Not done: a reading is outside its limit.')).toBeNull();
    expect(screen.getByRole('button', { name: 'Next step' })).toBeTruthy();
  });

  test('at the test every pair of the continuity table is read, the open ones first', async () => {
    const pack = create((job) => {
      job.looms.inlet!.segments['s-knk']!.status = 'roped';
    });
    const at = pack.steps.findIndex(({ operation }) => operation === 'test');
    const pairs = pack.steps[at]!.items.find(({ id }) => id === 'pairs')!;
    expect(pairs.reads.length).toBeGreaterThan(20);
    await open(pack, all(pack, at));
    fireEvent.click(screen.getByRole('button', { name: `0 of ${pairs.reads.length} readings` }));
    const rows = () => within(screen.getByRole('list', { name: 'Readings' })).getAllByRole('listitem');
    expect(rows()).toHaveLength(6);
    expect(screen.getByText(`${pairs.reads.length - 6} more follow as these are read.`)).toBeTruthy();
    type('Instrument', 'milliohmmeter');
    const { words, unit } = pairs.reads[0]!;
    type(`${words}, ${unit}`, '0.02');
    await act(() => Promise.resolve(fireEvent.keyDown(screen.getByLabelText(`${words}, ${unit}`), { key: 'Enter' })));
    expect(screen.getByRole('button', { name: `1 of ${pairs.reads.length} readings: close` })).toBeTruthy();
    expect(screen.queryByLabelText(`${words}, ${unit}`)).toBeNull();
  });
});

test('a loom is signed by somebody else than who tested it, where there is somebody else', async () => {
  const pack = create();
  const at = pack.steps.findIndex(({ operation }) => operation === 'sign');
  const signature = () => screen.getByRole<HTMLButtonElement>('button', { name: /looked over and signed/ });
  const tested = all(pack, at).map((event) => ({ ...event, author: IMKE.name }));
  await open(pack, tested);
  expect(title()).toBe('Second person looks the loom over and signs');
  expect(screen.getByText('Imke Dorsey tested this loom: somebody else looks it over and signs.')).toBeTruthy();
  expect(signature().disabled).toBe(true);
  cleanup();
  await open(pack, all(pack, at));
  expect(signature().disabled).toBe(false);
  cleanup();
  await open({ ...pack, needsSecond: false }, tested);
  expect(signature().disabled).toBe(false);
});

test('what goes over an end or a breakout is drawn cut lengthwise, while it slides on and while it is closed', async () => {
  const pack = create((job) => void (job.looms.inlet!.dressing = 'boots'));
  for (const operation of ['boot', 'close'] as const) {
    cleanup();
    await open(pack);
    const at = pack.steps.findIndex((step) => step.operation === operation);
    goTo(at);
    const { title, items } = pack.steps[at]!;
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(title);
    const picture = screen.getByRole('img', { name: `${title}, cut lengthwise` });
    // a number for each piece
    const numbers = [...picture.querySelectorAll('text')]
      .map(({ textContent }) => textContent)
      .filter((words) => /^\d+$/.test(words ?? ''));
    expect(numbers).toHaveLength(items.length);
  }
});
