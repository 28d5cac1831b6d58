'use client';

import { useAuthor, writeAuthor } from '../../client/author';
import { Pick } from './Pick';

/** Who works at this device, of the people of the shop. */
export function WhoSelect({ people }: { people: readonly string[] }) {
  const author = useAuthor();
  return (
    <Pick
      label="Who is working"
      value={author}
      // one who has left the shop stays until another is chosen
      options={[...new Set([...people, author])]}
      onChange={(person) => person && writeAuthor(person)}
    />
  );
}
