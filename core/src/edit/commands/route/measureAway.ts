import type { Loom } from '../../../model';

const known = new WeakMap<Loom['segments'], Map<string, Map<string, number>>>();

/** Along the runs from a node to every other of a loom, mm as entered. Remembered for runs that do not change. */
export function measureAway({ segments }: Pick<Loom, 'segments'>, nodeId: string): ReadonlyMap<string, number> {
  const ofLoom = known.get(segments) ?? new Map<string, Map<string, number>>();
  known.set(segments, ofLoom);
  const stored = ofLoom.get(nodeId);
  if (stored) return stored;
  const far = new Map([[nodeId, 0]]);
  for (const [at, mm] of far)
    for (const { fromNodeId, toNodeId, lengthMm } of Object.values(segments)) {
      const there = fromNodeId === at ? toNodeId : toNodeId === at ? fromNodeId : null;
      if (there !== null && !far.has(there)) far.set(there, mm + lengthMm);
    }
  ofLoom.set(nodeId, far);
  return far;
}
