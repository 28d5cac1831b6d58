import type { Catalogue, ShopStandard } from '../catalogue';
import type { Circuit, Job, Loom } from '../model';
import { listBarrels } from './chooseBarrels';
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
  const halfMm = (circuitId: string) => measureHalfBarrel(catalogue, standard, loom.circuits[circuitId]!);
  // place: splices off their junctions, wires along the tree
  const { splices, wires } = route(job, loom, tree, strands, halfMm, standard, first?.splices ?? []);
  const ranges = wires.map(createSizes(job, loom, catalogue, standard));
  return { loomId, tree, splices, wires, ranges, shape: toShape(loom, tree, wires), first };
}

/**
 * What a splice of a circuit may reach to either side while its wires have no size, mm: half of the longest barrel that the shop crimps; of
 * a circuit that carries next to nothing half of the one that holds a full side in the shop's least size.
 */
export function measureHalfBarrel(
  catalogue: Catalogue,
  standard: ShopStandard,
  { kind, sizePin, wireTable }: Pick<Circuit, 'kind' | 'sizePin' | 'wireTable'>,
): number {
  const barrels = listBarrels(catalogue, standard);
  const least = catalogue.wires[wireTable].find(({ size }) => size === standard.minimumSize[wireTable]);
  const mostMm2 = (least?.areaMm2 ?? Infinity) * standard.spliceMostWires * (standard.barrelKind === 'parallel' ? 2 : 1);
  const isThin = sizePin === null && !POWER_KINDS.includes(kind);
  const fitting = isThin ? barrels.filter(({ minAreaMm2 }) => minAreaMm2 <= mostMm2) : barrels;
  return Math.max(0, ...fitting.map(({ lengthMm }) => lengthMm)) / 2;
}

const POWER_KINDS: readonly Circuit['kind'][] = ['supply', 'power-ground', 'output'];

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
