import TinyQueue from 'tinyqueue';
import { OPERATIONS, type Step } from './step';
import { pushTo } from '../units';

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
  for (const [id, needs] of waits) for (const need of needs) pushTo(frees, need, id);
  const rank = new Map(steps.map((step, index) => [step.id, OPERATIONS.indexOf(step.operation) * steps.length + index]));
  const ready = new ReadySteps((step) => rank.get(step.id)!);
  for (const step of steps) if (waits.get(step.id)!.size === 0) ready.add(step);
  const ordered: Step[] = [];
  for (let step = ready.take(null); step; step = ready.take(step.endId)) {
    ordered.push(step);
    for (const freed of frees.get(step.id) ?? []) {
      const left = waits.get(freed)!;
      left.delete(step.id);
      if (left.size === 0) ready.add(byId.get(freed)!);
    }
  }
  if (ordered.length === steps.length) return { ok: true, steps: ordered };
  return { ok: false, ring: findRing(byId, waits) };
}

/** Steps that may come next: the first of all, and the first of each end that is being worked on. */
class ReadySteps {
  private readonly all: TinyQueue<Step>;
  private readonly ofEnds = new Map<string, TinyQueue<Step>>();
  /** a step waits in two lines and is taken from one of them */
  private readonly taken = new Set<Step>();

  constructor(private readonly rank: (step: Step) => number) {
    this.all = this.createLine();
  }

  add(step: Step): void {
    this.all.push(step);
    if (step.endId === null || step.operation === 'label') return;
    const line = this.ofEnds.get(step.endId) ?? this.createLine();
    this.ofEnds.set(step.endId, line);
    line.push(step);
  }

  /** The next step: one of the end that is begun, if there is any. */
  take(endId: string | null): Step | undefined {
    const line = endId === null ? undefined : this.ofEnds.get(endId);
    return (line && this.pop(line)) ?? this.pop(this.all);
  }

  private createLine(): TinyQueue<Step> {
    return new TinyQueue<Step>([], (a, b) => this.rank(a) - this.rank(b));
  }

  private pop(line: TinyQueue<Step>): Step | undefined {
    let step = line.pop();
    while (step && this.taken.has(step)) step = line.pop();
    if (step) this.taken.add(step);
    return step;
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
