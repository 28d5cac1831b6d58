'use client';

import type { Cure } from '../../client/findCure';
import { useNow } from '../../client/useNow';
import styles from './Floor.module.css';

const CLOCK = { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' } as const;
const toClock = (at: Date) => at.toLocaleString('en-GB', CLOCK);

/** When what was poured is ready, and how long that is from now. */
export function CureTimer({ cure }: { cure: Cure | null }) {
  const now = useNow();
  if (!cure) return <p className={styles.trouble}>Not poured yet: it cures from the tick on.</p>;
  const left = Math.ceil((cure.readyAt.getTime() - now) / 60_000);
  const since = `Poured ${toClock(cure.pouredAt)} (${cure.author})`;
  return left > 0 ? (
    <p className={styles.trouble} role="timer">
      {since}. Ready {toClock(cure.readyAt)}: {Math.floor(left / 60)} h {left % 60} min to go. Leave it alone until then.
    </p>
  ) : (
    <p role="timer">
      {since}. Hard since {toClock(cure.readyAt)}: try it with the nail.
    </p>
  );
}
