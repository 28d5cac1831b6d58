import { useMemo, useState } from 'react';
import { createTree, findStandard, listLine, type Job, type Loom, type Tree } from 'wattograph-core';
import { useShop } from '../../client/shopContext';

/** The line that is read: its zero, and its first run once it has begun. */
export interface Line {
  zeroNodeId: string;
  viaSegmentId: string | null;
}

export interface LineView {
  tree: Tree;
  line: Line;
  marks: { nodeId: string; segmentId: string; atMm: number; name: string; kind: Loom['nodes'][string]['kind'] }[];
  /** does it end at an end, so that nothing more can be read along it */
  isClosed: boolean;
}

/** The line being read and what is on it. A line whose zero or first run is gone falls back to the trunk. */
export function useLine(job: Job, loomId: string): LineView & { setLine: (line: Line) => void; trunk: Line } {
  const shop = useShop();
  const [chosen, setLine] = useState<Line | null>(null);
  const loom = job.looms[loomId]!;
  const tree = useMemo(() => createTree(loom, findStandard(job, shop)), [loom, job, shop]);
  const trunk = { zeroNodeId: tree.datumId, viaSegmentId: tree.nodes[tree.datumId]!.childSegmentIds[0] ?? null };
  const isThere = chosen && tree.nodes[chosen.zeroNodeId] && (chosen.viaSegmentId === null || tree.segments[chosen.viaSegmentId]);
  const line = isThere ? chosen : trunk;
  const marks = useMemo(
    () =>
      listLine(loom, tree, line.zeroNodeId, line.viaSegmentId).map((mark) => ({
        ...mark,
        name: loom.nodes[mark.nodeId]!.name,
        kind: loom.nodes[mark.nodeId]!.kind,
      })),
    [loom, tree, line.zeroNodeId, line.viaSegmentId],
  );
  return { tree, line, marks, isClosed: marks.at(-1)?.kind === 'end', setLine, trunk };
}
