import type { CoveringKind, LoomNode } from '../../model';
import type { StripTrace } from './listTraces';
import type { Side } from './createStrips';
import type { Box } from './stripDrawing';

/** Everything to draw a loom as a strip, in drawing units; x by distance from the datum. */
export interface StripLayout {
  width: number;
  height: number;
  sides: ReadonlyMap<string, Side>;
  /** the wires as lines, made when they are first drawn: most of the work, and nothing else waits for it */
  listTraces: () => readonly StripTrace[];
  ends: StripEnd[];
  nodes: {
    nodeId: string;
    kind: LoomNode['kind'];
    name: string;
    holeMm: number | null;
    /** along the tape from the datum */
    atMm: number;
    x: number;
    top: number;
    bottom: number;
    segmentId: string | null;
  }[];
  runs: StripRun[];
  tags: { spliceIds: string[]; words: string; box: Box; clear: boolean }[];
  zones: { zoneId: string; words: string; box: Box }[];
  splices: { spliceId: string; x: number; top: number; bottom: number; y: number; clear: boolean }[];
}

export interface StripEnd {
  endId: string;
  nodeId: string;
  /** null: at the datum */
  segmentId: string | null;
  x: number;
  top: number;
  bottom: number;
  name: string;
  legMm: number | null;
  /** where its words stand; at the datum they are no part of the strip */
  words: Box | null;
}

export interface StripRun {
  segmentId: string;
  x: number;
  width: number;
  top: number;
  bottom: number;
  /** of its trunk; names stand on its near side */
  side: Side;
  /** what its wires take of that height */
  lanes: { top: number; bottom: number };
  zoneId: string | null;
  covering: CoveringKind;
  /** wires in it */
  count: number;
}
