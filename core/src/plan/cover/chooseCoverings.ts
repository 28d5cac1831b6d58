import type { Catalogue, CoveringItem, ShopStandard } from '../../catalogue';
import { findFamily } from '../../catalogue';
import { type CoveringKind, findSurroundings, isOffered, type Job, type Loom, type Surroundings } from '../../model';
import { measureBraid } from './measureBraid';
import type { PlannedBundle, PlannedCovering, Tree } from '../types';

/** Does this size grip the bundle and yet go over what it has to pass? Diameters in mm. Braid at its relaxed bore does not grip (calculations 7). */
export function isCoveringFit(
  item: CoveringItem,
  odMm: number,
  mustPassMm: number,
  { braidGrip }: Pick<ShopStandard, 'braidGrip'>,
): { grips: boolean; passes: boolean } {
  if (item.kind === 'braid') {
    return {
      grips: braidGrip * item.relaxedBoreMm <= odMm + 1e-9 && odMm <= 0.9 * item.expandedBoreMm,
      passes: mustPassMm <= 0.9 * item.expandedBoreMm,
    };
  }
  return {
    grips: item.recoveredBoreMm <= 0.9 * odMm && item.suppliedBoreMm >= 1.1 * odMm,
    passes: item.suppliedBoreMm >= 1.1 * mustPassMm,
  };
}

/** Bundles that this size grips, thinnest and thickest, mm: where isCoveringFit says it grips. */
export const measureGrip = (item: CoveringItem, { braidGrip }: Pick<ShopStandard, 'braidGrip'>): { leastMm: number; mostMm: number } =>
  item.kind === 'braid'
    ? { leastMm: braidGrip * item.relaxedBoreMm, mostMm: 0.9 * item.expandedBoreMm }
    : { leastMm: item.recoveredBoreMm / 0.9, mostMm: item.suppliedBoreMm / 1.1 };

/**
 * Diameter over a covering on a bundle, mm. Shrink keeps the volume of its wall: the less it has to recover, the thinner it is. Braid adds
 * its wall twice (calculations 7).
 */
export function measureCoveringOutside(item: CoveringItem, odMm: number): number {
  if (item.kind === 'braid') return odMm + 2 * item.wallMm;
  return Math.sqrt(odMm ** 2 + 4 * item.wallMm * (item.recoveredBoreMm + item.wallMm));
}

/** Length to cut for a run so long, mm: braid shortens as it opens, shrink as it recovers and overlaps its neighbour. Whole mm, rounded up. */
export function measureCoveringCut(item: CoveringItem, runMm: number, odMm: number, overlapMm: number): number {
  const raw =
    item.kind === 'braid'
      ? runMm / measureBraid(item.yarnAngleDeg, item.relaxedBoreMm, odMm)
      : runMm / (1 - item.longitudinalChange) + overlapMm;
  return Math.ceil(raw - 1e-6);
}

/** What a loom is covered from. */
export interface CoverContext {
  job: Job;
  loom: Loom;
  tree: Tree;
  catalogue: Catalogue;
  standard: ShopStandard;
}

/**
 * Covering of each segment: kind by pin, zone or shop standard; size by its window and by what it has to pass on its way. joints: over
 * the fattest splice in a segment, mm.
 */
export function chooseCoverings(
  context: CoverContext,
  bundles: readonly PlannedBundle[],
  joints: ReadonlyMap<string, number>,
): PlannedCovering[] {
  const envelopes = measureEnvelopes(context);
  return bundles.map((bundle) => {
    const bundleMm = Math.max(bundle.odMm, joints.get(bundle.segmentId) ?? 0);
    return chooseCovering(context, bundle, bundleMm, envelopes[bundle.segmentId]!);
  });
}

/** bundleMm: with the fattest splice in it; envelopeMm: of the largest housing beyond it. */
function chooseCovering(context: CoverContext, bundle: PlannedBundle, bundleMm: number, envelopeMm: number): PlannedCovering {
  const { job, loom, tree, catalogue, standard } = context;
  const { segmentId, odMm } = bundle;
  const segment = loom.segments[segmentId]!;
  const zone = findSurroundings(job.zones, segment, standard.hotTickC);
  const wanted = chooseKind(segment.coveringPin, zone, standard);
  const toBend = (odOutsideMm: number) => (bundle.isStiff ? standard.bendFactorHeavy : standard.bendFactor) * odOutsideMm;
  const base = { segmentId, ...wanted, ...NO_COVERING, odOutsideMm: odMm, insideBendMm: toBend(odMm), mustPassMm: bundleMm };
  if (wanted.kind === 'none' || odMm === 0) return { ...base, kind: 'none' };
  const mustPassMm = segment.slideOn === 'before-ends' ? bundleMm : Math.max(bundleMm, envelopeMm);
  const run = { odMm, mustPassMm, lengthMm: tree.segments[segmentId]!.lengthMm, pinnedId: segment.coveringPin?.itemId ?? null };
  const choose = (kind: Exclude<CoveringKind, 'none'>) => chooseSize(kind, run, catalogue, standard);
  const size = choose(wanted.kind);
  const isEnough = ({ itemId: id, problem }: ReturnType<typeof chooseSize>) =>
    problem === null && catalogue.coverings.find((one) => one.id === id)!.limitC >= (zone?.ambientC ?? 0);
  // over a splice a sleeve has to open further than its kind may: the next one that does both
  const isJoint = wanted.ruledBy !== 'pinned' && size.problem === 'cannot-pass' && mustPassMm === bundleMm && bundleMm > odMm;
  const instead = isJoint && wanted.kind === 'shrink' ? INSTEAD.find((kind) => isEnough(choose(kind))) : undefined;
  const taken = instead
    ? {
        ...choose(instead),
        kind: instead,
        because: `${wanted.because}; no plain shrink grips ${odMm.toFixed(1)} mm and passes the splice under it, ${bundleMm.toFixed(1)} mm`,
      }
    : size;
  return { ...base, mustPassMm, ...taken, insideBendMm: toBend(taken.odOutsideMm) };
}

const NO_COVERING = { itemId: null, itemName: 'none', cutMm: 0, problem: null, alsoFits: [], massG: 0 };

/** What takes the place of plain shrink where that does not pass a splice: lined sleeve shrinks further, braid opens further. */
const INSTEAD = ['adhesive-shrink', 'braid'] as const;

function chooseKind(
  pin: Loom['segments'][string]['coveringPin'],
  zone: Surroundings | null,
  standard: ShopStandard,
): Pick<PlannedCovering, 'kind' | 'ruledBy' | 'because'> {
  if (pin) return { kind: pin.kind, ruledBy: 'pinned', because: pin.reason };
  if (zone?.reopen) return { kind: 'braid', ruledBy: 'zone', because: `${zone.name}: must be opened later` };
  if (zone?.wet) return { kind: 'adhesive-shrink', ruledBy: 'zone', because: `${zone.name}: wet` };
  if (zone?.flexing) return { kind: 'braid', ruledBy: 'zone', because: `${zone.name}: moves in use` };
  if (zone?.abrasion) return { kind: 'braid', ruledBy: 'zone', because: `${zone.name}: abrasion` };
  return { kind: standard.covering, ruledBy: 'standard', because: standard.name };
}

/** A run to cover: what it is, what its sleeve goes over on its way, how long it is; mm. */
interface CoveredRun {
  odMm: number;
  mustPassMm: number;
  lengthMm: number;
  /** chosen by hand */
  pinnedId: string | null;
}

function chooseSize(
  kind: Exclude<CoveringKind, 'none'>,
  { odMm, mustPassMm, lengthMm, pinnedId }: CoveredRun,
  catalogue: Catalogue,
  standard: ShopStandard,
): Pick<PlannedCovering, 'itemId' | 'itemName' | 'cutMm' | 'odOutsideMm' | 'problem' | 'alsoFits' | 'massG'> {
  const sizes = catalogue.coverings.filter((item) => item.kind === kind);
  const pinned = pinnedId === null ? undefined : sizes.find(({ id }) => id === pinnedId);
  const isHad = (item: CoveringItem) => item === pinned || isOffered(catalogue, 'coverings', item.id);
  // one that was chosen by hand stays though it is retired
  const gripping = sizes.filter((item) => isCoveringFit(item, odMm, mustPassMm, standard).grips && isHad(item));
  const fitting = gripping.filter((item) => isCoveringFit(item, odMm, mustPassMm, standard).passes);
  // a braid that opens least shortens least; of shrink the smallest that fits is the lightest
  const item = pinned ?? (kind === 'braid' ? fitting.at(-1) : fitting[0]) ?? gripping.at(-1);
  const alsoFits = fitting.filter((one) => one !== item).map(({ id }) => id);
  if (!item || (pinnedId !== null && !pinned)) {
    return { itemId: null, itemName: 'no size fits', cutMm: 0, odOutsideMm: odMm, problem: 'no-size', alsoFits, massG: 0 };
  }
  const problem = !gripping.includes(item) ? 'no-size' : !fitting.includes(item) ? 'cannot-pass' : null;
  if (problem === 'no-size') return { itemId: item.id, itemName: item.name, cutMm: 0, odOutsideMm: odMm, problem, alsoFits, massG: 0 };
  const cutMm = measureCoveringCut(item, lengthMm, odMm, standard.shrinkOverlapMm);
  return {
    itemId: item.id,
    itemName: item.name,
    cutMm,
    odOutsideMm: measureCoveringOutside(item, odMm),
    problem,
    alsoFits,
    massG: (item.massGPerM * cutMm) / 1000,
  };
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
