import { hear } from '../../../server/listener';
import { routeHandler } from '../../../server/routeHandler';

export const dynamic = 'force-dynamic';

/** more often than any proxy ends a stream that rests */
const BEAT_MS = 20_000;
/** what may wait for a reader that does not read, then it is let go: it comes again and catches up */
const MOST_WAITING = 200;

/** streams that are open: a server that is told to end must not wait for their readers to leave */
const open = new Set<() => void>();
(globalThis as { wattographStreams?: Set<unknown> }).wattographStreams = open;
process.once('SIGTERM', () => open.forEach((end) => end()));

/** What is new, as server-sent events: topic, id and number only; what it is is asked for where it is shown. */
export const GET = routeHandler('look', (request) => Promise.resolve(openStream(request)));

function openStream(request: Request): Response {
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>(
    {
      start(controller) {
        const send = (text: string) => {
          if ((controller.desiredSize ?? 0) <= 0) end();
          else controller.enqueue(encoder.encode(text));
        };
        const stop = hear((heard) => {
          if (heard.topic !== 'work' && heard.topic !== 'task') send(`data: ${JSON.stringify(heard)}\n\n`);
        });
        const beat = setInterval(() => send(': still here\n\n'), BEAT_MS);
        let isOver = false;
        end = () => {
          if (isOver) return;
          isOver = true;
          open.delete(end);
          stop();
          clearInterval(beat);
          try {
            controller.close();
          } catch {
            // the reader left first
          }
        };
        open.add(end);
        request.signal.addEventListener('abort', end);
        send('retry: 1500\n\n');
      },
      cancel: () => end(),
    },
    { highWaterMark: MOST_WAITING },
  );
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream; charset=utf-8', 'cache-control': 'no-cache, no-transform', 'x-accel-buffering': 'no' },
  });
}
