import { checkJob, createPinNeed, FORMAT_VERSION, listCavities, MIGRATIONS, toPresentFormat, toProblemLines, type Job } from '../index';
import { CATALOGUE, createLookup } from '../../catalogue';

const lines = (value: unknown) => {
  const checked = checkJob(value, createLookup(CATALOGUE));
  return checked.ok ? [] : toProblemLines(checked.problems);
};

describe('migrations', () => {
  test('are numbered without gaps and lead to the present format', () => {
    expect(MIGRATIONS.map(({ from }) => from)).toEqual(Array.from({ length: FORMAT_VERSION - 1 }, (_, index) => index + 1));
    expect(new Set(MIGRATIONS.map(({ name }) => name)).size).toBe(MIGRATIONS.length);
  });
  test.each(MIGRATIONS.map(({ from }) => from))(
    'a file of format %i, as it was saved then, passes the gate and keeps what it said',
    async (from) => {
      const { default: old } = (await import(`../../testing/formats/job-${from}.json`)) as { default: Record<string, unknown> };
      expect(old.formatVersion).toBe(from);
      expect(lines(old)).toEqual([]);
      const now = toPresentFormat(old) as unknown as Job;
      expect(now).toMatchObject({ formatVersion: FORMAT_VERSION, name: 'Rain light', accepted: {}, anchors: {} });
      expect(now.looms.rear!.segments.s1).toMatchObject({ lengthMm: 640, secondLengthMm: 643, status: 'fitted', fittedMm: 640, ticks: [] });
      expect(now.looms.rear!.ends.RL!.pins['1']).toEqual(createPinNeed('12 V supply', 'supply'));
    },
  );
});

test('format 16 begins without tasks', async () => {
  const { default: old } = (await import('../../testing/formats/job-15.json')) as { default: Record<string, unknown> };
  expect([old.formatVersion, old.tasks]).toEqual([15, undefined]);
  expect(toPresentFormat(old)).toMatchObject({ tasks: {}, provings: {}, startsOn: 'vehicle' });
});

test('format 18: a kind of device whose name said what can hurt says it itself, one that is not worked has none; all wire is new', async () => {
  const { default: old } = (await import('../../testing/formats/job-17.json')) as { default: Record<string, unknown> };
  expect(old.formatVersion).toBe(17);
  const { deviceTemplates } = old as unknown as Job;
  const like = deviceTemplates['own-fan']!;
  const more = Object.fromEntries(
    ['fuel pump', 'injector 3', 'purge valve', 'wiper'].map((name) => [name.replace(' ', '-'), { ...like, name, system: 'x' }]),
  );
  const warm = { ...like, name: 'fuel temperature', pins: {} };
  const now = toPresentFormat({ ...old, deviceTemplates: { ...deviceTemplates, ...more, warm } }) as unknown as Job;
  expect(Object.values(now.looms).map(({ hasReusedWire }) => hasReusedWire)).toEqual([false]);
  expect(Object.fromEntries(Object.entries(now.deviceTemplates).map(([id, { hazard }]) => [id, hazard]))).toEqual({
    ...{ 'own-fan': 'blades', 'fuel-pump': 'moves-fuel', 'injector-3': 'injects-fuel', 'purge-valve': 'pressure' },
    ...{ 'own-lamp': null, 'own-starter': null, wiper: null, warm: null },
  });
});

test('format 17 keeps the pages of a print that hung before, and says that nobody knows where they begin', async () => {
  const { default: old } = (await import('../../testing/formats/job-16.json')) as { default: Record<string, unknown> };
  const { printed } = (toPresentFormat(old) as unknown as Job).looms.rear!.board;
  expect(printed).toEqual({
    ...{ on: '2026-11-28', by: 'Imke', scale: 1, barMm: 100, grid: null },
    tiles: ['3f2a91', 'c07b44'].map((fingerprint, index) => ({ number: index + 1, column: null, row: null, fingerprint })),
  });
});

test('format 15 leaves the wires of a donor the names printed on them', async () => {
  const { default: old } = (await import('../../testing/formats/job-14.json')) as { default: Record<string, unknown> };
  const wire = { number: '19', from: 'fuse box', to: 'fan', decision: 'repurpose' };
  const { donors } = toPresentFormat({ ...old, donors: { old: { name: 'old', wires: { w19: wire } } } }) as unknown as Job;
  expect(donors.old!.wires.w19).toEqual({ ...wire, newName: '' });
});

test('format 14 says nothing of leads, of reasons for colours, of drills and shared holes, and clips as computed', async () => {
  const { default: old } = (await import('../../testing/formats/job-13.json')) as { default: Record<string, unknown> };
  expect(old.formatVersion).toBe(13);
  const { nodes, segments, ends, circuits } = (toPresentFormat(old) as unknown as Job).looms.rear!;
  expect(Object.values(nodes).every(({ drill, beside }) => drill === null && beside === null)).toBe(true);
  expect(Object.values(segments).every(({ clipsAtMm }) => clipsAtMm === null)).toBe(true);
  expect(Object.values(circuits).every(({ colourPin }) => colourPin === null)).toBe(true);
  const pins = Object.values(ends).flatMap((end) => [...Object.values(end.pins), ...Object.values(end.offers)]);
  expect(pins.length).toBeGreaterThan(0);
  expect(pins.every(({ lead }) => lead === null)).toBe(true);
});

test('format 11 gives every wire the look that it had, without bands', async () => {
  const { default: old } = (await import('../../testing/formats/job-10.json')) as { default: Record<string, unknown> };
  expect(old.formatVersion).toBe(10);
  const before = (old as unknown as Job).looms.rear!.circuits;
  const { circuits } = (toPresentFormat(old) as unknown as Job).looms.rear!;
  expect(Object.keys(circuits).length).toBeGreaterThan(0);
  for (const [id, { colour }] of Object.entries(circuits)) expect(colour).toEqual({ ...before[id]!.colour, bands: [] });
});

test('format 10 pins every end on the bench, as it was done, and says nothing of what is led through a hole', async () => {
  const { default: old } = (await import('../../testing/formats/job-9.json')) as { default: Record<string, unknown> };
  expect(old.formatVersion).toBe(9);
  const { nodes, ends } = (toPresentFormat(old) as unknown as Job).looms.rear!;
  expect([...new Set(Object.values(ends).map(({ pinAt }) => pinAt))]).toEqual(['bench']);
  expect(Object.values(nodes).every(({ feed }) => feed === null)).toBe(true);
});

test('format 9 finishes every loom as it was finished before: no dressing of its own, no boot, no transition, no zone of many hands', async () => {
  const { default: old } = (await import('../../testing/formats/job-8.json')) as { default: Record<string, unknown> };
  expect(old.formatVersion).toBe(8);
  const job = toPresentFormat(old) as unknown as Job;
  expect(job.looms.rear).toMatchObject({ dressing: null });
  const { nodes, ends } = job.looms.rear!;
  expect([...Object.values(nodes).map(({ transitionPin }) => transitionPin), ...Object.values(ends).map(({ bootPin }) => bootPin)]).toEqual(
    [...Object.keys(nodes), ...Object.keys(ends)].map(() => null),
  );
  expect(Object.values(job.zones).some(({ handled }) => handled)).toBe(false);
  // clips as the shop has them
  expect(Object.values(job.zones).every(({ clipEveryMm }) => clipEveryMm === null)).toBe(true);
  expect(Object.values(job.families).map(({ adapterMm }) => adapterMm)).toEqual(Object.keys(job.families).map(() => null));
});

test('format 8 lays every loom as it lay before: no school of its own, no side of a branch, nothing searched or pinned', async () => {
  const { default: old } = (await import('../../testing/formats/job-7.json')) as { default: Record<string, unknown> };
  const { rear } = (toPresentFormat(old) as unknown as Job).looms;
  expect(rear).toMatchObject({ bundling: null, laidUp: {}, layerPins: {} });
  expect(rear!.segments.s1).toMatchObject({ bundling: null, leavesDeg: null });
});

test('format 7 gives the cavities of a family of the job names and sizes', async () => {
  const { default: old } = (await import('../../testing/formats/job-6.json')) as { default: Record<string, unknown> };
  const { families } = toPresentFormat(old) as unknown as Job;
  expect(families.own1).toMatchObject({ name: 'own three', cavityNames: null, otherSizes: {}, gender: null, mateId: null });
  expect(listCavities(families.own1!)).toEqual(['1', '2', '3']);
});

test('format 6 says how a load returns, and takes from grounds what their supplies say', async () => {
  const { default: old } = (await import('../../testing/formats/job-5.json')) as { default: Record<string, unknown> };
  const { deviceTemplates } = toPresentFormat(old) as unknown as Job;
  // a ground beside its supply repeated 14 A; a starter without a ground was taken to return by its case, and so was a lamp
  expect(deviceTemplates['own-fan']!.pins).toMatchObject({ '1': { currentA: 14, returnBy: 'pin', cycleS: null }, '2': { currentA: null } });
  expect(deviceTemplates['own-starter']!.pins['1']).toMatchObject({ currentA: 150, returnBy: 'engine-case' });
  expect(deviceTemplates['own-lamp']!.pins['1']).toMatchObject({ returnBy: 'chassis-case' });
  expect(deviceTemplates['own-lamp']!.offers['9']).toMatchObject({ chassisMilliohm: null });
  expect(deviceTemplates['own-lamp']!.links.f1).toMatchObject({ peakA: null, maxA: 20 });
});
