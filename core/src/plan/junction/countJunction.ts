import type { Circuit, Loom } from '../../model';
import { compareIds } from '../../units';
import { listNodesBeyond } from '../route/findLeg';
import type { Tree } from '../types';

/** What crosses a connector at which tails are gathered. */
export interface JunctionCount {
  /** contacts if every wire of a tail came through by itself */
  unshared: number;
  signals: number;
  /** one a rail */
  feeds: number;
  /** one a ground or screen */
  references: number;
  /** contacts with feeds and references shared: all three */
  shared: number;
  /** what stays empty for what is added later */
  spares: number;
  /** circuits that cross, in the order of their ids */
  circuitIds: string[];
}

const FEEDS: readonly Circuit['kind'][] = ['supply', 'sensor-supply'];
const REFERENCES: readonly Circuit['kind'][] = ['sensor-ground', 'power-ground', 'screen'];

/**
 * Contacts of a connector that parts these ends from the rest of their loom (craft I1). A circuit that has pins on both sides crosses once,
 * however many tails it serves: one feed for a rail, one reference for a group of noise, as circuits keep those apart. spareShare: of
 * the shop.
 */
export function countJunction({ circuits }: Pick<Loom, 'circuits'>, endIds: ReadonlySet<string>, spareShare: number): JunctionCount {
  const crossing = Object.keys(circuits)
    .sort(compareIds)
    .filter((id) => {
      const beyond = circuits[id]!.terminations.filter(({ endId }) => endIds.has(endId)).length;
      return beyond > 0 && beyond < circuits[id]!.terminations.length;
    });
  const count = (isOf: (kind: Circuit['kind']) => boolean) => crossing.filter((id) => isOf(circuits[id]!.kind)).length;
  const feeds = count((kind) => FEEDS.includes(kind));
  const references = count((kind) => REFERENCES.includes(kind));
  const signals = count((kind) => !FEEDS.includes(kind) && !REFERENCES.includes(kind));
  const shared = signals + feeds + references;
  return {
    unshared: crossing.reduce((sum, id) => sum + circuits[id]!.terminations.filter(({ endId }) => endIds.has(endId)).length, 0),
    ...{ signals, feeds, references, shared, circuitIds: crossing },
    spares: shared === 0 ? 0 : Math.max(1, Math.ceil(spareShare * shared - 1e-9)),
  };
}

/** Ends beyond some runs of a loom. */
export function listEndsBeyond({ ends }: Pick<Loom, 'ends'>, tree: Tree, segmentIds: readonly string[]): Set<string> {
  const nodes = listNodesBeyond(tree, segmentIds);
  return new Set(Object.keys(ends).filter((id) => nodes.has(ends[id]!.nodeId)));
}

/** What a connector is worth where something is taken off and put back. */
export interface JunctionWorth {
  /** saved in a year */
  minutes: number;
  money: number;
  pays: boolean;
}

/** Removals a year × (couplings less than without it) × minutes each, at the hourly rate, against the price of both halves (craft I1). */
export function measureJunctionWorth(inputs: {
  removalsPerYear: number;
  couplingsLess: number;
  minutesEach: number;
  labourPerHour: number;
  price: number;
}): JunctionWorth {
  const minutes = inputs.removalsPerYear * Math.max(0, inputs.couplingsLess) * inputs.minutesEach;
  const money = (minutes / 60) * inputs.labourPerHour;
  return { minutes, money, pays: money >= inputs.price };
}
