import type { Job } from '../model';
import type { LoomPlan, PlannedWire } from '../plan';
import { compareIds } from '../units';

const CONTACT_OHM = 0.002;
const SPLICE_OHM = 0.001;

/** One pair of pins that must join, with the reading expected at 20 °C. */
export interface ContinuityRow {
  circuitId: string;
  from: { endId: string; cavity: string };
  to: { endId: string; cavity: string };
  wires: string[];
  expectedOhm: number;
  /** largest reading that passes: expected + max(20 %, 0.1 Ω) */
  mostOhm: number;
}

/**
 * Continuity table: the source of every circuit against each of its other pins. Resistance is that of the wires at 20 °C by
 * their tables, 2 mΩ a contact and 1 mΩ a splice (calculations 3 and 15).
 */
export function listContinuity(job: Job, plan: LoomPlan): ContinuityRow[] {
  const loom = job.looms[plan.loomId]!;
  const joined = new Map<string, { wire: PlannedWire; to: string }[]>();
  const keyOf = (end: PlannedWire['from']) => (end.kind === 'cavity' ? `${end.endId} ${end.cavity}` : `splice ${end.spliceId}`);
  for (const wire of plan.wires) {
    for (const [a, b] of [
      [keyOf(wire.from), keyOf(wire.to)],
      [keyOf(wire.to), keyOf(wire.from)],
    ] as const)
      joined.set(a, [...(joined.get(a) ?? []), { wire, to: b }]);
  }
  return Object.keys(loom.circuits)
    .sort(compareIds)
    .flatMap((circuitId) => {
      const [from, ...others] = loom.circuits[circuitId]!.terminations;
      if (!from) return [];
      const ways = listWays(joined, `${from.endId} ${from.cavity}`);
      return others.flatMap((to) => {
        const way = ways.get(`${to.endId} ${to.cavity}`);
        if (!way) return [];
        const splices = way.passed.filter((key) => key.startsWith('splice ')).length;
        const contacts = way.passed.length - splices;
        const copper = way.wires.reduce((sum, { conductor, cutMm }) => sum + (conductor.r20MilliohmPerM * cutMm) / 1e6, 0);
        const expectedOhm = copper + contacts * CONTACT_OHM + splices * SPLICE_OHM;
        return [
          {
            circuitId,
            from,
            to,
            wires: way.wires.map(({ number }) => number),
            expectedOhm,
            mostOhm: expectedOhm + Math.max(0.2 * expectedOhm, 0.1),
          },
        ];
      });
    });
}

interface Way {
  wires: PlannedWire[];
  passed: string[];
}

function listWays(joined: ReadonlyMap<string, { wire: PlannedWire; to: string }[]>, start: string): Map<string, Way> {
  const ways = new Map<string, Way>([[start, { wires: [], passed: [start] }]]);
  const queue = [start];
  for (let key = queue.shift(); key !== undefined; key = queue.shift()) {
    const { wires, passed } = ways.get(key)!;
    for (const { wire, to } of joined.get(key) ?? []) {
      if (ways.has(to)) continue;
      ways.set(to, { wires: [...wires, wire], passed: [...passed, to] });
      queue.push(to);
    }
  }
  return ways;
}
