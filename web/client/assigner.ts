import type { AssignAnswer, AssignQuestion } from '../workers/assign.worker';
import { runOnce } from './runOnce';

/** Assign in a worker of its own; the returned function gives up. */
export const assign = (question: AssignQuestion, onDone: (answer: AssignAnswer) => void): (() => void) =>
  runOnce<AssignQuestion, AssignAnswer>(
    new Worker(new URL('../workers/assign.worker.ts', import.meta.url), { type: 'module' }),
    question,
    onDone,
  );
