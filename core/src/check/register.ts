/** stop: do not build; check: look; note: know. */
export type Grade = 'stop' | 'check' | 'note';

/** Where a finding is settled. */
export type FindingStation = 'brief' | 'survey' | 'circuits' | 'power' | 'bundle' | 'dress' | 'ends';

interface RegisteredRule {
  grade: Grade;
  station: FindingStation;
  /** what it finds, in a line */
  means: string;
}

/** Every rule by its code: codes never change meaning. docs/findings.md lists them in this order. */
export const REGISTER = {
  SC1: { grade: 'stop', station: 'survey', means: 'wires to be cut rest on a guess: a length, or what a pin is' },
  SC2: { grade: 'stop', station: 'survey', means: 'wires to be cut rest on an open item, or on an answer that is a guess' },
  SC3: { grade: 'check', station: 'survey', means: 'two readings of a run are further apart than two sigma of one' },
  SC4: { grade: 'check', station: 'survey', means: 'the trial fit has begun and runs are not fitted yet' },
  SC5: { grade: 'note', station: 'brief', means: 'devices or circuits added since the scope was agreed' },
  SC6: { grade: 'check', station: 'brief', means: 'a concession past its day' },
  SC7: { grade: 'stop', station: 'brief', means: 'anchors that are not fixed' },
  SC8: { grade: 'note', station: 'brief', means: 'devices that are on no loom yet' },
  SC9: { grade: 'stop', station: 'survey', means: 'a wire was cut too short for where it turned out to go' },
  SC10: { grade: 'check', station: 'survey', means: 'survey entries that meet what somebody else entered' },
  ST1: { grade: 'note', station: 'brief', means: 'where the job departs from the house style' },
  CI7: { grade: 'check', station: 'brief', means: 'a function that no donor wire serves any more, though its device stays' },
  DO1: {
    grade: 'check',
    station: 'brief',
    means: 'a donor wire that stays leads to a device that goes, or a device that stays has none left',
  },
  DO2: { grade: 'check', station: 'brief', means: 'a length that contradicts what was decided about a donor wire' },
  MT1: { grade: 'stop', station: 'brief', means: 'ends that mate are of unlike families or keys' },
  MT2: { grade: 'check', station: 'brief', means: 'a cavity of a mated pair is wired on one side only' },
  MT3: { grade: 'stop', station: 'brief', means: 'both halves of a mated pair take pins, or both sockets' },
  MT4: { grade: 'check', station: 'brief', means: 'the half of a mated pair that stays live once they are apart has pins' },
  CI1: { grade: 'stop', station: 'circuits', means: 'a device pin that is required is not connected' },
  CI2: { grade: 'stop', station: 'bundle', means: 'a circuit joins fewer than two pins' },
  CI3: { grade: 'stop', station: 'circuits', means: 'a pin wants another voltage than its net has' },
  CI4: { grade: 'stop', station: 'circuits', means: 'two fuses, channels, rails or batteries feed one net' },
  CI5: { grade: 'stop', station: 'circuits', means: 'sensor ground and power ground are joined' },
  CI6: { grade: 'stop', station: 'circuits', means: 'the pin of the box cannot do what the device needs, not so fast, or not so much' },
  CI8: { grade: 'check', station: 'circuits', means: 'a 5 V rail is loaded over its share (80 %)' },
  CI9: { grade: 'check', station: 'circuits', means: 'sensor grounds of different noise groups share a wire' },
  CI10: { grade: 'check', station: 'circuits', means: 'both tracks of a redundant sensor on one supply or one ground' },
  CI11: { grade: 'stop', station: 'circuits', means: 'an electronic throttle with fewer than two tracks to the controller' },
  CI12: { grade: 'check', station: 'circuits', means: 'a bus without exactly two terminators, or a node on too long a stub' },
  CI13: { grade: 'check', station: 'circuits', means: 'a screen drained at both ends, or at none' },
  CI14: { grade: 'note', station: 'circuits', means: 'what each box has to spare' },
  CI15: { grade: 'stop', station: 'circuits', means: 'a supply that nothing feeds, a ground that leads nowhere' },
  CI16: { grade: 'check', station: 'circuits', means: 'an inline part does nothing: a leg of it is not wired, or both are on one circuit' },
  CI17: {
    grade: 'stop',
    station: 'circuits',
    means: 'a resistor gives off more than it may between the voltages of its circuits (check: its rating is not known)',
  },
  CI18: { grade: 'stop', station: 'circuits', means: 'a pin that wants a screen, or a pin it is twisted with, lies on plain wire' },
  PO2: { grade: 'stop', station: 'power', means: 'a fuse or setting over what the weakest wire behind it bears' },
  PO3: { grade: 'stop', station: 'power', means: 'a load over 75 % of its fuse, over its setting, or more than anything that fits' },
  PO4: { grade: 'check', station: 'power', means: "the way out and back loses more than the load's budget" },
  PO5: { grade: 'stop', station: 'power', means: 'a short at the far end may not open the fuse within 5 s' },
  PO6: { grade: 'check', station: 'power', means: 'what is on together draws more than the generator gives' },
  PO7: { grade: 'check', station: 'power', means: 'a coil kicks into a driver that does not take it' },
  PO8: { grade: 'check', station: 'power', means: 'a load hangs on the battery with no fuse in between' },
  PO9: {
    grade: 'check',
    station: 'power',
    means: 'an inrush may open a fuse that was chosen by hand, or is over what a switch, relay or contact bears for a moment',
  },
  PO10: { grade: 'check', station: 'power', means: 'sizes, heat and drop did not settle in eight rounds' },
  PO11: { grade: 'check', station: 'power', means: 'a controller pin switches more than the shop lets it without a relay or channel' },
  PO12: { grade: 'stop', station: 'power', means: 'a relay feeds loads and its coil is not fed, or nothing switches it' },
  PO13: { grade: 'check', station: 'power', means: 'more functions than conductors in a cable' },
  PO14: { grade: 'stop', station: 'power', means: 'no mode in which the engine runs: nothing of what is on then is summed' },
  PO15: { grade: 'stop', station: 'power', means: 'the current of a load has no way home: no strap, no tie, or a composite tub' },
  PO16: { grade: 'stop', station: 'power', means: "a zone is hotter than the insulation of a wire in it stands, less the shop's margin" },
  PO17: {
    grade: 'stop',
    station: 'power',
    means: 'a load that is wired has no drop and no protection: nothing feeds it, or nobody said what it draws',
  },
  PO18: {
    grade: 'note',
    station: 'power',
    means: 'a loom is fed from outside the job: what has to protect it, and the share of the budget',
  },
  PO19: { grade: 'check', station: 'power', means: 'too much wire between the battery and its first fuse' },
  PO20: { grade: 'check', station: 'power', means: 'feed and load path together lose more than both their budgets' },
  RO1: { grade: 'stop', station: 'bundle', means: 'a bundle, or a housing beyond, does not pass a hole' },
  RO2: { grade: 'check', station: 'bundle', means: 'where it lies is hotter than the covering stands' },
  BU1: {
    grade: 'check',
    station: 'bundle',
    means: 'the barrel of a splice too close to a breakout, connector or other splice, or in a moving run',
  },
  BU2: { grade: 'check', station: 'bundle', means: 'no crimp barrel holds a splice, or more than five wires arrive on one side of it' },
  BU3: { grade: 'check', station: 'bundle', means: "in its worst mode a bundle's middle comes within 20 °C of what its insulation stands" },
  BU4: {
    grade: 'check',
    station: 'bundle',
    means: 'something has to come out through a layer where it leaves a bundle that is twisted in layers',
  },
  BU5: { grade: 'note', station: 'bundle', means: 'a lay-up that nobody searched for, or that does not fit any more' },
  BU6: { grade: 'check', station: 'bundle', means: 'a pair lies untwisted for longer than the shop allows' },
  BU7: { grade: 'check', station: 'bundle', means: 'heavy conductors lie to one side of a layer' },
  BU8: { grade: 'check', station: 'bundle', means: 'a lay shorter or longer for its diameter than the shop lays' },
  DR1: { grade: 'stop', station: 'dress', means: 'a closed sleeve cannot pass: an end that is closed before it, or a splice under it' },
  DR2: { grade: 'check', station: 'dress', means: 'no size of the covering grips the bundle, or the pinned one does not' },
  DR3: { grade: 'check', station: 'dress', means: 'adhesive lining where it must be opened, or none where it is wet' },
  DR4: { grade: 'check', station: 'dress', means: 'what slides on has no room to stand back while an end is made' },
  DR5: { grade: 'check', station: 'dress', means: 'an end or breakout is to be closed, and no part of the shop closes it' },
  DR6: { grade: 'note', station: 'dress', means: 'a leg too thin for its boot is built up, with the pieces' },
  DR7: { grade: 'check', station: 'dress', means: 'the covering does not open, bend, or stand edges or hands as the zone asks' },
  DR8: { grade: 'note', station: 'dress', means: 'another covering that also fits would be lighter' },
  EN1: { grade: 'stop', station: 'ends', means: 'no contact takes the wire, or no seal fits it' },
  EN3: { grade: 'check', station: 'ends', means: 'like housings with like keys within 250 mm of each other along the loom' },
  EN4: { grade: 'note', station: 'ends', means: 'wires that look alike in one housing, or close to one breakout' },
  EN5: { grade: 'stop', station: 'ends', means: 'a contact carries more than it bears where it is that warm, or an inrush above its peak' },
  EN6: {
    grade: 'stop',
    station: 'ends',
    means: 'a connector whose housing is still to be chosen: contacts, seals, depth and envelope are unknown',
  },
  EN7: { grade: 'check', station: 'ends', means: 'a tool that is needed is past its calibration, or not among the tools of the shop' },
  EN8: { grade: 'check', station: 'ends', means: 'a housing or cable that the shop has retired' },
  PO1: { grade: 'check', station: 'ends', means: 'too many rings on a stud' },
  MA1: { grade: 'stop', station: 'bundle', means: 'a wire number given twice in a job' },
  MA2: {
    grade: 'check',
    station: 'bundle',
    means: 'a label that does not go over its wire or end, or does not carry its legend in letters that are read',
  },
  MA3: { grade: 'check', station: 'ends', means: 'legends of two ends that are taken for one another' },
  MA4: { grade: 'check', station: 'ends', means: 'an abbreviation on a legend that could stand for two things in this job' },
  BT1: { grade: 'stop', station: 'bundle', means: 'the steps cannot be put in any order' },
} as const satisfies Record<string, RegisteredRule>;

export type RuleCode = keyof typeof REGISTER;
