import type { Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import { pushTo } from '../../units';
import { measureText } from '../measureText';
import { toLanes, toOutwardLanes, type Lane, type Side, type Strip } from './createStrips';
import { listTags } from './listTags';
import { HEAD, toLine, toX, type Row, type SpliceTag, type StripLabel, type StripOptions } from './stripDrawing';

export interface Packed {
  rows: Row[];
  /** of the branches of trunks, by their first segments */
  sides: Map<string, Side>;
  right: number;
  bottom: number;
}

/** A strip before it has its side: distances from its trunk outwards. */
interface Placed {
  strip: Strip;
  lanes: readonly Lane[];
  label: StripLabel | null;
  tags: readonly SpliceTag[];
  pitch: number;
  stem: number;
  near: number;
  far: number;
  left: number;
  right: number;
}

/** What packing looks up. */
interface Packing {
  plan: LoomPlan;
  options: StripOptions;
  ends: ReadonlyMap<string, { id: string; name: string }>;
  splices: ReadonlyMap<string, LoomPlan['splices']>;
}

/**
 * Give every strip its row. Branches are placed from the far end of their trunk back to the datum, each as near to the trunk as it goes
 * without meeting one that is placed, names included. So a branch goes down past nothing, and branches far enough apart share a row.
 */
export function packStrips(loom: Loom, plan: LoomPlan, strips: readonly Strip[], options: StripOptions): Packed {
  const splices = new Map<string, LoomPlan['splices'][number][]>();
  for (const splice of plan.splices) pushTo(splices, splice.place.segmentId, splice);
  const packing: Packing = {
    plan,
    options,
    ends: new Map(Object.entries(loom.ends).map(([id, { nodeId, name }]) => [nodeId, { id, name }])),
    splices,
  };
  const packed: Packed = { rows: [], sides: new Map(), right: options.left, bottom: options.top };
  for (const strip of strips) packTrunk(strip, packing, packed);
  return packed;
}

function packTrunk(trunk: Strip, packing: Packing, packed: Packed): void {
  const { options } = packing;
  const branches = packChildren(trunk, packing);
  const { sides, out } = arrange(branches, options);
  const placed: Record<Side, Placed[]> = { above: [], below: [] };
  branches.forEach((branch, index) => {
    const side = sides.get(branch[0]!.strip.id)!;
    for (const one of branch) placed[side].push({ ...one, near: one.near + out[index]!, far: one.far + out[index]! });
  });
  for (const [id, side] of sides) packed.sides.set(id, side);
  const own = place(
    trunk,
    toLanes(trunk, (id) => sides.get(id)!),
    0,
    packing,
  );
  const top = packed.bottom + Math.max(0, ...placed.above.map(({ far }) => far));
  const bottom = top + own.far;
  packed.rows.push(toRow(own, 'below', top, options));
  for (const one of placed.above) packed.rows.push(toRow(one, 'above', top, options));
  for (const one of placed.below) packed.rows.push(toRow(one, 'below', bottom, options));
  packed.bottom = bottom + Math.max(0, ...placed.below.map(({ far }) => far));
  packed.right = Math.max(packed.right, own.right, ...[...placed.above, ...placed.below].map(({ right }) => right));
}

type Branch = readonly Placed[];

interface Arrangement {
  sides: Map<string, Side>;
  /** how far each branch goes out beyond what it has by itself */
  out: number[];
  /** height, and then how far all lies from the trunk: the less the better */
  cost: number;
}

/** Rounds in which each branch is tried on its other side. */
const ROUNDS = 3;

/** Branches on their sides: as given, or as low as is found by moving one after another to its other side. */
function arrange(branches: readonly Branch[], { sides, hint, detail }: StripOptions): Arrangement {
  const begin = sides ?? hint;
  const given = new Map(branches.map(([first]) => [first!.strip.id, begin?.get(first!.strip.id)]));
  let best = arrangeOn(branches, given, detail.both);
  if (!detail.both || sides !== null) return best;
  for (let round = 0; round < ROUNDS; round += 1) {
    const before = best.cost;
    for (const [first] of branches) {
      const { id } = first!.strip;
      const other = arrangeOn(branches, new Map(best.sides).set(id, best.sides.get(id) === 'above' ? 'below' : 'above'), true);
      if (other.cost < best.cost - 1e-6) best = other;
    }
    if (best.cost === before) break;
  }
  return best;
}

/** A branch without a side goes below, or where both sides may be used to that with room nearer to the trunk. */
function arrangeOn(branches: readonly Branch[], given: ReadonlyMap<string, Side | undefined>, both: boolean): Arrangement {
  const taken: Record<Side, Taken> = { above: new Taken(), below: new Taken() };
  const sides = new Map<string, Side>();
  let away = 0;
  const out = branches.map((branch) => {
    const { id } = branch[0]!.strip;
    const below = taken.below.findRoom(branch, 0);
    const side = given.get(id) ?? (both && taken.above.findRoom(branch, 0) < below ? 'above' : 'below');
    const by = side === 'below' ? below : taken.above.findRoom(branch, 0);
    away += by;
    sides.set(id, side);
    taken[side].add(branch, by);
    return by;
  });
  return { sides, out, cost: taken.above.height + taken.below.height + away * 1e-4 };
}

/** What is placed on a side, in plain lists: a search over sides asks for it thousands of times. */
class Taken {
  height = 0;
  private readonly left: number[] = [];
  private readonly right: number[] = [];
  private readonly far: number[] = [];

  add(branch: Branch, by: number): void {
    for (const one of branch) {
      this.left.push(one.left);
      this.right.push(one.right);
      this.far.push(one.far + by);
      this.height = Math.max(this.height, one.far + by);
    }
  }

  /** How far out a branch goes at the least, so that it lies beyond every placed strip that it has a place along the tape with. */
  findRoom(branch: Branch, from: number): number {
    const { left, right, far } = this;
    let by = from;
    for (const one of branch)
      for (let at = 0; at < far.length; at += 1)
        if (one.left < right[at]! && left[at]! < one.right && far[at]! - one.near > by) by = far[at]! - one.near;
    return by;
  }
}

function packChildren({ children }: Strip, packing: Packing): Branch[] {
  const { options } = packing;
  const lanes = children.map(toOutwardLanes);
  // those of one breakout go down side by side, and closer where the shortest of them would end before
  const stems = new Map<string, number>();
  const shortest = new Map<string, number>();
  children.forEach(({ startNodeId, startMm, endMm }, index) => {
    const count = lanes[index]!.filter(({ fromMm }) => fromMm <= startMm + 1e-6).length;
    stems.set(startNodeId, (stems.get(startNodeId) ?? 0) + count * toPitch(lanes[index]!, options.detail.thickest.branch, options));
    shortest.set(startNodeId, Math.min(shortest.get(startNodeId) ?? Infinity, (endMm - startMm) * options.scale));
  });
  for (const [id, width] of stems) stems.set(id, Math.min(width, shortest.get(id)! * 1.6, options.text * WIDEST_STEM));
  return children.map((child, index) => packBranch(child, lanes[index]!, stems.get(child.startNodeId)!, packing));
}

const toPitch = (lanes: readonly Lane[], thickest: number, { detail }: StripOptions) =>
  Math.min(detail.pitch, thickest / (countLevels(lanes, 'above') + countLevels(lanes, 'below')));

/** All that leaves at one breakout goes down in no more than this, in sizes of the names. */
const WIDEST_STEM = 6;

/** A branch with all that leaves it, by itself. */
function packBranch(strip: Strip, lanes: readonly Lane[], stem: number, packing: Packing): Branch {
  const own = place(strip, lanes, stem, packing);
  const below: Placed[] = [];
  const taken = new Taken();
  for (const branch of packChildren(strip, packing)) {
    const by = taken.findRoom(branch, own.far);
    taken.add(branch, by);
    below.push(...branch.map((one) => ({ ...one, near: one.near + by, far: one.far + by })));
  }
  return [own, ...below];
}

/** stem: how wide all that leaves at its breakout goes down. */
function place(strip: Strip, lanes: readonly Lane[], stem: number, { plan, options, ends, splices }: Packing): Placed {
  const { row, text, detail } = options;
  const isTrunk = strip.startNodeId === plan.tree.datumId;
  const beside = detail.both && !isTrunk;
  const levels = countLevels(lanes, 'above') + countLevels(lanes, 'below');
  const pitch = toPitch(lanes, detail.thickest[isTrunk ? 'trunk' : 'branch'], options);
  const tags = listTags(
    strip,
    strip.segmentIds.flatMap((id) => splices.get(id) ?? []),
    options,
  );
  const [startX, endX] = [toX(options, strip.startMm), toX(options, strip.endMm)];
  const end = ends.get(plan.tree.segments[strip.segmentIds.at(-1)!]!.farNodeId);
  const label = end ? toLabel(end, strip, options, beside) : null;
  const tagged = Math.max(endX, ...tags.map((tag) => tag.x + tag.width / 2)) + text * 0.9;
  if (label) label.x = beside ? startX + stem / 2 + text * 0.25 : tagged;
  const used = levels * pitch;
  const thick = tags.length ? Math.max(used + pitch, toLine(options)) : used + pitch;
  return {
    strip,
    lanes,
    label,
    tags,
    pitch,
    stem,
    near: 0,
    far: label?.beside ? toLine(options) * HEAD + thick : Math.max(row, thick),
    left: startX - stem / 2 - text * 0.2,
    right: Math.max(tagged - text * 0.3, label ? label.x + label.width : 0) + text * 0.3,
  };
}

/** Name and length of a strip's end, and what else is said of it. */
function toLabel(
  { id, name }: { id: string; name: string },
  { startMm, endMm }: Strip,
  { text, words }: StripOptions,
  beside: boolean,
): StripLabel {
  const more = words?.get(id);
  const width =
    measureText(`${name} +${Math.round(endMm - startMm)}`, text, 'narrow') +
    (more === undefined ? 0 : measureText(` ${more}`, text, 'narrow-bold'));
  return { endId: id, name, x: 0, width, beside };
}

const countLevels = (lanes: readonly Lane[], side: Side) => Math.max(0, ...lanes.map((lane) => (lane.side === side ? lane.level + 1 : 0)));

/** from: where the distances count from, its trunk's edge on that side. */
function toRow({ near, far, ...placed }: Placed, side: Side, from: number, options: StripOptions): Row {
  const { strip, lanes, label, tags, pitch, stem } = placed;
  const [top, bottom] = side === 'below' ? [from + near, from + far] : [from - far, from - near];
  const above = countLevels(lanes, 'above');
  const used = (above + countLevels(lanes, 'below')) * pitch;
  const head = label?.beside ? toLine(options) * HEAD : 0;
  const pad = head + (far - near - head - used) / 2;
  const ys = lanes.map((lane) => {
    const level = lane.side === 'above' ? above - 1 - lane.level : above + lane.level;
    const out = pad + (level + 0.5) * pitch;
    return side === 'below' ? top + out : bottom - out;
  });
  return { strip, lanes, side, top, bottom, pitch, stem, ys, label, tags };
}
