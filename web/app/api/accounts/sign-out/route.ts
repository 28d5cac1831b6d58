import { findAuth } from '../../../../server/accounts/auth';
import { database } from '../../../../server/database';
import { tell } from '../../../../server/tell';
import { openHandler } from '../../../../server/routeHandler';

/** End the session of who is signed in here. What waits on the device stays there for the next time. */
export const POST = openHandler(async (request) => {
  const auth = await findAuth();
  const answer = await auth.api.signOut({ headers: request.headers, asResponse: true });
  await tell(database(), { topic: 'people' });
  const headers = new Headers();
  for (const cookie of answer.headers.getSetCookie()) headers.append('set-cookie', cookie);
  return Response.json({}, { headers });
});
