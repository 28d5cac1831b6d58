import { setDeleted } from '../../../../../server/jobs/bin';
import { DeleteRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** Put a job in the bin, or bring it back from there; said twice it is as said once. */
export const POST = routeHandler<{ id: string }>(
  'plan',
  async (request, { id }, { name }) => {
    const { deleted } = toRequest(DeleteRequest, await readJson(request));
    await setDeleted(toJobId(id), deleted, name);
    return Response.json({ deleted });
  },
  { ofBin: true },
);
