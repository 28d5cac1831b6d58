import { createDemoStart } from './standard';
import { CATALOGUE } from './catalogue';
import { HOUSE_STYLE } from './houseStyle';
import { createDevice, createJob, listCavities } from '../model';
import { findDeviceTemplate } from './catalogue';

const templates = Object.entries(CATALOGUE.devices);

test('there are at least 45 kinds of device, each with a name of its own', () => {
  expect(templates.length).toBeGreaterThanOrEqual(45);
  expect(new Set(templates.map(([, { name }]) => name)).size).toBe(templates.length);
});

describe.each(templates)('%s', (_, { familyId, pins }) => {
  test('its housing has a cavity for every pin', () => {
    if (familyId === null) return;
    const cavities = listCavities(CATALOGUE.families[familyId]!);
    expect(Object.keys(pins).filter((pin) => !cavities.includes(pin))).toEqual([]);
  });
  test('pins that twist name each other', () => {
    for (const [pin, { twistWith }] of Object.entries(pins)) if (twistWith !== null) expect(pins[twistWith]?.twistWith).toBe(pin);
  });
  test('supplies have a voltage that fits their kind, and nothing else has one', () => {
    for (const { kind, volts } of Object.values(pins)) {
      if (kind === 'sensor-supply') expect(volts).toBe(5);
      else if (kind === 'supply') expect(volts).toBe(12);
      else expect(volts).toBeNull();
    }
  });
  test('no pin claims evidence that nobody gave', () => expect(Object.values(pins).every(({ evidence }) => evidence === null)).toBe(true));
});

test.each([
  [
    'coil speed sensors are screened pairs',
    ['crank-coil', 'cam-coil', 'speed-coil', 'knock'],
    (needs: { screened: boolean; twistWith: string | null }[]) =>
      needs.filter((one) => one.screened && one.twistWith !== null).length === 2,
  ],
  [
    'a combined sensor with two returns has two sensor grounds',
    ['press-temp-2', 'pedal'],
    (needs: { kind: string }[]) => needs.filter(({ kind }) => kind === 'sensor-ground').length === 2,
  ],
  [
    'bus devices have a twisted pair',
    ['bus-node', 'display', 'keypad', 'logger', 'probe-wide', 'power-module'],
    (needs: { kind: string }[]) => needs.filter(({ kind }) => kind === 'data').length === 2,
  ],
  [
    'an electronic throttle has two tracks',
    ['throttle', 'pedal'],
    (needs: { function: string }[]) => needs.filter((one) => one.function.startsWith('track')).length === 2,
  ],
] as [string, string[], (needs: never[]) => boolean][])('%s', (_, ids, holds) => {
  for (const id of ids) expect([id, holds(Object.values(CATALOGUE.devices[id]!.pins) as never[])]).toEqual([id, true]);
});

test('a template of the job stands before one of the catalogue of the same id', () => {
  const job = createJob('x', '', 'larkhollow', createDemoStart());
  expect(findDeviceTemplate(job, CATALOGUE, 'knock')!.name).toBe('knock sensor');
  job.deviceTemplates.knock = { name: 'own', system: 'x', familyId: null, pins: {}, hazard: null, note: '', offers: {}, links: {} };
  expect(findDeviceTemplate(job, CATALOGUE, 'knock')!.name).toBe('own');
  expect(findDeviceTemplate(job, CATALOGUE, null)).toBeUndefined();
  expect(findDeviceTemplate(job, CATALOGUE, 'nothing')).toBeUndefined();
  expect(createDevice('x', 'y')).toMatchObject({ decision: 'fit', at: null, templateId: null });
});

describe('house style', () => {
  test('every question has at least two sides and an id of its own', () => {
    expect(new Set(HOUSE_STYLE.map(({ id }) => id)).size).toBe(HOUSE_STYLE.length);
    for (const { sides } of HOUSE_STYLE) expect(sides.length).toBeGreaterThanOrEqual(2);
  });
});
