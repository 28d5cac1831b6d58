import { CATALOGUE, findDeviceTemplate, type ShopStandard } from '../catalogue';
import type { Job } from '../model';
import type { JobPlan, PlannedWire } from '../plan';

/** A vehicle's copper solved without any tree: voltage of every point and current of every wire in one mode. */
export interface SolvedCopper {
  volts: Map<string, number>;
  /** by loom and wire, from its from to its to, A */
  wireA: Map<string, number>;
}

const pinKey = (loomId: string, endId: string, cavity: string) => `${loomId}/${endId}/${cavity}`;

/**
 * Nodal analysis by plain Gaussian elimination on the whole copper graph, as a check of the plan's own sums: it shares nothing with them but
 * sizes, lengths and temperatures of wires and ratings of fuses. Loads and drivers are given currents (draws: from one point to another, A);
 * points that hang on nothing else are held at 0 V.
 */
export function solveCopper(
  job: Job,
  plan: JobPlan,
  standard: ShopStandard,
  draws: readonly { from: string; to: string; currentA: number }[],
  held: readonly string[],
): SolvedCopper {
  const points = new Map<string, number>();
  const point = (key: string) => points.get(key) ?? (points.set(key, points.size), points.size - 1);
  const resistors: { a: number; b: number; ohm: number; wire: string | null }[] = [];
  const mated = new Set(Object.values(job.mates).flatMap(({ a, b }) => [`${a.loomId}/${a.endId}`, `${b.loomId}/${b.endId}`]));
  const endOf = (loomId: string, end: PlannedWire['from'], isSourceSide: boolean) => {
    // a joint is passed once on each way: on the wire that leaves it away from its circuit's source
    if (end.kind === 'splice') return { key: `${loomId}/splice ${end.spliceId}`, milliohm: isSourceSide ? standard.spliceMilliohm : 0 };
    const { kind, offers } = job.looms[loomId]!.ends[end.endId]!;
    const isBlock = Object.values(offers).some(({ can }) => can.includes('engine-block'));
    // all rings of a stud touch each other, and all studs of an engine are one block
    const key = isBlock ? 'engine' : kind === 'ring' ? pinKey(loomId, end.endId, 'stud') : pinKey(loomId, end.endId, end.cavity);
    return {
      key,
      milliohm: mated.has(`${loomId}/${end.endId}`) ? 0 : kind === 'connector' ? standard.contactMilliohm : standard.ringMilliohm,
    };
  };
  for (const { loomId, wires, currents } of plan.looms)
    wires.forEach((wire, index) => {
      const [a, b] = [endOf(loomId, wire.from, true), endOf(loomId, wire.to, false)];
      const at = currents[index]!.runningC ?? standard.unknownZoneC;
      const copper = (wire.conductor.r20MilliohmPerM * wire.lengthMm * (1 + 0.00393 * (at - 20))) / 1e6;
      resistors.push({ a: point(a.key), b: point(b.key), ohm: copper + (a.milliohm + b.milliohm) / 1000, wire: `${loomId}/${wire.id}` });
    });
  for (const [one, other] of listMated(job))
    resistors.push({ a: point(one), b: point(other), ohm: standard.contactMilliohm / 1000, wire: null });
  for (const { deviceId, linkId, kind, ratingA, maxA, loadA } of plan.power.protections) {
    const device = job.devices[deviceId]!;
    const link = findDeviceTemplate(job, CATALOGUE, device.templateId)!.links[linkId]!;
    const { loomId, endId } = device.at!;
    const ohm = kind === 'fuse' ? standard.fuseFullV / (ratingA ?? Math.max(maxA!, loadA)) : standard.linkFullV / maxA!;
    if (points.has(pinKey(loomId, endId, link.b.cavity)))
      resistors.push({ a: point(pinKey(loomId, endId, link.a.cavity)), b: point(pinKey(loomId, endId, link.b.cavity)), ohm, wire: null });
  }
  for (const [endId, { offers }] of Object.entries(job.looms.main!.ends))
    for (const { can, chassisMilliohm } of Object.values(offers)) {
      if (!can.includes('chassis') || endId === 'tie') continue;
      const own = (chassisMilliohm as number | null) ?? job.source.chassisMilliohm!;
      resistors.push({
        a: point(pinKey('main', endId, 'stud')),
        b: point(pinKey('main', 'tie', 'stud')),
        ohm: Math.max(own, 1e-7) / 1000,
        wire: null,
      });
    }
  // cases on the chassis, each through its own resistance to the tie
  for (const { to } of draws)
    if (to.startsWith('case '))
      resistors.push({
        a: point(to),
        b: point(pinKey('main', 'tie', 'stud')),
        ohm: Math.max(job.source.chassisMilliohm!, 1e-7) / 1000,
        wire: null,
      });
  for (const { from, to } of draws) void [point(from), point(to)];
  // both poles are held: 0 V and 0 V, so that every voltage is what is lost on the way
  const zero = [pinKey('main', 'plus', 'stud'), pinKey('main', 'minus', 'stud'), ...held].map(point);
  const matrix = createMatrix(
    resistors,
    draws.map(({ from, to, currentA }) => ({ from: point(from), to: point(to), currentA })),
    zero,
    points.size,
  );
  eliminate(matrix);
  const size = points.size;
  const volts = new Map([...points].map(([key, at]) => [key, matrix[at]![size]!]));
  const wireA = new Map(
    resistors.flatMap(({ a, b, ohm, wire }) => (wire === null ? [] : [[wire, (matrix[a]![size]! - matrix[b]![size]!) / ohm] as const])),
  );
  return { volts, wireA };
}

/** Both contacts of each of the two wires that go through a plug. */
const listMated = (job: Job) =>
  Object.values(job.mates).flatMap(({ a, b }) =>
    ['1', '2'].map((cavity) => [pinKey(a.loomId, a.endId, cavity), pinKey(b.loomId, b.endId, cavity)] as const),
  );

/** Volts of every point of a network of resistors, those held at zero at 0 V; draws: from one point to another, A. */
export function solveNodal(
  resistors: readonly { a: number; b: number; ohm: number }[],
  draws: readonly { from: number; to: number; currentA: number }[],
  zero: readonly number[],
  size: number,
): Float64Array {
  const matrix = createMatrix(resistors, draws, zero, size);
  eliminate(matrix);
  return Float64Array.from(matrix, (row) => row[size]!);
}

/** Conductances of a network with what is drawn as its last column; the points held at zero are so. */
function createMatrix(
  resistors: readonly { a: number; b: number; ohm: number }[],
  draws: readonly { from: number; to: number; currentA: number }[],
  zero: readonly number[],
  size: number,
): Float64Array[] {
  const matrix = Array.from({ length: size }, () => new Float64Array(size + 1));
  for (const { a, b, ohm } of resistors) {
    matrix[a]![a]! += 1 / ohm;
    matrix[b]![b]! += 1 / ohm;
    matrix[a]![b]! -= 1 / ohm;
    matrix[b]![a]! -= 1 / ohm;
  }
  for (const { from, to, currentA } of draws) {
    matrix[from]![size]! -= currentA;
    matrix[to]![size]! += currentA;
  }
  for (const row of zero) {
    matrix[row]!.fill(0);
    matrix[row]![row] = 1;
  }
  for (let row = 0; row < size; row += 1) if (matrix[row]!.every((value) => value === 0)) matrix[row]![row] = 1;
  return matrix;
}

/** Gauss and Jordan with the largest pivot of each column; the last column becomes the solution. */
function eliminate(matrix: Float64Array[]): void {
  const size = matrix.length;
  for (let column = 0; column < size; column += 1) {
    let pivot = column;
    for (let row = column + 1; row < size; row += 1) if (Math.abs(matrix[row]![column]!) > Math.abs(matrix[pivot]![column]!)) pivot = row;
    [matrix[column], matrix[pivot]] = [matrix[pivot]!, matrix[column]!];
    const top = matrix[column]!;
    const scale = top[column]!;
    for (let at = column; at <= size; at += 1) top[at]! /= scale;
    for (let row = 0; row < size; row += 1) {
      const factor = matrix[row]![column]!;
      if (row === column || factor === 0) continue;
      for (let at = column; at <= size; at += 1) matrix[row]![at]! -= factor * top[at]!;
    }
  }
}
