import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import type { ClearSleeve, LoomPlan, PlannedTermination, PlannedWire } from '../plan';
import { CAUTIONS } from './cautions';
import { findFamily, toWireWords } from '../catalogue';
import { toColourWords } from '../model';
import type { Fits } from './planFits';
import type { Ask, Operation, Step, StepItem } from './step';

/** What the steps of a loom are made from. */
export interface StepContext {
  job: Job;
  loom: Loom;
  plan: LoomPlan;
  catalogue: Catalogue;
  standard: ShopStandard;
  wires: Map<string, PlannedWire>;
  endsBeyond: Record<string, string[]>;
  /** by end */
  terminations: ReadonlyMap<string, readonly PlannedTermination[]>;
  plugs: ReadonlyMap<string, LoomPlan['plugs']>;
  /** sleeves that an end, once closed, would keep off */
  sleevesBefore: ReadonlyMap<string, readonly Need[]>;
  /**
   * what is slid over breakouts and ends, before the ends that would keep it off; afterEnds: of a run, the ends for which something stands
   * back on it, so that it is covered when they are made
   */
  dressNeeds: {
    ofEnds: ReadonlyMap<string, readonly Need[]>;
    ofRuns: ReadonlyMap<string, readonly Need[]>;
    loose: readonly Need[];
    afterEnds: ReadonlyMap<string, readonly string[]>;
  };
  anchorId: string | null;
  /** what goes over a label where it is wet, by kind, what it names, and text: "zone s1 hot side" */
  clears: ReadonlyMap<string, ClearSleeve>;
  /** what waits for all of the trial fit, and what for its first part only */
  fits: Fits;
}

export type Need = Step['needs'][number];

/** A step with nothing special about it. */
export function createStep(id: string, operation: Operation, title: string, rest: Partial<Step>): Step {
  return {
    id,
    operation,
    title,
    endId: null,
    segmentId: null,
    spliceId: null,
    items: [],
    tool: '',
    parts: [],
    caution: CAUTIONS[operation],
    needs: [],
    ...rest,
  };
}

/** One thing to tick. What holds it is found when all steps are known. */
export function createItem(id: string, words: string, wires: readonly PlannedWire[], cavity: string | null, asks: Ask[]): StepItem {
  return {
    id,
    words,
    asks,
    wireIds: wires.map((wire) => wire.id),
    cavity,
    reads: [],
    heldBecause: null,
  };
}

/** What the asks for the wires themselves are called, followed by their place where there are several. */
export const MARKER = 'marker';
export const WIRE = 'wire';

/** The wires themselves, whatever their length: number, size, insulation, colour. */
export const askWires = (wires: readonly PlannedWire[]): Ask[] =>
  wires.flatMap(({ number, conductor, colour }, at) => {
    const place = wires.length === 1 ? '' : ` ${at + 1}`;
    return [
      { what: `${MARKER}${place}`, value: number },
      { what: `${WIRE}${place}`, value: `${toWireWords(conductor)} ${toColourWords(colour)}` },
    ];
  });

/** What goes on a wire beside its marker, in words that go on after it; "": nothing. */
export const toBandWords = ({ colour: { bands } }: Pick<PlannedWire, 'colour'>, { bandMm, bandGapMm }: ShopStandard): string =>
  bands.length === 0
    ? ''
    : `, then ${bands.length === 1 ? 'a band' : 'bands'} ${bands.join(', ')} from the end on, ${bandMm} mm wide${bands.length > 1 ? `, ${bandGapMm} apart` : ''}`;

/** What goes over a label, in words that go on after it; "": nothing. */
export const toClearWords = (clear: ClearSleeve | undefined): string =>
  clear === undefined ? '' : `, then ${clear.itemName}, ${clear.cutMm} mm, over it`;

/** The same as what is asked for with it. */
export const askClear = (clear: ClearSleeve | undefined): Ask[] =>
  clear === undefined ? [] : [{ what: 'over the label', value: `${clear.itemName}, ${clear.cutMm} mm` }];

/** Is this end pinned in the vehicle, when its wires are through the holes on their way? */
export const isPinnedAfter = ({ loom }: Pick<StepContext, 'loom'>, endId: string): boolean => {
  const { kind, pinAt } = loom.ends[endId]!;
  return kind !== 'tail' && pinAt === 'vehicle';
};

/** The step with which nothing of an end is loose any more that a sleeve could stand on. */
export function toMadeId(context: Pick<StepContext, 'loom' | 'job' | 'catalogue'>, endId: string): string {
  const { kind, familyId } = context.loom.ends[endId]!;
  const isPulled = findFamily(context.job, context.catalogue, familyId)?.seating === 'pull-to-seat';
  const isSeated = kind === 'connector' && (isPulled || !isPinnedAfter(context, endId));
  return isSeated ? `seat.${endId}` : `crimp.${endId}`;
}

/** Is what is cut now trimmed after the trial fit, so that a mark made at its rough end would be cut off? */
export const isTrimmed = ({ roughMm, cutMm }: Pick<PlannedWire, 'roughMm' | 'cutMm'>) => roughMm > cutMm;
