import type { Job, Printer } from '../../model';
import type { LoomPlan, TreeNode, TreeSegment } from '../../plan';
import { toDigest } from '../toDigest';
import { countTiles, type TileMap } from './listTiles';
import { toSide } from './toSide';

/** What leaves the trunk at one place of it: an end at its length, or a fork with what lies beyond. */
export interface PlankBranch {
  /** "crank sensor 240", "cam cover 120: coil 1 80, coil 2 95" */
  words: string;
  side: 'left' | 'right' | null;
}

export interface PlankStation {
  nodeId: string;
  name: string;
  kind: string;
  /** along the trunk from the datum, mm */
  atMm: number;
  branches: PlankBranch[];
}

/** The trunk of a loom as one line with a station where something leaves: what a plank is marked by. */
export interface PlannedPlank {
  loomId: string;
  lengthMm: number;
  stations: PlankStation[];
  /** thickness of the trunk over its covering from each station on, mm */
  runs: { fromMm: number; toMm: number; odMm: number; isFitted: boolean }[];
}

/** The loom along one line, from the datum on, by the way that its trunk goes. */
export function planPlank(job: Job, { loomId, tree, coverings }: LoomPlan): PlannedPlank {
  const loom = job.looms[loomId]!;
  const stations: PlankStation[] = [];
  const runs: PlannedPlank['runs'] = [];
  const ods = new Map(coverings.map(({ segmentId, odOutsideMm }) => [segmentId, odOutsideMm]));
  const toWords = (segmentId: string): string => {
    const { farNodeId, lengthMm } = tree.segments[segmentId]!;
    const beyond = tree.nodes[farNodeId]!.childSegmentIds.map(toWords);
    return `${loom.nodes[farNodeId]!.name} ${Math.round(lengthMm)}${beyond.length > 0 ? `: ${beyond.join(', ')}` : ''}`;
  };
  let nodeId = tree.datumId;
  let atMm = 0;
  for (;;) {
    const { childSegmentIds }: TreeNode = tree.nodes[nodeId]!;
    const on = nodeId === tree.datumId ? childSegmentIds[0] : childSegmentIds.find((id) => tree.segments[id]!.onward);
    stations.push({
      nodeId,
      name: loom.nodes[nodeId]!.name,
      kind: loom.nodes[nodeId]!.kind,
      atMm,
      branches: childSegmentIds.filter((id) => id !== on).map((id) => ({ words: toWords(id), side: toSide(loom.segments[id]!.leavesDeg) })),
    });
    if (on === undefined) break;
    const { farNodeId, lengthMm }: TreeSegment = tree.segments[on]!;
    runs.push({ fromMm: atMm, toMm: atMm + lengthMm, odMm: ods.get(on) ?? 0, isFitted: loom.segments[on]!.status === 'fitted' });
    nodeId = farNodeId;
    atMm += lengthMm;
  }
  return { loomId, lengthMm: atMm, stations, runs };
}

/** Pages of the print of a plank, one after the other; each with the fingerprint of all that it is marked by. */
export function listPlankTiles(plank: PlannedPlank, size: { widthMm: number; heightMm: number }, printer: Printer, scale: number): TileMap {
  const { columns, rows } = countTiles({ widthMm: size.widthMm * scale, heightMm: size.heightMm * scale }, printer);
  const fingerprint = toDigest(JSON.stringify([scale.toFixed(4), plank]));
  const [stepX, stepY] = [printer.usableWidthMm - printer.overlapMm, printer.usableHeightMm - printer.overlapMm];
  return {
    columns,
    rows,
    tiles: Array.from({ length: columns * rows }, (_, index) => ({
      number: index + 1,
      column: index % columns,
      row: Math.floor(index / columns),
      x: ((index % columns) * stepX) / scale,
      y: (Math.floor(index / columns) * stepY) / scale,
      widthMm: printer.usableWidthMm / scale,
      heightMm: printer.usableHeightMm / scale,
      fingerprint,
    })),
  };
}
