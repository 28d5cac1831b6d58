import { headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { isDeleted } from '../jobs/bin';
import { Refusal } from '../refusal';
import { findActor, isOwn } from './actor';
import { hasPeople } from './people';
import { mayDo, type Person, type Right } from './rights';

/** Who opens a page (of a job), and may see it; whoever is not signed in is sent to the way in, and comes back from there. */
export async function expectPerson(right: Right = 'look', jobId: string | null = null): Promise<Person> {
  const asked = await headers();
  const person = await findActor(new Headers(asked));
  if (person && mayDo(person.role, right) && isOwn(person, jobId)) {
    if (jobId !== null && (await isDeleted(jobId))) notFound();
    return person;
  }
  if (person?.role === 'customer') {
    // whose job is gone has nothing to see here
    if (person.jobId === null) notFound();
    redirect(`/jobs/${person.jobId}/customer`);
  }
  if (person) redirect('/');
  if (!(await hasPeople())) redirect('/set-up');
  redirect(`/sign-in?next=${encodeURIComponent(asked.get('x-path') ?? '/')}`);
}

/** What a page opens; a page that is none where there is no such thing. */
export async function orNotFound<T>(opening: Promise<T>): Promise<T> {
  return opening.catch((error: unknown) => {
    if (error instanceof Refusal && error.status === 404) notFound();
    throw error;
  });
}
