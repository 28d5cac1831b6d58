import { answerSignedIn, isSecure } from '../../../../server/accounts/answers';
import { setUp } from '../../../../server/accounts/people';
import { SetUpRequest } from '../../../../server/accounts/requests';
import { addDevice } from '../../../../server/accounts/session';
import { toRequest } from '../../../../server/requests';
import { openHandler, readJson } from '../../../../server/routeHandler';

/** The first person, who owns this installation; the device it is done at is one of the shop. */
export const POST = openHandler(async (request) => {
  const body = toRequest(SetUpRequest, await readJson(request));
  const personId = await setUp(body);
  const device = await addDevice('where it was set up', body.name, isSecure(request));
  return answerSignedIn(request, personId, device.id, [device.cookie]);
});
