import { randomUUID } from 'node:crypto';
import { createStoredJob } from '../../../server/documents';
import { NewJobRequest, toRequest } from '../../../server/requests';
import { readJson, routeHandler } from '../../../server/routeHandler';
import { answerByTask } from '../../../server/work/tasks';

/** more than that keeps the gate busy for so long that others would wait: a worker does it */
const LARGE_BYTES = 1024 * 1024;

/** A new job, or one from a file. */
export const POST = routeHandler('plan', async (request) => {
  const isLarge = Number(request.headers.get('content-length') ?? Infinity) > LARGE_BYTES;
  const { id, document } = toRequest(NewJobRequest, await readJson(request));
  // asked for anew each time: the same job again is acknowledged by its content
  if (isLarge) return answerByTask(request, 'import', randomUUID(), { id, document });
  return Response.json(await createStoredJob(id, document), { status: 201 });
});
