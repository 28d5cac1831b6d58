import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import {
  CATALOGUE,
  createBuild,
  createFirstPower,
  NO_CARRIED_POWER,
  NOTHING_CARRIED,
  plan,
  POWER_STEP,
  toWokenId,
  type FirstPower,
  type PowerTest,
} from 'wattograph-core';
import { createCleanSkerry } from 'wattograph-core/demo';
import { choose, press, type } from '../../testing/act';
import { IMKE } from '../../testing/person';
import { outboxDatabase } from '../../client/outbox/outboxDatabase';
import type { FloorEvent } from '../../server/floorEvent';
import { FirstPowerStation } from './FirstPowerStation';
import type { FirstPowerPack, PowerLoom } from './firstPowerPack';

jest.mock('../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const job = createCleanSkerry();
const planned = plan(job, CATALOGUE);
const sheet = createFirstPower(job, planned, CATALOGUE)!;
const looms = planned.looms.map((one): PowerLoom => {
  const { steps } = createBuild(job, one, CATALOGUE);
  return { loomId: one.loomId, name: job.looms[one.loomId]!.name, steps, carried: NOTHING_CARRIED, held: [] };
});
const PACK: FirstPowerPack = {
  ...{ release: 1, newest: 1, jobName: 'Skerry 12', sheet, looms, instruments: ['meter'], earlier: NO_CARRIED_POWER },
  wireEnds: planned.looms.flatMap(({ loomId, wires }) =>
    wires.map(({ id, from, to }): [string, string[]] => [
      `${loomId}/${id}`,
      [from, to].flatMap((end) => (end.kind === 'cavity' ? [`${loomId}/${end.endId}`] : [])),
    ]),
  ),
};
let serial = 0;
const event = (rest: Partial<FloorEvent>): FloorEvent => {
  serial += 1;
  const happenedAt = new Date(Date.UTC(2026, 10, 28, 8, 0, serial)).toISOString();
  return {
    ...{ id: `e${serial}`, serial, loomId: '', stepId: POWER_STEP, itemId: '', kind: 'reading', words: '' },
    author: 'Jun Okafor',
    happenedAt,
    ...rest,
  };
};
const read = (test: PowerTest, value: number) => event({ itemId: test.part, readId: test.id, value, unit: test.unit, instrument: 'meter' });
/** every loom rung out */
const rungOut = () =>
  looms.flatMap(({ loomId, steps }) =>
    steps
      .filter(({ operation }) => operation === 'test')
      .flatMap(({ id, items }) => items.map((item) => event({ loomId, stepId: id, itemId: item.id, kind: 'tick' }))),
  );
const of = (part: PowerTest['part']) => sheet.tests.filter((test) => test.part === part);
/** what is read without power */
const DEAD = [...of('bare'), ...of('grounds'), ...of('buses')];
const good = (test: PowerTest) => test.expected ?? (test.unit === '°C' ? 20 : test.unit === 'Ω' ? 5000 : 3);
const open = async (pack: FirstPowerPack | null, events: FloorEvent[] = [], person = IMKE) => {
  render(
    <MantineProvider env="test">
      <FirstPowerStation person={person} jobId="job" jobName="Skerry 12" pack={pack} events={events} />
    </MantineProvider>,
  );
  await waitFor(() => expect(screen.queryByText('Opening the readings …')).toBeNull());
};
const next = () => within(screen.getByRole('region', { name: 'Next reading' }));
const heading = (name: string) => screen.queryByRole('heading', { name });
const kept = async () => (await outboxDatabase.rows.toArray()).map(({ body }) => body as unknown as FloorEvent);
const enter = (value: string) => {
  const field = next().getByRole('textbox', { name: /^Reading/ });
  fireEvent.change(field, { target: { value } });
  fireEvent.submit(field);
};

beforeEach(async () => {
  localStorage.clear();
  await outboxDatabase.rows.clear();
  // the server is away: what is read stays here
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

test.each<[string, FirstPowerPack | null, string, string]>([
  ['nothing released', null, 'Release one on Sheets', '/jobs/job/sheets'],
  ['an older revision', { ...PACK, sheet: undefined }, 'Release it on Sheets', '/jobs/job/sheets'],
  ['no battery', { ...PACK, sheet: null }, 'Add it in Brief', '/jobs/job/brief?tab=devices'],
])('%s: it says what is to be done', async (_, pack, link, href) => {
  await open(pack);
  expect(screen.getByRole('link', { name: link }).getAttribute('href')).toBe(href);
});

test('no power before every loom is rung out: the feed, the grounds and the buses may be read, nothing else', async () => {
  await open({ ...PACK, looms: looms.map((one) => (one.loomId === 'engine' ? { ...one, held: ['N-301: volts guessed'] } : one)) });
  const blocks = within(screen.getByRole('region', { name: 'No power yet' }));
  expect(blocks.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual(
    expect.arrayContaining(['the chassis loom is not rung out to it', 'held from power: N-301: volts guessed to it']),
  );
  type('Instrument', 'meter');
  // one after another, as far as no power is needed
  for (const test of DEAD) {
    expect(next().getByText(test.words)).toBeTruthy();
    enter(test.part === 'bare' ? 'OL' : String(test.expected ?? 3));
  }
  expect(screen.queryByRole('region', { name: 'Next reading' })).toBeNull();
  const events = await waitFor(async () => {
    const rows = await kept();
    expect(rows).toHaveLength(DEAD.length);
    return rows;
  });
  expect(events[0]).toMatchObject({ loomId: '', stepId: POWER_STEP, itemId: 'bare', readId: 'bare feed', value: 1_000_000, unit: 'Ω' });
  // picked by hand it is not read in either
  fireEvent.click(screen.getByRole('button', { name: of('unplugged')[0]!.words }));
  expect(next().getByText('No power yet: see above what stands in its way.')).toBeTruthy();
});

test('a loom that was done over after it was rung out gets no power: it is rung out again first', async () => {
  const { loomId, steps } = looms.find((one) => one.loomId === 'engine')!;
  const crimp = steps.find(({ operation }) => operation === 'crimp')!;
  const redone = event({ loomId, stepId: crimp.id, itemId: crimp.items[0]!.id, kind: 'tick' });
  await open(PACK, [...rungOut(), redone]);
  const blocks = within(screen.getByRole('region', { name: 'No power yet' }));
  expect(blocks.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual(['the engine loom is not rung out to it']);
  cleanup();
  await open(PACK, [...rungOut(), redone, ...rungOut()]);
  expect(screen.queryByRole('region', { name: 'No power yet' })).toBeNull();
});

test('a surprise stops the sheet and says where to look; read again it goes on', async () => {
  const first = of('unplugged')[0]!;
  await open(PACK, [...rungOut(), ...DEAD.map((test) => read(test, good(test)))]);
  type('Instrument', 'meter');
  expect(next().getByText(/^supply limited to/)).toBeTruthy();
  expect(next().getByText(first.words)).toBeTruthy();
  enter('0.2');
  expect(heading('Stop: power off')).toBeTruthy();
  expect(screen.queryByRole('region', { name: 'Next reading' })).toBeNull();
  expect(screen.getByText(/^Open on its way, source first: wire .*main fuse/)).toBeTruthy();
  press('Read it again');
  enter('12,4');
  expect(heading('Stop: power off')).toBeNull();
  expect(next().getByText(of('unplugged')[1]!.words)).toBeTruthy();
});

test('what else wakes with a feed is said, and the two nets are named', async () => {
  const before = sheet.tests.slice(0, sheet.tests.findIndex(({ part }) => part === 'feeds') + 1);
  await open(PACK, [...rungOut(), ...before.map((test) => read(test, good(test)))]);
  type('Instrument', 'meter');
  const feed = before.at(-1)!;
  const name = feed.words.replace(/ alone.*/, '');
  choose(`Something else woke with ${name}`, 'radiator fan');
  expect(heading('Stop: power off')).toBeTruthy();
  expect(screen.getByText(new RegExp(`^Two nets are joined behind ${name}: radiator fan hangs on `))).toBeTruthy();
  const events = await waitFor(async () => {
    const rows = await kept();
    expect(rows).toHaveLength(1);
    return rows;
  });
  expect(events[0]).toMatchObject({ readId: toWokenId(feed, 'fan'), value: 1, unit: 'look' });
  press('radiator fan did not wake after all');
  expect(heading('Stop: power off')).toBeNull();
});

test('all read without a surprise proves the vehicle', async () => {
  const all = sheet.tests.map((test) => read(test, good(test)));
  await open(PACK, [...rungOut(), ...all]);
  expect(heading('The vehicle is proved')).toBeTruthy();
});

test('what was read in a revision before counts, is said to be of it, and is void where work is open again', async () => {
  const [test] = of('unplugged');
  const earlier = { ...NO_CARRIED_POWER, events: [{ ...read(test!, good(test!)), release: 1 }] };
  await open({ ...PACK, release: 2, newest: 2, earlier: earlier as FirstPowerPack['earlier'] }, rungOut());
  const row = () => screen.getByRole('region', { name: 'The sheet' }).querySelector(`[data-test="${test!.id}"]`)!;
  expect(row().textContent).toContain('✓ revision 1');
  cleanup();
  const open1: [string, string][] = test!.endIds.map((id) => [id, 'Crimp it: open again in this revision']);
  await open({ ...PACK, release: 2, newest: 2, earlier: { ...earlier, open: open1 } as FirstPowerPack['earlier'] }, rungOut());
  expect(row().textContent).toContain('to be read again');
});

test('work on an end after its reading makes it to be read again', async () => {
  const { loomId, steps } = looms.find((one) => one.loomId === 'chassis')!;
  const crimp = steps.find(({ operation }) => operation === 'crimp')!;
  const all = sheet.tests.map((test) => read(test, good(test)));
  await open(PACK, [...rungOut(), ...all, event({ loomId, stepId: crimp.id, itemId: crimp.items[0]!.id, kind: 'tick' })]);
  expect(heading('The vehicle is proved')).toBeNull();
  expect(screen.getAllByText('to be read again').length).toBeGreaterThan(0);
  expect(screen.getByText(/were read before something was done over/)).toBeTruthy();
});

test('the stand-in vehicle is read until something surprises, and stores nothing', async () => {
  await open(PACK);
  press('Stand-in vehicle');
  press('Read until a surprise');
  expect(heading('Stop: power off')).toBeTruthy();
  expect(screen.getByText(/Two nets are joined behind|More flows behind/)).toBeTruthy();
  expect(await kept()).toEqual([]);
  press('End the practice');
  expect(heading('Nothing is read yet')).toBeTruthy();
});

test('readings of a file are taken whole or not at all', async () => {
  const own: FirstPower = { ...sheet, tests: [...of('bare'), ...of('grounds')] };
  await open({ ...PACK, sheet: own }, rungOut());
  type('Instrument', 'meter');
  const choose = async (content: string) => {
    const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
    const file = new File([content], 'power.csv', { type: 'text/csv' });
    Object.assign(file, {
      text: () => Promise.resolve(content),
      arrayBuffer: () => Promise.resolve(new TextEncoder().encode(content).buffer),
    });
    fireEvent.change(input, { target: { files: [file] } });
    await waitFor(() => expect(screen.queryByText(/was not taken/) ?? heading('The vehicle is proved')).not.toBeNull());
  };
  await choose('test,value\nbare feed,much');
  expect(screen.getByText(/line 2, value/)).toBeTruthy();
  await choose(['test,value', ...own.tests.map(({ id, unit }) => `${id},${unit === 'Ω' ? 'OL' : '4'}`)].join('\n'));
  expect(heading('The vehicle is proved')).toBeTruthy();
});

test('voltages for the controller’s file are saved as they were read; what waits for a condition stays open and is picked by hand', async () => {
  const saved: Blob[] = [];
  URL.createObjectURL = (blob) => {
    saved.push(blob as Blob);
    return 'blob:made';
  };
  URL.revokeObjectURL = () => undefined;
  const [later] = of('later');
  await open(PACK, [...rungOut(), ...sheet.tests.filter((test) => test !== later).map((test) => read(test, good(test)))]);
  expect(heading('The vehicle is proved as far as it can be, standing')).toBeTruthy();
  expect(screen.getByText(/^Open until their condition is there: wheel speeds agree .*driven straight at 30 km\/h\)\.$/)).toBeTruthy();
  expect(screen.queryByRole('region', { name: 'Next reading' })).toBeNull();
  press('Values for the controller');
  const reader = new FileReader();
  const text = new Promise<string>((resolve) => (reader.onload = () => resolve(reader.result as string)));
  reader.readAsText(saved[0]!);
  expect((await text).split(/\r?\n/)[1]).toMatch(/^"pedal: released, first track",3,meter,Jun Okafor,/);
  type('Instrument', 'eyes');
  press(later!.words);
  fireEvent.click(next().getByRole('button', { name: 'As said' }));
  await waitFor(() => expect(heading('The vehicle is proved')).toBeTruthy());
});
