import { enqueueLine } from '../../../../../server/jobSummaries';
import { readPlan } from '../../../../../server/plans';
import { toJobId, toVersion } from '../../../../../server/requests';
import { routeHandler } from '../../../../../server/routeHandler';

/** The plan of ?version= with its findings, as a worker made it, as gzipped JSON; 204 where none is kept. A page shows it until its own planner has one. */
export const GET = routeHandler<{ id: string }>(
  'look',
  async (request, { id }) => {
    const jobId = toJobId(id);
    const planned = await readPlan(jobId, toVersion(new URL(request.url).searchParams.get('version') ?? ''));
    // a file that is zipped, not an encoding: the server would zip what is zipped once more
    if (planned) return new Response(new Uint8Array(planned), { headers: { 'content-type': 'application/gzip' } });
    enqueueLine(jobId);
    return new Response(null, { status: 204 });
  },
  { query: ['version'] },
);
