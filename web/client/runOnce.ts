/** Ask a worker of its own one thing; each answer is handed on, the worker ends with the last. The returned function gives up. */
export function runOnce<Question, Answer extends object>(
  worker: Worker,
  question: Question,
  onAnswer: (answer: Answer | { failure: string }) => void,
  isLast: (answer: Answer) => boolean = () => true,
): () => void {
  worker.onmessage = ({ data }: MessageEvent<Answer>) => {
    if (isLast(data)) worker.terminate();
    onAnswer(data);
  };
  worker.onerror = (event) => {
    worker.terminate();
    onAnswer({ failure: event.message || 'the worker stopped' });
  };
  worker.postMessage(question);
  return () => worker.terminate();
}
