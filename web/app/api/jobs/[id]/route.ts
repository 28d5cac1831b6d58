import { readJob } from '../../../../server/documents';
import { toJobId } from '../../../../server/requests';
import { routeHandler } from '../../../../server/routeHandler';

/** The job as it stands, with what ?author= may undo. */
export const GET = routeHandler<{ id: string }>(async (request, { id }) =>
  Response.json(await readJob(toJobId(id), new URL(request.url).searchParams.get('author') ?? '')),
);
