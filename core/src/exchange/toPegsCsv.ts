import type { PlannedBoard } from '../make';
import { roundTo } from '../units';
import { writeCsv } from './toCsv';

/** Pegs of a board in the order in which they are set: place from its left and top edge, diameter, what each holds. */
export function toPegsCsv({ pegs, nodes, runs }: PlannedBoard): string {
  const names = new Map(nodes.map(({ nodeId, name }) => [nodeId, name]));
  const lengths = new Map(runs.map(({ segmentId, lengthMm }) => [segmentId, lengthMm]));
  return writeCsv(
    ['peg', 'kind', 'x mm', 'y mm', 'diameter mm', 'run', 'along mm', 'of mm', 'at'],
    pegs.map(({ number, kind, x, y, diameterMm, segmentId, nodeId, atMm }) => [
      number,
      kind,
      roundTo(x, 1),
      roundTo(y, 1),
      roundTo(diameterMm, 1),
      segmentId ?? '',
      atMm ?? '',
      segmentId === null ? '' : Math.round(lengths.get(segmentId)!),
      nodeId === null ? '' : names.get(nodeId)!,
    ]),
  );
}
