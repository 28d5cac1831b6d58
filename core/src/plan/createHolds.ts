import { isBlocking, type Job, type Loom } from '../model';
import { compareIds } from '../units';
import type { Hold, RunWire } from './types';

/** Looks up what holds a wire of a loom: an open item on the loom, a run, an end or a circuit of it, a guessed run, a guessed pin. */
export function createHolds(job: Job, loomId: string, loom: Loom): (wire: RunWire) => Hold[] {
  const items = new Map<string, Hold[]>();
  for (const id of Object.keys(job.openItems).sort(compareIds)) {
    const item = job.openItems[id]!;
    if (!isBlocking(item)) continue;
    for (const block of item.blocks) {
      if (block.loomId !== loomId) continue;
      const key = block.kind === 'loom' ? 'loom' : `${block.kind} ${block.id}`;
      items.set(key, [...(items.get(key) ?? []), { kind: 'item', id, words: `open: ${item.question}` }]);
    }
  }
  const whole = items.get('loom') ?? [];
  return (wire) => {
    const holds = new Map<string, Hold>();
    const add = (more: readonly Hold[] | undefined) => more?.forEach((hold) => holds.set(`${hold.kind} ${hold.id}`, hold));
    for (const { segmentId } of wire.pieces) {
      const segment = loom.segments[segmentId]!;
      if (segment.status === 'guessed' && segment.fittedMm === null)
        add([{ kind: 'segment', id: segmentId, words: `length to ${loom.nodes[segment.toNodeId]!.name} only guessed` }]);
      add(items.get(`segment ${segmentId}`));
    }
    for (const end of [wire.from, wire.to]) {
      if (end.kind !== 'cavity') continue;
      if (loom.ends[end.endId]!.pins[end.cavity]?.evidence === 'guessed')
        add([{ kind: 'pin', id: `${end.endId} ${end.cavity}`, words: `${loom.ends[end.endId]!.name} pin ${end.cavity} only guessed` }]);
      add(items.get(`end ${end.endId}`));
    }
    add(items.get(`circuit ${wire.circuitId}`));
    add(whole);
    return [...holds.values()];
  };
}
