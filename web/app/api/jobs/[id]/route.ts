import { readJob } from '../../../../server/documents';
import { toJobId } from '../../../../server/requests';
import { routeHandler } from '../../../../server/routeHandler';

/** The job as it stands, with what the one who asks may undo. */
export const GET = routeHandler<{ id: string }>('look', async (_request, { id }, person) =>
  Response.json(await readJob(toJobId(id), person.name)),
);
