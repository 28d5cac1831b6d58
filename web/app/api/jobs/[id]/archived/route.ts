import { setArchived } from '../../../../../server/jobSummaries';
import { ArchiveRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** Put a job away from the wall, or back on it; said twice it is as said once. */
export const POST = routeHandler<{ id: string }>('plan', async (request, { id }) => {
  const { archived } = toRequest(ArchiveRequest, await readJson(request));
  await setArchived(toJobId(id), archived);
  return Response.json({ archived });
});
