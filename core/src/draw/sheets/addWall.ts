import { findFamily } from '../../catalogue';
import type { Device } from '../../model';
import { compareIds, pushTo, toCount } from '../../units';
import { INK, text, type Drawing, type Mark } from '../drawing';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const DEVICES: Column[] = [
  { title: 'device', share: 4.6, face: 'narrow-bold', isBig: true },
  { title: 'wires', share: 0.9, align: 'end' },
  { title: '', share: 0.3 },
  { title: 'crimped', share: 1.1 },
  { title: 'seated', share: 1 },
  { title: 'rung', share: 0.8 },
  { title: 'in', share: 0.6 },
];
const CORNERS: Column[] = [
  { title: '', share: 0.5 },
  { title: 'end', share: 3.6, face: 'narrow-bold', isBig: true },
  { title: 'housing', share: 2.6 },
  { title: 'wires', share: 0.9, align: 'end' },
];
const CELL_MM = 9;

/** What hangs on the wall: every end by the system of its device with boxes to strike out, and how many are left. */
export function addPoster({ job, loom, plan, flow }: SheetContext): void {
  const ends = Object.keys(loom.ends).sort(compareIds);
  if (ends.length === 0) return;
  const deviceOf = new Map<string, Device>(
    Object.values(job.devices).flatMap((device) => (device.at?.loomId === plan.loomId ? [[device.at.endId, device]] : [])),
  );
  const systems = new Map<string, string[]>();
  for (const endId of ends) pushTo(systems, deviceOf.get(endId)?.system || 'other ends', endId);
  flow.sheet(
    'Poster',
    'wall',
    'For A3. Strike out a box when it is done, and the largest number left at the foot when a device has all four.',
  );
  const names = [...systems.keys()].sort((a, b) => Number(a === 'other ends') - Number(b === 'other ends') || compareIds(a, b));
  for (const system of names) {
    flow.heading(system, 14);
    flow.twin(
      DEVICES,
      systems
        .get(system)!
        .map((endId): Cell[] => [
          loom.ends[endId]!.name,
          String(countWires(plan, endId)),
          '',
          { tick: true },
          loom.ends[endId]!.kind === 'connector' ? { tick: true } : '–',
          { tick: true },
          { tick: true },
        ]),
    );
  }
  flow.heading(`${toCount(ends.length, 'end')} to go`, 2 * CELL_MM);
  flow.picture(drawCountdown(ends.length, flow.widthMm));
}

const countWires = (plan: SheetContext['plan'], endId: string) =>
  plan.terminations.filter((one) => one.endId === endId).reduce((sum, { wireIds }) => sum + wireIds.length, 0);

/** From so many down to none, a number a cell. */
function drawCountdown(from: number, widthMm: number): Drawing {
  const perRow = Math.floor(widthMm / CELL_MM);
  const marks = Array.from({ length: from + 1 }, (_, at): Mark[] => {
    const [x, y] = [(at % perRow) * CELL_MM, Math.floor(at / perRow) * CELL_MM];
    return [
      { kind: 'rect', x, y, w: CELL_MM, h: CELL_MM, fill: null, stroke: INK, width: 0.2 },
      text(x + CELL_MM / 2, y + CELL_MM * 0.7, String(from - at), 5, { face: 'narrow-bold', anchor: 'middle' }),
    ];
  }).flat();
  return { widthMm, heightMm: Math.ceil((from + 1) / perRow) * CELL_MM, marks };
}

/** What ends where: by the zone of the vehicle that each leg lies in. */
export function addCorners({ job, loom, plan, catalogue, flow }: SheetContext): void {
  const zones = new Map<string, string[]>();
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const segmentId = plan.tree.nodes[loom.ends[endId]!.nodeId]?.parentSegmentId;
    const zoneId = segmentId ? loom.segments[segmentId]!.zoneId : null;
    pushTo(zones, zoneId === null || !job.zones[zoneId] ? 'no zone is said' : job.zones[zoneId].name, endId);
  }
  if (zones.size === 0) return;
  flow.sheet('Corners', 'wall', 'What ends where in the vehicle: count them before the loom goes in, and again when it lies there.');
  for (const [zone, endIds] of [...zones].sort(([a], [b]) => compareIds(a, b))) {
    flow.heading(`${zone}: ${toCount(endIds.length, 'end')}`, 14);
    flow.twin(
      CORNERS,
      endIds.map((endId): Cell[] => {
        const { name, kind, familyId } = loom.ends[endId]!;
        const family = findFamily(job, catalogue, familyId);
        return [{ tick: true }, name, kind === 'connector' ? (family?.name ?? 'to be chosen') : kind, String(countWires(plan, endId))];
      }),
    );
  }
}
