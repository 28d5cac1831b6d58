import type { Catalogue } from '../../catalogue';
import type { Finding } from '../../check';
import type { LoomBuild } from '../../make';
import type { Job, Loom } from '../../model';
import type { JobPlan, LoomPlan, PlannedWire } from '../../plan';
import type { Flow } from './flow/flowTypes';

/** What every sheet of one pack is made from. */
export interface SheetContext {
  job: Job;
  loom: Loom;
  plan: LoomPlan;
  /** of all looms */
  whole: JobPlan;
  build: LoomBuild;
  findings: readonly Finding[];
  catalogue: Catalogue;
  flow: Flow;
  wires: Map<string, PlannedWire>;
}

export const mm = (value: number) => String(Math.round(value));

export const toPlaceWords = ({ loom }: SheetContext, endId: string, cavity: string) => `${loom.ends[endId]!.name} · ${cavity}`;

export function toRunWords({ loom, plan }: Pick<SheetContext, 'loom' | 'plan'>, segmentId: string): string {
  const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
  return `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
}

const findSplice = ({ plan }: SheetContext, spliceId: string) => plan.splices.find(({ id }) => id === spliceId)!;

export const toWhere = (context: SheetContext, end: PlannedWire['from']): string =>
  end.kind === 'cavity' ? toPlaceWords(context, end.endId, end.cavity) : `splice ${findSplice(context, end.spliceId).label}`;

/** Pieces are laid aside by where they are needed first: at the end of them that is farther from the datum. */
export function toBag(context: SheetContext, { from, to }: PlannedWire): string {
  const { loom, plan } = context;
  const reach = (end: PlannedWire['from']) =>
    end.kind === 'cavity' ? plan.tree.nodes[loom.ends[end.endId]!.nodeId]!.distanceMm : findSplice(context, end.spliceId).distanceMm;
  const far = reach(to) >= reach(from) ? to : from;
  return far.kind === 'cavity' ? loom.ends[far.endId]!.name : `splice ${findSplice(context, far.spliceId).label}`;
}
