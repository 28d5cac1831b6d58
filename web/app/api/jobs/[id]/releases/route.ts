import { listReleases } from '../../../../../server/releases';
import { ReleaseRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';
import { answerByTask } from '../../../../../server/work/tasks';

export const GET = routeHandler<{ id: string }>('look', async (_request, { id }) => Response.json(await listReleases(toJobId(id))));

/** Release the version that `base` names of the job as the next revision: a worker plans, builds and draws it. */
export const POST = routeHandler<{ id: string }>(
  'plan',
  async (request, { id }, person) => {
    const jobId = toJobId(id);
    const release = { inPart: false, ...toRequest(ReleaseRequest, await readJson(request)), author: person.name };
    return answerByTask(request, 'release', [jobId, release], { jobId, ...release });
  },
  { isCostly: true },
);
