import { readDemoPins } from '../../../../server/accounts/demo';
import { listFaces } from '../../../../server/accounts/people';
import { findDevice } from '../../../../server/accounts/session';
import { openHandler } from '../../../../server/routeHandler';

/** Who signs in with digits here; nobody on a device that is not one of the shop, where this is no demo. */
export const GET = openHandler(async (request) =>
  Response.json((await findDevice(request.headers)) || (await readDemoPins()) ? await listFaces() : []),
);
