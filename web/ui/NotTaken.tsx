import { Button } from '@mantine/core';
import styles from './NotTaken.module.css';

interface Entry {
  id: string;
  what: string;
  reason: string;
}

/** What was done here and the server did not take: kept on this device until it is sent again or let go. */
export function NotTaken({
  entries,
  onRetry,
  onLetGo,
  size = 'xs',
}: {
  entries: readonly Entry[];
  onRetry: (id: string) => void;
  onLetGo: (id: string) => void;
  /** lg where it is worked with gloves or a thumb */
  size?: 'xs' | 'lg';
}) {
  if (entries.length === 0) return null;
  return (
    <section role="alert" aria-label="Not stored" className={`${styles.band} no-print`}>
      <b>{entries.length === 1 ? 'One thing done here was not stored.' : `${entries.length} things done here were not stored.`}</b>
      <span> {entries.length === 1 ? 'It is' : 'They are'} kept on this device.</span>
      <ul>
        {entries.map(({ id, what, reason }) => (
          <li key={id}>
            <span>{what}</span>
            <span className={styles.reason}>{reason}</span>
            <Button size={size} variant="default" onClick={() => onRetry(id)}>
              Send again
            </Button>
            <Button size={size} variant="default" onClick={() => onLetGo(id)}>
              Let go
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
