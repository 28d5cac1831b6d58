'use client';

import { useEffect, useState } from 'react';
import { request } from '../../client/request';
import type { Person } from '../../server/accounts/rights';
import styles from './Accounts.module.css';
import { PinPad } from './PinPad';

/** Who signs in with digits on this device; null: not known yet, empty: it is no device of the shop, or the server does not answer. */
export function useFaces(): Person[] | null {
  const [faces, setFaces] = useState<Person[] | null>(null);
  useEffect(() => {
    let isGone = false;
    request<Person[]>('/api/accounts/faces')
      .catch(() => [])
      .then((found) => {
        if (!isGone) setFaces(found);
      });
    return () => {
      isGone = true;
    };
  }, []);
  return faces;
}

/** Choose who works, then type the digits. */
export function Faces({ faces, onIn }: { faces: readonly Person[]; onIn: (person: Person) => void }) {
  const [chosen, setChosen] = useState<Person | null>(null);
  return (
    <>
      <ul className={styles.faces}>
        {faces.map((person) => (
          <li key={person.id}>
            <button type="button" className={styles.face} aria-pressed={chosen?.id === person.id} onClick={() => setChosen(person)}>
              {person.name}
              <span>{person.role}</span>
            </button>
          </li>
        ))}
      </ul>
      {chosen && <PinPad key={chosen.id} person={chosen} onIn={onIn} />}
    </>
  );
}
