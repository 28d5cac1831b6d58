import { createDemoShop } from '../../catalogue';
import { plan } from '../../plan';
import { createBench } from '../../testing/createBench';
import { checkShop, createJob, listRecords, putRecord, toJobStart, type Shop } from '../index';

const begin = (shop: Shop, sourceId: string) =>
  createJob(
    'new',
    'nobody',
    'larkhollow',
    toJobStart(
      shop,
      shop.sources.find(({ id }) => id === sourceId)!,
    ),
  );

test('a job begins with the zones, the modes and the supply of its shop, and changes nothing of them', () => {
  const shop = createDemoShop();
  shop.zones = [{ ...shop.zones[0]!, id: 'roof', name: 'roof', ambientC: 71 }];
  shop.modes = [{ id: 'race', name: 'racing', engine: 'running' }];
  shop.sources.push({ ...shop.sources[0]!, id: 'truck', name: 'truck', volts: 25, capacityAh: 140 });
  const job = begin(shop, 'truck');
  expect(job.zones).toEqual({ roof: expect.objectContaining({ name: 'roof', ambientC: 71, clipEveryMm: 300 }) as unknown });
  expect(job.modes).toEqual({ race: { name: 'racing', engine: 'running' } });
  expect(job.source).toEqual({ volts: 25, milliohm: 8, chassisMilliohm: 1, continuousA: null, capacityAh: 140, isolator: null });
  job.zones.roof!.ambientC = 5;
  job.modes.race!.engine = 'off';
  expect([shop.zones[0]!.ambientC, shop.modes[0]!.engine]).toEqual([71, 'running']);
});

test.each([
  ['a zone', 'zones', 'cabin', { ambientC: 88 }, (job: ReturnType<typeof begin>) => job.zones.cabin!.ambientC, 88],
  ['a mode', 'modes', 'idle', { name: 'in the pits' }, (job: ReturnType<typeof begin>) => job.modes.idle!.name, 'in the pits'],
  ['a supply', 'sources', 'battery', { milliohm: 4 }, (job: ReturnType<typeof begin>) => job.source.milliohm, 4],
] as const)('%s that the shop changes is that of its next job', (_, table, id, fields, read, expected) => {
  const shop = createDemoShop();
  const { value } = listRecords(shop, table).find((one) => one.id === id)!;
  const changed = putRecord(shop, table, id, { ...(value as object), ...fields });
  expect(checkShop(changed)).toMatchObject({ ok: true });
  expect(read(begin(changed, 'battery'))).toBe(expected);
  expect(read(begin(shop, 'battery'))).not.toBe(expected);
});

test('a hotter zone of the shop warms the runs of a job that begins with it', () => {
  const shop = createDemoShop();
  const planIn = (ambientC: number) => {
    const zones = shop.zones.map((zone) => (zone.id === 'cabin' ? { ...zone, ambientC } : zone));
    const job = createBench();
    job.zones = toJobStart({ ...shop, zones }, shop.sources[0]!).zones;
    for (const loom of Object.values(job.looms)) for (const segment of Object.values(loom.segments)) segment.zoneId = 'cabin';
    return plan(job, shop).looms[0]!.heats.map((heat) => heat.ambientC);
  };
  expect(new Set(planIn(50))).toEqual(new Set([50]));
  expect(new Set(planIn(95))).toEqual(new Set([95]));
});

test.each([
  ['two zones of one id', (shop: Shop) => shop.zones.push(shop.zones[0]!), '/zones/5/id'],
  ['no supply', (shop: Shop) => shop.sources.splice(0), '/sources'],
  ['a zone as hot as the sun', (shop: Shop) => (shop.zones[1]!.ambientC = 5000), '/zones/1/ambientC'],
  ['an engine that flies', (shop: Shop) => (shop.modes[0]!.engine = 'flying' as 'off'), '/modes/0/engine'],
])('a shop with %s is refused by its place', (_, spoil, path) => {
  const shop = createDemoShop();
  spoil(shop);
  const checked = checkShop(shop);
  expect(checked.ok ? [] : checked.problems.map((one) => one.path)).toContain(path);
});
