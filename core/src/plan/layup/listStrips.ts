import type { Loom } from '../../model';
import type { PlannedBundle, PlannedSplice, SizedWire, Tree } from '../types';
import type { LayupMark, LayupStrip, Thread, ThreadEnd } from './layupTypes';

/** What strips are made of. */
export interface StripContext {
  loom: Loom;
  tree: Tree;
  wires: readonly SizedWire[];
  bundles: readonly PlannedBundle[];
  splices: readonly PlannedSplice[];
  /** is this run laid in layers? */
  isLaid: (segmentId: string) => boolean;
}

/** A section of a bundle in a strip, between two of its marks. */
interface Stretched {
  segmentId: string;
  fromMark: number;
  elements: readonly (readonly string[])[];
  diametersMm: readonly number[];
}

/** What lies in a strip from a mark on, before splices are looked at. */
interface Run {
  key: string;
  wireIds: Set<string>;
  odMm: number;
  fromMark: number;
  toMark: number;
}

/**
 * The lines of runs of a loom that are laid up in one go: from the datum, and from each breakout where a branch begins, on along the bundle;
 * cut where the wires lie otherwise. With what lies in each.
 */
export function listStrips(context: StripContext): LayupStrip[] {
  return listLines(context.tree, context.isLaid).map((segmentIds) => toStrip(context, segmentIds));
}

function listLines({ nodeIds, nodes, segments }: Tree, isLaid: StripContext['isLaid']): string[][] {
  const lines: string[][] = [];
  for (const nodeId of nodeIds)
    for (const first of nodes[nodeId]!.childSegmentIds) {
      // what goes on along the bundle is in the line of the run before it
      if (segments[first]!.onward && nodes[nodeId]!.parentSegmentId !== null) continue;
      let line: string[] = [];
      for (let id: string | undefined = first; id !== undefined;) {
        if (isLaid(id)) line.push(id);
        else if (line.length) {
          lines.push(line);
          line = [];
        }
        const next: string | undefined = nodes[segments[id]!.farNodeId]!.childSegmentIds[0];
        id = next !== undefined && segments[next]!.onward ? next : undefined;
      }
      if (line.length) lines.push(line);
    }
  return lines;
}

function toStrip(context: StripContext, segmentIds: readonly string[]): LayupStrip {
  const { marks, segmentMarks, stretched } = listMarks(context, segmentIds);
  const wires = new Map(context.wires.map((wire) => [wire.id, wire]));
  const toKey = (wireId: string) => {
    const { cable, twist } = context.loom.circuits[wires.get(wireId)!.circuitId]!;
    return cable ? `cable ${cable.groupId}` : twist ? `twist ${twist.groupId}` : wireId;
  };
  const runs = listRuns(stretched, toKey);
  const joints = listJoints(context, marks, runs, wires);
  const chains = joinAtSplices(runs, joints);
  const besideOf = listBeside(joints);
  const chainOf = new Map(chains.flatMap((chain) => chain.map((run) => [run, chain] as const)));
  const ids = new Map<string, number>();
  const idOf = new Map(
    chains.map((chain) => {
      const [{ key }] = chain as [Run];
      const count = (ids.get(key) ?? 0) + 1;
      ids.set(key, count);
      // the same group again further along is another thread
      return [chain, count === 1 ? key : `${key} ${count}`] as const;
    }),
  );
  const sides = createSides(context, segmentIds, marks);
  const threads = chains.map((chain): Thread => {
    const [first, last] = [chain[0]!, chain.at(-1)!];
    const toEnd = (run: Run, mark: number): ThreadEnd => {
      if (mark === 0 || mark === marks.length - 1) return { mark, kind: 'strip', sideDeg: null, besideId: null };
      const { kind } = marks[mark]!;
      const [wireId] = run.wireIds;
      if (kind !== 'splice') return { mark, kind: 'breakout', sideDeg: sides(mark, wires.get(wireId!)!), besideId: null };
      const beside = besideOf.get(run)?.get(mark);
      return { mark, kind: 'splice', sideDeg: null, besideId: beside ? idOf.get(chainOf.get(beside)!)! : null };
    };
    const all = chain.flatMap(({ wireIds }) => [...wireIds]).map((id) => wires.get(id)!);
    return {
      id: idOf.get(chain)!,
      kind: first.key.startsWith('cable ') ? 'cable' : first.key.startsWith('twist ') ? 'twist' : 'wire',
      odMm: Math.max(...chain.map(({ odMm }) => odMm)),
      areaMm2: Math.max(...all.map(({ conductor }) => conductor.areaMm2)),
      from: toEnd(first, first.fromMark),
      to: toEnd(last, last.toMark),
      joints: [],
      parts: chain.map(({ wireIds, fromMark, toMark }) => ({ wireIds: [...wireIds], fromMark, toMark })),
    };
  });
  return { id: segmentIds[0]!, segmentIds, segmentMarks, marks, threads: withJoints(threads) };
}

/** Threads with the marks at which they are spliced to one another. */
function withJoints(threads: readonly Thread[]): Thread[] {
  const joints = new Map<string, Set<number>>(threads.map(({ id }) => [id, new Set()]));
  for (const { id, from, to } of threads)
    for (const { kind, mark, besideId } of [from, to]) {
      if (kind !== 'splice' || besideId === null) continue;
      joints.get(id)!.add(mark);
      joints.get(besideId)!.add(mark);
    }
  return threads.map((thread) => ({ ...thread, joints: [...joints.get(thread.id)!].sort((a, b) => a - b) }));
}

/** Every place along a line at which a section ends, and the sections between them. */
function listMarks({ loom, tree, bundles }: StripContext, segmentIds: readonly string[]) {
  const bundleOf = new Map(bundles.map((bundle) => [bundle.segmentId, bundle]));
  const marks: LayupMark[] = [{ mm: 0, kind: 'start', nodeId: tree.segments[segmentIds[0]!]!.nearNodeId }];
  const stretched: Stretched[] = [];
  const segmentMarks: number[] = [];
  let startMm = 0;
  segmentIds.forEach((segmentId, index) => {
    const { lengthMm, farNodeId } = tree.segments[segmentId]!;
    segmentMarks.push(marks.length - 1);
    for (const { toMm, elements, diametersMm } of bundleOf.get(segmentId)!.sections) {
      stretched.push({ segmentId, fromMark: marks.length - 1, elements, diametersMm });
      const isNode = toMm >= lengthMm - 1e-9;
      const isLast = isNode && index === segmentIds.length - 1;
      const kind = isLast ? 'end' : !isNode ? 'splice' : loom.nodes[farNodeId]!.kind === 'breakout' ? 'breakout' : 'pass';
      marks.push({ mm: startMm + toMm, kind, nodeId: isNode ? farNodeId : null });
    }
    startMm += lengthMm;
  });
  return { marks, segmentMarks, stretched };
}

/** What lies there without a break, with all the wires that are in it on its way. */
function listRuns(stretched: readonly Stretched[], toKey: (wireId: string) => string): Run[] {
  const runs: Run[] = [];
  const open = new Map<string, Run>();
  for (const { fromMark, elements, diametersMm } of stretched) {
    elements.forEach((wireIds, index) => {
      const key = toKey(wireIds[0]!);
      let run = open.get(key);
      if (run?.toMark !== fromMark) {
        run = { key, wireIds: new Set(), odMm: 0, fromMark, toMark: fromMark };
        open.set(key, run);
        runs.push(run);
      }
      run.toMark = fromMark + 1;
      run.odMm = Math.max(run.odMm, diametersMm[index]!);
      for (const id of wireIds) run.wireIds.add(id);
    });
  }
  return runs;
}

/** Runs that end and begin at each splice, by splice and mark; a group that ends there is joined to nothing. */
interface Joint {
  mark: number;
  ending: Run[];
  beginning: Run[];
}

function listJoints(
  { splices }: StripContext,
  marks: readonly LayupMark[],
  runs: readonly Run[],
  wires: ReadonlyMap<string, SizedWire>,
): Joint[] {
  const known = new Set(splices.map(({ id }) => id));
  const joints = new Map<string, Joint>();
  for (const run of runs) {
    if (run.wireIds.size !== 1) continue;
    const [wireId] = run.wireIds;
    const { from, to } = wires.get(wireId!)!;
    for (const end of [from, to]) {
      if (end.kind !== 'splice' || !known.has(end.spliceId)) continue;
      for (const [mark, side] of [
        [run.fromMark, 'beginning'],
        [run.toMark, 'ending'],
      ] as const) {
        if (marks[mark]!.kind !== 'splice') continue;
        const key = `${end.spliceId} ${mark}`;
        let joint = joints.get(key);
        if (!joint) joints.set(key, (joint = { mark, ending: [], beginning: [] }));
        joint[side].push(run);
      }
    }
  }
  return [...joints.values()];
}

/** Over a splice the wire that goes furthest on keeps the place of the one that comes from furthest. */
function joinAtSplices(runs: readonly Run[], joints: readonly Joint[]): Run[][] {
  const next = new Map<Run, Run>();
  const joined = new Set<Run>();
  for (const { ending, beginning } of joints) {
    const open = ending.filter((run) => !next.has(run)).sort((a, b) => a.fromMark - b.fromMark || (a.key < b.key ? -1 : 1));
    const after = beginning.filter((run) => !joined.has(run)).sort((a, b) => b.toMark - a.toMark || (a.key < b.key ? -1 : 1));
    if (!open[0] || !after[0]) continue;
    next.set(open[0], after[0]);
    joined.add(after[0]);
  }
  return runs
    .filter((run) => !joined.has(run))
    .map((first) => {
      const chain = [first];
      for (let run = next.get(first); run; run = next.get(run)) chain.push(run);
      return chain;
    });
}

/** By run and mark the run beside which it ends or begins at a splice: the one of the same splice that lies there longest. */
function listBeside(joints: readonly Joint[]): Map<Run, Map<number, Run>> {
  const beside = new Map<Run, Map<number, Run>>();
  for (const { mark, ending, beginning } of joints) {
    const all = [...new Set([...ending, ...beginning])].sort(
      (a, b) => b.toMark - b.fromMark - (a.toMark - a.fromMark) || (a.key < b.key ? -1 : 1),
    );
    for (const run of all) {
      const other = all[0] === run ? all[1] : all[0];
      if (!other) continue;
      let marks = beside.get(run);
      if (!marks) beside.set(run, (marks = new Map<number, Run>()));
      if (!marks.has(mark)) marks.set(mark, other);
    }
  }
  return beside;
}

/** Side by which a wire comes out at a breakout: that of the branch it goes into. */
function createSides({ loom, tree }: StripContext, segmentIds: readonly string[], marks: readonly LayupMark[]) {
  const line = new Set(segmentIds);
  return (mark: number, { pieces }: SizedWire): number | null => {
    const { nodeId } = marks[mark]!;
    if (nodeId === null) return null;
    const branch = tree.nodes[nodeId]!.childSegmentIds.find((id) => !line.has(id) && pieces.some(({ segmentId }) => segmentId === id));
    return branch === undefined ? null : loom.segments[branch]!.leavesDeg;
  };
}
