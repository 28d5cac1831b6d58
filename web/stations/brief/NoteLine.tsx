import { useState, type ReactNode } from 'react';
import { Pick, type PickOption } from '../../ui/fields/Pick';
import { Words } from '../../ui/fields/TextField';
import styles from './Brief.module.css';

interface Props<Kind extends string> {
  kindLabel: string;
  kinds: readonly (Kind | PickOption<Kind>)[];
  /** the kind that it begins with; the next one is of the same as the last */
  first: Kind;
  label: string;
  placeholder: string;
  /** may it be noted, the words apart */
  isReady?: boolean;
  onNote: (kind: Kind, words: string) => void;
  /** what else is asked for */
  children?: ReactNode;
}

/** Write down another line of a table: its kind and what it is. */
export function NoteLine<Kind extends string>({
  kindLabel,
  kinds,
  first,
  label,
  placeholder,
  isReady = true,
  onNote,
  children,
}: Props<Kind>) {
  const [kind, setKind] = useState(first);
  const [words, setWords] = useState('');
  const what = words.trim();
  return (
    <form
      className={styles.bar}
      onSubmit={(event) => {
        event.preventDefault();
        if (!what || !isReady) return;
        onNote(kind, what);
        setWords('');
      }}
    >
      <Pick label={kindLabel} value={kind} options={kinds} onChange={(value) => value && setKind(value)} />
      <div className={styles.question}>
        <Words label={label} placeholder={placeholder} most={300} value={words} onChange={setWords} />
      </div>
      {children}
      <button className={styles.button} disabled={!what || !isReady}>
        Note it
      </button>
    </form>
  );
}
