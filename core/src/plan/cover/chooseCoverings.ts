import { findFamily, type Catalogue, type ShopStandard } from '../../catalogue';
import { COVERING_WORDS, findSurroundings, type Job, type Loom, type Segment, type Surroundings } from '../../model';
import type { Memo, Stage } from '../../units';
import type { CoveringDemand, PlannedBundle, PlannedCovering, Tree } from '../types';
import {
  chooseFirst,
  chooseSize,
  listCoveringOptions,
  listDemands,
  toWhyNot,
  type CoveredRun,
  type CoveringOption,
} from './listCoveringOptions';

/** What a loom is covered from. */
export interface CoverContext {
  job: Job;
  loom: Loom;
  tree: Tree;
  catalogue: Catalogue;
  standard: ShopStandard;
}

/** One run with what lies in it, what it passes on its way, and how long it is; mm. */
interface RunContext {
  of: CoverContext;
  bundle: PlannedBundle;
  /** with the fattest splice in it */
  bundleMm: number;
  /** of the largest housing beyond it */
  envelopeMm: number;
}

/** Sizes are tried round by round on few bundles at a time: most runs are found as they were. */
const COVER: Stage<RunContext, PlannedCovering> = {
  name: 'cover',
  keep: 8,
  inputs: ({ of: { job, loom, tree, catalogue, standard }, bundle: { segmentId, odMm, isStiff }, bundleMm, envelopeMm }) => [
    ...[loom.segments[segmentId], job.zones, catalogue, standard],
    ...[odMm, isStiff, bundleMm, envelopeMm, tree.segments[segmentId]!.lengthMm],
  ],
  run: chooseCovering,
};

/**
 * Covering of each segment: what its zone asks for, by the shop's order or its cost; size by its window and by what it has to pass on its
 * way. joints: over the fattest splice in a segment, mm.
 */
export function chooseCoverings(
  context: CoverContext & { loomId: string; memo: Memo },
  bundles: readonly PlannedBundle[],
  joints: ReadonlyMap<string, number>,
): PlannedCovering[] {
  const { loomId, memo } = context;
  const envelopes = measureEnvelopes(context);
  return bundles.map((bundle) => {
    const { segmentId, odMm } = bundle;
    const bundleMm = Math.max(odMm, joints.get(segmentId) ?? 0);
    return memo(COVER, `${loomId} ${segmentId}`, { of: context, bundle, bundleMm, envelopeMm: envelopes[segmentId]! });
  });
}

function chooseCovering({ of: context, bundle, bundleMm, envelopeMm }: RunContext): PlannedCovering {
  const { job, loom, tree, catalogue, standard } = context;
  const { segmentId, odMm } = bundle;
  const segment = loom.segments[segmentId]!;
  const zone = findSurroundings(job.zones, segment, standard.hotTickC);
  const toBend = (odOutsideMm: number) => (bundle.isStiff ? standard.bendFactorHeavy : standard.bendFactor) * odOutsideMm;
  const base = { segmentId, ...NO_COVERING, odOutsideMm: odMm, insideBendMm: toBend(odMm), mustPassMm: bundleMm };
  const pin = segment.coveringPin;
  const demands = listDemands(zone);
  const rule = toRule(pin, zone, demands, standard);
  const wantsNone = pin ? pin.kind === 'none' : standard.covering === 'none' && rule.ruledBy === 'standard';
  if (wantsNone || odMm === 0) return { ...base, ...rule };
  const run = { odMm, mustPassMm: bundleMm, lengthMm: tree.segments[segmentId]!.lengthMm, zone };
  const onItsWay = { ...run, mustPassMm: segment.slideOn === 'before-ends' ? bundleMm : Math.max(bundleMm, envelopeMm) };
  const { taken, ...beside } =
    pin && pin.kind !== 'none'
      ? { taken: chooseSize(pin.kind, onItsWay, catalogue, standard, pin.itemId), runnerUp: null, ...rule }
      : chooseKind(run, onItsWay, rule, context);
  if (!taken) return { ...base, ...beside, problem: 'no-size' };
  return {
    ...base,
    ...beside,
    kind: taken.kind,
    itemId: taken.item?.id ?? null,
    itemName: taken.item?.name ?? 'no size fits',
    cutMm: taken.cutMm,
    odOutsideMm: taken.odOutsideMm,
    insideBendMm: toBend(taken.odOutsideMm),
    mustPassMm: onItsWay.mustPassMm,
    problem: taken.problem,
    alsoFits: taken.alsoFits,
    massG: taken.massG,
    unmet: taken.unmet,
  };
}

const NO_COVERING = {
  ...{ kind: 'none', itemId: null, itemName: 'none', cutMm: 0, problem: null, alsoFits: [], massG: 0, unmet: [], runnerUp: null },
} satisfies Partial<PlannedCovering>;

type Ruled = Pick<PlannedCovering, 'ruledBy' | 'because'>;

/** What decides: a pin, the gravest that the zone asks for, or the shop. */
function toRule(pin: Segment['coveringPin'], zone: Surroundings | null, demands: readonly CoveringDemand[], standard: ShopStandard): Ruled {
  if (pin) return { ruledBy: 'pinned', because: pin.reason };
  const gravest = demands.find((demand) => demand !== 'heat');
  if (gravest === undefined) return { ruledBy: 'standard', because: standard.name };
  return { ruledBy: 'zone', because: `${zone!.name}: ${DEMAND_WORDS[gravest]}` };
}

const DEMAND_WORDS: Readonly<Record<CoveringDemand, string>> = {
  ...{
    opens: 'must be opened later',
    water: 'wet',
    heat: 'hot',
    moves: 'moves in use',
    wears: 'abrasion',
    handled: 'taken in the hand often',
  },
};

/** The kind that does best on the bundle itself, then its size for the way that it has to go. */
function chooseKind(
  run: CoveredRun,
  onItsWay: CoveredRun,
  rule: Ruled,
  { catalogue, standard }: CoverContext,
): Ruled & { taken: CoveringOption | null; runnerUp: PlannedCovering['runnerUp'] } {
  const { first, second, preferred } = chooseFirst(run, catalogue, standard);
  if (!first) return { ...rule, taken: null, runnerUp: null };
  const isSame = onItsWay.mustPassMm === run.mustPassMm;
  const taken = first.problem === null && !isSame ? chooseSize(first.kind, onItsWay, catalogue, standard) : first;
  const runnerUp =
    second?.item && second.problem === null
      ? { kind: second.kind, itemId: second.item.id, itemName: second.item.name, whyNot: toWhyNot(second, first, run, standard) }
      : null;
  // where the one that comes first does all that is asked for but has no size
  const isInstead = preferred && preferred.kind !== first.kind && preferred.problem !== null && rule.ruledBy === 'standard';
  const because = isInstead
    ? `${rule.because}; ${COVERING_WORDS[preferred.kind]}: ${toWhyNot(preferred, first, run, standard)}`
    : rule.because;
  return { ...rule, because, taken, runnerUp };
}

/** The coverings that a run could have, in the order in which they would be taken, each with why it is not the one that is. */
export function compareCoverings(
  context: CoverContext,
  covering: PlannedCovering,
  odMm: number,
): (CoveringOption & { isTaken: boolean; whyNot: string })[] {
  const { job, loom, tree, catalogue, standard } = context;
  const { segmentId, mustPassMm } = covering;
  const zone = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC);
  const run = { odMm, mustPassMm, lengthMm: tree.segments[segmentId]!.lengthMm, zone };
  if (odMm === 0) return [];
  const options = listCoveringOptions(run, catalogue, standard);
  const pinned =
    covering.kind === 'none' || covering.itemId === null ? null : chooseSize(covering.kind, run, catalogue, standard, covering.itemId);
  const isTaken = (option: CoveringOption) => option.kind === covering.kind;
  const taken = pinned ?? options.find(isTaken) ?? options[0]!;
  return options.map((option) => {
    const here = isTaken(option) && pinned ? pinned : option;
    return { ...here, isTaken: isTaken(option), whyNot: isTaken(option) ? '' : toWhyNot(option, taken, run, standard) };
  });
}

/** The largest housing that hangs beyond each segment, mm. */
function measureEnvelopes({ job, loom, tree, catalogue }: CoverContext): Record<string, number> {
  const byNode = new Map(Object.values(loom.ends).map((end) => [end.nodeId, findFamily(job, catalogue, end.familyId)?.envelopeMm ?? 0]));
  const envelopes: Record<string, number> = {};
  for (const nodeId of [...tree.nodeIds].reverse()) {
    const node = tree.nodes[nodeId]!;
    if (node.parentSegmentId === null) continue;
    envelopes[node.parentSegmentId] = Math.max(byNode.get(nodeId) ?? 0, ...node.childSegmentIds.map((id) => envelopes[id]!));
  }
  return envelopes;
}
