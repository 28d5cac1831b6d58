import { changePerson } from '../../../../../server/accounts/people';
import { ChangePersonRequest } from '../../../../../server/accounts/requests';
import { toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** Change what somebody may do, end their sessions, or end their access. */
export const POST = routeHandler<{ person: string }>('people', async (request, { person: id }, person) => {
  await changePerson(person, id, toRequest(ChangePersonRequest, await readJson(request)));
  return Response.json({});
});
