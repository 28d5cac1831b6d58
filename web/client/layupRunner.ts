import type { LayupAnswer, LayupQuestion } from '../workers/layup.worker';
import { runOnce } from './runOnce';

/** Search the lay-up of a loom in a worker of its own; the returned function gives up. */
export const runLayup = (question: LayupQuestion, onAnswer: (answer: LayupAnswer) => void): (() => void) =>
  runOnce<LayupQuestion, LayupAnswer>(
    new Worker(new URL('../workers/layup.worker.ts', import.meta.url), { type: 'module' }),
    question,
    onAnswer,
    (answer) => !('done' in answer),
  );
