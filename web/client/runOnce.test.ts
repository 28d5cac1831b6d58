import { runOnce } from './runOnce';

class FakeWorker {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  asked: unknown[] = [];
  isGone = false;
  postMessage(question: unknown) {
    this.asked.push(question);
  }
  terminate() {
    this.isGone = true;
  }
}
const start = (isLast?: (answer: { done?: number }) => boolean) => {
  const worker = new FakeWorker();
  const answers: unknown[] = [];
  const stop = runOnce<string, { done?: number }>(worker as unknown as Worker, 'how warm', (one) => answers.push(one), isLast);
  return { worker, answers, stop };
};

test('asks once, hands the answer on, and the worker ends with it', () => {
  const { worker, answers } = start();
  expect(worker.asked).toEqual(['how warm']);
  worker.onmessage!({ data: { done: 1 } });
  expect(answers).toEqual([{ done: 1 }]);
  expect(worker.isGone).toBe(true);
});
test('lives on while there is more to come', () => {
  const { worker, answers } = start((answer) => answer.done === undefined);
  worker.onmessage!({ data: { done: 1 } });
  worker.onmessage!({ data: { done: 2 } });
  expect(worker.isGone).toBe(false);
  worker.onmessage!({ data: {} });
  expect(worker.isGone).toBe(true);
  expect(answers).toHaveLength(3);
});
test('a worker that breaks is told as a failure, with words where it has none', () => {
  for (const [message, words] of [
    ['out of memory', 'out of memory'],
    ['', 'the worker stopped'],
  ] as const) {
    const { worker, answers } = start();
    worker.onerror!({ message });
    expect(answers).toEqual([{ failure: words }]);
    expect(worker.isGone).toBe(true);
  }
});
test('giving up ends it at once', () => {
  const { worker, stop, answers } = start();
  stop();
  expect(worker.isGone).toBe(true);
  expect(answers).toEqual([]);
});
