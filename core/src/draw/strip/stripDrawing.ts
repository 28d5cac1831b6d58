import type { Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import type { Lane, Strip } from './createStrips';

/** How a strip is drawn: all sizes in the unit of the drawing (px on screen, mm on paper) but the scale. */
export interface StripOptions {
  /** drawing units per mm of loom */
  scale: number;
  pitch: number;
  /** least height of a strip, so that its label has room */
  row: number;
  left: number;
  top: number;
  folded: ReadonlySet<string>;
}

export interface Row {
  strip: Strip;
  top: number;
  /** middle of each lane */
  ys: number[];
  bottom: number;
}

/** A strip while it is laid out. */
export interface StripDrawing {
  loom: Loom;
  plan: LoomPlan;
  options: StripOptions;
  rows: Map<string, Row>;
  /** strip → the strip it leaves */
  parents: Map<string, string>;
  /** child strip and lane index → where it goes down */
  columns: Map<string, number>;
}

/** How wide a lane is drawn: a folded branch is as thick as it has wires. */
export const laneWidth = (lane: Lane, pitch: number) =>
  lane.foldedTo === null ? pitch * 0.66 : Math.min(pitch * 5, pitch * (1 + Math.sqrt(lane.wireIds.length) * 0.5));
export const columnKey = (strip: Strip, index: number) => `${strip.id} ${index}`;

export const toX = ({ left, scale }: StripOptions, mm: number) => left + mm * scale;
