import type { Catalogue, ShopStandard } from '../../catalogue';
import type { Circuit, Job, Loom } from '../../model';
import { compareIds, pushTo } from '../../units';
import { isSameWiring } from './isSameWiring';
import { listBarrels } from '../splice/chooseBarrels';
import { chooseLeast } from '../size/chooseConductors';
import { connect, route } from './connect';
import { createSizes, type SizeRange } from '../size/createSizes';
import { createTree } from './createTree';
import type { WireRun, PlannedSplice, RoutedWire, SizedWire, Tree } from '../types';

/** A loom with its wires led along the tree: what does not depend on any size. */
export interface RoutedLoom {
  loomId: string;
  tree: Tree;
  splices: PlannedSplice[];
  wires: RoutedWire[];
  /** conductors that each wire may have, and what gave them */
  ranges: readonly SizeRange[];
  sizeOf: (wire: RoutedWire) => SizeRange;
  /** as thin as they may be */
  least: SizedWire[];
  /** what lies in each segment, by id in order */
  wiresBySection: ReadonlyMap<string, LyingWires>;
  /** what arrives at each end, by id in order */
  arrivals: ReadonlyMap<string, Arrivals>;
  /** stands for what lies where and in what surroundings: the same object as long as that is the same (keepRoute) */
  shape: object;
  /** by the readings alone, before the trial fit: what the wires were cut by; null where nothing is fitted */
  first: RoutedLoom | null;
}

/** The wires of a segment, one after the other: their places in the loom's list, which part of it each fills. */
export interface LyingWires {
  lengthMm: number;
  places: readonly number[];
  pieces: readonly WireRun[];
  /** the wire's id in a list of its own: an element as a section gives it, made once */
  elements: readonly string[][];
}

/** The wires of an end by cavity, in order, as places in the loom's list, and all of that in a line. */
export interface Arrivals {
  cavities: readonly { cavity: string; places: readonly number[] }[];
  shape: string;
}

/** First stages of a plan: tree, least-wire splices, places, ways. known: as it was led last; what no length has a say in is taken from there. */
export function routeLoom(job: Job, loomId: string, catalogue: Catalogue, standard: ShopStandard, known?: RoutedLoom): RoutedLoom {
  const loom = job.looms[loomId]!;
  const first = isFitted(loom) ? routeLoom(toUnfitted(job, loomId), loomId, catalogue, standard, known?.first ?? undefined) : null;
  // route: the tree seen from the datum
  const tree = createTree(loom, standard);
  // connect and splice: circuits → wires and splices at junctions, by least wire; what is cut stays as it was joined
  const unrouted = connect(loom, first?.tree ?? tree, standard);
  const halves = new Map<string, number>();
  const toHalfMm = (circuitId: string) => {
    let halfMm = halves.get(circuitId);
    if (halfMm === undefined) halves.set(circuitId, (halfMm = measureHalfBarrel(catalogue, standard, loom.circuits[circuitId]!)));
    return halfMm;
  };
  // place: splices off their junctions, wires along the tree
  const { splices, wires } = route({ loom, zones: job.zones, tree, standard, toHalfMm, kept: first?.splices ?? [] }, unrouted);
  const sizeOf = createSizes(job, loom, catalogue, standard);
  // that is the same for as long as ends, circuits and shop are
  const isKnown = known !== undefined && known.sizeOf === sizeOf && isSameWiring(known.wires, wires);
  const ranges = isKnown ? known.ranges : wires.map(sizeOf);
  const arrivals = isKnown ? known.arrivals : listArrivals(loom, wires);
  const least = chooseLeast(loom, wires, ranges);
  return { loomId, tree, splices, wires, ranges, sizeOf, least, wiresBySection: listLying(tree, wires), arrivals, shape: {}, first };
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
  const least = catalogue.wires[wireTable]!.find(({ size }) => size === standard.minimumSize[wireTable]);
  const mostMm2 = (least?.areaMm2 ?? Infinity) * standard.spliceMostWires * (standard.barrelKind === 'parallel' ? 2 : 1);
  const isThin = sizePin === null && !POWER_KINDS.includes(kind);
  const fitting = isThin ? barrels.filter(({ minAreaMm2 }) => minAreaMm2 <= mostMm2) : barrels;
  return Math.max(0, ...fitting.map(({ lengthMm }) => lengthMm)) / 2;
}

const POWER_KINDS: readonly Circuit['kind'][] = ['supply', 'power-ground', 'output'];

function listLying({ segments }: Tree, wires: readonly RoutedWire[]): ReadonlyMap<string, LyingWires> {
  const lying = new Map<string, LyingWires & { places: number[]; pieces: WireRun[]; elements: string[][] }>();
  for (const id of Object.keys(segments).sort(compareIds))
    lying.set(id, { lengthMm: segments[id]!.lengthMm, places: [], pieces: [], elements: [] });
  wires.forEach(({ id, pieces }, place) => {
    const element = [id];
    for (const piece of pieces) {
      const one = lying.get(piece.segmentId)!;
      one.places.push(place);
      one.pieces.push(piece);
      one.elements.push(element);
    }
  });
  return lying;
}

function listArrivals({ ends }: Loom, wires: readonly RoutedWire[]): ReadonlyMap<string, Arrivals> {
  const at = new Map<string, Map<string, number[]>>(
    Object.keys(ends)
      .sort(compareIds)
      .map((id) => [id, new Map()]),
  );
  wires.forEach(({ from, to }, place) => {
    for (const end of [from, to]) {
      if (end.kind === 'cavity') pushTo(at.get(end.endId)!, end.cavity, place);
    }
  });
  return new Map(
    [...at].map(([endId, cavities]) => {
      const sorted = [...cavities.keys()].sort(compareIds).map((cavity) => ({ cavity, places: cavities.get(cavity)! }));
      const shape = sorted.map(({ cavity, places }) => `${cavity}:${places.map((place) => wires[place]!.id).join(' ')}`).join(';');
      return [endId, { cavities: sorted, shape }];
    }),
  );
}

const isFitted = (loom: Loom) => Object.values(loom.segments).some(({ fittedMm }) => fittedMm !== null);

/** The job with one loom as it was measured, before its trial fit. */
export function toUnfitted(job: Job, loomId: string): Job {
  const loom = job.looms[loomId]!;
  const segments = Object.fromEntries(Object.entries(loom.segments).map(([id, segment]) => [id, { ...segment, fittedMm: null }]));
  return { ...job, looms: { ...job.looms, [loomId]: { ...loom, segments } } };
}
