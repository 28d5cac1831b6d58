import { createPinNeed, createPinOffer, type DeviceTemplate, type PinNeed, type PinOffer, type TemplateLink } from '../model';

type Part = Pick<DeviceTemplate, 'name' | 'familyId'> & Partial<Omit<DeviceTemplate, 'name' | 'familyId'>>;
const part = (system: string, { name, familyId, pins = {}, offers = {}, links = {}, hazard = null, note = '' }: Part): DeviceTemplate => ({
  name,
  system,
  familyId,
  pins,
  offers,
  links,
  hazard,
  note,
});

/** Pins from one number to another, each with an offer made from its number within the range. */
const range = (from: number, to: number, make: (nth: number, cavity: number) => PinOffer): Record<string, PinOffer> =>
  Object.fromEntries(Array.from({ length: to - from + 1 }, (_, index) => [String(from + index), make(index + 1, from + index)]));
/** Two neighbouring pins that work together. */
const couple = (first: number, name: string, offer: Partial<PinOffer> & Pick<PinOffer, 'can'>): Record<string, PinOffer> => {
  const [one, other] = [String(first), String(first + 1)];
  return {
    [one]: createPinOffer(`${name} +`, offer.can, { ...offer, pairWith: other }),
    [other]: createPinOffer(`${name} −`, offer.can, { ...offer, pairWith: one }),
  };
};
const lowSide =
  (limitA: number, pwmHz: number, name = 'low-side') =>
  (nth: number) =>
    createPinOffer(`${name} ${nth}`, ['low-side'], { limitA, pwmHz, suppressed: true });
const analogue = (nth: number) => createPinOffer(`analogue ${nth}`, ['analogue', 'digital']);
const temperature = (nth: number) => createPinOffer(`temperature ${nth}`, ['temperature', 'digital']);
const frequency = (nth: number) => createPinOffer(`frequency ${nth}`, ['frequency', 'digital']);
const rail = (group: string, limitA: number) => createPinOffer(`5 V ${group}`, ['sensor-supply'], { volts: 5, limitA, group });
const sensorGround = (nth: number) => createPinOffer(`sensor ground ${nth}`, ['sensor-ground'], { group: `ground ${nth}` });
const screen = createPinOffer('screen', ['screen']);
const feed = (name: string, currentA: number): PinNeed => createPinNeed(name, 'supply', { volts: 12, currentA, load: 'electronics' });
const ground = (name: string, currentA: number | null = null): PinNeed => createPinNeed(name, 'power-ground', { currentA });
const can = (high: number, bus: string) => couple(high, `CAN ${bus}`, { can: ['can'], group: bus });
const canNeeds = (high: string, low: string): Record<string, PinNeed> => ({
  [high]: createPinNeed('CAN high', 'data', { twistWith: low }),
  [low]: createPinNeed('CAN low', 'data', { twistWith: high }),
});
const link = (
  kind: TemplateLink['kind'],
  name: string,
  from: string,
  to: string,
  maxA: number,
  { part = null, ...rest }: { part?: string | null; coil?: TemplateLink['coil']; peakA?: number } = {},
): TemplateLink => ({
  name,
  kind,
  a: { part, cavity: from },
  b: { part: null, cavity: to },
  maxA,
  peakA: null,
  coil: null,
  closedIn: [],
  ...rest,
});

const channel = (limitA: number, offset: number) => (nth: number) =>
  createPinOffer(`channel ${nth + offset}`, ['feed', 'high-side'], { volts: 12, limitA, pwmHz: 0, suppressed: true });
/** A channel lets so many times its largest current through for the time of an inrush window. */
const CHANNEL_PEAK = 6;
const channels = (from: number, to: number, maxA: number, offset: number): Record<string, TemplateLink> =>
  Object.fromEntries(
    Array.from({ length: to - from + 1 }, (_, index) => [
      `ch${index + 1 + offset}`,
      link('channel', `channel ${index + 1 + offset}`, '1', String(from + index), maxA, {
        part: 'sluice-feed',
        peakA: CHANNEL_PEAK * maxA,
      }),
    ]),
  );
const fuses = (from: number, to: number, maxA: number): Record<string, TemplateLink> =>
  Object.fromEntries(
    Array.from({ length: to - from + 1 }, (_, index) => [
      `f${index + 1}`,
      link('fuse', `fuse ${index + 1}`, '1', String(from + index), maxA),
    ]),
  );

/** as its maker's own loom has them, which comes with it where it is bought with leads */
const INJECTOR_LEADS = ['pink', 'pink/black', 'pink/red', 'pink/blue', 'pink/yellow', 'pink/white'] as const;

/**
 * Boxes whose pins are shared out: controller, power module, fuse box, relay panel, battery, ground points. Each plug of a box is a
 * part of its own; devices of the same unit are one box. Fictional, with usual limits.
 */
export const HOSTS: Readonly<Record<string, DeviceTemplate>> = {
  'orrery-a': part('controller', {
    name: 'Orrery E4, plug A',
    familyId: 'quill-34',
    offers: {
      ...range(1, 6, (nth) => ({ ...lowSide(2.5, 2000, 'injector')(nth), lead: INJECTOR_LEADS[nth - 1]! })),
      ...range(7, 10, (nth) => createPinOffer(`ignition ${nth}`, ['ignition'], { limitA: 5, pwmHz: 1000, suppressed: true })),
      ...couple(11, 'bridge 1', { can: ['half-bridge'], limitA: 5, pwmHz: 20000, suppressed: true }),
      ...couple(13, 'coil sensor 1', { can: ['coil-pair'] }),
      ...couple(15, 'coil sensor 2', { can: ['coil-pair'] }),
      ...couple(17, 'knock', { can: ['knock-pair'] }),
      ...range(19, 21, frequency),
      ...range(22, 28, analogue),
      ...range(29, 32, temperature),
      '33': rail('A', 0.25),
      '34': sensorGround(1),
    },
    note: 'key A; the coil pairs and the bridge work two pins together',
  }),
  'orrery-b': part('controller', {
    name: 'Orrery E4, plug B',
    familyId: 'quill-26',
    pins: {
      '1': feed('controller supply', 1.2),
      '2': { ...feed('bridge supply', 4), load: 'motor' },
      '3': ground('power ground 1'),
      '4': ground('power ground 2'),
      '5': ground('power ground 3'),
      '20': ground('power ground 4'),
      '21': ground('power ground 5'),
    },
    offers: {
      ...can(6, 'bus 1'),
      '8': rail('B', 0.15),
      '9': rail('A', 0.25),
      ...range(10, 13, (nth) => sensorGround(nth + 1)),
      ...range(14, 19, lowSide(4, 500)),
      '22': createPinOffer('digital 1', ['digital']),
      ...range(23, 24, (nth) => temperature(nth + 4)),
      '25': createPinOffer('wake out', ['high-side'], { volts: 12, limitA: 0.5, pwmHz: 0 }),
      '26': screen,
    },
    note: 'key B; five power grounds share what it draws and what its outputs sink',
  }),
  'orrery-c': part('controller', {
    name: 'Orrery E4, plug C',
    familyId: 'quill-34',
    offers: {
      ...range(1, 8, (nth) => analogue(nth + 7)),
      ...range(9, 12, (nth) => frequency(nth + 3)),
      ...range(13, 16, (nth) => analogue(nth + 15)),
      ...range(17, 18, lowSide(2.5, 1000)),
      ...range(19, 20, (nth) => analogue(nth + 19)),
      ...range(21, 22, (nth) => temperature(nth + 6)),
      '23': rail('A', 0.25),
      '24': rail('B', 0.15),
      ...range(25, 27, (nth) => sensorGround(nth + 5)),
      ...can(28, 'bus 2'),
      ...couple(30, 'bridge 2', { can: ['half-bridge'], limitA: 5, pwmHz: 20000, suppressed: true }),
      '32': screen,
      ...couple(33, 'coil sensor 3', { can: ['coil-pair'] }),
    },
    note: 'key C',
  }),
  'sluice-feed': part('power', {
    name: 'Sluice 24, feed stud',
    familyId: null,
    pins: { '1': createPinNeed('main feed', 'supply', { volts: 12, load: 'electronics' }) },
    note: 'exposed live stud: boot on before the battery is connected',
  }),
  'sluice-p': part('power', {
    name: 'Sluice 24, power plug',
    familyId: 'quill-12p',
    offers: range(1, 12, channel(16, 0)),
    links: channels(1, 12, 16, 0),
    note: 'channels 1 to 12, trip current and time set by the module’s own tool',
  }),
  'sluice-s': part('power', {
    name: 'Sluice 24, signal plug',
    familyId: 'quill-26',
    pins: {
      '13': ground('module ground', 0.3),
      ...canNeeds('14', '15'),
      '16': createPinNeed('wake', 'signal', { wants: 'high-side', currentA: 0.01 }),
    },
    offers: { ...range(1, 12, channel(5, 12)), ...range(17, 20, (nth) => createPinOffer(`switch ${nth}`, ['digital'])) },
    links: channels(1, 12, 5, 12),
    note: 'channels 13 to 24',
  }),
  'fuse-box': part('power', {
    name: 'fuse box, eight ways',
    familyId: 'quill-12p',
    pins: { '1': createPinNeed('feed', 'supply', { volts: 12, load: 'electronics' }) },
    offers: range(2, 9, (nth) => createPinOffer(`way ${nth}`, ['feed'], { volts: 12, limitA: 20 })),
    links: fuses(2, 9, 20),
  }),
  'relay-panel': part('power', {
    name: 'relay panel, four ways',
    familyId: 'quill-12p',
    pins: {
      '1': createPinNeed('contact feed', 'supply', { volts: 12, load: 'electronics' }),
      '2': createPinNeed('coil feed', 'supply', { volts: 12, currentA: 0.64, load: 'electronics' }),
      ...Object.fromEntries(
        [3, 4, 5, 6].map((cavity) => [
          String(cavity),
          createPinNeed(`coil ${cavity - 2}`, 'output', { wants: 'low-side', currentA: 0.16 }),
        ]),
      ),
    },
    offers: range(7, 10, (nth) => createPinOffer(`contact ${nth}`, ['feed', 'high-side'], { volts: 12, limitA: 20, pwmHz: 0 })),
    links: Object.fromEntries(
      [7, 8, 9, 10].map((cavity) => [
        `r${cavity - 6}`,
        link('relay', `relay ${cavity - 6}`, '1', String(cavity), 20, { coil: { feed: '2', switch: String(cavity - 4) } }),
      ]),
    ),
    note: 'contacts switch on and off only; each coil wants a suppressor unless its driver has one',
  }),
  'main-fuse': part('power', {
    name: 'main fuse',
    familyId: null,
    pins: { '1': createPinNeed('battery side', 'supply', { volts: 12, load: 'electronics' }) },
    offers: { '2': createPinOffer('fused side', ['feed'], { volts: 12, limitA: 200 }) },
    links: { main: link('fuse', 'main fuse', '1', '2', 200) },
    note: 'within 200 mm of the battery',
  }),
  'battery-positive': part('power', {
    name: 'battery, positive stud',
    familyId: null,
    offers: { '1': createPinOffer('positive', ['battery-positive'], { volts: 12 }) },
    note: 'boot on; negative off before work',
  }),
  'battery-negative': part('power', {
    name: 'battery, negative stud',
    familyId: null,
    offers: { '1': createPinOffer('negative', ['battery-negative']) },
    note: 'off first, on last',
  }),
  'engine-block': part('power', {
    name: 'stud on the engine block',
    familyId: null,
    offers: { '1': createPinOffer('engine block', ['engine-block']) },
    note: 'what is bolted to the engine returns here: a strap from it to the chassis or to battery negative',
  }),
  'ground-stud': part('power', {
    name: 'ground stud on the chassis',
    familyId: null,
    offers: { '1': createPinOffer('chassis', ['chassis']) },
    note: 'bare metal under it, at most four rings',
  }),
};
