import { listBuses, toTermination } from '../../check';
import type { InlinePart } from '../../model';
import { toPinKey } from '../../netlist';
import { toCount } from '../../units';
import { createPowerTest, nodeAt, type PowerContext } from './powerContext';
import type { PowerTest } from './types';

/**
 * What a meter reads across each bus of the vehicle, looms mated, boxes out, no power (craft E1): 60 Ω where both of its terminators are there and
 * both lines reach them. What terminates it inside a box is out with the box. A bus that nothing in the looms terminates, or by what nobody said, is not read.
 */
export function listBusTests(context: PowerContext): PowerTest[] {
  const { job, planned, netlist, standard, toWords } = context;
  return listBuses(job, planned).flatMap(({ host, parts }): PowerTest[] => {
    const pair = host.offer?.pairWith ?? null;
    const [built, boxed] = [parts.filter(({ inside }) => !inside), parts.filter(({ inside }) => inside)];
    const expected = toTermination(built);
    if (pair === null || expected === null) return [];
    const nameOf = ({ at }: InlinePart) => job.looms[at.loomId]!.ends[at.endId]!.name;
    const lines = [host, { ...host, cavity: pair }];
    if (!lines.every((line) => netlist.nodeOfPin.has(toPinKey(line)))) return [];
    const ends = lines.flatMap((line) =>
      netlist.nets[netlist.netOf[nodeAt(context, line)]!]!.nodes.flatMap((node) =>
        netlist.nodes[node]!.pins.map(({ loomId, endId }) => `${loomId}/${endId}`),
      ),
    );
    return [
      createPowerTest({
        id: `bus ${host.loomId}/${host.endId}/${host.cavity}`,
        part: 'buses',
        words: `${toWords(host)} to ${pair}, looms mated, every box out`,
        note: `${toCount(built.length, 'terminator')}, at ${built.map(nameOf).join(' and ')}${boxed.length > 0 ? `; out with its box: ${boxed.map(nameOf).join(' and ')}` : ''}`,
        unit: 'Ω',
        expected,
        least: expected * (1 - standard.partBandShare),
        most: expected * (1 + standard.partBandShare),
        endIds: [...new Set(ends)],
      }),
    ];
  });
}
