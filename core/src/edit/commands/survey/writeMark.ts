import type { Catalogue } from '../../../catalogue';
import { createEnd, createNode, createSegment, STATUS_OF_METHOD, type Job, type Loom, type SurveyEntry } from '../../../model';
import type { Tree } from '../../../plan';
import { listLine } from '../route/listLine';
import { placeDevice } from '../device/placeDevice';
import { splitSegment } from '../route/splitSegment';

type Mark = Extract<SurveyEntry, { kind: 'mark' }>;

/** Marks closer than this are one. */
const SAME_MM = 1;

/** What stands against a mark on its line, or null. canForce: only its name is taken, so that it can go in under another. */
export function checkMark(loom: Loom, tree: Tree, mark: Mark): { theirs: string; canForce: boolean } | null {
  const refuse = (theirs: string) => ({ theirs, canForce: false });
  const zero = loom.nodes[mark.zeroNodeId];
  if (!zero || !tree.nodes[mark.zeroNodeId]) return refuse('the zero of this line is no longer there');
  if (!(mark.atMm > 0)) return refuse(`expected a distance beyond ${zero.name} (0), got ${mark.atMm}`);
  if (Object.hasOwn(loom.nodes, mark.nodeId) || Object.hasOwn(loom.segments, mark.segmentId)) return refuse('this mark is there already');
  const line = listLine(loom, tree, mark.zeroNodeId, mark.viaSegmentId);
  if (mark.viaSegmentId !== null && line.length === 0) return refuse('the line it was read along is no longer there');
  if (mark.viaSegmentId === null && zero.kind === 'end')
    return refuse(`expected a line from a breakout, a hole or the datum, got one from the end ${zero.name}`);
  const same = line.find(({ atMm }) => Math.abs(atMm - mark.atMm) < SAME_MM);
  if (same) return refuse(`expected a place of its own, got ${mark.atMm}, where ${loom.nodes[same.nodeId]!.name} is`);
  const last = line.at(-1);
  if (last && mark.atMm > last.atMm && loom.nodes[last.nodeId]!.kind === 'end')
    return refuse(
      `expected a mark before ${Math.round(last.atMm)}, where the line ends at ${loom.nodes[last.nodeId]!.name}, got ${mark.atMm}`,
    );
  if (last && mark.atMm < last.atMm && mark.what === 'end')
    return refuse(
      `expected an end beyond ${loom.nodes[last.nodeId]!.name} (${Math.round(last.atMm)}), got ${mark.atMm}: mark a breakout there and read the leg from it`,
    );
  const name = mark.name.trim().toLowerCase();
  const twin = Object.entries(loom.nodes).find(([, node]) => node.kind === mark.what && node.name.trim().toLowerCase() === name);
  if (twin)
    return {
      theirs: `expected a name of its own, got "${mark.name}", which is at ${Math.round(tree.nodes[twin[0]]!.distanceMm)} mm from the datum`,
      canForce: true,
    };
  return null;
}

/** Put a mark on its line: beyond the last it lengthens it, between two it parts the run. Expects that checkMark let it. Changes the job given. */
export function writeMark(job: Job, mark: Mark, tree: Tree, catalogue: Catalogue, isForced: boolean): void {
  const loom = job.looms[mark.loomId]!;
  const name = isForced ? toFreeName(loom, mark) : mark.name.trim();
  const line = listLine(loom, tree, mark.zeroNodeId, mark.viaSegmentId);
  const at = line.findIndex(({ atMm }) => atMm > mark.atMm);
  if (at >= 0) {
    const startMm = at === 0 ? 0 : line[at - 1]!.atMm;
    const offsetMm = mark.atMm - startMm;
    const node = { kind: mark.what as 'breakout' | 'pass', name, holeMm: mark.holeMm };
    splitSegment(loom, tree, { segmentId: line[at]!.segmentId, offsetMm }, node, mark);
    return;
  }
  const last = line.at(-1);
  loom.nodes[mark.nodeId] = createNode(mark.what, name, { holeMm: mark.what === 'pass' ? mark.holeMm : null });
  loom.segments[mark.segmentId] = createSegment(last?.nodeId ?? mark.zeroNodeId, mark.nodeId, mark.atMm - (last?.atMm ?? 0), {
    method: mark.method,
    status: STATUS_OF_METHOD[mark.method],
    ticks: [...new Set(mark.ticks)],
  });
  // the line goes on by this run, whatever branches leave there
  if (last) loom.nodes[last.nodeId]!.onwardSegmentId = mark.segmentId;
  if (mark.what !== 'end') return;
  loom.ends[mark.nodeId] = createEnd(mark.nodeId, name, null);
  if (mark.deviceId !== null && job.devices[mark.deviceId]?.at === null)
    placeDevice(job, catalogue, mark.deviceId, mark.loomId, mark.nodeId);
}

function toFreeName(loom: Loom, { name, what }: Mark): string {
  const taken = new Set(Object.values(loom.nodes).flatMap((node) => (node.kind === what ? [node.name.trim().toLowerCase()] : [])));
  for (let serial = 2; ; serial += 1) {
    const free = `${name.trim().slice(0, 76)} ${serial}`;
    if (!taken.has(free.toLowerCase())) return free;
  }
}
