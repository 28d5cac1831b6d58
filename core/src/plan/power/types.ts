import type { CircuitKind, LinkKind, Load } from '../../model';
import type { PinPlace } from './createGrid';

/** One stretch of the way from the source to a load and back. */
export interface PathStep {
  kind: 'wire' | 'contact' | 'splice' | 'link' | 'chassis';
  /** out to the load, or back */
  way: 'out' | 'back';
  words: string;
  loomId: string | null;
  /** null unless a wire */
  wireId: string | null;
  milliohm: number;
  /** largest in any mode that counts, A */
  currentA: number;
  dropV: number;
  /** does it count for the load's own budget; the feed of its box and the way back from the ground stud have theirs */
  counts: boolean;
}

/** A pin that draws current, with its way, its drop against its budget, and what a short at it would draw. */
export interface PlannedLoad {
  id: string;
  name: string;
  pin: PinPlace;
  deviceId: string | null;
  /** feed: the pin from which a box feeds its loads */
  load: Load | 'feed' | null;
  /** largest continuous, A */
  currentA: number;
  /** r.m.s. by mode, in the order of the plan's modes, A */
  rmsA: number[];
  inrushA: number | null;
  inrushMs: number | null;
  /** protections and contacts from the source to it */
  linkIds: string[];
  /** source first; empty where nothing feeds it */
  steps: PathStep[];
  dropV: number;
  /** the same in each mode, what is on there flowing: r.m.s., all of it while cranking; V */
  dropByModeV: number[];
  /** from the battery and back to it, V */
  totalV: number;
  budgetV: number;
  /** of a dead short at its pin; null where it is not fed from the battery */
  faultA: number | null;
  /** does its way lead back to the source */
  returns: boolean;
  /** what switches it, source first: links on its supply (high side), the driver that its return goes through (low side) */
  switches: { side: 'high' | 'low'; by: string; linkId: string | null }[];
}

export type ProtectionProblem = 'over-wire' | 'over-load' | 'no-rating' | 'inrush' | 'slow-fault' | 'short-time';

/** A fuse, channel or contact with what it carries and what it has to protect. */
export interface PlannedProtection {
  id: string;
  deviceId: string;
  linkId: string;
  name: string;
  kind: LinkKind;
  /** net beyond it; null where nothing is wired to it */
  netId: string | null;
  /** by mode, A */
  rmsA: number[];
  /** largest mode, A */
  loadA: number;
  inrushA: number;
  /** null: it does not protect, or nothing that is made is large enough */
  ratingA: number | null;
  pinned: boolean;
  because: string;
  /** s; null for a fuse */
  tripS: number | null;
  maxA: number | null;
  ambientC: number;
  /** what works a relay: is its coil fed, and which pin switches it; null: no relay, or worked inside its box */
  coil: { feed: PinPlace; switch: PinPlace; fed: boolean; by: PinPlace | null } | null;
  loadIds: string[];
  /** the wire behind it that bears least; null where none lies in a known zone */
  weakest: {
    loomId: string;
    wireId: string;
    circuitId: string;
    steadyA: number;
    shortA: number;
    areaMm2: number;
    runningC: number;
    shortC: number;
  } | null;
  leastFaultA: number | null;
  problems: ProtectionProblem[];
}

/** What copper joins, through all looms. */
export interface PlannedNet {
  id: string;
  circuits: { loomId: string; circuitId: string }[];
  kind: CircuitKind;
  /** pin that feeds or takes its current; null: none */
  root: PinPlace | null;
  feeds: PinPlace[];
  fedBy: string | null;
  volts: number | null;
  rmsA: number[];
  /** load pins of unknown current */
  unknown: number;
}

/** Current of a wire and what it bears. */
export interface WireCurrent {
  wireId: string;
  /** by mode, A */
  rmsA: number[];
  peakA: number;
  /** largest mode, A; null: not known */
  designA: number | null;
  steadyA: number | null;
  shortA: number | null;
  runningC: number | null;
  /** part of its rise above the zone there that it makes itself, K */
  ownK: number;
  /** protection that has to open before it is harmed; null: none */
  protectionId: string | null;
}

export interface PowerPlan {
  modeIds: string[];
  nets: PlannedNet[];
  loads: PlannedLoad[];
  protections: PlannedProtection[];
  /** drawn from the battery, by mode, A; null: no battery in the job */
  sourceA: { peak: number[]; mean: number[] } | null;
  /** copper of the wires that share drop budgets, g, and of the same with one size throughout each tree */
  copper: { massG: number; oneSizeMassG: number };
  rounds: number;
  settled: boolean;
}
