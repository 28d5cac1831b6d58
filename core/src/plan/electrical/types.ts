import type { CircuitKind, LinkKind, Load, Return } from '../../model';
import type { PinPlace } from '../../netlist';

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
  /** largest on-current in any mode that counts, A */
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
  /** what flows while it is on, A */
  currentA: number;
  /** on-current by mode, in the order of the plan's modes, A */
  onA: number[];
  /** the same as a bundle feels it: r.m.s. of short cycles, A */
  heatA: number[];
  inrushA: number | null;
  inrushMs: number | null;
  /** protections and contacts from the source to it */
  linkIds: string[];
  /** source first; empty where nothing feeds it */
  steps: PathStep[];
  dropV: number;
  /** the same in each mode, what is on there flowing; V */
  dropByModeV: number[];
  /** from the battery and back to it, in each mode; V */
  totalByModeV: number[];
  /** what is left at it in each mode: the source's, less its sag, less the way there and back; V */
  voltsByMode: number[];
  budgetV: number;
  /** of the feed of its box and its own way together, V */
  totalBudgetV: number;
  /** something outside the job feeds it through a plug: figures count from there on */
  isOutside: boolean;
  /** of a dead short at its pin; null where it is not fed from the battery */
  faultA: number | null;
  /** does its way lead back to the source */
  returns: boolean;
  returnBy: Return;
  /** what switches it, source first: links on its supply (high side), the driver that its return goes through (low side) */
  switches: { side: 'high' | 'low'; by: string; linkId: string | null }[];
}

export type ProtectionProblem = 'over-wire' | 'over-load' | 'no-rating' | 'inrush' | 'slow-fault' | 'short-time' | 'over-peak';

/** A fuse, channel or contact with what it carries and what it has to protect. */
export interface PlannedProtection {
  id: string;
  deviceId: string;
  linkId: string;
  name: string;
  kind: LinkKind;
  /** net beyond it; null where nothing is wired to it */
  netId: string | null;
  /** on-current by mode, A */
  onA: number[];
  /** largest mode, A */
  loadA: number;
  /** largest that flows for a moment as loads behind it are switched on together, A, and how long; 0: none has an inrush */
  inrushA: number;
  inrushMs: number;
  /** null: it does not protect, or nothing that is made is large enough */
  ratingA: number | null;
  pinned: boolean;
  because: string;
  /** s; null for a fuse */
  tripS: number | null;
  maxA: number | null;
  /** what a contact bears for a moment, A; null: no limit of its own */
  peakA: number | null;
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
  /** the plug through which something outside the job feeds or takes its current; null: none */
  outside: PinPlace | null;
  /** on-current by mode, A */
  onA: number[];
  /** load pins of unknown current */
  unknown: number;
}

/** Current of a wire and what it bears. */
export interface WireCurrent {
  wireId: string;
  /** on-current by mode, A */
  onA: number[];
  /** as its bundles feel it, by mode, A */
  heatA: number[];
  /** largest on-current, A; null: not known */
  designA: number | null;
  /** largest that flows in it for a moment, A */
  inrushA: number;
  steadyA: number | null;
  shortA: number | null;
  runningC: number | null;
  /** part of its rise above the zone there that it makes itself, K */
  ownK: number;
  /** protections that have to open before it is harmed: those of its feed, and of what returns by it; largest rating first */
  guardIds: readonly string[];
}

/** What feeds a net in a mode. live: it is fed; momentary: while a switch is held; unsaid: by a switch of which nobody said how it stands. */
export interface LiveNet {
  netId: string;
  state: 'live' | 'momentary' | 'unsaid';
  /** links from the battery to it, in their order */
  via: string[];
  /** box whose own rail feeds it; null: none */
  railOf: string | null;
  /** the isolator is open, and it hangs behind it all the same */
  isByPassed: boolean;
}

/** How switches stand in a mode, and what is live by that (craft G6). */
export interface PlannedState {
  modeId: string;
  /** is the isolator open in it */
  isIsolated: boolean;
  /** what is fed; all other nets are dead */
  live: LiveNet[];
  /** links of which nobody said how they stand, and their loads do not say it either */
  unsaid: string[];
}

export interface PowerPlan {
  modeIds: string[];
  /** by mode */
  states: PlannedState[];
  nets: PlannedNet[];
  loads: PlannedLoad[];
  protections: PlannedProtection[];
  /** what has to protect the wires of a loom that is fed from outside the job: rating and limits as of a fuse before its plug */
  outside: PlannedProtection[];
  /** drawn from the battery, by mode, A; null: no battery in the job */
  sourceA: { on: number[]; mean: number[] } | null;
  /** from battery positive to the first fuse of each way, starters apart: the longest, mm; null: there is none */
  unfused: { lengthMm: number; words: string; loomId: string; wireIds: string[] } | null;
  /** copper of the wires that share drop budgets, g; of the same with one size throughout each tree; and what alike devices cost that are wired alike */
  copper: { massG: number; oneSizeMassG: number; alikeG: number };
  rounds: number;
  settled: boolean;
}
