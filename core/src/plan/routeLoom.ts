import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { connect, route } from './connect';
import { createSizes, type SizeRange } from './createSizes';
import { createTree } from './createTree';
import type { PlannedSplice, RunWire, Tree } from './types';

/** A loom with its wires led along the tree: what does not depend on any size. */
export interface RoutedLoom {
  loomId: string;
  tree: Tree;
  splices: PlannedSplice[];
  wires: RunWire[];
  /** conductors that each wire may have */
  ranges: SizeRange[];
  /** what lies where and in what surroundings, in a line; lengths count only where a splice parts a run */
  shape: string;
  /** by the readings alone, before the trial fit: what the wires were cut by; null where nothing is fitted */
  first: RoutedLoom | null;
}

/** First stages of a plan: tree, least-wire splices, places, ways. */
export function routeLoom(job: Job, loomId: string, catalogue: Catalogue, standard: ShopStandard): RoutedLoom {
  const loom = job.looms[loomId]!;
  const first = isFitted(loom) ? routeLoom(toUnfitted(job, loomId), loomId, catalogue, standard) : null;
  // route: the tree seen from the datum
  const tree = createTree(loom, standard);
  // connect and splice: circuits → wires and splices at junctions, by least wire; what is cut stays as it was joined
  const strands = connect(loom, first?.tree ?? tree, standard);
  // place: splices off their junctions, wires along the tree
  const { splices, wires } = route(job, loom, tree, strands, standard, first?.splices ?? []);
  const ranges = wires.map(createSizes(job, loom, catalogue, standard));
  return { loomId, tree, splices, wires, ranges, shape: toShape(loom, tree, wires), first };
}

/** Two looms of one shape have bundles of the same wires, in the same covers and zones, however long. */
function toShape(loom: Loom, { segments }: Tree, wires: readonly RunWire[]): string {
  let shape = '';
  for (const [id, { fromNodeId, toNodeId, zoneId, ticks, coveringPin, slideOn }] of Object.entries(loom.segments))
    shape += `${id} ${fromNodeId} ${toNodeId} ${zoneId} ${ticks.join()} ${slideOn} ${coveringPin ? JSON.stringify(coveringPin) : ''};`;
  for (const { id, pieces } of wires) {
    shape += `${id}:`;
    for (const { segmentId, fromMm, toMm } of pieces)
      shape +=
        fromMm === 0 && toMm === segments[segmentId]!.lengthMm
          ? `${segmentId} `
          : `${segmentId} ${fromMm} ${toMm} ${segments[segmentId]!.lengthMm} `;
  }
  return shape;
}

const isFitted = (loom: Loom) => Object.values(loom.segments).some(({ fittedMm }) => fittedMm !== null);

/** The job with one loom as it was measured, before its trial fit. */
export function toUnfitted(job: Job, loomId: string): Job {
  const loom = job.looms[loomId]!;
  const segments = Object.fromEntries(Object.entries(loom.segments).map(([id, segment]) => [id, { ...segment, fittedMm: null }]));
  return { ...job, looms: { ...job.looms, [loomId]: { ...loom, segments } } };
}
