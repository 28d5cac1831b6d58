import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import {
  CATALOGUE,
  createBuild,
  createFirstPower,
  findStandard,
  listMinutes,
  listNeeds,
  listPowerNeeds,
  MILESTONE_STEP,
  NO_CARRIED_POWER,
  NOTHING_CARRIED,
  plan,
  POWER_STEP,
  STAND_IN,
  type PowerTest,
} from 'wattograph-core';
import { createCleanSkerry } from 'wattograph-core/demo';
import { outboxDatabase } from '../../client/outbox/outboxDatabase';
import type { FloorEvent } from '../../server/floorEvent';
import { NOTHING_CRIMPED } from '../../testing/crimping';
import { IMKE } from '../../testing/person';
import { MilestonesStation } from './MilestonesStation';
import type { MilestonePack } from './milestonePack';

const pushed = jest.fn<undefined, [string]>();
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: (path: string) => pushed(path) }) }));
jest.mock('../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const job = createCleanSkerry();
const planned = plan(job, CATALOGUE);
const standard = findStandard(job, CATALOGUE);
const builds = planned.looms.map((one) => ({
  plan: one,
  name: job.looms[one.loomId]!.name,
  steps: createBuild(job, one, CATALOGUE).steps,
}));
const sheet = createFirstPower(job, planned, CATALOGUE)!;
const wireEnds = planned.looms.flatMap(({ loomId, wires }) =>
  wires.map(({ id, from, to }): [string, string[]] => [
    `${loomId}/${id}`,
    [from, to].flatMap((end) => (end.kind === 'cavity' ? [`${loomId}/${end.endId}`] : [])),
  ]),
);
const PACK: MilestonePack = {
  power: {
    ...{ release: 2, newest: 2, jobName: 'Skerry 12', sheet, wireEnds },
    ...{ instruments: [], earlier: NO_CARRIED_POWER },
    looms: builds.map(({ plan: { loomId }, name, steps }) => ({ loomId, name, steps, test: [], carried: NOTHING_CARRIED, held: [] })),
  },
  looms: builds.map(({ plan: one, name, steps }) => ({
    ...{ loomId: one.loomId, name, steps, carried: NOTHING_CARRIED, crimping: NOTHING_CRIMPED },
    minutes: [...listMinutes(steps, one, standard.minutes)],
    numbers: one.wires.map(({ id, number }) => [id, number]),
  })),
  needs: listNeeds(job, CATALOGUE, standard, planned.looms),
  checked: [],
  firstOffMin: 6,
  pauseMin: 10,
  sessionMin: 240,
};
let serial = 0;
const event = (loomId: string, stepId: string, itemId: string, minute: number, rest: Partial<FloorEvent> = {}): FloorEvent => {
  serial += 1;
  return {
    ...{ id: `e${serial}`, serial, loomId, stepId, itemId, kind: 'tick', words: '', author: 'Tobin Ashgrove' },
    happenedAt: new Date(Date.UTC(2026, 10, 29, 8, minute)).toISOString(),
    ...rest,
  };
};
const allWork = () =>
  builds.flatMap(({ plan: { loomId }, steps }) => steps.flatMap(({ id, items }) => items.map((item) => event(loomId, id, item.id, 0))));
const checks = (at: number) => PACK.needs[at]!.checks;
/** readings that a milestone waits for, each as it should be */
const listReadings = (at: number): PowerTest[] => {
  const asked = listPowerNeeds(PACK.needs[at]!, sheet.tests, new Map(wireEnds));
  return sheet.tests.filter(({ id }) => asked.has(id));
};
const read = (test: PowerTest, instrument = 'meter 4') =>
  event('', POWER_STEP, test.part, 2, {
    ...{ kind: 'reading', readId: test.id, unit: test.unit, instrument },
    value: test.expected ?? (test.unit === '°C' ? 20 : test.unit === 'Ω' ? 5000 : (test.least ?? 3)),
  });
const open = async (pack: MilestonePack | null, events: FloorEvent[] = []) => {
  render(
    <MantineProvider env="test">
      <MilestonesStation person={IMKE} jobId="job" jobName="Skerry 12" pack={pack} events={events} />
    </MantineProvider>,
  );
  await waitFor(() => expect(screen.queryByText('Opening the milestones …')).toBeNull());
};
const milestone = (name: string) =>
  within(screen.getByRole('group', { name: 'Milestones' })).getByRole('button', { name: new RegExp(`^${name}`) });
const section = (name: string) => within(screen.getByRole('region', { name }));
const kept = async () => (await outboxDatabase.rows.toArray()).map(({ body }) => body as unknown as FloorEvent);
beforeEach(async () => {
  localStorage.clear();
  await outboxDatabase.rows.clear();
  // the server is away: what is ticked stays here
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

test('what is left until the first start stands first; another milestone asks for more', async () => {
  await open(PACK);
  expect(milestone('First start').getAttribute('aria-pressed')).toBe('true');
  expect(milestone('First start').textContent).toMatch(
    /^First start[\d.]+ h of work[\d.]+ h at the shortest, [\d.]+ h of it a cure\d+ steps, \d+ readings, 5 checks$/,
  );
  expect(section('Wires not made').getByText(/^engine/i)).toBeTruthy();
  expect(screen.getByText(/^Wires of power, boxes, safety, inlet/)).toBeTruthy();
  expect(section('First power').getByText(/^\d+ of \d+ readings that it waits for left\./)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'parts' }));
  expect(screen.getByRole('table', { name: 'Parts of the work left' })).toBeTruthy();
  expect(screen.queryByRole('table', { name: 'Work left' })).toBeNull();
  fireEvent.click(milestone('Goes out of the shop'));
  expect(screen.getByText(/^All work on every loom/)).toBeTruthy();
  expect(section('Checks').getAllByRole('checkbox')).toHaveLength(checks(3).length);
});

test('a check is ticked with no server, and taken back', async () => {
  await open(PACK);
  const box = () => section('Checks').getByRole<HTMLInputElement>('checkbox', { name: checks(0)[1]! });
  fireEvent.click(box());
  await waitFor(() => expect(box().checked).toBe(true));
  expect(section('Checks').getByText(/^Imke/)).toBeTruthy();
  expect(milestone('First start').textContent).toMatch(/4 checks$/);
  fireEvent.click(box());
  await waitFor(async () =>
    expect((await kept()).map(({ stepId, loomId, itemId, kind }) => [stepId, loomId, itemId, kind])).toEqual([
      [MILESTONE_STEP, '', checks(0)[1], 'tick'],
      [MILESTONE_STEP, '', checks(0)[1], 'untick'],
    ]),
  );
  expect(box().checked).toBe(false);
});

test('with work and checks done it waits for its readings of first power, those of a stand-in apart', async () => {
  const done = [...allWork(), ...checks(0).map((words) => event('', MILESTONE_STEP, words, 1))];
  const [first, ...others] = listReadings(0);
  await open(PACK, [...done, ...others.map((test) => read(test)), read(first!, STAND_IN)]);
  expect(milestone('First start').textContent).toMatch(/^First startno work on a loom left0 steps, 1 reading, 0 checks$/);
  expect(section('First power').getByText(`1 of ${1 + others.length} readings that it waits for left.`)).toBeTruthy();
});

test('with all work, checks and readings done it is reached, and the next one is shown; what a revision before checked counts', async () => {
  const [first, ...others] = checks(0);
  const before = { stepId: MILESTONE_STEP, itemId: first!, kind: 'tick', author: 'Jun Okafor', happenedAt: '2026-11-28T08:00:00Z' };
  await open({ ...PACK, checked: [before] }, [
    ...allWork(),
    ...others.map((words) => event('', MILESTONE_STEP, words, 1)),
    ...listReadings(0).map((test) => read(test)),
  ]);
  expect(milestone('First start').textContent).toMatch(/^First startall done/);
  expect(milestone('Moves by itself').getAttribute('aria-pressed')).toBe('true');
  expect(milestone('Moves by itself').textContent).toContain('no work on a loom left');
  expect(screen.getByText('No work on a loom is left.')).toBeTruthy();
  expect(screen.queryByRole('region', { name: 'Wires not made' })).toBeNull();
});

test('a bad sample takes back what it proves: it is left again', async () => {
  const { plan: one, steps } = builds.find(({ plan: { loomId } }) => loomId === 'inlet')!;
  const crimp = steps.find(({ operation }) => operation === 'crimp')!;
  const place = {
    loomId: 'inlet',
    stepId: crimp.id,
    itemId: crimp.items[0]!.id,
    endId: crimp.endId!,
    cavity: crimp.items[0]!.cavity ?? '',
  };
  const series = {
    ...{
      id: 's',
      tool: 'crimp tool',
      contactName: 'contact',
      contactId: 'c',
      wires: 'AWG 22',
      leastN: [40],
      heightMm: null,
      places: [place],
      elsewhere: [],
    },
  } as unknown as MilestonePack['looms'][number]['crimping']['series'][number];
  const looms = PACK.looms.map((loom) =>
    loom.loomId === one.loomId
      ? { ...loom, crimping: { ...NOTHING_CRIMPED, sampling: { ...NOTHING_CRIMPED.sampling, sampleFirst: 3 }, series: [series] } }
      : loom,
  );
  const samples: NonNullable<FloorEvent['samples']> = {
    reason: 'last',
    samples: [{ bad: [], pullsN: [20], heightMm: null }],
    pullTester: 'pull tester',
    heightGauge: null,
  };
  const failed = event(one.loomId, 'crimping', 's', 2, {
    kind: 'sample',
    samples,
  });
  await open({ ...PACK, looms, firstOffMin: 7 }, [...allWork(), failed]);
  expect(milestone('Goes out of the shop').textContent).toContain('1 first-off, 7 min, beside it');
  fireEvent.click(milestone('Goes out of the shop'));
  fireEvent.click(screen.getByText(crimp.title));
  expect(pushed).toHaveBeenCalledWith(`/jobs/job/floor?loom=inlet&release=2&card=${encodeURIComponent(`step ${crimp.id}`)}`);
});

test('what it took stands beside what the shop counts with, of everybody together', async () => {
  const { plan: one, steps } = builds[0]!;
  const crimp = steps.find(({ operation, items }) => operation === 'crimp' && items.length > 3)!;
  await open(
    PACK,
    crimp.items
      .slice(0, 4)
      .map(({ id }, at) => event(one.loomId, crimp.id, id, 2 * at, { author: at < 2 ? 'Jun Okafor' : 'Tobin Ashgrove' })),
  );
  const row = section('Times').getByRole('row', { name: /^crimp/ });
  expect(
    within(row)
      .getAllByRole('cell')
      .map(({ textContent }) => textContent),
  ).toEqual(['4', '5 min', '4 min']);
  expect(section('Times').queryByText(/Jun|Tobin/)).toBeNull();
});

test('nothing released: where to release one', async () => {
  await open(null);
  expect(screen.getByRole('link', { name: 'Release one on Sheets' }).getAttribute('href')).toBe('/jobs/job/sheets');
});
