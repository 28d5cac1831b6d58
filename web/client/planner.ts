import { listOperations, type Catalogue, type Job } from 'wattograph-core';
import { fromDelta, unpackFindings, type Planned } from './planDelta';
import type { FindingsAnswer, PlanAnswer, PlanRequest } from './planSession';

/** A plan, and what was found: in it, or in the one before it until it is checked. */
export interface PlanResult extends Planned {
  /** the very document that was planned */
  job: Job;
  /** what it took in the worker; null: it was planned elsewhere */
  ms: number | null;
}

/** A plan that was made elsewhere, as JSON, and the document that it is of. */
export interface GivenPlan {
  job: Job;
  text: string;
}

const createWorker = () => new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' });

/** Name of the User Timing measure of the last plan: from asked to answered, with its number and what the worker took, ms. */
export const PLAN_MEASURE = 'plan';

/** The same of its findings, which follow it. */
export const FINDINGS_MEASURE = 'findings';

/**
 * Plans jobs in a worker, one at a time; of those that wait only the last is planned. The worker keeps the document and the shop and is sent what
 * changed; a document that says the same as the one before is not planned again.
 */
export class PlanRunner {
  /** null: the last one stopped, and nothing was asked since */
  private worker: Worker | null;
  private running: { sequence: number; job: Job; askedAt: number } | null = null;
  private waiting: Job | null = null;
  private sequence = 0;
  /** the document as the worker has it; null: it has none, or it is not known which */
  private sent: Job | null = null;
  private last: Planned | null = null;
  /** the plan that was shown last: its findings may still come */
  private shown: { sequence: number; job: Job; ms: number; askedAt: number } | null = null;
  private isHeld = false;
  private calmed: (() => void)[] = [];
  private given: string | null = null;

  private onResult: (result: PlanResult) => void = () => undefined;
  private onFailure: (message: string) => void = () => undefined;

  constructor(
    private readonly shop: Catalogue,
    private readonly start: () => Worker = createWorker,
  ) {
    this.worker = this.open();
  }

  /** Who is told; set before the first plan is asked for. */
  tell(onResult: (result: PlanResult) => void, onFailure: (message: string) => void): void {
    this.onResult = onResult;
    this.onFailure = onFailure;
  }

  /** Wait with the first question for a plan that may be had sooner than the worker has one; what it is of is shown at once. */
  async hold(coming: Promise<GivenPlan | null>): Promise<void> {
    this.isHeld = true;
    const given = await coming;
    this.isHeld = false;
    const first = this.waiting;
    this.waiting = null;
    if (!first) return;
    if (given?.job === first) this.show(given);
    this.plan(first);
  }

  private show({ job, text }: GivenPlan): void {
    try {
      this.last = JSON.parse(text) as Planned;
    } catch {
      // something on the way answered in the server's place: the worker plans as if there were none
      return;
    }
    this.given = text;
    this.onResult({ job, ...this.last, ms: null });
  }

  plan(job: Job): void {
    if (this.running || this.isHeld) {
      this.waiting = job;
      return;
    }
    const patch = this.sent && listOperations(this.sent, job);
    if (patch?.length === 0) return;
    this.running = { sequence: (this.sequence += 1), job, askedAt: performance.now() };
    this.sent = job;
    this.worker ??= this.open();
    this.worker.postMessage(
      (patch
        ? { sequence: this.sequence, patch }
        : { sequence: this.sequence, job, shop: this.shop, given: this.given }) satisfies PlanRequest,
    );
    this.given = null;
  }

  /** Resolves when the plan that was asked for is there, at most so much later: what can wait leaves the machine to it. */
  async calm(mostMs: number): Promise<void> {
    if (!this.running) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    await new Promise<void>((resolve) => {
      this.calmed.push(resolve);
      timer = setTimeout(resolve, mostMs);
    });
    clearTimeout(timer);
  }

  end(): void {
    this.worker?.terminate();
  }

  private endCalm(): void {
    const calmed = this.calmed;
    this.calmed = [];
    calmed.forEach((resolve) => resolve());
  }

  private open(): Worker {
    const worker = this.start();
    worker.onmessage = ({ data }: MessageEvent<PlanAnswer | FindingsAnswer>) =>
      'findingsOf' in data ? this.takeFindings(data) : this.take(data);
    worker.onerror = (event) => this.restart(event.message || 'the planner stopped');
    return worker;
  }

  /** A worker that stopped is replaced; what it was asked last is not asked again, but the next change is planned. */
  private restart(message: string): void {
    this.worker?.terminate();
    this.worker = null;
    this.last = null;
    this.shown = null;
    this.forget();
    this.onFailure(message);
  }

  private forget(): void {
    this.sent = null;
    this.next();
  }

  /** What waited while the worker was at it. */
  private next(): void {
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.plan(next);
    if (!this.running) this.endCalm();
  }

  private take(answer: PlanAnswer): void {
    const done = this.running;
    if (!done || answer.sequence !== done.sequence) return;
    if ('failure' in answer) {
      this.forget();
      this.onFailure(answer.failure);
      return;
    }
    const { sequence, delta, findings, ms } = answer;
    const known = findings ?? this.last?.findings;
    // none would look like a sound loom
    if (!known) throw new Error('planner: expected findings with the first plan, got none');
    if (delta) this.last = { ...fromDelta(this.last, delta), findings: known };
    this.next();
    measure(PLAN_MEASURE, done.askedAt, { sequence, ms });
    this.shown = { sequence, job: done.job, ms, askedAt: done.askedAt };
    // what is shown already is not drawn again
    if (delta) this.onResult({ job: done.job, ...this.last!, ms });
  }

  private takeFindings(answer: FindingsAnswer): void {
    if ('failure' in answer) return this.onFailure(answer.failure);
    const { findingsOf, findings: packed, ms } = answer;
    if (!this.last || this.shown?.sequence !== findingsOf) return;
    measure(FINDINGS_MEASURE, this.shown.askedAt, { sequence: findingsOf, ms });
    if (!packed) return;
    this.last = { ...this.last, findings: unpackFindings(this.last.findings, packed) };
    this.onResult({ job: this.shown.job, ...this.last, ms: this.shown.ms });
  }
}

function measure(name: string, start: number, detail: { sequence: number; ms: number }): void {
  performance.clearMeasures(name);
  performance.measure(name, { start, detail });
}
