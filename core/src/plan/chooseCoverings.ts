import type { Catalogue, CoveringItem, ShopStandard } from '../catalogue';
import { findFamily } from '../catalogue';
import { findSurroundings, type CoveringKind, type Job, type Loom, type Surroundings } from '../model';
import { measureBraid } from './measureBraid';
import type { PlannedBundle, PlannedCovering, Tree } from './types';

/** Does this size grip the bundle and yet go over what it has to pass? Diameters in mm (calculations 7). */
export function isCoveringFit(item: CoveringItem, odMm: number, mustPassMm: number): { grips: boolean; passes: boolean } {
  if (item.kind === 'braid') {
    return { grips: item.relaxedBoreMm <= odMm && odMm <= 0.9 * item.expandedBoreMm, passes: mustPassMm <= 0.9 * item.expandedBoreMm };
  }
  return {
    grips: item.recoveredBoreMm <= 0.9 * odMm && item.suppliedBoreMm >= 1.1 * odMm,
    passes: item.suppliedBoreMm >= 1.1 * mustPassMm,
  };
}

/** Length to cut for a run so long, mm: braid shortens as it opens, shrink as it recovers and overlaps its neighbour. Whole mm, rounded up. */
export function measureCoveringCut(item: CoveringItem, runMm: number, odMm: number, overlapMm: number): number {
  const raw =
    item.kind === 'braid'
      ? runMm / measureBraid(item.yarnAngleDeg, item.relaxedBoreMm, odMm)
      : runMm / (1 - item.longitudinalChange) + overlapMm;
  return Math.ceil(raw - 1e-6);
}

/** Covering of each segment: kind by pin, zone or shop standard; size by its window and by what it has to pass on its way. */
export function chooseCoverings(
  job: Job,
  loom: Loom,
  tree: Tree,
  bundles: readonly PlannedBundle[],
  catalogue: Catalogue,
  standard: ShopStandard,
): PlannedCovering[] {
  const envelopes = measureEnvelopes(job, loom, tree, catalogue);
  return bundles.map((bundle) => {
    const segment = loom.segments[bundle.segmentId]!;
    const zone = findSurroundings(job.zones, segment, standard.hotTickC);
    const wanted = chooseKind(segment.coveringPin, zone, standard);
    const base = {
      segmentId: bundle.segmentId,
      ...wanted,
      itemId: null,
      itemName: 'none',
      cutMm: 0,
      odOutsideMm: bundle.odMm,
      mustPassMm: bundle.odMm,
      problem: null,
      alsoFits: [],
      massG: 0,
    };
    if (wanted.kind === 'none' || bundle.odMm === 0) return { ...base, kind: 'none' };
    const mustPassMm = segment.slideOn === 'before-ends' ? bundle.odMm : Math.max(bundle.odMm, envelopes[bundle.segmentId]!);
    const runMm = tree.segments[bundle.segmentId]!.lengthMm;
    const itemId = segment.coveringPin?.itemId ?? null;
    return { ...base, mustPassMm, ...chooseSize(wanted.kind, itemId, bundle, mustPassMm, runMm, catalogue, standard) };
  });
}

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

function chooseSize(
  kind: Exclude<CoveringKind, 'none'>,
  pinnedId: string | null,
  bundle: PlannedBundle,
  mustPassMm: number,
  runMm: number,
  catalogue: Catalogue,
  standard: ShopStandard,
): Pick<PlannedCovering, 'itemId' | 'itemName' | 'cutMm' | 'odOutsideMm' | 'problem' | 'alsoFits' | 'massG'> {
  const sizes = catalogue.coverings.filter((item) => item.kind === kind);
  const gripping = sizes.filter((item) => isCoveringFit(item, bundle.odMm, mustPassMm).grips);
  const fitting = gripping.filter((item) => isCoveringFit(item, bundle.odMm, mustPassMm).passes);
  const pinned = pinnedId === null ? undefined : sizes.find(({ id }) => id === pinnedId);
  // a braid that opens least shortens least; of shrink the smallest that fits is the lightest
  const item = pinned ?? (kind === 'braid' ? fitting.at(-1) : fitting[0]) ?? gripping.at(-1);
  const alsoFits = fitting.filter((one) => one !== item).map(({ id }) => id);
  if (!item || (pinnedId !== null && !pinned)) {
    return { itemId: null, itemName: 'no size fits', cutMm: 0, odOutsideMm: bundle.odMm, problem: 'no-size', alsoFits, massG: 0 };
  }
  const problem = !gripping.includes(item) ? 'no-size' : !fitting.includes(item) ? 'cannot-pass' : null;
  if (problem === 'no-size')
    return { itemId: item.id, itemName: item.name, cutMm: 0, odOutsideMm: bundle.odMm, problem, alsoFits, massG: 0 };
  const cutMm = measureCoveringCut(item, runMm, bundle.odMm, standard.shrinkOverlapMm);
  return {
    itemId: item.id,
    itemName: item.name,
    cutMm,
    odOutsideMm: bundle.odMm + 2 * item.wallMm,
    problem,
    alsoFits,
    massG: (item.massGPerM * cutMm) / 1000,
  };
}

/** The largest housing that hangs beyond each segment, mm. */
function measureEnvelopes(job: Job, loom: Loom, tree: Tree, catalogue: Catalogue): Record<string, number> {
  const byNode = new Map(Object.values(loom.ends).map((end) => [end.nodeId, findFamily(job, catalogue, end.familyId)?.envelopeMm ?? 0]));
  const envelopes: Record<string, number> = {};
  for (const nodeId of [...tree.nodeIds].reverse()) {
    const node = tree.nodes[nodeId]!;
    if (node.parentSegmentId === null) continue;
    envelopes[node.parentSegmentId] = Math.max(byNode.get(nodeId) ?? 0, ...node.childSegmentIds.map((id) => envelopes[id]!));
  }
  return envelopes;
}
