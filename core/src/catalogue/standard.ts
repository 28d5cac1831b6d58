import type { CoveringKind, Load, MeasureMethod } from '../model';

/** Where a shop stands on each question of practice; every default of a calculation is a field here. */
export interface ShopStandard {
  id: string;
  name: string;
  /** cut lengths are rounded up to a multiple of this */
  cutIncrementMm: number;
  reterminations: number;
  reterminationMm: number;
  /** smallest size for hand-crimped single wires, by wire table */
  minimumSize: Record<'etfe' | 'thinwall', string>;
  /** wire that one splice must save to be worth making */
  spliceCostMm: number;
  spliceFromBreakoutMm: number;
  spliceFromConnectorMm: number;
  spliceApartMm: number;
  spliceMostWires: number;
  ringsOnStud: number;
  /** spread of a measured length, σ = a + b · length */
  sigma: Record<MeasureMethod, { aMm: number; share: number }>;
  roughExtraMm: number;
  /** covering where the zone asks for nothing in particular */
  covering: Exclude<CoveringKind, 'none'>;
  shrinkOverlapMm: number;
  /** what the wire that this shop buys stands for good, °C: aerospace wire is 150 tinned or 200 silvered, thin-wall 105 or 125 */
  insulationLimitC: Record<'etfe' | 'thinwall', number>;
  /** a bundle's middle stays this much below what its insulation stands, K */
  heatMarginK: number;
  /** highest place of use, m above the sea: thin air cools less */
  altitudeM: number;
  /** what "hot" ticked at the vehicle counts as, °C */
  hotTickC: number;
  /** short-time limit of the insulation, for faults, °C */
  insulationShortC: Record<'etfe' | 'thinwall', number>;
  /** share of the source's voltage that a load's wires may take, out and back; null: where the kind of load is not known */
  dropShare: Record<Load, number>;
  contactMilliohm: number;
  spliceMilliohm: number;
  /** a ring bolted to its stud, mΩ */
  ringMilliohm: number;
  /** what a fuse, relay, switch or channel drops at its largest current, V */
  linkFullV: number;
  /** share of the source's voltage from the battery to the boxes that feed the loads, and back from the ground studs, all on */
  feedShare: number;
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
  minimumSize: { etfe: '22', thinwall: '0.5' },
  spliceCostMm: 250,
  spliceFromBreakoutMm: 40,
  spliceFromConnectorMm: 75,
  spliceApartMm: 40,
  spliceMostWires: 5,
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
  insulationLimitC: { etfe: 200, thinwall: 105 },
  heatMarginK: 20,
  altitudeM: 0,
  hotTickC: 150,
  insulationShortC: { etfe: 250, thinwall: 160 },
  dropShare: { electronics: 0.01, ignition: 0.03, motor: 0.04, heater: 0.04, lamp: 0.05, starter: 0.06 },
  contactMilliohm: 2,
  spliceMilliohm: 1,
  ringMilliohm: 0.2,
  linkFullV: 0.06,
  feedShare: 0.02,
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
  insulationLimitC: { etfe: 150, thinwall: 105 },
  stances: { bundle: 1, covering: 1, donor: 0, colour: 1, power: 1 },
};
