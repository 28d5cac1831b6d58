import { addFloorEvents, listFloorEvents } from '../../../../../../../server/releases';
import { FloorEventsRequest, toJobId, toReleaseNumber, toRequest } from '../../../../../../../server/requests';
import { readJson, respond } from '../../../../../../../server/respond';

type Parameters = { id: string; number: string };

export const GET = respond<Parameters>(async (_request, { id, number }) =>
  Response.json(await listFloorEvents(toJobId(id), toReleaseNumber(number))),
);

/** Add ticks and problems; ids that are known are passed over. */
export const POST = respond<Parameters>(async (request, { id, number }) =>
  Response.json(await addFloorEvents(toJobId(id), toReleaseNumber(number), toRequest(FloorEventsRequest, await readJson(request)).events)),
);
