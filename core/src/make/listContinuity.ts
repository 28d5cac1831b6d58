import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { findStandard, type LoomPlan, type PlannedWire } from '../plan';
import { compareIds, pushTo } from '../units';

/** One pair of pins that must join, with the reading expected at 20 °C. */
export interface ContinuityRow {
  circuitId: string;
  from: { endId: string; cavity: string };
  to: { endId: string; cavity: string };
  wires: string[];
  expectedOhm: number;
  /** largest reading that passes: expected + max(20 %, 0.1 Ω) */
  mostOhm: number;
  /** of a feed or return of much current, four-wire at a known current; null: an ohmmeter will do */
  millivolts: { atA: number; expectedMv: number; mostMv: number } | null;
}

/**
 * Continuity table: the source of every circuit against each of its other pins. Resistance is that of the wires at 20 °C by
 * their tables, of contacts, bolted rings and splices by the shop standard (calculations 3 and 15). An ohmmeter does not see what a feed or
 * return of much current must not have: that is proved by millivolts, within 20 %, and no looser than what its load may lose as long as that can be read.
 */
export function listContinuity(job: Job, plan: LoomPlan, catalogue: Catalogue): ContinuityRow[] {
  const standard = findStandard(job, catalogue);
  const currentOf = new Map(plan.currents.map(({ wireId, designA }) => [wireId, designA ?? 0]));
  const loom = job.looms[plan.loomId]!;
  const joined = new Map<string, { wire: PlannedWire; to: string }[]>();
  const keyOf = (end: PlannedWire['from']) => (end.kind === 'cavity' ? `${end.endId} ${end.cavity}` : `splice ${end.spliceId}`);
  for (const wire of plan.wires) {
    for (const [a, b] of [
      [keyOf(wire.from), keyOf(wire.to)],
      [keyOf(wire.to), keyOf(wire.from)],
    ] as const)
      pushTo(joined, a, { wire, to: b });
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
        const bolted = way.passed.filter((key) => !key.startsWith('splice ') && loom.ends[key.split(' ')[0]!]!.kind !== 'connector').length;
        const contacts = way.passed.length - splices - bolted;
        const copper = way.wires.reduce((sum, { conductor, cutMm }) => sum + (conductor.r20MilliohmPerM * cutMm) / 1e6, 0);
        const { contactMilliohm, ringMilliohm, spliceMilliohm } = standard;
        const expectedOhm = copper + (contacts * contactMilliohm + bolted * ringMilliohm + splices * spliceMilliohm) / 1000;
        const loadA = Math.max(...way.wires.map(({ id }) => currentOf.get(id) ?? 0));
        return [
          {
            circuitId,
            from,
            to,
            wires: way.wires.map(({ number }) => number),
            expectedOhm,
            mostOhm: expectedOhm + Math.max(0.2 * expectedOhm, 0.1),
            millivolts:
              loadA > standard.millivoltAboveA && POWER.has(loom.circuits[circuitId]!.kind)
                ? toMillivolts(expectedOhm, findBudget(job, standard, loom, [from, to]) / loadA, standard.millivoltTestA)
                : null,
          },
        ];
      });
    });
}

const POWER = new Set(['supply', 'power-ground', 'output']);

/** A sound wire reads within so much of what is expected: four-wire, and a few kelvins off 20 °C. A limit closer than that fails good looms. */
const READS_WITHIN = 1.05;

function toMillivolts(expectedOhm: number, budgetOhm: number, atA: number): ContinuityRow['millivolts'] {
  const expectedMv = 1000 * expectedOhm * atA;
  return { atA, expectedMv, mostMv: Math.max(READS_WITHIN * expectedMv, Math.min(1.2 * expectedMv, 1000 * budgetOhm * atA)) };
}

/** What the load at one of two pins may lose, V; of a feed that no load is at, what a feed may. */
function findBudget({ source }: Job, standard: ShopStandard, loom: Loom, pins: readonly { endId: string; cavity: string }[]): number {
  const loads = pins.flatMap(({ endId, cavity }) => {
    const { pins: needs } = loom.ends[endId]!;
    const need = needs[cavity];
    if (!need) return [];
    const load = need.kind === 'supply' ? need.load : Object.values(needs).find(({ kind }) => kind === 'supply')?.load;
    return load ? [standard.dropShare[load]] : [];
  });
  return (loads.length ? Math.min(...loads) : standard.feedShare) * source.volts;
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
