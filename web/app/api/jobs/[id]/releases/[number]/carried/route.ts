import { readCarried } from '../../../../../../../server/releases';
import { toJobId, toReleaseNumber } from '../../../../../../../server/requests';
import { routeHandler } from '../../../../../../../server/routeHandler';

/** What the ticks of earlier revisions come to in this one; ?loom= says of which loom. */
export const GET = routeHandler<{ id: string; number: string }>(
  'look',
  async (request, { id, number }) =>
    Response.json(await readCarried(toJobId(id), toReleaseNumber(number), new URL(request.url).searchParams.get('loom') ?? '')),
  { query: ['loom'] },
);
