import type { CoveringKind, Load, MeasureMethod, WireTable } from '../model';
import type { BarrelKind } from './joints';

/** Where a shop stands on each question of practice; every default of a calculation is a field here. */
export interface ShopStandard {
  id: string;
  name: string;
  /** cut lengths are rounded up to a multiple of this */
  cutIncrementMm: number;
  reterminations: number;
  reterminationMm: number;
  /** smallest size for hand-crimped single wires, by wire table */
  minimumSize: Record<WireTable, string>;
  /** wire that one splice must save to be worth making */
  spliceCostMm: number;
  spliceFromBreakoutMm: number;
  spliceFromConnectorMm: number;
  spliceApartMm: number;
  /** wires on one side of a splice */
  spliceMostWires: number;
  barrelKind: BarrelKind;
  ringsOnStud: number;
  /** spread of a measured length, σ = a + b · length */
  sigma: Record<MeasureMethod, { aMm: number; share: number }>;
  roughExtraMm: number;
  /** covering where the zone asks for nothing in particular */
  covering: Exclude<CoveringKind, 'none'>;
  shrinkOverlapMm: number;
  /** a braid grips what is so many times its relaxed bore, and more */
  braidGrip: number;
  /** what the wire that this shop buys stands for good, °C: ETFE 150 on tinned, 200 on plated copper; thin-wall 105 (PVC) or 125 (cross-linked) */
  insulationLimitC: Record<WireTable, number>;
  /** a bundle's middle stays this much below what its insulation stands, K */
  heatMarginK: number;
  /** highest place of use, m above the sea: thin air cools less */
  altitudeM: number;
  /** what "hot" ticked at the vehicle counts as, °C */
  hotTickC: number;
  /** short-time limit of the insulation, for faults, °C */
  insulationShortC: Record<WireTable, number>;
  /** share of the source's voltage that a load's wires may take, out and back; null: where the kind of load is not known */
  dropShare: Record<Load, number>;
  contactMilliohm: number;
  spliceMilliohm: number;
  /** a ring bolted to its stud, mΩ */
  ringMilliohm: number;
  /** what a fuse drops at its rating, V */
  fuseFullV: number;
  /** what a relay, switch or channel drops at its largest current, V */
  linkFullV: number;
  /** share of the source's voltage from the battery to the boxes that feed the loads, and back from the ground studs, all on */
  feedShare: number;
  /** share of its budget that a load may lose from the plug on through which something outside the job feeds it */
  aloneShare: number;
  /** a load that turns on and off within so long is felt by its bundle as its r.m.s. current, s: short against the minutes that takes */
  shortCycleS: number;
  /** wire between the battery and its first fuse, mm: it carries the battery's whole fault current */
  unfusedMm: number;
  /** conductor temperature taken where no zone is known, °C */
  unknownZoneC: number;
  /** blade fuse: continuous load per rating at 25 °C, and what it loses for each K above */
  fuseLoadShare: number;
  fuseDeratePerK: number;
  /** a channel is set so much over its load */
  channelHeadroom: number;
  /** a channel opens so long after its setting is passed, s */
  channelTripS: number;
  /** a load above this goes through a relay or channel, A */
  directA: number;
  railShare: number;
  /** a load above this has a ground wire of its own, A */
  ownGroundA: number;
  /** loads of one kind up to this share a feed, A */
  sharedLoadA: number;
  /** what a shared feed carries at most, A: one contact of a bulkhead with room to spare */
  sharedFeedA: number;
  /** sensors and lamps below this share one feed in the whole vehicle, A */
  smallLoadA: number;
  /** cavities of a break that stay empty for what is added later, at least one */
  spareShare: number;
  canStubMm: number;
  canPitchMm: number;
  lookAlikeReachMm: number;
  pullToSeatFreeMm: number;
  /** bared conductor at a flying tail */
  tailStripMm: number;
  /** ties along a run, and turns of tape round each fork and the datum */
  tieEveryMm: number;
  tapeTurns: number;
  /** a feed or return above this is proved by millivolts, A, at so many amperes of a limited supply */
  millivoltAboveA: number;
  millivoltTestA: number;
  /** a shorter piece of wire is not kept */
  leastOffcutMm: number;
  bendFactor: number;
  bendFactorHeavy: number;
  /** question of the house style → the side this shop takes where it is not the usual one */
  stances: Readonly<Record<string, number>>;
}

/** The shop standard of Larkhollow Looms for race looms. */
export const LARKHOLLOW: ShopStandard = {
  id: 'larkhollow',
  name: 'Larkhollow house style',
  cutIncrementMm: 5,
  reterminations: 2,
  reterminationMm: 8,
  minimumSize: { etfe: '22', 'etfe-plated': '22', thinwall: '0.5' },
  spliceCostMm: 250,
  spliceFromBreakoutMm: 40,
  spliceFromConnectorMm: 75,
  spliceApartMm: 40,
  spliceMostWires: 5,
  barrelKind: 'butt',
  ringsOnStud: 4,
  sigma: {
    tape: { aMm: 5, share: 0.005 },
    rope: { aMm: 10, share: 0.01 },
    board: { aMm: 3, share: 0 },
    drawing: { aMm: 2, share: 0.005 },
    estimate: { aMm: 0, share: 0.15 },
    fitted: { aMm: 0, share: 0 },
  },
  roughExtraMm: 50,
  covering: 'shrink',
  shrinkOverlapMm: 10,
  braidGrip: 1.1,
  insulationLimitC: { etfe: 150, 'etfe-plated': 200, thinwall: 125 },
  heatMarginK: 20,
  altitudeM: 0,
  hotTickC: 150,
  insulationShortC: { etfe: 250, 'etfe-plated': 250, thinwall: 250 },
  dropShare: { electronics: 0.01, ignition: 0.03, motor: 0.04, heater: 0.04, lamp: 0.05, starter: 0.06 },
  contactMilliohm: 2,
  spliceMilliohm: 1,
  ringMilliohm: 0.2,
  fuseFullV: 0.075,
  linkFullV: 0.06,
  feedShare: 0.02,
  aloneShare: 1,
  shortCycleS: 60,
  unfusedMm: 200,
  unknownZoneC: 60,
  fuseLoadShare: 0.75,
  fuseDeratePerK: 0.002,
  channelHeadroom: 1.1,
  channelTripS: 0.5,
  directA: 5,
  railShare: 0.8,
  ownGroundA: 3,
  sharedLoadA: 1.5,
  sharedFeedA: 4.5,
  smallLoadA: 0.2,
  spareShare: 0.1,
  canStubMm: 300,
  canPitchMm: 25,
  lookAlikeReachMm: 250,
  pullToSeatFreeMm: 60,
  tailStripMm: 8,
  tieEveryMm: 100,
  tapeTurns: 4,
  millivoltAboveA: 5,
  millivoltTestA: 5,
  leastOffcutMm: 300,
  bendFactor: 6,
  bendFactorHeavy: 10,
  stances: {},
};

/** The economical school of the same shop: thin-wall wire, braid and tape, a working loom kept where it is good. */
export const LARKHOLLOW_PLAIN: ShopStandard = {
  ...LARKHOLLOW,
  id: 'plain',
  name: 'Larkhollow plain style',
  cutIncrementMm: 10,
  reterminations: 1,
  covering: 'braid',
  barrelKind: 'parallel',
  stances: { bundle: 1, covering: 1, donor: 0, colour: 1, power: 1 },
};
