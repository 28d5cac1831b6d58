import { COMMON_START } from '../job/jobStart';
import { COLOUR_NAMES } from '../loom/colour';
import { addCoveringTraits } from './covering';
import { addAdapter, addCavityFields } from './family';
import { addDoubts, addLeads } from '../power/pinNeed';
import { addThrows } from '../power/power';
import { isRecord, mapRecord } from '../mapRecord';
import type { Migration } from '../job/migrations';
import { SHOP_FORMAT_VERSION } from './shop';
import { TIME_DEFAULTS } from '../times';
import { addHazard } from '../vehicle/device';
import { addWireKind } from './wire';

/** Every step of the shop's format since the first, in order and without gaps. A test runs each. */
export const SHOP_MIGRATIONS: readonly Migration[] = [
  {
    from: 1,
    name: 'add-cavity-names-sizes-and-gender',
    run: (shop) => ({
      ...shop,
      formatVersion: 2,
      families: mapRecord(shop.families, addCavityFields),
      contacts: Array.isArray(shop.contacts) ? shop.contacts.map(addGender) : shop.contacts,
    }),
  },
  { from: 2, name: 'add-tools-and-buying', run: (shop) => ({ ...shop, formatVersion: 3, tools: [], currency: null, buying: {} }) },
  {
    from: 3,
    name: 'add-lay-up',
    run: (shop) => ({
      ...shop,
      formatVersion: 4,
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...LAYUP_DEFAULTS })),
    }),
  },
  {
    from: 4,
    name: 'add-what-coverings-stand-and-dressing',
    run: (shop) => ({
      ...shop,
      formatVersion: 5,
      coverings: Array.isArray(shop.coverings) ? shop.coverings.map(toItself(addCoveringTraits)) : shop.coverings,
      labels: Array.isArray(shop.labels) ? shop.labels.map(addPrintable) : shop.labels,
      boots: [],
      transitions: [],
      clips: [],
      families: mapRecord(shop.families, addAdapter),
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...DRESS_DEFAULTS })),
    }),
  },
  {
    from: 5,
    name: 'add-feeding-and-potting',
    run: (shop) => ({
      ...shop,
      formatVersion: 6,
      resins: [],
      rings: Array.isArray(shop.rings) ? shop.rings.map(toItself((ring) => ({ ...ring, thickMm: null, widthMm: null }))) : shop.rings,
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...FEED_DEFAULTS })),
    }),
  },
  {
    from: 6,
    name: 'add-colour-schemes-and-blades',
    run: (shop) => ({
      ...shop,
      formatVersion: 7,
      rings: Array.isArray(shop.rings)
        ? shop.rings.map(toItself((ring) => ({ ...ring, tongueMm: null, insulated: false, lengthMm: null })))
        : shop.rings,
      ...BOARD_DEFAULTS,
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...SCHEME_DEFAULTS })),
    }),
  },
  {
    from: 7,
    name: 'add-isolation',
    run: (shop) => ({
      ...shop,
      formatVersion: 8,
      standards: mapRecord(shop.standards, (standard) => ({
        ...standard,
        ...PROOF_DEFAULTS,
        guessStops: GUESS_STOPS,
        leaseMin: LEASE_MIN,
      })),
      devices: mapRecord(shop.devices, addDoubts),
    }),
  },
  {
    from: 8,
    name: 'add-first-power-and-throws',
    run: (shop) => ({
      ...shop,
      formatVersion: 9,
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...FIRST_POWER_DEFAULTS })),
      devices: mapRecord(shop.devices, addThrows),
    }),
  },
  {
    from: 9,
    name: 'add-crimp-samples-and-times',
    run: (shop) => ({
      ...shop,
      formatVersion: 10,
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...SAMPLE_DEFAULTS, ...TIME_DEFAULTS })),
      contacts: Array.isArray(shop.contacts) ? shop.contacts.map(toItself((contact) => ({ ...contact, crimpHeights: [] }))) : shop.contacts,
      tools: Array.isArray(shop.tools) ? shop.tools.map(toItself((one) => ({ ...one, gauged: false, servicedOn: null }))) : shop.tools,
    }),
  },
  {
    from: 10,
    name: 'add-leads-drill-and-device-labels',
    run: (shop) => ({
      ...shop,
      formatVersion: 11,
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...LIMIT_DEFAULTS, deviceLabels: false })),
      ...changeLists(shop, {
        transitions: (one) => ({ ...one, shrinkC: null, onwardSuppliedMm: null, onwardRecoveredMm: null }),
        boots: (one) => ({ ...one, shrinkC: null }),
        coverings: (one) => ('recoveredBoreMm' in one ? { ...one, shrinkC: null } : one),
        labels: (one) => ({ ...one, limitC: null, shortC: null }),
      }),
      devices: mapRecord(shop.devices, addLeads),
    }),
  },
  {
    from: 11,
    name: 'add-ties-photos-and-wiggling',
    run: (shop) => ({
      ...shop,
      formatVersion: 12,
      standards: mapRecord(shop.standards, (standard) => ({
        ...standard,
        ...WORK_DEFAULTS,
        minutes:
          typeof standard.minutes === 'object'
            ? { tie: TIME_DEFAULTS.minutes.tie, photo: TIME_DEFAULTS.minutes.photo, ...standard.minutes }
            : standard.minutes,
      })),
    }),
  },
  {
    from: 12,
    name: 'add-hazards-and-isolation-of-reused-wire',
    run: (shop) => ({
      ...shop,
      formatVersion: 13,
      devices: mapRecord(shop.devices, addHazard),
      standards: mapRecord(shop.standards, (standard) => ({ ...REUSED_DEFAULTS, ...standard })),
    }),
  },
  {
    from: 13,
    name: 'name-kinds-of-wire',
    run: (shop) => ({ ...shop, formatVersion: 14, wires: addInsulation(shop.wires) }),
  },
  {
    from: 14,
    name: 'say-what-jobs-begin-with',
    run: (shop) => ({ ...shop, formatVersion: 15, ...(JSON.parse(JSON.stringify(COMMON_START)) as typeof COMMON_START) }),
  },
];

function addInsulation(wires: unknown): unknown {
  if (!isRecord(wires)) return wires;
  const ofKind = (sizes: unknown) => (Array.isArray(sizes) ? sizes.map(toItself(addWireKind)) : sizes);
  return Object.fromEntries(Object.entries(wires).map(([kind, sizes]) => [kind, ofKind(sizes)]));
}

/** What a shop that never said so asks for, and what all of them had in common. */
const WORK_DEFAULTS = {
  tieSteps: false,
  photoBeforeCover: false,
  wiggleS: 0,
  wiggleMs: 1,
  kitStepMm: 100,
  boardBareDepthMm: 20,
  boardBareHalfMm: 8,
} as const;

/** What a shop that never said so drills holes with, and limits that it used to have in common with all. */
const LIMIT_DEFAULTS = {
  drillMm: 240,
  drillThroughMm: 25,
  crowdedShare: 0.8,
  heavyMm2: 4,
  asideMostShare: 0.35,
  partBandShare: 0.2,
} as const;

/** How a shop that never said so samples its crimps (craft D3). */
export const SAMPLE_DEFAULTS = {
  sampleFirst: 3,
  sampleEvery: 100,
  sampleWarnShare: 1.15,
  crimpHeightMm: 0.05,
  sessionMin: 240,
  serviceCrimps: 10_000,
} as const;

/** What a shop that never said so goes by when a loom gets power for the first time (craft E2). */
export const FIRST_POWER_DEFAULTS = {
  supplyFactor: 1.25,
  supplyExtraA: 0.2,
  currentBandShare: 0.2,
  currentBandA: 0.2,
  voltBandShare: 0.05,
  deadMostV: 0.5,
  feedLeastOhm: 1000,
  groundMostMilliohm: 10,
  crankLeastV: 9,
  batteryShare: 0.5,
  restApartK: 3,
} as const;

/** The first work that a guess stops in a shop that never said otherwise (craft G1). */
export const GUESS_STOPS = { length: 'cut', current: 'cut', place: 'seat', volts: 'energise' } as const;

/** How long whoever takes a lane of a loom has it without a tick, in a shop that never said so (craft D1). */
export const LEASE_MIN = 20;

/** What isolation a shop that never said so asks of new wire (craft E1). */
export const PROOF_DEFAULTS = { isolationMegohm: 100, isolationVolts: 500 } as const;

/** And of wire that was in use before. */
export const REUSED_DEFAULTS = { isolationReusedMegohm: 10, isolationReusedVolts: 100 } as const;

/** What a shop that never said so builds on and prints with: a sheet of ply, A4 (craft C). */
export const BOARD_DEFAULTS = {
  boards: [{ id: 'board', name: 'board', widthMm: 2400, heightMm: 1200, edgeMm: 20 }],
  printers: [
    { id: 'a4', name: 'A4 across', paperWidthMm: 297, paperHeightMm: 210, usableWidthMm: 277, usableHeightMm: 190, overlapMm: 10 },
  ],
} as const;

/** How a shop that never said so told its wires apart, and what it took for apart, worth while and right (craft A5, A6). */
export const SCHEME_DEFAULTS = {
  colourScheme: 'function',
  functionColours: {
    supply: 'red',
    'sensor-supply': 'orange',
    'sensor-ground': 'black',
    'power-ground': 'black',
    signal: 'yellow, green, grey, pink',
    output: 'blue, brown, violet',
    data: 'white',
    screen: 'white',
  },
  oneColour: 'white',
  bandColours: ['red', 'blue', 'green', 'yellow', 'black', 'orange', 'violet', 'brown', 'grey'],
  mostBands: 3,
  bandMm: 4,
  bandGapMm: 3,
  sizeApartShare: 0.2,
  lighterWorthG: 20,
  screenLeastMegohm: 10,
  torqueShare: 0.1,
  clearOverLabels: false,
  clearBeyondMm: 10,
  boardClearMm: 40,
  pegEveryMm: 150,
  pegMm: 6,
} as const;

/** What a shop that never said anything else leaves free in a hole, and how it pots (craft I2, A4). */
export const FEED_DEFAULTS = {
  screenOverJacketMm: 8,
  coreOverScreenMm: 12,
  studTorqueNm: { M5: 3, M6: 5, M8: 12 },
  couplingRoundMin: 0.7,
  couplingFlatMin: 1.2,
  zoneLabels: false,
  sagMostMm: 13,
  holeFreeMm: 0.5,
  workshopC: 23,
  potWaste: 0.2,
  potLoopRatio: 6,
  potStraightMm: 10,
  potChangesMost: 1,
} as const;

/** How a shop dressed its looms that never said so: sleeves that meet, by the usual figures; what it tells apart by colour (craft A2, A3, A6). */
export const DRESS_DEFAULTS = {
  coveringOrder: [
    'braid',
    'shrink',
    'adhesive-shrink',
    'wrap',
    'split-braid',
    'plain-shrink',
    'cloth-tape',
    'convoluted',
    'spiral',
    'heat-sleeve',
  ],
  coveringBy: 'order',
  dressing: 'sleeves',
  bootOverlapMm: 15,
  buildUpStepMm: 10,
  stripRoomMm: 60,
  braidPushes: 0.5,
  colours: COLOUR_NAMES.flatMap((base) => [
    base,
    ...['white', 'black', 'red', 'yellow', 'blue'].filter((one) => one !== base).map((one) => `${base}/${one}`),
  ]),
  colourApart: 20,
  colourApartSimulated: 10,
  stripeShare: 0.2,
  stripeLeastShare: 0.12,
  colourReachMm: 200,
  legendMm: 2.5,
  legendLeastMm: 1.6,
  clipEveryMm: 200,
  clipFirstMm: 100,
} as const;

/** What a shop that never said anything else laid up by: the trade's usual figures (calculations 6, craft A1). */
export const LAYUP_DEFAULTS = {
  bundling: 'pairs-only',
  layRatio: 10,
  layRatioLeast: 8,
  layRatioMost: 16,
  layLeastMm: 25,
  laySqueeze: 0.03,
  fillerPerM: 0.2,
  fillerMinutes: 1.5,
  relayMinutes: 10,
  relayThinner: 0.08,
  labourPerHour: 48,
  untwistedMostMm: 50,
} as const;

/** Of what is a record; anything else is left for the gate to name. */
const toItself = (change: (record: Record<string, unknown>) => Record<string, unknown>) => (value: unknown) =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? change(value as Record<string, unknown>) : value;

/** Each record of some lists; what is no list is left for the gate to name. */
const changeLists = (
  shop: Record<string, unknown>,
  changes: Record<string, (record: Record<string, unknown>) => Record<string, unknown>>,
) =>
  Object.fromEntries(
    Object.entries(changes).map(([table, change]) => [table, Array.isArray(shop[table]) ? shop[table].map(toItself(change)) : shop[table]]),
  );

const addGender = toItself((contact) => ({ gender: null, ...contact }));

/** What a printer leaves free at either end of a sleeve of a shop that never said so, mm. */
const LABEL_MARGIN_MM = 1;

const addPrintable = toItself((label) => ({
  ...label,
  printableMm: typeof label.lengthMm === 'number' ? Math.max(label.lengthMm - 2 * LABEL_MARGIN_MM, label.lengthMm / 2) : label.lengthMm,
}));

/** Bring a shop of an older format to the present one; what is of no known format is left for the gate to name. */
export function toPresentShop(shop: Record<string, unknown>): Record<string, unknown> {
  let present = shop;
  for (;;) {
    const version = present.formatVersion;
    const step = SHOP_MIGRATIONS.find(({ from }) => from === version);
    if (!step || version === SHOP_FORMAT_VERSION) return present;
    present = step.run(present);
  }
}
