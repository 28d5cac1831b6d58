import type { LoomNode } from '../../../model';
import type { Tree } from '../../../plan';
import { createLoomCommand, type Command } from '../command';
import { joinSegments } from './joinSegments';
import { moveBranch } from './moveBranch';
import { moveBreakout } from './moveBreakout';
import { moveDatum } from './moveDatum';
import { splitSegment } from './splitSegment';

/** A node of a loom in its tree, with what it is called. */
export interface NodePlace {
  loomId: string;
  nodeId: string;
  name: string;
  tree: Tree;
}

/** The largest bore that a hole is given, mm */
const MOST_HOLE_MM = 500;

export const setHole = ({ loomId, nodeId, name }: Omit<NodePlace, 'tree'>, holeMm: number | null): Command =>
  createLoomCommand(`bore of ${name}`, loomId, ({ nodes }) => {
    nodes[nodeId]!.holeMm = holeMm === null ? null : Math.min(MOST_HOLE_MM, holeMm);
  });

/** Which part of the loom is led through a hole; null: computed. */
export const setFeed = ({ loomId, nodeId, name }: Omit<NodePlace, 'tree'>, feed: LoomNode['feed']): Command =>
  createLoomCommand(`what is led through ${name}`, loomId, ({ nodes }) => {
    nodes[nodeId]!.feed = feed;
  });

/** The hole is to be made, with the room that there is; null: it is there. */
export const setDrill = ({ loomId, nodeId, name }: Omit<NodePlace, 'tree'>, drill: LoomNode['drill']): Command =>
  createLoomCommand(drill === null ? `${name} is there` : `${name} is to be made`, loomId, ({ nodes }) => {
    nodes[nodeId]!.drill = drill;
  });

/** The hole is one of another loom; null: its own. */
export const setBeside = ({ loomId, nodeId, name }: Omit<NodePlace, 'tree'>, beside: LoomNode['beside']): Command =>
  createLoomCommand(beside === null ? `${name} is a hole of its own` : `${name} is the hole of another loom`, loomId, ({ nodes }) => {
    nodes[nodeId]!.beside = beside;
  });

/** A breakout so far along its line; the runs beside it take up the difference. */
export const moveNode = ({ loomId, nodeId, name, tree }: NodePlace, byMm: number): Command =>
  createLoomCommand(`move ${name} by ${Math.round(byMm)} mm`, loomId, (loom) => void moveBreakout(loom, tree, nodeId, byMm));

/** @throws RangeError where more than two runs meet at it */
export const takeNodeOut = ({ loomId, nodeId, name, tree }: NodePlace): Command =>
  createLoomCommand(`take out ${name}`, loomId, (loom) => joinSegments(loom, tree, nodeId));

/** A branch leaves at another node of its line. */
export const leaveAt = (node: NodePlace, segmentId: string, branch: string): Command =>
  createLoomCommand(`${branch} leaves at ${node.name}`, node.loomId, (loom) => moveBranch(loom, node.tree, segmentId, node.nodeId));

/** @throws RangeError where the place is not inside the segment */
export const addNode = (
  { loomId, tree }: { loomId: string; tree: Tree },
  at: { segmentId: string; offsetMm: number },
  node: { kind: 'breakout' | 'pass'; name: string; holeMm: number | null },
): Command =>
  createLoomCommand(
    `add ${node.kind === 'pass' ? 'hole' : 'breakout'} ${node.name}`,
    loomId,
    (loom) => void splitSegment(loom, tree, at, node),
  );

/** @throws RangeError where a run is too short for it */
export const moveDatumBy = ({ loomId, tree }: { loomId: string; tree: Tree }, byMm: number): Command =>
  createLoomCommand(`move the datum by ${byMm} mm`, loomId, (loom) => void moveDatum(loom, tree, byMm));

/** by null: the clamp is off. */
export const clampDatum = (loomId: string, by: string | null): Command =>
  createLoomCommand(by === null ? 'take the datum clamp off' : 'clamp the datum', loomId, (loom) => {
    loom.clampedBy = by;
  });
