import type { Conductor } from '../catalogue';
import type { Circuit, Colour, CoveringKind, HoldOperation } from '../model';
import type { JoinedWire } from '../netlist';
import type { RunSpread } from './length/measureRough';
import type { Crossing, LaidStretch, LayupStrip } from './layup/layupTypes';
import type { PlannedBreakoutDress, PlannedEndDress } from './dress/dressTypes';
import type { PlannedScreen, PlannedStud } from './terminate/endTypes';
import type { PlannedFeed } from './feed/feedTypes';
import type { PowerPlan, WireCurrent } from './electrical/types';

/** A node of the rooted route tree. */
export interface TreeNode {
  id: string;
  /** from the datum along the tree, mm */
  distanceMm: number;
  parentSegmentId: string | null;
  parentNodeId: string | null;
  /** the trunk's own continuation first, then by id */
  childSegmentIds: string[];
  depth: number;
}

/** A segment seen from the datum: near is the datum's side. */
export interface TreeSegment {
  id: string;
  nearNodeId: string;
  farNodeId: string;
  /** as fitted, else the mean of the readings, mm */
  lengthMm: number;
  startMm: number;
  /** spread of that, one sigma, mm */
  sigmaMm: number;
  /** the same in its two parts */
  spread: RunSpread;
  /** does the bundle it leaves go on into this segment */
  onward: boolean;
}

export interface Tree {
  datumId: string;
  /** parents before children */
  nodeIds: string[];
  nodes: Record<string, TreeNode>;
  segments: Record<string, TreeSegment>;
}

/** A place on the tree: at a node, or so far along a segment from its near side. */
export type Place = { nodeId: string } | { segmentId: string; offsetMm: number };

/** Part of a segment that a wire lies in; from and to in mm from the segment's near side, from < to. */
export interface WireRun {
  segmentId: string;
  fromMm: number;
  toMm: number;
}

/** A splice as planned: where wires of one circuit become one. */
export interface PlannedSplice {
  id: string;
  label: string;
  circuitId: string;
  nodeId: string;
  place: { segmentId: string; offsetMm: number };
  /** from its junction, mm, where it lies beside it */
  awayMm: number;
  distanceMm: number;
  pinned: boolean;
  /** did a place that keeps every distance exist */
  clear: boolean;
}

/** A wire before it has a size: one piece of copper between two ends. */
export interface RoutedWire extends JoinedWire {
  pieces: WireRun[];
}

export type ConductorRule = 'pinned' | 'cable' | 'minimum' | 'contact' | 'drop' | 'heat' | 'fuse' | 'alike' | 'none';

export interface SizedWire extends RoutedWire {
  conductor: Conductor;
  ruledBy: ConductorRule;
  because: string;
}

/** Round elements lying side by side: where each is, middle of the bundle at 0, 0; mm. */
export interface Circle {
  x: number;
  y: number;
  r: number;
}

export interface Packing {
  odMm: number;
  circles: Circle[];
  /** how the diameter was found */
  method: 'formula' | 'search';
}

/** A stretch of a segment in which the same wires lie. From and to in mm from the segment's near side. */
export interface Section {
  fromMm: number;
  toMm: number;
  /** single wires and twisted groups, thickest first: the ids of the wires in each */
  elements: string[][];
  /** of each element, mm */
  diametersMm: number[];
  /** where each element lies, in the order of elements */
  circles: Circle[];
  odMm: number;
  /** never less than this, by the densest packing there is */
  boundMm: number;
  method: Packing['method'] | 'lay-up';
}

export interface PlannedBundle {
  segmentId: string;
  odMm: number;
  sections: Section[];
  massGPerM: number;
  /** a screen, or a conductor of 4 mm² or more, lies in it: it bends less */
  isStiff: boolean;
}

/** A piece of dead wire that makes a layer round; from and to in mm along its strip. */
export interface PlannedFiller {
  stretch: number;
  layer: number;
  /** its place in the layer */
  slot: number;
  /** the thread whose place it keeps where that is not; null: nobody's */
  afterThreadId: string | null;
  conductor: Conductor;
  fromMm: number;
  toMm: number;
  cutMm: number;
  massG: number;
}

/** A line of runs laid up in layers. */
export interface PlannedLayup extends LayupStrip {
  /** searched; laid once from end to end, for nobody has searched yet; the same, for what was found does not fit any more */
  by: 'search' | 'quick' | 'stale';
  stretches: LaidStretch[];
  crossings: Crossing[];
  fillers: PlannedFiller[];
}

/** Steady heat of the hottest stretch of a segment in its worst mode. */
export interface PlannedHeat {
  segmentId: string;
  ambientC: number;
  /** mode in which it is hottest; null: nothing flows */
  modeId: string | null;
  /** null: it would run away */
  surfaceC: number | null;
  middleC: number | null;
  wattsPerM: number | null;
  /** what the weakest insulation in it stands, °C; null where no wire lies there */
  limitC: number | null;
  /** wires whose current is not known: what is missing counts as none */
  uncounted: number;
}

/** What a run asks of its covering: opens again, keeps water out, stands the heat, bends where it moves, stands edges, stands hands. */
export type CoveringDemand = 'opens' | 'water' | 'heat' | 'moves' | 'wears' | 'handled';

export interface PlannedCovering {
  segmentId: string;
  kind: CoveringKind;
  itemId: string | null;
  itemName: string;
  ruledBy: 'pinned' | 'zone' | 'standard';
  because: string;
  cutMm: number;
  /** over the covering */
  odOutsideMm: number;
  /** least radius that it is bent to, inside, mm */
  insideBendMm: number;
  /** the largest thing it has to pass on its way there, mm */
  mustPassMm: number;
  problem: null | 'no-size' | 'cannot-pass';
  /** other sizes of its kind */
  alsoFits: string[];
  massG: number;
  /** what the zone asks for and no covering of the shop does, the gravest first */
  unmet: CoveringDemand[];
  /** what would be taken instead; null: nothing else does, or it was chosen by hand */
  runnerUp: { kind: CoveringKind; itemId: string; itemName: string; whyNot: string } | null;
}

export interface PlannedTermination {
  endId: string;
  cavity: string;
  wireIds: string[];
  contactId: string | null;
  contactName: string;
  sealId: string | null;
  sealName: string;
  stripMm: number | null;
  tool: string;
  positioner: string;
  removalTool: string;
  /** of each of its wires: least pull-off force, N; null where nothing is pulled or no figure is given */
  pullOffsN: (number | null)[];
  problem: null | 'contact' | 'seal';
}

/** Why work on a wire waits: a run or a pin that is only guessed, an open item or anchor, a place that is not known. */
export interface Hold {
  kind: 'segment' | 'pin' | 'item' | 'anchor' | 'device';
  /** segment id, "end cavity", or id of the open item, anchor or device */
  id: string;
  /** the first work that waits; what is made before it is made as usual */
  stops: HoldOperation;
  /** where contacts wait, of what stops crimping or seating; null: at both ends */
  endId: string | null;
  words: string;
}

/** One term of a cut length, kept so that it can be shown. */
export interface LengthAllowance {
  kind: 'segment' | 'breakout' | 'entry' | 'service-loop' | 're-termination' | 'potting' | 'clocking' | 'strip' | 'splice' | 'rounding';
  /** segment, node, end or splice it comes from */
  of: string;
  words: string;
  mm: number;
}

export interface PlannedWire extends SizedWire {
  number: string;
  colour: Colour;
  kind: Circuit['kind'];
  /** cable that it lies in; null: a single wire */
  cable: { groupId: string; itemId: string; name: string } | null;
  addends: LengthAllowance[];
  /** before rounding up */
  lengthMm: number;
  cutMm: number;
  sigmaMm: number;
  roughMm: number;
  /** cut to this by the plan from the readings alone, before the trial fit: what the trim sheet takes off from */
  firstCutMm: number;
  /** segments on its way whose fitted length is not known */
  unfittedIds: string[];
  /** the wire is not cut while there is any */
  heldBy: Hold[];
  massG: number;
  labelId: string | null;
}

export interface PlannedBarrel {
  spliceId: string;
  barrelId: string | null;
  barrelName: string;
  /** conductor area that it has to hold, mm²: of its fuller side, or of all of them where both sides go into one barrel */
  areaMm2: number;
  lengthMm: number;
  /** over its sleeve, mm */
  sleevedOdMm: number;
  /** wires that arrive from the datum's side, and from the other */
  sides: { near: string[]; far: string[] };
  wireIds: string[];
  stripMm: number;
  tool: string;
}

export interface LoomPlan {
  loomId: string;
  tree: Tree;
  wires: PlannedWire[];
  splices: PlannedSplice[];
  barrels: PlannedBarrel[];
  bundles: PlannedBundle[];
  /** empty where nothing is laid in layers */
  layups: PlannedLayup[];
  coverings: PlannedCovering[];
  /** ends with wires and a run to them */
  endDress: PlannedEndDress[];
  breakoutDress: PlannedBreakoutDress[];
  /** holes of known bore */
  feeds: readonly PlannedFeed[];
  /** screened cables where they are opened */
  screens: readonly PlannedScreen[];
  studs: readonly PlannedStud[];
  /** segments whose ambient is known */
  heats: readonly PlannedHeat[];
  /** in the order of the wires */
  currents: readonly WireCurrent[];
  terminations: readonly PlannedTermination[];
  /** cavity names that stay empty and take a plug, by end */
  plugs: readonly { endId: string; cavity: string; plugId: string }[];
  massG: { wire: number; covering: number; housings: number; contacts: number; splices: number; total: number };
}

export interface JobPlan {
  looms: LoomPlan[];
  power: PowerPlan;
}
