import { takeHistory } from '../../../../../server/documents';
import { HistoryRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** Undo or redo. */
export const POST = routeHandler<{ id: string }>('report', async (request, { id }, { name }) =>
  Response.json(await takeHistory(toJobId(id), { ...toRequest(HistoryRequest, await readJson(request)), author: name })),
);
