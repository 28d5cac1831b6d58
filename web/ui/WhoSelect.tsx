'use client';

import { useAuthor, writeAuthor } from '../client/author';

/** Who works at this device, of the people of the shop. */
export function WhoSelect({ people }: { people: readonly string[] }) {
  const author = useAuthor();
  return (
    <select aria-label="Who is working" value={author} onChange={(event) => writeAuthor(event.currentTarget.value)}>
      {/* one who has left the shop stays until another is chosen */}
      {[...new Set([...people, author])].map((person) => (
        <option key={person}>{person}</option>
      ))}
    </select>
  );
}
