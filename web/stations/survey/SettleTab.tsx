'use client';

import type { Job } from 'wattograph-core';
import type { SurveyStore } from '../../client/surveyStore';
import styles from './Survey.module.css';

/** Entries that met what somebody else entered, side by side. Nothing is lost before somebody says which counts. */
export function SettleTab({ store, job }: { store: SurveyStore; job: Job }) {
  const conflicts = Object.entries(job.surveyConflicts);
  return (
    <div className={styles.anchors}>
      <h2>{conflicts.length === 0 ? 'Nothing to settle' : 'Which counts?'}</h2>
      {conflicts.length === 0 && (
        <p className={styles.faint}>Where two people enter different things about one place, both are shown here.</p>
      )}
      {conflicts.map(([id, { mine, theirs, entry, canForce }]) => (
        <section key={id} className={styles.conflict} aria-label={mine}>
          <div>
            <h3>{entry.author} entered</h3>
            <p>{mine}</p>
            <button disabled={!canForce} onClick={() => void store.settle(id, 'mine')}>
              {canForce ? 'This counts' : 'Cannot be put on top'}
            </button>
          </div>
          <div>
            <h3>There stands</h3>
            <p>{theirs}</p>
            <button onClick={() => void store.settle(id, 'theirs')}>{canForce ? 'This stands' : 'Set it aside'}</button>
          </div>
        </section>
      ))}
    </div>
  );
}
