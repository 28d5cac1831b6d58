import type { BoardAnswer, BoardQuestion } from '../workers/board.worker';
import { runOnce } from './runOnce';

/** Spread a loom on its board in a worker of its own; the returned function gives up. */
export const runBoard = (question: BoardQuestion, onAnswer: (answer: BoardAnswer) => void): (() => void) =>
  runOnce<BoardQuestion, BoardAnswer>(
    new Worker(new URL('../workers/board.worker.ts', import.meta.url), { type: 'module' }),
    question,
    onAnswer,
    (answer) => !('done' in answer),
  );
