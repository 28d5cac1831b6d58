import { addFloorEvents, listFloorEvents } from '../../../../../../../server/releases';
import { FloorEventsRequest, toJobId, toReleaseNumber, toRequest } from '../../../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../../../server/routeHandler';

type Parameters = { id: string; number: string };

export const GET = routeHandler<Parameters>(async (_request, { id, number }) =>
  Response.json(await listFloorEvents(toJobId(id), toReleaseNumber(number))),
);

/** Add ticks and problems; ids that are known are passed over. */
export const POST = routeHandler<Parameters>(async (request, { id, number }) =>
  Response.json(await addFloorEvents(toJobId(id), toReleaseNumber(number), toRequest(FloorEventsRequest, await readJson(request)).events)),
);
