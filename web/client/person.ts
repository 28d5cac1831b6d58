import { useSyncExternalStore } from 'react';
import { mayDo, type Person, type Right } from '../server/accounts/rights';

/** Nobody yet: a page says who it was opened for before anything is done on it. */
const NOBODY: Person = { id: '', name: 'somebody', role: 'viewer', jobId: null };

const listeners = new Set<() => void>();
let present: Person = NOBODY;

/** Who works at this page, as the server knows them. */
export function setPerson(person: Person): void {
  if (person.id === present.id && person.name === present.name && person.role === present.role) return;
  present = person;
  listeners.forEach((listener) => listener());
}

export const readPerson = (): Person => present;

/** The name that signs here. The server signs with the one that it knows; this is for what is shown at once. */
export const readAuthor = (): string => present.name;

/** May who works here do this? What may not be done is not offered. */
export const mayHere = (right: Right): boolean => mayDo(present.role, right);

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const usePerson = (): Person => useSyncExternalStore(subscribe, readPerson, readPerson);

/** May who works here do this? */
export const useMay = (right: Right): boolean => mayDo(usePerson().role, right);
