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
  return { loomId, tree, splices, wires, ranges: wires.map(createSizes(job, loom, catalogue, standard)), first };
}

const isFitted = (loom: Loom) => Object.values(loom.segments).some(({ fittedMm }) => fittedMm !== null);

/** The job with one loom as it was measured, before its trial fit. */
export function toUnfitted(job: Job, loomId: string): Job {
  const loom = job.looms[loomId]!;
  const segments = Object.fromEntries(Object.entries(loom.segments).map(([id, segment]) => [id, { ...segment, fittedMm: null }]));
  return { ...job, looms: { ...job.looms, [loomId]: { ...loom, segments } } };
}
