import { eq } from 'drizzle-orm';
import { database } from '../database';
import { Refusal } from '../refusal';
import { people } from '../schema';
import { mayDo, type Person, type Right } from './rights';
import { findOnDevice, PERSON_HEADER } from './session';

/** Who asks: whoever is signed in, or who the device says did it before; null: nobody. */
export async function findActor(headers: Headers): Promise<Person | null> {
  // loaded when it is first asked for: the accounts library is large
  const { findAuth } = await import('./auth');
  const auth = await findAuth();
  const signedIn = await auth.api.getSession({ headers });
  const wanted = headers.get(PERSON_HEADER);
  if (wanted !== null && wanted !== signedIn?.user.id) return findOnDevice(headers, wanted);
  if (!signedIn) return null;
  const [row] = await database()
    .select({ id: people.id, name: people.name, role: people.role, leftAt: people.leftAt })
    .from(people)
    .where(eq(people.id, signedIn.user.id));
  return row && row.leftAt === null ? { id: row.id, name: row.name, role: row.role } : null;
}

/** Who asks, and may do this. Throws 401 where nobody is signed in, 403 where the role does not allow it. */
export async function expectRight(headers: Headers, right: Right): Promise<Person> {
  const person = await findActor(headers);
  if (!person) throw Refusal.at(401, '', 'Sign in first. What you did is kept on this device until then.');
  if (!mayDo(person.role, right)) throw Refusal.at(403, '', `${person.name} is signed in as ${person.role}, who may not do this.`);
  return person;
}
