import { removeDevice } from '../../../../../server/accounts/people';
import { toJobId } from '../../../../../server/requests';
import { routeHandler } from '../../../../../server/routeHandler';

/** Take a device out: nobody is signed in on it any more. */
export const DELETE = routeHandler<{ device: string }>('people', async (_request, { device }, person) => {
  await removeDevice(person, toJobId(device));
  return Response.json({});
});
