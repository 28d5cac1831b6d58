import fc from 'fast-check';
import { createDemoShop } from '../../catalogue';
import published from '../../../schema/shop-15.json';
import old from '../../testing/formats/shop-1.json';
import eleventh from '../../testing/formats/shop-11.json';
import twelfth from '../../testing/formats/shop-12.json';
import thirteenth from '../../testing/formats/shop-13.json';
import fourteenth from '../../testing/formats/shop-14.json';
import tenth from '../../testing/formats/shop-10.json';
import second from '../../testing/formats/shop-2.json';
import third from '../../testing/formats/shop-3.json';
import fourth from '../../testing/formats/shop-4.json';
import fifth from '../../testing/formats/shop-5.json';
import sixth from '../../testing/formats/shop-6.json';
import ninth from '../../testing/formats/shop-9.json';
import seventh from '../../testing/formats/shop-7.json';
import { runs } from '../../testing/runs';
import { createPinNeed, createPinOffer } from '../index';
import { checkShop, SHOP_FORMAT_VERSION, SHOP_MIGRATIONS, ShopSchema, type Shop, TIME_DEFAULTS } from './index';

/** Problems of the demo shop after a change, one line each. */
function listLines(change: (shop: Shop & Record<string, unknown>) => void): string[] {
  const shop = createDemoShop() as Shop & Record<string, unknown>;
  change(shop);
  const checked = checkShop(shop);
  return checked.ok ? [] : checked.problems.map(({ path, message }) => `${path}: ${message}`);
}

test('the demo shop passes its own gate, and the published schema is the one that is checked', () => {
  expect(listLines(() => undefined)).toEqual([]);
  expect(published).toEqual(JSON.parse(JSON.stringify(ShopSchema)));
});

test('every format of the shop leads to the present one: a file of format 1, as it was saved then, passes the gate', () => {
  expect(SHOP_MIGRATIONS.map(({ from }) => from)).toEqual(Array.from({ length: SHOP_FORMAT_VERSION - 1 }, (_, index) => index + 1));
  expect(old.formatVersion).toBe(1);
  const checked = checkShop(old);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  expect(checked.value).toMatchObject({ formatVersion: SHOP_FORMAT_VERSION, people: ['Jun Okafor'] });
  expect(checked.value.families['tarn-3']).toMatchObject({ cavityNames: null, otherSizes: {}, gender: null, mateId: null, pitchMm: 5 });
  expect(checked.value.contacts.map(({ id, gender }) => [id, gender])).toEqual([
    ['h22', null],
    ['t150', null],
  ]);
});

test('a file of format 13 had three kinds of wire: they are called as they were, and their sizes count as they did', () => {
  expect(thirteenth.formatVersion).toBe(13);
  const checked = checkShop(thirteenth);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const { wires } = checked.value;
  expect(Object.values(wires).map((sizes) => [...new Set(sizes.map(({ insulation, gauge }) => `${insulation}, ${gauge}`))])).toEqual([
    ['ETFE, AWG'],
    ['ETFE plated, AWG'],
    ['thin-wall, mm²'],
  ]);
});

test('a file of format 14 said nothing of new jobs: they begin as they did', () => {
  expect(fourteenth.formatVersion).toBe(14);
  const checked = checkShop(fourteenth);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const { zones, modes, sources } = checked.value;
  expect(zones.map(({ name, ambientC }) => `${name} ${ambientC}`)).toEqual([
    ...['cabin 50', 'engine bay 90', 'hot side 150', 'wet side 60', 'moving run 60'],
  ]);
  expect(modes.map(({ engine }) => engine).sort()).toEqual(['cranking', ...Array(5).fill('off'), ...Array(3).fill('running')]);
  expect(sources).toEqual([expect.objectContaining({ volts: 12.5, milliohm: 8, chassisMilliohm: 1, continuousA: null, capacityAh: null })]);
});

test('a file of format 3 lays up as the trade does, and twists what it twisted before: its pairs', () => {
  expect(third.formatVersion).toBe(3);
  const checked = checkShop(third);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  for (const standard of Object.values(checked.value.standards))
    expect(standard).toMatchObject({
      bundling: 'pairs-only',
      layRatio: 10,
      layRatioLeast: 8,
      layRatioMost: 16,
      layLeastMm: 25,
      laySqueeze: 0.03,
    });
});

test('a file of format 4 covers as it did and puts nothing over ends: what its coverings stand is the usual of their kind', () => {
  expect(fourth.formatVersion).toBe(4);
  const checked = checkShop(fourth);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const { coverings, standards, boots, transitions, families } = checked.value;
  const traits = coverings.map(({ kind, keepsOut, wears, opens }) => `${kind}: ${keepsOut}, ${wears}, ${opens}`);
  expect([...new Set(traits)].sort()).toEqual(
    ['adhesive-shrink: water, false, false', 'braid: nothing, true, false', 'shrink: splash, false, false'].filter((line) =>
      fourth.coverings.some(({ kind }) => line.startsWith(`${kind}:`)),
    ),
  );
  expect([boots, transitions, Object.values(families).filter(({ adapterMm }) => adapterMm !== null)]).toEqual([[], [], []]);
  for (const standard of Object.values(standards)) expect(standard).toMatchObject({ dressing: 'sleeves', coveringBy: 'order' });
});

test('a file of format 5 leaves in a hole what is usual, and does not say how wide its rings are', () => {
  expect(fifth.formatVersion).toBe(5);
  const checked = checkShop(fifth);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  for (const standard of Object.values(checked.value.standards)) expect(standard.holeFreeMm).toBe(0.5);
  expect(checked.value.rings.every(({ widthMm }) => widthMm === null)).toBe(true);
});

test('a file of format 6 tells its wires apart by function, as the trade does, and says nothing of bands that it has not', () => {
  expect(sixth.formatVersion).toBe(6);
  const checked = checkShop(sixth);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  for (const standard of Object.values(checked.value.standards))
    expect(standard).toMatchObject({
      colourScheme: 'function',
      functionColours: { supply: 'red', data: 'white' },
      sizeApartShare: 0.2,
      torqueShare: 0.1,
    });
});

test('a file of format 7 asks of new wire what is usual', () => {
  expect(seventh.formatVersion).toBe(7);
  const checked = checkShop(seventh);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  for (const standard of Object.values(checked.value.standards))
    expect(standard).toMatchObject({ isolationMegohm: 100, isolationVolts: 500 });
});

test('a file of format 9 samples its crimps as craft D3 says and counts minutes as H1 does; nothing is known of gauges, services and heights', () => {
  expect(ninth.formatVersion).toBe(9);
  const checked = checkShop(ninth);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const { standards, contacts, tools } = checked.value;
  for (const standard of Object.values(standards))
    expect(standard).toMatchObject({
      sampleFirst: 3,
      sampleEvery: 100,
      sampleWarnShare: 1.15,
      crimpHeightMm: 0.05,
      serviceCrimps: 10_000,
      ...TIME_DEFAULTS,
    });
  expect(contacts.length).toBeGreaterThan(0);
  expect(contacts.every(({ crimpHeights }) => crimpHeights.length === 0)).toBe(true);
  expect(tools.every(({ gauged, servicedOn }) => !gauged && servicedOn === null)).toBe(true);
});

test('a file of format 11 ties with the laying, takes no photos, moves no legs, and has its figures of work', () => {
  expect(eleventh.formatVersion).toBe(11);
  const checked = checkShop(eleventh);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  for (const [id, standard] of Object.entries(checked.value.standards)) {
    expect(standard).toMatchObject({ tieSteps: false, photoBeforeCover: false, wiggleS: 0, wiggleMs: 1, kitStepMm: 100 });
    expect(standard).toMatchObject({ boardBareDepthMm: 20, boardBareHalfMm: 8 });
    const { minutes } = (eleventh.standards as unknown as Record<string, { minutes: object }>)[id]!;
    expect(standard.minutes).toEqual({ tie: 1, photo: 3, ...minutes });
  }
});

test('a file of format 12 asks less of wire that was in use before, and its devices say what their names said', () => {
  expect(twelfth.formatVersion).toBe(12);
  const { hazard: _, ...fan } = createDemoShop().devices.fan!;
  const checked = checkShop({ ...twelfth, devices: { fan: { ...fan, familyId: null } } });
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  expect(checked.value.devices.fan!.hazard).toBe('blades');
  for (const standard of Object.values(checked.value.standards))
    expect(standard).toMatchObject({ isolationReusedMegohm: 10, isolationReusedVolts: 100, isolationMegohm: 100, isolationVolts: 500 });
});

/** With a kind of device as that format had it. */
const toShopOfTen = () => {
  const { lead: _, ...pin } = createPinNeed('12 V supply', 'supply');
  const { lead: __, ...offer } = createPinOffer('way', ['feed']);
  const device = { name: 'fan', system: 'cooling', familyId: null, pins: { '1': pin }, offers: { '2': offer }, links: {}, note: '' };
  return { ...tenth, devices: { fan: device } };
};

test('a file of format 10 drills as is usual, labels no devices, and has transitions with legs alike', () => {
  expect(tenth.formatVersion).toBe(10);
  const fan = toShopOfTen();
  const checked = checkShop(fan);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const { standards, transitions, devices } = checked.value;
  for (const standard of Object.values(standards))
    expect(standard).toMatchObject({ drillMm: 240, drillThroughMm: 25, deviceLabels: false });
  expect(transitions.every(({ onwardSuppliedMm, onwardRecoveredMm }) => onwardSuppliedMm === null && onwardRecoveredMm === null)).toBe(
    true,
  );
  const { boots, coverings, labels } = checked.value;
  const shrinks = coverings.filter((one) => 'shrinkC' in one);
  expect([boots, transitions, shrinks].flat().every(({ shrinkC }) => shrinkC === null)).toBe(true);
  expect(labels.length).toBeGreaterThan(0);
  expect(labels.every(({ limitC, shortC }) => limitC === null && shortC === null)).toBe(true);
  const pins = Object.values(devices).flatMap((one) => [...Object.values(one.pins), ...Object.values(one.offers)]);
  expect(pins.length).toBeGreaterThan(0);
  expect(pins.every(({ lead }) => lead === null)).toBe(true);
});

test('a leg that goes straight on has both bores or neither, and they leave room to shrink', () => {
  const spoil = (onwardSuppliedMm: number | null, onwardRecoveredMm: number | null) =>
    listLines(({ transitions }) => Object.assign(transitions[0]!, { onwardSuppliedMm, onwardRecoveredMm }));
  expect([spoil(null, null), spoil(14, 5)]).toEqual([[], []]);
  expect(spoil(14, null)).toEqual(['/transitions/0/onwardSuppliedMm: expected both bores of the leg that goes on, or neither']);
  expect(spoil(4, 5)).toEqual(['/transitions/0/onwardSuppliedMm: expected at least the recovered bore 5, got 4: nothing would fit']);
});

test('a crimp height is of a size that there is, once, and a figure', () => {
  const spoil = (crimpHeights: string[]) => listLines(({ contacts }) => Object.assign(contacts[0]!, { crimpHeights }));
  expect(spoil(['22 1.02', '0.5 1.1'])).toEqual([]);
  expect(spoil(['21 1.02'])).toEqual(['/contacts/0/crimpHeights/0: expected a size of a wire of the shop and mm, got "21 1.02"']);
  expect(spoil(['22 1.02', '22 1.04'])).toEqual(['/contacts/0/crimpHeights/1: expected each size once, got 22 twice']);
  expect(spoil(['22 high'])[0]).toContain('/contacts/0/crimpHeights/0');
});

test('a terminal goes over a stud or on a tongue; a bare blade says what its sleeve has to close', () => {
  const spoil = (change: Partial<Shop['rings'][number]>) =>
    listLines(({ rings }) =>
      Object.assign(
        rings.find(({ tongueMm, insulated }) => tongueMm !== null && !insulated)!,
        change,
      ),
    ).map((line) => line.replace(/^\/rings\/\d+/, ''));
  expect(spoil({ studMm: 6 })).toEqual(['/tongueMm: expected a stud that it goes over or a tongue that it is pushed on, got both']);
  expect(spoil({ tongueMm: null })).toEqual(['/tongueMm: expected a stud that it goes over or a tongue that it is pushed on, got neither']);
  expect(spoil({ lengthMm: null, widthMm: null })).toEqual([
    '/lengthMm: expected its length, for the sleeve over all of it, got null',
    '/widthMm: expected its width, for the sleeve over all of it, got null',
  ]);
  expect(spoil({ insulated: true, lengthMm: null, widthMm: null })).toEqual([]);
});

test('colours of a scheme are colours: what is none is told where it stands', () => {
  expect(
    listLines(({ standards }) => {
      const house = standards.larkhollow!;
      house.functionColours.signal = 'yellow; teal';
      Object.assign(house, { bandColours: ['red', 'teal'], oneColour: 'teal', mostBands: 4 });
    }).map((line) => line.split(':')[0]),
  ).toEqual(
    expect.arrayContaining([
      ...['/standards/larkhollow/functionColours/signal', '/standards/larkhollow/bandColours/1'],
      ...['/standards/larkhollow/oneColour', '/standards/larkhollow/mostBands'],
    ]),
  );
});

test('what is wrong in a covering is told of its own kind alone; a kind that is none is told with those there are', () => {
  expect(listLines(({ coverings }) => Reflect.deleteProperty(coverings[0]!, 'wallMm'))).toEqual([
    '/coverings/0/wallMm: expected a value, got nothing: the field is missing',
  ]);
  expect(listLines(({ coverings }) => Object.assign(coverings[0]!, { kind: 'felt' }))[0]).toMatch(
    /^\/coverings\/0\/kind: expected one of "braid", "shrink", .*"heat-sleeve", got "felt"$/,
  );
  expect(listLines(({ standards }) => Object.assign(standards.plain!, { coveringOrder: ['felt'] }))[0]).toMatch(
    /coveringOrder\/0: expected one of "shrink", .*, got "felt"$/,
  );
});

test('a file of format 2 has no tools, prices or currency yet', () => {
  expect(second.formatVersion).toBe(2);
  expect(checkShop(second)).toMatchObject({
    ok: true,
    value: { formatVersion: SHOP_FORMAT_VERSION, tools: [], currency: null, buying: {} },
  });
});

test.each<[string, (shop: Shop & Record<string, unknown>) => void, string]>([
  [
    'a contact whose window is empty',
    (shop) => (shop.contacts[0]!.maxAreaMm2 = 0.01),
    '/contacts/0/maxAreaMm2: expected at least the least area',
  ],
  ['a seal that nothing fits', (shop) => (shop.seals[1]!.maxOdMm = 0.1), '/seals/1/maxOdMm: expected at least the least diameter'],
  [
    'a sleeve that grows in shrinking',
    (shop) => Object.assign(shop.labels[0]!, { suppliedBoreMm: 0.1 }),
    '/labels/0/suppliedBoreMm: expected at least the recovered bore',
  ],
  ['two contacts of one id', (shop) => (shop.contacts[3]!.id = shop.contacts[2]!.id), '/contacts/3/id: expected a name of its own'],
  [
    'a person twice',
    (shop) => shop.people.push(shop.people[0]!),
    '/people/4: expected a name of its own, got "Imke Dorsey", which is that of 0',
  ],
  [
    'a family with two cavities of one name',
    (shop) => (shop.families['hollin-10m']!.cavityNames![3] = 'B'),
    '/families/hollin-10m/cavityNames/3: expected a name of its own, got "B", which cavity 2 has',
  ],
  [
    'a family with a name too few',
    (shop) => shop.families['hollin-10m']!.cavityNames!.pop(),
    '/families/hollin-10m/cavityNames: expected 10 names, one for each cavity, got 9',
  ],
  [
    'a size of a cavity it does not have',
    (shop) => (shop.families['hollin-10m']!.otherSizes.I = '16'),
    '/families/hollin-10m/otherSizes/I: expected a cavity of Hollin 10, mixed (A to K), got "I"',
  ],
  [
    'two spots upon each other',
    (shop) => {
      const { arrangement } = shop.families['hollin-10m']!;
      if (arrangement.kind === 'spots') arrangement.spots[2] = { xMm: 2, yMm: -1 };
    },
    '/families/hollin-10m/arrangement/spots/2: expected at least the pitch of 2.3 mm between two cavities, got 1.00 mm from B to C',
  ],
  [
    'a mate that the shop does not have',
    (shop) => (shop.families['hollin-10m']!.mateId = 'hollin-11'),
    '/families/hollin-10m/mateId: expected a family of this shop or none, got "hollin-11"',
  ],
  [
    'a device on a cavity that is not there',
    (shop) => (shop.devices.logger!.familyId = 'hollin-6'),
    '/devices/logger/pins/A: expected a cavity of Hollin 6 (1 to 6), got "A"',
  ],
  [
    'a price of a part that is not there',
    (shop) => (shop.buying['contacts/none'] = { retired: false, price: 1, packOf: null, orderAs: '' }),
    '/buying/contacts~1none: expected a part of this shop (families, devices, wires, cables, contacts, seals, plugs, rings, barrels, coverings, boots, transitions, clips, resins, labels), got "contacts/none"',
  ],
  [
    'a wire that is retired',
    (shop) => (shop.buying['wires/etfe 22']!.retired = true),
    '/buying/wires~1etfe 22/retired: expected false: wires are taken out, not retired',
  ],
  ['a price below 0', (shop) => (shop.buying['contacts/h22']!.price = -1), '/buying/contacts~1h22/price: must be >= 0, got -1'],
  ['two tools of one name', (shop) => (shop.tools[1]!.name = shop.tools[0]!.name), '/tools/1/name: expected a name of its own'],
  [
    'a calibration on no day',
    (shop) => (shop.tools[0]!.calibratedOn = '2026-02-30'),
    '/tools/0/calibratedOn: expected a day as in 2026-11-25, got "2026-02-30"',
  ],
  ['nobody', (shop) => (shop.people = []), '/people: must NOT have fewer than 1 items'],
  ['a wire table out of order', (shop) => shop.wires.etfe!.reverse(), '/wires/etfe/1/areaMm2: expected more than the'],
  [
    'a wire in the table of another',
    (shop) => (shop.wires.etfe![0]!.table = 'thinwall'),
    '/wires/etfe/0/table: expected "etfe", got "thinwall"',
  ],
  [
    'a size whose kind is called otherwise',
    (shop) => (shop.wires.etfe![2]!.insulation = 'PTFE'),
    '/wires/etfe/2/insulation: expected "ETFE" as the size before it, got "PTFE"',
  ],
  [
    'a house style that says nothing of a kind of wire',
    (shop) => delete shop.standards.plain!.insulationLimitC.thinwall,
    '/standards/plain/insulationLimitC/thinwall: expected one for the wire thinwall, got none',
  ],
  [
    'a house style that speaks of a kind of wire that is none',
    (shop) => (shop.standards.plain!.insulationShortC.ptfe = 250),
    '/standards/plain/insulationShortC/ptfe: expected a kind of wire (etfe, etfe-plated, thinwall), got "ptfe"',
  ],
  ['a cable of a size that is none', (shop) => (shop.cables[0]!.size = '7'), '/cables/0/size: expected one of 26, 24,'],
  [
    'a least size that is none',
    (shop) => (shop.standards.plain!.minimumSize.etfe = '7'),
    '/standards/plain/minimumSize/etfe: expected one of 26,',
  ],
  ['a standard under another id', (shop) => (shop.standards.plain!.id = 'plane'), '/standards/plain/id: expected "plain", got "plane"'],
  [
    'a template on a family that is not there',
    (shop) => delete shop.families[Object.values(shop.devices).find(({ familyId }) => familyId !== null)!.familyId!],
    'expected a family of this shop, got',
  ],
  [
    'a pin that its family has not',
    (shop) => {
      const [, template] = Object.entries(shop.devices).find(([, { familyId, pins }]) => familyId !== null && pins['1'])!;
      template.pins['99'] = template.pins['1']!;
    },
    '/pins/99: expected a cavity of ',
  ],
  ['no standard', (shop) => (shop.standards = {}), '/standards: must NOT have fewer than 1 properties'],
  ['a text for a number', (shop) => Object.assign(shop.contacts[0]!, { currentA: '5' }), '/contacts/0/currentA: expected number, got "5"'],
  ['a resistance of 0', (shop) => (shop.wires.etfe![0]!.r20MilliohmPerM = 0), '/wires/etfe/0/r20MilliohmPerM: must be > 0, got 0'],
  ['a field that nobody knows', (shop) => (shop.colour = 'red'), '/colour: expected no such field here'],
  [
    'a newer version',
    (shop) => Object.assign(shop, { formatVersion: SHOP_FORMAT_VERSION + 1 }),
    `/formatVersion: expected at most ${SHOP_FORMAT_VERSION}, got ${SHOP_FORMAT_VERSION + 1}: the file is of a newer Wattograph`,
  ],
  ['a job', (shop) => Object.assign(shop, { format: 'wattograph-job' }), '/format: expected "wattograph-shop", got "wattograph-job"'],
])('refused with its place: %s', (_, change, expected) => {
  expect(listLines(change).join('\n')).toContain(expected);
});

test.each([[null], [[]], ['x'], [7], [undefined]])('no shop at all: %j', (value) => {
  expect(checkShop(value)).toMatchObject({
    ok: false,
    problems: [{ path: '', message: expect.stringContaining('expected a shop (a JSON object)') }],
  });
});

test('whatever is put in whatever place, it is refused or accepted and never thrown at', () => {
  const places: (string | number)[][] = [];
  const walk = (value: unknown, path: (string | number)[]) => {
    places.push(path);
    if (typeof value !== 'object' || value === null || path.length > 4) return;
    for (const key of Object.keys(value).slice(0, 3)) walk((value as Record<string, unknown>)[key], [...path, key]);
  };
  walk(createDemoShop(), []);
  fc.assert(
    fc.property(fc.constantFrom(...places.slice(1)), fc.jsonValue(), (path, value) => {
      const shop = createDemoShop() as unknown as Record<string, unknown>;
      let at: Record<string, unknown> = shop;
      for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
      at[path.at(-1)!] = value;
      const checked = checkShop(shop);
      if (!checked.ok) expect(checked.problems.every(({ message }) => message.length > 5)).toBe(true);
    }),
    { numRuns: runs(60, 600) },
  );
});
