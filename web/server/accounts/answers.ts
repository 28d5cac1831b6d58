import { database } from '../database';
import { people, PERSON } from '../schema';
import { eq } from 'drizzle-orm';
import type { Person } from './rights';
import { beginSession } from './people';

/** The answer to who has shown who he is: the person, and the cookies of a new session. */
export async function answerSignedIn(
  request: Request,
  personId: string,
  deviceId: string | null,
  cookies: readonly string[] = [],
): Promise<Response> {
  const begun = await beginSession(request.headers, personId, deviceId);
  const [person] = await database().select(PERSON).from(people).where(eq(people.id, personId));
  const headers = new Headers();
  for (const cookie of [...begun.getSetCookie(), ...cookies]) headers.append('set-cookie', cookie);
  return Response.json(person satisfies Person | undefined, { headers });
}

/** Does who asks reach this over TLS, as far as the proxy before it says? */
export const isSecure = (request: Request): boolean =>
  process.env.WATTOGRAPH_HTTPS === '1' ||
  request.headers.get('x-forwarded-proto') === 'https' ||
  new URL(request.url).protocol === 'https:';
