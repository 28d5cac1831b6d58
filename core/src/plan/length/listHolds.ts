import { isBlocking, type Job, type Loom } from '../../model';
import { compareIds, pushTo } from '../../units';
import type { Hold, RoutedWire } from '../types';

const NONE: Hold[] = [];

/** Looks up what holds a wire of a loom: an open item on the loom, a run, an end or a circuit of it, a guessed run, a guessed pin. */
export function listHolds(job: Job, loomId: string, loom: Loom): (wire: RoutedWire) => Hold[] {
  const items = new Map<string, Hold[]>();
  for (const id of Object.keys(job.openItems).sort(compareIds)) {
    const item = job.openItems[id]!;
    if (!isBlocking(item)) continue;
    for (const block of item.blocks) {
      if (block.loomId !== loomId) continue;
      const key = block.kind === 'loom' ? 'loom' : `${block.kind} ${block.id}`;
      pushTo(items, key, { kind: 'item', id, words: `open: ${item.question}` });
    }
  }
  const whole = items.get('loom') ?? NONE;
  // most wires are held by nothing: they share one empty list
  return (wire) => {
    let holds: Hold[] | null = null;
    const add = (more: readonly Hold[]) => {
      for (const hold of more) {
        holds ??= [];
        if (!holds.some((one) => one.kind === hold.kind && one.id === hold.id)) holds.push(hold);
      }
    };
    const addItem = (key: string) => {
      if (items.size > 0) add(items.get(key) ?? NONE);
    };
    for (const { segmentId } of wire.pieces) {
      const segment = loom.segments[segmentId]!;
      if (segment.status === 'guessed' && segment.fittedMm === null)
        add([{ kind: 'segment', id: segmentId, words: `length to ${loom.nodes[segment.toNodeId]!.name} only guessed` }]);
      addItem(`segment ${segmentId}`);
    }
    for (const end of [wire.from, wire.to]) {
      if (end.kind !== 'cavity') continue;
      if (loom.ends[end.endId]!.pins[end.cavity]?.evidence === 'guessed')
        add([{ kind: 'pin', id: `${end.endId} ${end.cavity}`, words: `${loom.ends[end.endId]!.name} pin ${end.cavity} only guessed` }]);
      addItem(`end ${end.endId}`);
    }
    addItem(`circuit ${wire.circuitId}`);
    add(whole);
    return holds ?? NONE;
  };
}
