import type { Catalogue, HouseQuestion, ShopStandard } from '../catalogue';
import type { EditOperation, Job, Loom } from '../model';
import type { JobPlan, LoomPlan, PlannedCovering, PlannedEndDress, PlannedLoad, PlannedWire, TreeNode, TreeSegment } from '../plan';
import type { Grade, RuleCode } from './register';

/** What a finding is about, so that it can be shown there. */
export interface FindingPlace {
  kind: 'end' | 'segment' | 'splice' | 'circuit' | 'node' | 'wire' | 'loom' | 'step' | 'item' | 'donor';
  id: string;
}

/** One thing that is wrong or worth a look, in the shop's words. */
export interface Finding {
  /** stable; its meaning never changes */
  code: RuleCode;
  /** the same finding keeps its key from one plan to the next, so that it can be accepted */
  key: string;
  grade: Grade;
  /** empty: of the job as a whole */
  loomId: string;
  places: FindingPlace[];
  sentence: string;
  measured: number | null;
  limit: number | null;
  /** an edit that mends it, or null where people have to */
  fix: { label: string; patch: EditOperation[] } | null;
}

export interface RuleContext {
  job: Job;
  loomId: string;
  loom: Loom;
  plan: LoomPlan;
  catalogue: Catalogue;
  standard: ShopStandard;
}

/** What of a plan does not hang on how long anything is. */
export interface PlainPlan extends Pick<LoomPlan, 'loomId' | 'terminations' | 'plugs' | 'currents' | 'heats'> {
  tree: Pick<LoomPlan['tree'], 'datumId' | 'nodeIds'> & {
    nodes: Readonly<Record<string, Pick<TreeNode, 'id' | 'parentSegmentId' | 'parentNodeId' | 'childSegmentIds'>>>;
    segments: Readonly<Record<string, Pick<TreeSegment, 'id' | 'nearNodeId' | 'farNodeId' | 'onward'>>>;
  };
  wires: readonly Pick<
    PlannedWire,
    'id' | 'circuitId' | 'from' | 'to' | 'number' | 'labelId' | 'conductor' | 'colour' | 'kind' | 'cable'
  >[];
  coverings: readonly Pick<PlannedCovering, 'segmentId' | 'kind' | 'odOutsideMm'>[];
  endDress: readonly Pick<PlannedEndDress, 'endId' | 'segmentId' | 'leadMm' | 'pieces'>[];
}

export type PlainContext = Omit<RuleContext, 'plan'> & { plan: PlainPlan };

/** A rule about a loom that no length has a say in, neither of its plan nor of its runs: it need not be asked again when one changes. */
export type PlainRule = (context: PlainContext) => Finding[];

/** A rule looks at one planned loom and says what it finds. */
export type Rule = (context: RuleContext) => Finding[];

export interface JobContext {
  job: Job;
  plan: JobPlan;
  catalogue: Catalogue;
  standard: ShopStandard;
  houseStyle: readonly HouseQuestion[];
  /** the day, as in 2026-11-25; null: rules that need one say nothing */
  today: string | null;
}

/** What a rule about the wiring sees: what is joined to what, and what flows in each net, and which loads there are; nothing of lengths. */
export interface WiringContext extends Omit<JobContext, 'plan'> {
  plan: { power: Pick<JobPlan['power'], 'nets'> & { loads: readonly Pick<PlannedLoad, 'id' | 'pin'>[] } };
}

/** A rule about the wiring of the whole job: it need not be asked again while that is as it was. */
export type WiringRule = (context: WiringContext) => Finding[];

/** A rule about the job as a whole. */
export type JobRule = (context: JobContext) => Finding[];
