import { takeHistory } from '../../../../../server/documents';
import { HistoryRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, respond } from '../../../../../server/respond';

/** Undo or redo. */
export const POST = respond<{ id: string }>(async (request, { id }) =>
  Response.json(await takeHistory(toJobId(id), toRequest(HistoryRequest, await readJson(request)))),
);
