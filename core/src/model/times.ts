/** Work whose minutes a shop says: for each thing that is ticked, for the two readings of a ring-out, and a loom's fit and signature whole. */
export const MINUTE_KEYS = [
  ...(['cut', 'twist', 'mark', 'screen', 'seal', 'thread', 'crimp', 'bunch', 'seat', 'plug', 'ring', 'pot', 'lay', 'splice'] as const),
  ...(['layup', 'slide', 'cover', 'fit', 'label', 'boot', 'shrink', 'close', 'pair', 'isolation', 'depin', 'sign'] as const),
  ...(['route', 'clip', 'torque', 'undo', 'tie', 'photo'] as const),
] as const;
export type MinuteKey = (typeof MINUTE_KEYS)[number];

/** What a vehicle comes to, one after another: each asks for all that the ones before it ask for (craft E3). */
export const MILESTONES = ['start', 'move', 'inspect', 'ship'] as const;
export type Milestone = (typeof MILESTONES)[number];

/** To ship it everything is done; the others ask for the systems that a shop names. */
export const PART_MILESTONES = ['start', 'move', 'inspect'] as const satisfies readonly Milestone[];

/** "First start" */
export const MILESTONE_WORDS: Readonly<Record<Milestone, string>> = {
  start: 'First start',
  move: 'Moves by itself',
  inspect: 'Passes inspection',
  ship: 'Goes out of the shop',
};

/** Minutes, pauses and milestones of a shop that never said its own (craft D6, E3, H1; cutting, sleeves and labels in the parts that are ticked). */
export const TIME_DEFAULTS = {
  minutes: {
    ...{ cut: 1, twist: 5, mark: 0.25, screen: 1.2, seal: 0.2, thread: 0.7, crimp: 1.2, bunch: 0.5, seat: 0.5, plug: 0.2, ring: 1.2 },
    ...{ pot: 5, lay: 3, splice: 5, layup: 3, slide: 1.5, cover: 2.5, fit: 60, label: 1, boot: 4, shrink: 0.5, close: 1, pair: 0.6 },
    ...{ isolation: 0.4, depin: 0.5, sign: 15, route: 5, clip: 1, torque: 1, undo: 2, tie: 1, photo: 3 },
  },
  firstOffMin: 6,
  pauseMin: 10,
  milestoneSystems: {
    start: ['power', 'boxes', 'safety', 'inlet', 'ignition', 'fuel', 'engine sensors', 'actuators'],
    move: ['gearbox', 'driver', 'cooling'],
    inspect: ['lights', 'chassis'],
  },
  milestoneChecks: {
    start: ['fuel system in and tight', 'oil in, pressure made by cranking', 'coolant in and bled', 'exhaust on', 'extinguisher at hand'],
    move: ['brakes bled', 'wheels torqued', 'gearbox oil in'],
    inspect: ['isolator and extinguisher marked outside'],
    ship: ['hook-up sheet with the loom'],
  },
} satisfies {
  minutes: Record<MinuteKey, number>;
  firstOffMin: number;
  pauseMin: number;
  milestoneSystems: Record<(typeof PART_MILESTONES)[number], string[]>;
  milestoneChecks: Record<Milestone, string[]>;
};
