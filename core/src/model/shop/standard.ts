import { Type, type Static, type TSchema } from '@sinclair/typebox';
import { CIRCUIT_KINDS } from '../loom/circuit';
import { COLOUR_NAMES, InsulationWordsSchema, MOST_BANDS, type ColourName } from '../loom/colour';
import { DOUBTS, HoldOperationSchema } from '../hold';
import { IdSchema, literals, NameSchema } from '../ids';
import { LOADS } from '../power/pinNeed';
import { BUNDLINGS, COVERING_KINDS, DRESSINGS, MEASURE_METHODS, type CoveringKind } from '../loom/segment';
import { least0, positive } from './figures';
import { MOST_WIRE_KINDS } from './wire';
import { BARREL_KINDS, MOST_SPLICED } from './joint';
import { MILESTONES, MINUTE_KEYS, PART_MILESTONES } from '../times';

/**
 * How wires are told apart: insulation by function and a stripe, the print on one colour alone, rings on one
 * colour, or as the leads of the boxes or of the factory look, and by function where nobody says.
 */
export const COLOUR_SCHEMES = ['function', 'one-colour', 'bands', 'box-leads', 'factory-leads'] as const;
export type ColourScheme = (typeof COLOUR_SCHEMES)[number];

const NAMED = `(${COLOUR_NAMES.join('|')})`;
const COLOUR_WORDS = InsulationWordsSchema.pattern!;

/** The same for each of these names. */
const each = <N extends string, T extends TSchema>(names: readonly N[], make: () => T) =>
  Object.fromEntries(names.map((name) => [name, make()])) as Record<N, T>;

const byWire = <T extends TSchema>(schema: T, options: Record<string, unknown>) =>
  Type.Record(IdSchema, schema, { additionalProperties: false, minProperties: 1, maxProperties: MOST_WIRE_KINDS, ...options });

const share = (description?: string) =>
  Type.Number({ exclusiveMinimum: 0, maximum: 1, ...(description === undefined ? {} : { description }) });

/** Fields that say something of each kind of wire. */
export const BY_WIRE = ['minimumSize', 'insulationLimitC', 'insulationShortC'] as const;

/** Where a shop stands on each question of practice; every default of a calculation is a field here. */
export const ShopStandardSchema = Type.Object(
  {
    id: IdSchema,
    name: NameSchema,
    cutIncrementMm: positive(10_000, 'cut lengths are rounded up to a multiple of this'),
    reterminations: Type.Integer({ minimum: 0, maximum: 100 }),
    reterminationMm: least0(10_000),
    minimumSize: byWire(Type.String({ minLength: 1, maxLength: 12 }), {
      description: 'smallest size for hand-crimped single wires, by kind of wire',
    }),
    spliceCostMm: least0(10_000, 'wire that one splice must save to be worth making'),
    spliceFromBreakoutMm: least0(10_000),
    spliceFromConnectorMm: least0(10_000),
    spliceApartMm: least0(10_000),
    spliceMostWires: Type.Integer({ minimum: 2, maximum: MOST_SPLICED }),
    barrelKind: literals(BARREL_KINDS),
    ringsOnStud: Type.Integer({ minimum: 2, maximum: 40 }),
    sigma: Type.Object(
      each(MEASURE_METHODS, () => Type.Object({ aMm: least0(200), share: least0(1) }, { additionalProperties: false })),
      { additionalProperties: false, description: 'spread of a measured length, σ = a + b · length' },
    ),
    roughExtraMm: least0(10_000),
    covering: literals(COVERING_KINDS, { description: 'covering that comes first where it does all that the zone asks for' }),
    coveringOrder: Type.Array(Type.Unsafe<CoveringKind>({ type: 'string', enum: COVERING_KINDS.filter((kind) => kind !== 'none') }), {
      maxItems: COVERING_KINDS.length,
      description: 'the others in the order in which they are taken; one that is not named comes last',
    }),
    coveringBy: literals(['order', 'cost'], {
      description: 'of the coverings that do: the first of that order, or the cheapest with the work of putting it on',
    }),
    dressing: literals(DRESSINGS, { description: 'how ends and breakouts are finished where the loom says nothing' }),
    bootOverlapMm: positive(1000, 'what a boot, a step or a sleeve over a breakout lies on either side of its joint'),
    buildUpStepMm: least0(1000, 'a piece of a build-up is so much longer than the one over it'),
    stripRoomMm: least0(10_000, 'bare wire in front of what is pushed back while an end is made'),
    lighterWorthG: least0(100_000, 'a lighter covering is told where a loom saves so much by it, g'),
    braidPushes: share('a braid can be pushed together to so much of its length'),
    colours: Type.Array(Type.String({ pattern: COLOUR_WORDS }), {
      ...{ minItems: 1, maxItems: 200, description: 'insulation that can be had, as in red or red/black; what is used first stands first' },
    }),
    colourScheme: literals(COLOUR_SCHEMES, { description: 'how the wires of a loom are told apart' }),
    functionColours: Type.Object(
      each(CIRCUIT_KINDS, () => Type.String({ pattern: `^${NAMED}(, ?${NAMED})*$` })),
      {
        additionalProperties: false,
        description: 'insulation by what a wire is for, as in "blue, brown"; a stripe tells those of one colour apart',
      },
    ),
    oneColour: Type.String({
      pattern: COLOUR_WORDS,
      description: 'insulation of all wires, where they are told apart by print or by bands',
    }),
    bandColours: Type.Array(Type.Unsafe<ColourName>({ type: 'string', enum: COLOUR_NAMES }), {
      ...{
        minItems: 1,
        maxItems: COLOUR_NAMES.length,
        uniqueItems: true,
        description: 'colours that bands can be had in, first used first',
      },
    }),
    mostBands: Type.Integer({ minimum: 1, maximum: MOST_BANDS, description: 'bands that a wire has at most' }),
    bandMm: positive(100, 'width of a band, mm'),
    bandGapMm: positive(100, 'from one band to the next, mm'),
    sizeApartShare: share('a wire thinner by more than this share is told apart by its size'),
    colourApart: least0(100, 'two colours nearer than this (CIEDE2000) are taken for one another'),
    colourApartSimulated: least0(100, 'the same, as who sees red or green weakly sees them'),
    stripeShare: Type.Number({ minimum: 0, maximum: 1, description: 'of the circumference that a stripe covers' }),
    stripeLeastShare: Type.Number({ minimum: 0, maximum: 1, description: 'a narrower stripe is not seen' }),
    colourReachMm: least0(10_000, 'wires of ends so near to one breakout are held beside one another'),
    legendMm: positive(100, 'height of a capital letter on a label, where there is room for it, mm'),
    legendLeastMm: positive(100, 'lower letters are not read, mm'),
    clipEveryMm: positive(10_000, 'most from one clip to the next in the vehicle, where a zone says nothing'),
    clipFirstMm: positive(10_000, 'a clip within this of a connector, a hole and a breakout'),
    screenOverJacketMm: positive(200, 'screen left over the edge of the jacket of an opened cable'),
    coreOverScreenMm: positive(200, 'insulation left over the edge of the screen'),
    studTorqueNm: Type.Object(
      each(['M5', 'M6', 'M8'], () => positive(500)),
      { additionalProperties: false, description: 'torque of a nut by its thread, Nm; the maker’s figure comes first' },
    ),
    torqueShare: share('a torque read is right within this share of it'),
    screenLeastMegohm: positive(100_000, 'core to screen reads no less before its contact is seated, MΩ'),
    couplingRoundMin: positive(600, 'to take a round coupling apart and put it together, min'),
    couplingFlatMin: positive(600, 'the same for a rectangular one behind trim, min'),
    deviceLabels: Type.Boolean({
      description: 'a label with its name and its loom on each device, beside the one at the end that mates with it',
    }),
    zoneLabels: Type.Boolean({ description: 'a label with the name of the zone on each run that leads into another one' }),
    clearOverLabels: Type.Boolean({ description: 'labels where it is wet lie under a clear sleeve' }),
    clearBeyondMm: least0(200, 'which goes so far beyond either end of the label'),
    sagMostMm: least0(1000, 'a bundle between two clips sags by no more when it is pushed by hand'),
    holeFreeMm: least0(100, 'a hole is so much wider than what is led through it'),
    drillMm: positive(2000, 'drill with its saw or bit, from its back to its tip: the room that it needs in front of a hole'),
    drillThroughMm: least0(500, 'saw and pilot come out so far behind the panel'),
    workshopC: Type.Number({ minimum: -20, maximum: 60, description: 'temperature of the workshop, °C: resin cures by it' }),
    potWaste: Type.Number({ minimum: 0, maximum: 5, description: 'share of the resin that stays in the cup' }),
    potLoopRatio: Type.Number({ minimum: 1, maximum: 100, description: 'radius of the loop behind resin over the diameter of the lead' }),
    potStraightMm: least0(1000, 'straight lead behind resin before it bends'),
    potChangesMost: least0(1000, 'a device that is changed more often in a year gets a connector'),
    shrinkOverlapMm: least0(10_000),
    braidGrip: Type.Number({ minimum: 1, maximum: 3, description: 'a braid grips what is so many times its relaxed bore, and more' }),
    insulationLimitC: byWire(positive(600), {
      description:
        'what the wire that this shop buys stands for good, °C: ETFE 150 on tinned, 200 on plated copper; thin-wall 105 (PVC) or 125 (cross-linked)',
    }),
    heatMarginK: least0(10_000, 'a bundle’s middle stays this much below what its insulation stands, K'),
    altitudeM: least0(10_000, 'highest place of use, m above the sea: thin air cools less'),
    hotTickC: positive(1500, 'what "hot" ticked at the vehicle counts as, °C'),
    insulationShortC: byWire(positive(600), { description: 'short-time limit of the insulation, for faults, °C' }),
    dropShare: Type.Object(
      each(LOADS, () => share()),
      {
        additionalProperties: false,
        description: 'share of the source’s voltage that a load’s wires may take, out and back; null: where the kind of load is not known',
      },
    ),
    contactMilliohm: least0(10_000),
    spliceMilliohm: least0(10_000),
    ringMilliohm: least0(10_000, 'a ring bolted to its stud, mΩ'),
    fuseFullV: least0(10_000, 'what a fuse drops at its rating, V'),
    linkFullV: least0(10_000, 'what a relay, switch or channel drops at its largest current, V'),
    feedShare: share(
      'share of the source’s voltage from the battery to the boxes that feed the loads, and back from the ground studs, all on',
    ),
    aloneShare: share('share of its budget that a load may lose from the plug on through which something outside the job feeds it'),
    shortCycleS: positive(
      10_000,
      'a load that turns on and off within so long is felt by its bundle as its r.m.s. current, s: short against the minutes that takes',
    ),
    unfusedMm: least0(10_000, 'wire between the battery and its first fuse, mm: it carries the battery’s whole fault current'),
    unknownZoneC: positive(1500, 'conductor temperature taken where no zone is known, °C'),
    fuseLoadShare: share('blade fuse: continuous load per rating at 25 °C, and what it loses for each K above'),
    fuseDeratePerK: least0(10_000),
    channelHeadroom: Type.Number({ minimum: 1, maximum: 3, description: 'a channel is set so much over its load' }),
    channelTripS: positive(10_000, 'a channel opens so long after its setting is passed, s'),
    directA: least0(10_000, 'a load above this goes through a relay or channel, A'),
    railShare: share(),
    ownGroundA: least0(10_000, 'a load above this has a ground wire of its own, A'),
    sharedLoadA: least0(10_000, 'loads of one kind up to this share a feed, A'),
    sharedFeedA: least0(10_000, 'what a shared feed carries at most, A: one contact of a bulkhead with room to spare'),
    smallLoadA: least0(10_000, 'sensors and lamps below this share one feed in the whole vehicle, A'),
    spareShare: share('cavities of a break that stay empty for what is added later, at least one'),
    canStubMm: least0(10_000),
    canPitchMm: positive(10_000),
    lookAlikeReachMm: least0(10_000),
    pullToSeatFreeMm: least0(10_000),
    crowdedShare: share('where more than half of the contacts of a housing carry over half of what they may, all may carry so much of it'),
    tailStripMm: least0(10_000, 'bared conductor at a flying tail'),
    boardClearMm: positive(1000, 'on a board two runs that are not neighbours lie so far apart, mm'),
    pegEveryMm: positive(10_000, 'from one peg of the board to the next along a run, mm'),
    pegMm: positive(100, 'diameter of a peg, mm'),
    tieEveryMm: positive(10_000, 'ties along a run, and turns of tape round each fork and the datum'),
    tapeTurns: Type.Integer({ minimum: 0, maximum: 100 }),
    tieSteps: Type.Boolean({ description: 'ties and tape are ticked run by run, before its covering' }),
    photoBeforeCover: Type.Boolean({ description: 'a loom is photographed before anything of it is covered' }),
    wiggleS: least0(600, 'each leg is moved for so long while a pair of it is logged, s; 0: it is not asked for'),
    wiggleMs: positive(1000, 'and no pair drops out for longer, ms'),
    kitStepMm: positive(10_000, 'wire and sleeves are asked of the store in steps of this, never short'),
    boardBareDepthMm: positive(1000, 'room on a board for rings, blades and tails: how deep, and half of how wide'),
    boardBareHalfMm: positive(1000),
    millivoltAboveA: least0(10_000, 'a feed or return above this is proved by millivolts, A, at so many amperes of a limited supply'),
    millivoltTestA: positive(10_000),
    guessStops: Type.Object(
      { length: HoldOperationSchema, ...each(DOUBTS, () => HoldOperationSchema) },
      { additionalProperties: false, description: 'the first work that a guess stops: of a length, and of what a pin is' },
    ),
    leaseMin: positive(1440, 'who takes a part of a loom has it until nothing was ticked there for so many minutes'),
    sampleFirst: Type.Integer({
      ...{ minimum: 0, maximum: 20 },
      description: 'crimps pulled apart before the first that counts, by tool, contact, wire, person and session; 0: none is asked for',
    }),
    sampleEvery: Type.Integer({ minimum: 1, maximum: 100_000, description: 'and one more after so many crimps' }),
    sampleWarnShare: Type.Number({
      ...{ minimum: 1, maximum: 3 },
      description: 'one that pulls apart below so many times the least force passes with a warning',
    }),
    crimpHeightMm: positive(5, 'a crimp is as high as the sheet of its maker says, more or less so much, mm'),
    sessionMin: positive(1440, 'a session of a person at a tool is over when nothing was crimped for so many minutes'),
    serviceCrimps: Type.Integer({ minimum: 1, maximum: 10_000_000, description: 'a crimp tool is serviced after so many crimps' }),
    minutes: Type.Object(
      each(MINUTE_KEYS, () => least0(10_000)),
      {
        additionalProperties: false,
        description: 'what work takes, min: each thing that is ticked; laying up by element and metre; fit and signature by loom',
      },
    ),
    firstOffMin: least0(10_000, 'a first-off takes so long, min: its samples are made, looked at and pulled'),
    pauseMin: positive(240, 'who ticks nothing for longer has a pause, unless he says that it was work, min'),
    milestoneSystems: Type.Object(
      each(PART_MILESTONES, () => Type.Array(NameSchema, { maxItems: 100 })),
      { additionalProperties: false, description: 'systems of devices that each asks for, beside those of the ones before it' },
    ),
    milestoneChecks: Type.Object(
      each(MILESTONES, () => Type.Array(Type.String({ minLength: 1, maxLength: 100, pattern: '\\S' }), { maxItems: 100 })),
      { additionalProperties: false, description: 'what each asks for that is no work on a loom' },
    ),
    isolationMegohm: positive(10_000, 'a net of a bare loom is isolated from all others by so much, MΩ, at so many volts direct'),
    isolationVolts: positive(1000),
    isolationReusedMegohm: positive(10_000, 'the same of a loom with wire that was in use before'),
    isolationReusedVolts: positive(1000),
    partBandShare: share('a part that is built into a loom reads within this share of its value'),
    supplyFactor: Type.Number({
      minimum: 1,
      maximum: 10,
      description: 'first power comes from a supply limited to so many times what is expected, and so much more, A',
    }),
    supplyExtraA: least0(100),
    currentBandShare: share('a current at first power is right within this share of what is expected, and never nearer than so much, A'),
    currentBandA: positive(100),
    voltBandShare: share('a live cavity reads within this share of what is expected'),
    deadMostV: positive(60, 'a dead cavity reads no more, V'),
    feedLeastOhm: positive(1e6, 'the feed of a vehicle reads no less with all fuses out, Ω'),
    groundMostMilliohm: positive(1000, 'a ground stud reads no more to battery negative, mΩ'),
    crankLeastV: positive(60, 'boxes have no less while the engine is cranked, V'),
    batteryShare: share('of what a battery holds so much may be taken out of it'),
    restApartK: positive(100, 'temperatures at rest read within this of each other, K'),
    leastOffcutMm: least0(10_000, 'a shorter piece of wire is not kept'),
    bundling: literals(BUNDLINGS, { description: 'how the wires of a bundle lie where the loom says nothing' }),
    layRatio: Type.Number({ minimum: 1, maximum: 100, description: 'lay length over the outside diameter of its layer' }),
    layRatioLeast: Type.Number({ minimum: 1, maximum: 100, description: 'the same, shortest and longest that are laid' }),
    layRatioMost: Type.Number({ minimum: 1, maximum: 100 }),
    layLeastMm: positive(10_000, 'shortest lay that hands can make, mm'),
    laySqueeze: Type.Number({ minimum: 0, maximum: 0.2, description: 'how much tighter than round a layer may lie: insulation yields' }),
    fillerPerM: least0(10_000, 'a metre of dead wire, in the shop’s money'),
    fillerMinutes: least0(10_000, 'to cut a piece of it and lay it in, min'),
    relayMinutes: least0(10_000, 'to tie a bundle at a breakout and lay it anew, min'),
    relayThinner: share('a bundle is laid anew where it gets so much thinner'),
    labourPerHour: least0(10_000, 'an hour of work, in the shop’s money'),
    heavyMm2: positive(1000, 'a conductor from here on is heavy, mm²'),
    asideMostShare: share('the copper of a layer lies to one side by no more, as a share of its radius'),
    untwistedMostMm: least0(10_000, 'a pair lies untwisted for so long at most, mm'),
    bendFactor: positive(10_000),
    bendFactorHeavy: positive(10_000),
  },
  { additionalProperties: false },
);
export type ShopStandard = Static<typeof ShopStandardSchema>;
