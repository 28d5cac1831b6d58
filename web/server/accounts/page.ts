import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { findActor } from './actor';
import { hasPeople } from './people';
import { mayDo, type Person, type Right } from './rights';

/** Who opens a page, and may see it; whoever is not signed in is sent to the way in, and comes back from there. */
export async function expectPerson(right: Right = 'look'): Promise<Person> {
  const asked = await headers();
  const person = await findActor(new Headers(asked));
  if (person && mayDo(person.role, right)) return person;
  if (person) redirect('/');
  if (!(await hasPeople())) redirect('/set-up');
  redirect(`/sign-in?next=${encodeURIComponent(asked.get('x-path') ?? '/')}`);
}
