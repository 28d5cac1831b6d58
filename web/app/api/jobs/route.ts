import { createStoredJob } from '../../../server/documents';
import { NewJobRequest, toRequest } from '../../../server/requests';
import { readJson, routeHandler } from '../../../server/routeHandler';

/** A new job from a whole document: made in the browser, or read from a file. */
export const POST = routeHandler('plan', async (request) => {
  const { id, document } = toRequest(NewJobRequest, await readJson(request));
  return Response.json(await createStoredJob(id, document), { status: 201 });
});
