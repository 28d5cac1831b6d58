import { readJobVersion } from '../../../../../server/documents';
import { toJobId } from '../../../../../server/requests';
import { routeHandler } from '../../../../../server/routeHandler';
import { readShop } from '../../../../../server/shop';
import { answerByTask } from '../../../../../server/work/tasks';

/** What planning this job with the shop as it stands would change. */
export const GET = routeHandler<{ id: string }>(
  'look',
  async (request, { id }) => {
    const jobId = toJobId(id);
    const [version, shop] = await Promise.all([readJobVersion(jobId), readShop()]);
    return answerByTask(request, 'bringUp', [jobId, version, shop.version], { jobId });
  },
  { isCostly: true },
);
