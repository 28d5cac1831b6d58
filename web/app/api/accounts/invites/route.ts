import { invite } from '../../../../server/accounts/people';
import { InviteRequest } from '../../../../server/accounts/requests';
import { toRequest } from '../../../../server/requests';
import { readJson, routeHandler } from '../../../../server/routeHandler';

/** A code that lets somebody in, or in again. It is said once. */
export const POST = routeHandler('people', async (request, _parameters, person) =>
  Response.json(await invite(person, toRequest(InviteRequest, await readJson(request))), { status: 201 }),
);
