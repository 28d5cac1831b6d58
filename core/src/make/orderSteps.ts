import { OPERATIONS, type Step } from './step';

/** Steps in an order that keeps every need, or the ring of steps that cannot be built. */
export type OrderedSteps = { ok: true; steps: Step[] } | { ok: false; ring: Step[] };

/**
 * Put steps in a buildable order (Kahn 1962). Among those that may come next, work that belongs together stays together:
 * operation by operation, then as listed; but once an end is begun it is finished.
 */
export function orderSteps(steps: readonly Step[]): OrderedSteps {
  const byId = new Map(steps.map((step) => [step.id, step]));
  const waits = new Map(steps.map((step) => [step.id, new Set(step.needs.map(({ stepId }) => stepId).filter((id) => byId.has(id)))]));
  const frees = new Map<string, string[]>();
  for (const [id, needs] of waits) for (const need of needs) frees.set(need, [...(frees.get(need) ?? []), id]);
  const rank = new Map(steps.map((step, index) => [step.id, OPERATIONS.indexOf(step.operation) * steps.length + index]));
  const ready = steps.filter(({ id }) => waits.get(id)!.size === 0).map(({ id }) => id);
  const ordered: Step[] = [];
  let endId: string | null = null;
  while (ready.length) {
    ready.sort((a, b) => weigh(byId.get(a)!) - weigh(byId.get(b)!));
    const id = ready.shift()!;
    const step = byId.get(id)!;
    ordered.push(step);
    endId = step.endId;
    for (const freed of frees.get(id) ?? []) {
      const left = waits.get(freed)!;
      left.delete(id);
      if (left.size === 0) ready.push(freed);
    }
  }
  if (ordered.length === steps.length) return { ok: true, steps: ordered };
  return { ok: false, ring: findRing(byId, waits) };

  function weigh(step: Step): number {
    const stays = endId !== null && step.endId === endId && step.operation !== 'label';
    return (stays ? -1e9 : 0) + rank.get(step.id)!;
  }
}

function findRing(byId: ReadonlyMap<string, Step>, waits: ReadonlyMap<string, Set<string>>): Step[] {
  const stuck = [...waits].filter(([, needs]) => needs.size > 0).map(([id]) => id);
  const seen: string[] = [];
  let at = stuck[0]!;
  while (!seen.includes(at)) {
    seen.push(at);
    at = [...waits.get(at)!].find((need) => waits.get(need)!.size > 0)!;
  }
  return seen.slice(seen.indexOf(at)).map((id) => byId.get(id)!);
}
