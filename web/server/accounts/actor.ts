import { eq } from 'drizzle-orm';
import { database } from '../database';
import { hear } from '../listener';
import { Refusal } from '../refusal';
import { people, PERSON } from '../schema';
import { mayDo, type Person, type Right } from './rights';
import { findOnDevice, PERSON_HEADER } from './session';

/** so long is known who a cookie is of; who changes it tells, and then it is asked anew at once */
const KNOWN_MS = 10_000;
const MOST_KNOWN = 2000;

const known = new Map<string, { person: Promise<Person | null>; until: number }>();
let isHearing = false;

/** Who asks: whoever is signed in, or who the device says did it before; null: nobody. */
export async function findActor(headers: Headers): Promise<Person | null> {
  if (!isHearing) {
    isHearing = true;
    hear(({ topic }) => {
      if (topic === 'people' || topic === 'again') known.clear();
    });
  }
  const key = `${headers.get('cookie') ?? ''} ${headers.get(PERSON_HEADER) ?? ''}`;
  const now = Date.now();
  const found = known.get(key);
  if (found && found.until > now) return found.person;
  if (known.size > MOST_KNOWN) known.clear();
  const person = readActor(headers);
  known.set(key, { person, until: now + KNOWN_MS });
  // what could not be asked is asked again; nobody may come in the next moment
  person.then(
    (one) => one === null && known.delete(key),
    () => known.delete(key),
  );
  return person;
}

async function readActor(headers: Headers): Promise<Person | null> {
  // loaded when it is first asked for: the accounts library is large
  const { findAuth } = await import('./auth');
  const auth = await findAuth();
  const signedIn = await auth.api.getSession({ headers });
  const wanted = headers.get(PERSON_HEADER);
  if (wanted !== null && wanted !== signedIn?.user.id) return findOnDevice(headers, wanted);
  if (!signedIn) return null;
  const [row] = await database().select({ person: PERSON, leftAt: people.leftAt }).from(people).where(eq(people.id, signedIn.user.id));
  return row && row.leftAt === null ? row.person : null;
}

/** Who asks, and may do this. Throws 401 where nobody is signed in, 403 where the role does not allow it. */
export async function expectRight(headers: Headers, right: Right): Promise<Person> {
  const person = await findActor(headers);
  if (!person) throw Refusal.at(401, '', 'Sign in first. What you did is kept on this device until then.');
  if (!mayDo(person.role, right)) throw Refusal.at(403, '', `${person.name} is signed in as ${person.role}, who may not do this.`);
  return person;
}

/** Is a job one that this person has to do with? Whoever is of the shop has with every one, a customer with theirs alone. */
export const isOwn = ({ role, jobId }: Person, id: string | null): boolean => role !== 'customer' || (id !== null && jobId === id);

/** The job that is asked about is one that this person has to do with. Throws 403. */
export function expectOwn(person: Person, id: string): void {
  if (!isOwn(person, id)) throw Refusal.at(403, '', `${person.name} is signed in for another job.`);
}
