import { toJobId } from '../../../../server/requests';
import { routeHandler } from '../../../../server/routeHandler';
import { cancelTask, toWait, waitFor } from '../../../../server/work/tasks';

/** The answer to a task; 202 and how far it is where it is not done within the wait that the request prefers. */
export const GET = routeHandler<{ task: string }>('look', async (request, { task }) => waitFor(toJobId(task), toWait(request)));

/** Nobody waits for it any more. */
export const DELETE = routeHandler<{ task: string }>('look', async (_request, { task }) => {
  await cancelTask(toJobId(task));
  return Response.json({});
});
