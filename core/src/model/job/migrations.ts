import { createBoardSpread } from '../loom/board';
import { createBrief } from './brief';
import { addAdapter, addCavityFields } from '../shop/family';
import { FORMAT_VERSION } from './job';
import { mapRecord } from '../mapRecord';
import { addDoubts, addLeads } from '../power/pinNeed';
import { addThrows } from '../power/power';
import { addHazard } from '../vehicle/device';

/** One step of the file format: what it does in a name, and from which version it leads to the next. */
export interface Migration {
  from: number;
  name: string;
  run(document: Record<string, unknown>): Record<string, unknown>;
}

/** Every step since the first format, in order and without gaps. A test runs each. */
export const MIGRATIONS: readonly Migration[] = [
  {
    from: 1,
    name: 'add-own-families-and-accepted-findings',
    run: (document) => ({ ...document, formatVersion: 2, families: {}, accepted: {} }),
  },
  {
    from: 2,
    name: 'add-brief-survey-and-fitted-lengths',
    run: (document) => ({
      ...document,
      formatVersion: 3,
      deviceTemplates: {},
      brief: createBrief(),
      devices: {},
      // an older job settled its anchors before there was a place to say so
      anchors: {},
      openItems: {},
      donors: {},
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        clampedBy: null,
        segments: mapRecord(loom.segments, (segment) => ({
          ...segment,
          fittedMm: segment.status === 'fitted' ? segment.lengthMm : null,
          ticks: [],
        })),
        ends: mapRecord(loom.ends, (end) => ({
          ...end,
          pins: mapRecord(end.pins, (pin) => ({ ...pin, volts: null, currentA: null, screened: false, twistWith: null, evidence: null })),
        })),
      })),
      mates: {},
      surveyConflicts: {},
    }),
  },
  {
    from: 3,
    name: 'add-offers-loads-and-modes',
    run: (document) => ({
      ...document,
      formatVersion: 4,
      deviceTemplates: mapRecord(document.deviceTemplates, (template) => ({
        ...template,
        pins: mapRecord(template.pins, addLoad),
        offers: {},
        links: {},
      })),
      devices: mapRecord(document.devices, (device) => ({ ...device, unit: '', duty: {}, ratings: {} })),
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        ends: mapRecord(loom.ends, (end) => ({ ...end, pins: mapRecord(end.pins, addLoad), offers: {} })),
      })),
      modes: {
        idle: { name: 'idle', cranking: false },
        night: { name: 'full power at night', cranking: false },
        crank: { name: 'cranking', cranking: true },
        wet: { name: 'wet', cranking: false },
      },
      source: { volts: 12.5, milliohm: 8, chassisMilliohm: 1, continuousA: null, capacityAh: null, isolator: null },
      parts: {},
    }),
  },
  {
    from: 4,
    name: 'add-relay-coils-and-cables',
    run: (document) => ({
      ...document,
      formatVersion: 5,
      deviceTemplates: mapRecord(document.deviceTemplates, (template) => ({
        ...template,
        links: mapRecord(template.links, (link) => ({ ...link, coil: null })),
      })),
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        circuits: mapRecord(loom.circuits, (circuit) => ({ ...circuit, cable: null })),
      })),
    }),
  },
  {
    from: 5,
    name: 'add-returns-cycles-and-peaks',
    run: (document) => ({
      ...document,
      formatVersion: 6,
      deviceTemplates: mapRecord(document.deviceTemplates, (template) => ({
        ...addReturns(template),
        links: mapRecord(template.links, (link) => ({ ...link, peakA: null })),
      })),
      looms: mapRecord(document.looms, (loom) => ({ ...loom, ends: mapRecord(loom.ends, addReturns) })),
    }),
  },
  {
    from: 6,
    name: 'add-cavity-names-sizes-gender-and-shop-version',
    run: (document) => ({ ...document, formatVersion: 7, shopVersion: null, families: mapRecord(document.families, addCavityFields) }),
  },
  {
    from: 7,
    name: 'add-lay-up',
    run: (document) => ({
      ...document,
      formatVersion: 8,
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        bundling: null,
        laidUp: {},
        layerPins: {},
        segments: mapRecord(loom.segments, (segment) => ({ ...segment, bundling: null, leavesDeg: null })),
      })),
    }),
  },
  {
    from: 8,
    name: 'add-handling-and-dressing',
    run: (document) => ({
      ...document,
      formatVersion: 9,
      zones: mapRecord(document.zones, (zone) => ({ ...zone, handled: false, clipEveryMm: null })),
      families: mapRecord(document.families, addAdapter),
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        dressing: null,
        nodes: mapRecord(loom.nodes, (node) => ({ ...node, transitionPin: null })),
        ends: mapRecord(loom.ends, (end) => ({ ...end, bootPin: null })),
      })),
    }),
  },
  {
    from: 9,
    name: 'add-feeding-and-potting',
    run: (document) => ({
      ...document,
      formatVersion: 10,
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        nodes: mapRecord(loom.nodes, (node) => ({ ...node, feed: null })),
        ends: mapRecord(loom.ends, (end) => ({ ...end, pinAt: 'bench', potting: null, wireLoops: {}, threadMm: null, cautions: [] })),
      })),
    }),
  },
  {
    from: 10,
    name: 'add-bands-and-blades',
    run: (document) => ({
      ...document,
      formatVersion: 11,
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        board: createBoardSpread(),
        ends: mapRecord(loom.ends, (end) => ({ ...end, tongueMm: null })),
        circuits: mapRecord(loom.circuits, (circuit) => ({ ...circuit, colour: addBands(circuit.colour) })),
      })),
    }),
  },
  {
    from: 11,
    name: 'add-what-doubts-stop',
    run: (document) => ({
      ...document,
      formatVersion: 12,
      anchors: mapRecord(document.anchors, (anchor) => ({ ...anchor, nodes: [] })),
      // whatever was open held wires from being cut
      openItems: mapRecord(document.openItems, (item) => ({ ...item, stops: 'cut' })),
      deviceTemplates: mapRecord(document.deviceTemplates, addDoubts),
      looms: mapRecord(document.looms, (loom) => ({ ...loom, ends: mapRecord(loom.ends, addDoubts) })),
    }),
  },
  {
    from: 12,
    name: 'add-states-of-switches',
    run: (document) => ({
      ...document,
      formatVersion: 13,
      // whatever did not turn the starter was taken to be with the engine running
      modes: mapRecord(document.modes, ({ cranking, ...mode }) => ({ ...mode, engine: cranking === true ? 'cranking' : 'running' })),
      source: { ...(document.source as object), capacityAh: null, isolator: null },
      devices: mapRecord(document.devices, (device) => ({ ...device, states: {}, positions: {}, enabledBy: {} })),
      deviceTemplates: mapRecord(document.deviceTemplates, addThrows),
    }),
  },
  {
    from: 13,
    name: 'add-leads-holes-and-clips',
    run: (document) => ({
      ...document,
      formatVersion: 14,
      deviceTemplates: mapRecord(document.deviceTemplates, addLeads),
      looms: mapRecord(document.looms, (loom) => ({
        ...loom,
        nodes: mapRecord(loom.nodes, (node) => ({ ...node, drill: null, beside: null })),
        segments: mapRecord(loom.segments, (segment) => ({ ...segment, clipsAtMm: null })),
        ends: mapRecord(loom.ends, addLeads),
        circuits: mapRecord(loom.circuits, (circuit) => ({ ...circuit, colourPin: null })),
      })),
    }),
  },
  {
    from: 14,
    name: 'add-new-names-of-donor-wires',
    run: (document) => ({
      ...document,
      formatVersion: 15,
      donors: mapRecord(document.donors, (donor) => ({ ...donor, wires: mapRecord(donor.wires, (wire) => ({ newName: '', ...wire })) })),
    }),
  },
  {
    from: 15,
    name: 'add-tasks',
    run: (document) => ({ tasks: {}, ...document, formatVersion: 16 }),
  },
  {
    from: 16,
    name: 'keep-where-prints-begin-add-provings',
    run: (document) => ({
      provings: {},
      startsOn: 'vehicle',
      ...document,
      looms: mapRecord(document.looms, addPrintGrid),
      formatVersion: 17,
    }),
  },
  {
    from: 17,
    name: 'add-hazards-and-reused-wire',
    run: (document) => ({
      ...document,
      looms: mapRecord(document.looms, (loom) => ({ hasReusedWire: false, ...loom })),
      deviceTemplates: mapRecord(document.deviceTemplates, addHazard),
      formatVersion: 18,
    }),
  },
  // kinds of wire are the shop's: what there was says the same, and names may be others
  { from: 18, name: 'open-kinds-of-wire', run: (document) => ({ ...document, formatVersion: 19 }) },
];

/** What hangs on the board of a loom; nobody kept where it begins. */
function addPrintGrid(loom: Record<string, unknown>): Record<string, unknown> {
  const board = loom.board as { printed?: Record<string, unknown> | null } | undefined;
  if (!board?.printed || !Array.isArray(board.printed.tiles)) return loom;
  const tiles = board.printed.tiles.map((fingerprint: unknown, index) => ({ number: index + 1, column: null, row: null, fingerprint }));
  return { ...loom, board: { ...board, printed: { ...board.printed, grid: null, tiles } } };
}

/** Of what is a look; anything else is left for the gate to name. */
const addBands = (colour: unknown) => (typeof colour === 'object' && colour !== null ? { bands: [], ...colour } : colour);

/**
 * Until now a load without a pin to return by was taken to return by its case, and a ground repeated what its supply draws. Both are said
 * now: a starter is bolted to the engine, any other to the chassis.
 */
function addReturns(owner: Record<string, unknown>): Record<string, unknown> {
  const pins = Object.values((owner.pins ?? {}) as Record<string, { kind?: unknown; currentA?: unknown }>);
  const hasReturn = pins.some(({ kind }) => kind === 'power-ground' || kind === 'output');
  const hasSupply = pins.some(({ kind, currentA }) => kind === 'supply' && typeof currentA === 'number');
  return {
    ...owner,
    pins: mapRecord(owner.pins, (pin) => ({
      ...pin,
      cycleS: null,
      returnBy:
        pin.kind !== 'supply' || pin.currentA === null || hasReturn ? 'pin' : pin.load === 'starter' ? 'engine-case' : 'chassis-case',
      currentA: pin.kind === 'power-ground' && hasSupply ? null : pin.currentA,
    })),
    offers: mapRecord(owner.offers, (offer) => ({ ...offer, chassisMilliohm: null })),
  };
}

const addLoad = (pin: Record<string, unknown>) => ({
  ...pin,
  wants: null,
  pwmHz: null,
  load: null,
  inrushA: null,
  inrushMs: null,
  noise: null,
});

/** Bring a document of an older format to the present one; throws with the versions when it cannot. */
export function toPresentFormat(document: Record<string, unknown>): Record<string, unknown> {
  const written = document.formatVersion;
  if (typeof written !== 'number' || !Number.isInteger(written)) return document;
  let version = written;
  if (version > FORMAT_VERSION) {
    throw new RangeError(`/formatVersion: expected at most ${FORMAT_VERSION}, got ${version}: this file was written by a newer Wattograph`);
  }
  let present = document;
  while (version < FORMAT_VERSION) {
    const step = MIGRATIONS.find((migration) => migration.from === version);
    if (!step) throw new RangeError(`/formatVersion: expected 1 to ${FORMAT_VERSION}, got ${version}`);
    present = step.run(present);
    version = present.formatVersion as number;
  }
  return present;
}
