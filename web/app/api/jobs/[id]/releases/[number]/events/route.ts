import { mayDo } from '../../../../../../../server/accounts/rights';
import { addFloorEvents, listFloorEvents } from '../../../../../../../server/releases';
import { FloorEventsRequest, toJobId, toReleaseNumber, toRequest, toSerial } from '../../../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../../../server/routeHandler';

type Parameters = { id: string; number: string };

/** What happened on the floor of a revision; with ?after= what came after that event. */
export const GET = routeHandler<Parameters>(
  'look',
  async (request, { id, number }) => {
    const after = toSerial(new URL(request.url).searchParams.get('after') ?? '0');
    return Response.json(await listFloorEvents(toJobId(id), toReleaseNumber(number), after));
  },
  { query: ['after'] },
);

/** Add ticks and problems; those that are there already are passed over. */
export const POST = routeHandler<Parameters>('report', async (request, { id, number }, { name, role }) => {
  const { events } = toRequest(FloorEventsRequest, await readJson(request));
  const signed = events.map((event) => ({ ...event, author: name }));
  return Response.json(await addFloorEvents(toJobId(id), toReleaseNumber(number), signed, mayDo(role, 'plan')));
});
