import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import {
  CATALOGUE,
  createBuild,
  CRIMP_STEP,
  listCrimpSeries,
  NOTHING_CARRIED,
  plan,
  toToolWords,
  type BenchTool,
  type SampleSet,
} from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { createCrimping, NOT_TIMED } from '../../../testing/crimping';
import { IMKE } from '../../../testing/person';
import { press } from '../../../testing/act';
import type { Crimping } from '../../../client/floor/useFloorStore';
import { outboxDatabase } from '../../../client/outbox/outboxDatabase';
import type { FloorEvent } from '../../../server/floorEvent';
import { askReason } from '../../../ui/fields/askReason';
import { FloorStation } from '../FloorStation';
import { listOpenedWith } from './listOpenedWith';

jest.mock('../../../ui/fields/askReason', () => ({ askReason: jest.fn() }));
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));
jest.mock('../../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const job = createInlet();
const loomPlan = plan(job, CATALOGUE).looms[0]!;
const { steps } = createBuild(job, loomPlan, CATALOGUE);
const series = listCrimpSeries(loomPlan, steps, CATALOGUE.contacts);
const crimp = steps.find(({ operation, items }) => operation === 'crimp' && items.length > 10)!;
const ofCrimp = series.find(({ wires, places }) => wires === 'AWG 22 ETFE' && places.some(({ stepId }) => stepId === crimp.id))!;
const placed = ofCrimp.places.filter(({ stepId }) => stepId === crimp.id);

const create = (tool: Partial<BenchTool> = {}, of: Partial<Crimping> = {}) => ({
  ...{ release: 1, newest: 1, job, plan: loomPlan, steps, families: CATALOGUE.families, board: null },
  ...{
    carried: NOTHING_CARRIED,
    needsSecond: true,
    instruments: ['pull tester 2'],
    leaseMin: 20,
    crimping: { ...createCrimping(series, tool), ...of },
    times: NOT_TIMED,
  },
});
const minutesAgo = (minutes: number) => new Date(Date.now() - minutes * 60_000).toISOString();
const told = (stepId: string, itemId: string, minutes: number, part: Partial<FloorEvent> = {}): FloorEvent => ({
  ...{
    id: `${stepId} ${itemId} ${minutes} ${part.kind ?? ''}`,
    loomId: 'inlet',
    stepId,
    itemId,
    kind: 'tick',
    words: '',
    author: IMKE.name,
  },
  ...{ happenedAt: minutesAgo(minutes), ...part },
});
const pulled = (reason: SampleSet['reason'], ...pullsN: number[]): SampleSet => ({
  ...{ reason, pullTester: 'pull tester 2', heightGauge: null },
  samples: pullsN.map((force) => ({ bad: [], heightMm: null, pullsN: [force] })),
});
const sample = (minutes: number, samples: SampleSet) => told(CRIMP_STEP, ofCrimp.id, minutes, { kind: 'sample', samples });
/** everything before the crimps, done long ago by somebody else */
const before = steps
  .slice(0, steps.indexOf(crimp))
  .flatMap(({ id, items }) =>
    items.filter(({ heldBecause }) => heldBecause === null).map((item) => told(id, item.id, 9000, { author: 'Tobin Ashgrove' })),
  );
const open = async (events: FloorEvent[], tool: Partial<BenchTool> = {}, of: Partial<Crimping> = {}) => {
  render(
    <MantineProvider env="test">
      <FloorStation person={IMKE} jobId="job" pack={create(tool, of)} events={[...before, ...events]} />
    </MantineProvider>,
  );
  await waitFor(() => expect(screen.queryByText('Opening the job card …')).toBeNull());
};
const kept = async () => (await outboxDatabase.rows.toArray()).map(({ body }) => body as unknown as FloorEvent);
const proof = () => within(screen.getByRole('region', { name: 'How the crimps are proved' }));
const item = (itemId: string) => {
  const { words } = crimp.items.find(({ id }) => id === itemId)!;
  return within(screen.getByRole('list', { name: 'To do' }))
    .getByText(words)
    .closest('button')!;
};
const count = placed.length;
/** every kind of crimp of the step, not the next one alone */
const showAll = () => {
  const more = proof().queryByRole('button', { name: /other kinds? here/ });
  if (more) fireEvent.click(more);
};
const askFor = async (name: RegExp) => {
  showAll();
  const line = proof()
    .getAllByRole('listitem')
    .find(({ textContent }) => textContent!.startsWith(`${ofCrimp.contactName} on ${ofCrimp.wires}${ofCrimp.tool}`))!;
  fireEvent.click(within(line).getByRole('button', { name }));
  return within(await screen.findByRole('dialog'));
};
const typeSamples = (dialog: ReturnType<typeof within>, ...forces: string[]) => {
  fireEvent.change(dialog.getByLabelText('pulled with'), { target: { value: 'pull tester 2' } });
  forces.forEach((force, at) => {
    const one = within(dialog.getByRole('listitem', { name: `Sample ${at + 1}` }));
    fireEvent.click(one.getByRole('button', { name: 'Looks right' }));
    fireEvent.change(one.getByRole('textbox'), { target: { value: force } });
  });
};

beforeEach(async () => {
  localStorage.clear();
  await outboxDatabase.rows.clear();
  // the server is away: what is done stays here
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

test('no crimp is ticked before its first-off: three samples, looked at and pulled, of which the third is warned of', async () => {
  await open([]);
  expect(item(placed[0]!.itemId).disabled).toBe(true);
  expect(item(placed[0]!.itemId).textContent).toContain('first-off: 3 samples before the first');
  const dialog = await askFor(/^3 samples$/);
  const keep = () => dialog.getByRole<HTMLButtonElement>('button', { name: /^Keep/ });
  expect(keep().disabled).toBe(true);
  typeSamples(dialog, '46', '51');
  expect(keep().disabled).toBe(true);
  expect(dialog.getByRole('list', { name: 'What they say' }).textContent).toContain('1 sample is not looked at and pulled yet');
  typeSamples(dialog, '46', '51', '44');
  expect(dialog.getByRole('list', { name: 'What they say' }).textContent).toBe('Sample 3: 44 N: look at the die');
  fireEvent.click(keep());
  await waitFor(() => expect(item(placed[0]!.itemId).disabled).toBe(false));
  expect(proof().getByText(/^passed with a warning .*, 0 of 100 since$/)).toBeTruthy();
  fireEvent.click(item(placed[0]!.itemId));
  await waitFor(async () => expect((await kept()).map(({ kind }) => kind)).toEqual(['sample', 'tick']));
  expect((await kept())[0]).toMatchObject({ stepId: CRIMP_STEP, itemId: ofCrimp.id, samples: pulled('first', 46, 51, 44) });
});

test('a photo of the samples goes with them, is found by the id of what was told, and shows where they count', async () => {
  URL.createObjectURL = () => 'blob:x';
  URL.revokeObjectURL = () => undefined;
  await open([]);
  const dialog = await askFor(/^3 samples$/);
  typeSamples(dialog, '46', '51', '50');
  const choose = (label: string, bytes: number) => {
    const file = new File(['x'], 'a.jpg', { type: 'image/jpeg' });
    Object.defineProperty(file, 'size', { value: bytes });
    fireEvent.change(dialog.getByLabelText(label), { target: { files: [file] } });
  };
  choose('With a photo of them', 30 * 1024 * 1024);
  expect(dialog.getByRole('alert').textContent).toContain('expected at most 20 MB');
  expect(dialog.getByRole<HTMLButtonElement>('button', { name: /^Keep/ }).disabled).toBe(true);
  choose('Another photo of them', 1000);
  fireEvent.click(dialog.getByRole('button', { name: /^Keep/ }));
  await waitFor(async () => expect(await outboxDatabase.rows.count()).toBe(2));
  const rows = (await kept()) as unknown as { id: string; kind?: string; caption?: string; node?: string }[];
  const [told, photo] = ['sample', undefined].map((kind) => rows.find((row) => row.kind === kind)!);
  expect(photo).toMatchObject({
    ...{ id: told!.id, node: job.looms.inlet!.ends[crimp.endId!]!.nodeId },
    caption: `Samples: ${ofCrimp.contactName} on ${ofCrimp.wires}, ${toToolWords(ofCrimp)}`,
  });
  expect(await proof().findByAltText(`samples of ${ofCrimp.contactName}`)).toBeTruthy();
});

test('what does not look right fails whatever it holds, and asks for three new ones', async () => {
  await open([sample(30, pulled('first', 50, 50, 50))]);
  showAll();
  fireEvent.click(proof().getByRole('button', { name: `Change … ${ofCrimp.contactName}` }));
  press('another reel');
  await waitFor(() => expect(item(placed[0]!.itemId).textContent).toContain('another reel: 1 sample before the next'));
  const dialog = await askFor(/^1 sample$/);
  typeSamples(dialog, '60');
  fireEvent.click(dialog.getByRole('button', { name: 'Not right …' }));
  expect(dialog.getByRole<HTMLButtonElement>('button', { name: 'Keep' }).disabled).toBe(true);
  fireEvent.click(dialog.getByRole('button', { name: 'strands cut' }));
  fireEvent.click(dialog.getByRole('button', { name: 'Keep: it fails' }));
  await waitFor(() => expect(proof().getByText('a sample failed: 3 samples before the next')).toBeTruthy());
  const [, set] = await kept();
  expect(set!.samples).toEqual({ ...pulled('reel', 60), samples: [{ bad: ['strands'], heightMm: null, pullsN: [60] }] });
});

test('a bad sample takes back what was made since the last good one; opened again, their seats are open too', async () => {
  const seat = steps.find(({ operation, endId }) => operation === 'seat' && endId === crimp.endId)!;
  const taken = placed.slice(2, 5);
  await open([
    sample(60, pulled('first', 50, 50, 50)),
    ...placed.slice(0, 2).map(({ itemId }) => told(crimp.id, itemId, 55)),
    sample(50, pulled('lot', 50)),
    ...taken.map(({ itemId }) => told(crimp.id, itemId, 45)),
    told(seat.id, seat.items.find(({ cavity }) => cavity === taken[0]!.cavity)!.id, 44),
    sample(40, pulled('every', 38)),
  ]);
  press('Steps');
  press('Hand over');
  const places = taken.map(({ cavity }) => cavity).join(', ');
  const line = within(await screen.findByRole('region', { name: 'Crimps to be done over: a sample failed' })).getByRole('listitem');
  expect(line.textContent).toBe(
    `${ofCrimp.contactName} on ${ofCrimp.wires} (${IMKE.name}): ${job.looms.inlet!.ends[crimp.endId!]!.name} ${places}`,
  );
  press('Close');
  press('Steps');
  const alert = proof().getByRole('alert');
  expect(alert.textContent).toContain(`3 crimps since`);
  expect(alert.textContent).toContain(taken.map(({ cavity }) => cavity).join(', '));
  expect(item(taken[0]!.itemId).textContent).toContain('Not done: a sample of');
  expect(item(placed[0]!.itemId).textContent).not.toContain('Not done');
  press('Cut them off and open them again');
  await waitFor(async () => {
    const opened = (await kept()).map(({ kind, stepId, itemId }) => [kind, stepId, itemId]);
    expect(opened).toEqual([
      ...taken.map(({ itemId }) => ['untick', crimp.id, itemId]),
      ['untick', seat.id, seat.items.find(({ cavity }) => cavity === taken[0]!.cavity)!.id],
    ]);
  });
  expect(proof().queryByRole('alert')).toBeNull();
});

test('samples are of a tool: a bad one takes back what was made with it on another loom, named by its place; here nothing of that is open', async () => {
  const there = { loomId: 'gearbox', stepId: crimp.id, itemId: placed[0]!.itemId, endId: 'shift', cavity: '7' };
  const shared = series.map((one) => (one === ofCrimp ? { ...one, elsewhere: [there] } : one));
  await open(
    [
      sample(60, pulled('first', 50, 50, 50)),
      told(crimp.id, placed[1]!.itemId, 50),
      told(there.stepId, there.itemId, 45, { loomId: 'gearbox' }),
      sample(40, pulled('every', 38)),
    ],
    {},
    { series: shared, elsewhere: { 'gearbox shift': 'gearbox loom, shift plug' } },
  );
  const alert = proof().getByRole('alert');
  expect(alert.textContent).toContain('2 crimps since');
  expect(alert.textContent).toContain(`Here: ${placed[1]!.cavity}; 1 elsewhere`);
  expect(item(placed[1]!.itemId).textContent).toContain('Not done: a sample of');
  expect(item(placed[0]!.itemId).textContent).not.toContain('Not done');
  press('Steps');
  press('Hand over');
  const line = within(await screen.findByRole('region', { name: 'Crimps to be done over: a sample failed' })).getByRole('listitem');
  expect(line.textContent).toMatch(/: .* \w+; gearbox loom, shift plug 7$/);
});

test('a tool past its calibration is not used, nor one whose gauges nobody tried; without all that, a reason goes to the planner', async () => {
  await open([sample(5, pulled('first', 50, 50, 50))], { isPast: true, dueDay: '2026-11-01', gauged: true });
  expect(item(placed[0]!.itemId).disabled).toBe(true);
  expect(item(placed[0]!.itemId).textContent).toContain('its calibration ended on 2026-11-01');
  const dialog = await askFor(/^The tool$/);
  expect(dialog.getByRole('alert').textContent).toBe('Not used: its calibration ended on 2026-11-01');
  jest.mocked(askReason).mockImplementationOnce((_title, onReason) => onReason('the other one is at the track'));
  fireEvent.click(dialog.getByRole('button', { name: 'Crimp without, with a reason' }));
  await waitFor(() => expect(item(placed[0]!.itemId).disabled).toBe(false));
  const [none, problem] = await kept();
  expect([none!.kind, none!.words, none!.samples!.reason]).toEqual(['sample', 'the other one is at the track', 'none']);
  expect([problem!.kind, problem!.stepId, problem!.words]).toEqual([
    'problem',
    crimp.id,
    'crimped without samples: the other one is at the track',
  ]);
});

test('gauges are tried once a session: they pass and work goes on, or the tool stays where it is', async () => {
  await open([sample(5, pulled('first', 50, 50, 50))], { gauged: true });
  expect(item(placed[0]!.itemId).textContent).toContain('go and no-go gauge before the first of this session');
  let dialog = await askFor(/^The tool$/);
  jest.mocked(askReason).mockImplementationOnce((_title, onReason) => onReason('no-go goes in'));
  fireEvent.click(dialog.getByRole('button', { name: 'It does not pass' }));
  await waitFor(() => expect(item(placed[0]!.itemId).textContent).toContain('its gauge did not pass: no-go goes in'));
  dialog = await askFor(/^The tool$/);
  fireEvent.click(dialog.getByRole('button', { name: 'Go goes in, no-go does not' }));
  await waitFor(() => expect(item(placed[0]!.itemId).disabled).toBe(false));
  expect((await kept()).map(({ kind, itemId, words }) => [kind, itemId, words])).toEqual([
    ['gauge', ofCrimp.tool, 'no-go goes in'],
    ['gauge', ofCrimp.tool, ''],
  ]);
});

test('when the last is made a last-off is asked for, and holds nothing up', async () => {
  const all = ofCrimp.places.map(({ stepId, itemId }) => told(stepId, itemId, 20));
  await open([sample(30, pulled('first', 50, 50, 50)), ...all]);
  press('Steps');
  fireEvent.click(screen.getAllByRole('button', { name: new RegExp(`^${crimp.title}`) })[0]!);
  showAll();
  expect(proof().getByText('last-off: 1 sample, for what was made since the one before')).toBeTruthy();
  expect(item(placed[count - 1]!.itemId).disabled).toBe(false);
});

test('with crimps that are cut off, what is seated of them is open again, with the lock of the housing; nothing else', () => {
  const ofEnd = [
    {
      id: 'crimp.b',
      operation: 'crimp',
      endId: 'b',
      items: [
        { id: '1', cavity: '1' },
        { id: '2', cavity: '2' },
      ],
    },
    {
      id: 'seat.b',
      operation: 'seat',
      endId: 'b',
      items: [
        { id: '1', cavity: '1' },
        { id: '2', cavity: '2' },
        { id: 'lock', cavity: null },
      ],
    },
    { id: 'seat.c', operation: 'seat', endId: 'c', items: [{ id: '1', cavity: '1' }] },
  ] as unknown as Parameters<typeof listOpenedWith>[0];
  const ticked = (...of: [string, string[]][]) => new Map(of.map(([id, items]) => [id, { ticked: new Set(items) }]));
  const list = (progress: Parameters<typeof listOpenedWith>[3]) =>
    listOpenedWith(ofEnd, ofEnd[0]!, ['1'], progress).map(({ stepId, itemId }) => `${stepId} ${itemId}`);
  expect(list(ticked(['crimp.b', ['1', '2']], ['seat.b', ['1', 'lock']], ['seat.c', ['1']]))).toEqual([
    'crimp.b 1',
    'seat.b 1',
    'seat.b lock',
  ]);
  expect(list(ticked(['crimp.b', ['1', '2']], ['seat.b', ['2', 'lock']]))).toEqual(['crimp.b 1']);
  expect(list(ticked())).toEqual([]);
});
