import type { ArrangeAnswer, ArrangeQuestion } from '../workers/arrange.worker';
import { runOnce } from './runOnce';

/** A better order of the cavities of a break, in a worker of its own; the returned function gives up. */
export const arrange = (question: ArrangeQuestion, onDone: (answer: ArrangeAnswer) => void): (() => void) =>
  runOnce<ArrangeQuestion, ArrangeAnswer>(
    new Worker(new URL('../workers/arrange.worker.ts', import.meta.url), { type: 'module' }),
    question,
    onDone,
  );
