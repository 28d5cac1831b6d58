import { randomUUID } from 'node:crypto';
import { ShopPreviewRequest, toRequest } from '../../../../server/requests';
import { readJson, routeHandler } from '../../../../server/routeHandler';
import { answerByTask } from '../../../../server/work/tasks';

/** What a shop would change, in its tables and in every job. */
export const POST = routeHandler(
  'plan',
  async (request) => answerByTask(request, 'shopPreview', randomUUID(), toRequest(ShopPreviewRequest, await readJson(request))),
  { isCostly: true },
);
