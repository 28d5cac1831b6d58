import type { Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import type { Lane, Side, Strip } from './createStrips';

/** How much of a loom is drawn apart. */
export interface Detail {
  /** from lane to lane */
  pitch: number;
  /** a trunk, a branch is drawn no thicker; its lanes move together for that */
  thickest: { trunk: number; branch: number };
  /** branches on both sides of the trunk, their names between them and it: takes less height and less of the tape */
  both: boolean;
}

/** How a strip is drawn: all sizes in the unit of the drawing (px on screen, mm on paper) but the scale. */
export interface StripOptions {
  /** drawing units per mm of loom */
  scale: number;
  detail: Detail;
  /** least height of a strip, so that its label has room */
  row: number;
  left: number;
  top: number;
  /** size of the names */
  text: number;
  /** where branches hang that have their side already, by first segments; null: none */
  sides: ReadonlyMap<string, Side> | null;
  /** sides from which better ones are looked for where none are given */
  hint?: ReadonlyMap<string, Side> | null;
  /** what stands behind name and length of an end, by end */
  words?: ReadonlyMap<string, string>;
  /** zones that are named on the strip, with their words */
  zones?: ReadonlyMap<string, string>;
}

/** A strip at its place. */
export interface Row {
  strip: Strip;
  lanes: readonly Lane[];
  side: Side;
  top: number;
  bottom: number;
  pitch: number;
  /** how wide all that leaves at its breakout goes down */
  stem: number;
  /** middle of each lane */
  ys: number[];
  label: StripLabel | null;
  tags: readonly SpliceTag[];
}

/** The words of a strip's end; x from where they begin. */
export interface StripLabel {
  endId: string;
  name: string;
  x: number;
  width: number;
  /** beside the strip, not behind it */
  beside: boolean;
}

/** Splices that stand too close for a word each share one. */
export interface SpliceTag {
  spliceIds: string[];
  words: string;
  /** middle */
  x: number;
  width: number;
  clear: boolean;
}

/** A strip while it is laid out. */
export interface StripDrawing {
  loom: Loom;
  plan: LoomPlan;
  options: StripOptions;
  /** by strip */
  rows: Map<string, Row>;
  /** strip → the strip it leaves */
  parents: Map<string, string>;
  /** child strip and lane index → where it goes down */
  columns: Map<string, number>;
}

export interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

export const columnKey = (strip: Strip, index: number) => `${strip.id} ${index}`;
export const toX = ({ left, scale }: StripOptions, mm: number) => left + mm * scale;
/** Height of a line of words. */
export const toLine = ({ text }: StripOptions) => text * 1.05;
/** Lanes with little room are drawn without gaps. */
export const toWireWidth = (pitch: number) => (pitch < 2 ? pitch * 0.92 : pitch * 0.66);
/** Share of a line that words beside a strip take: nothing but their tails stands lower. */
export const HEAD = 0.9;
