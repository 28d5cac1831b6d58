import { createRelease, listReleases } from '../../../../../server/releases';
import { ReleaseRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, respond } from '../../../../../server/respond';

export const GET = respond<{ id: string }>(async (_request, { id }) => Response.json(await listReleases(toJobId(id))));

/** Release the next revision. */
export const POST = respond<{ id: string }>(async (request, { id }) =>
  Response.json(await createRelease(toJobId(id), toRequest(ReleaseRequest, await readJson(request))), { status: 201 }),
);
