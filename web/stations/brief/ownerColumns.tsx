import { DayField } from '../../ui/fields/DayField';
import { Pick } from '../../ui/fields/Pick';
import type { Column } from '../../ui/table/columns';

/** What somebody sees to, by when. */
interface Owned {
  /** empty: nobody yet */
  owner: string;
  due: string | null;
}

interface Owning<R> {
  /** who may: the shop's people and the customer */
  people: readonly string[];
  /** words: what it is */
  toOwned: (row: R) => Owned & { words: string };
  onOwner: (row: R, owner: string) => void;
  onDue: (row: R, due: Owned['due']) => void;
}

/** Who sees to it, and by when. */
export const createOwnerColumns = <R,>({ people, toOwned, onOwner, onDue }: Owning<R>): Column<R>[] => [
  {
    id: 'owner',
    head: 'owner',
    value: (row) => toOwned(row).owner,
    cell: (row) => {
      const { owner, words } = toOwned(row);
      return (
        <Pick
          label={`Owner of ${words}`}
          value={owner || null}
          none="nobody yet"
          options={[...new Set([...people, owner])].filter(Boolean)}
          onChange={(chosen) => onOwner(row, chosen ?? '')}
        />
      );
    },
  },
  {
    id: 'due',
    head: 'due',
    value: (row) => toOwned(row).due,
    cell: (row) => {
      const { due, words } = toOwned(row);
      return <DayField label={`Due: ${words}`} value={due} onChange={(day) => onDue(row, day)} />;
    },
  },
];
