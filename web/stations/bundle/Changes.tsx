'use client';

import { useMemo } from 'react';
import { comparePlans, type PlanChanges } from 'wattograph-core';
import { useJob, type PlannedLoom } from '../../client/jobContext';
import { toSigned } from '../../ui/toSigned';
import styles from './Bundle.module.css';

/** What the last change did to this loom, or null where nothing was changed yet. */
export function useChanges(planned: PlannedLoom): PlanChanges | null {
  const before = useJob((state) => state.before);
  return useMemo(() => {
    const old = before?.looms.find(({ loomId }) => loomId === planned.loomId);
    return old && old !== planned.plan ? comparePlans(old, planned.plan) : null;
  }, [before, planned]);
}

/** The last change in a line: how many lengths, diameters and sleeves are now other ones, and the mass. */
export function Changes({ planned }: { planned: PlannedLoom }) {
  const changes = useChanges(planned);
  if (!changes)
    return (
      <p className={`${styles.changes} faint`} style={{ margin: 0 }}>
        Drag a breakout, or press Enter on a run and type its length: what changes is listed here.
      </p>
    );
  const { cuts, diameters, sleeves, massG } = changes;
  if (!cuts.length && !diameters.length && !sleeves.length && Math.abs(massG) < 0.005)
    return (
      <p className={styles.changes} style={{ margin: 0 }}>
        The last change altered no cut length, diameter, sleeve or mass.
      </p>
    );
  const shown = cuts
    .slice(0, 4)
    .map(({ number, fromMm, toMm }) => `${number} ${fromMm ?? 'new'} → ${toMm ?? 'gone'}`)
    .join(', ');
  return (
    <p className={styles.changes} style={{ margin: 0 }} role="status" aria-label="What the last change did">
      <span>
        <b>{cuts.length}</b> cut {cuts.length === 1 ? 'length' : 'lengths'}
        {shown && (
          <span className="narrow faint">
            {' '}
            {shown}
            {cuts.length > 4 ? ' …' : ''}
          </span>
        )}
      </span>
      <span>
        <b>{diameters.length}</b> {diameters.length === 1 ? 'diameter' : 'diameters'}
      </span>
      <span>
        <b>{sleeves.length}</b> {sleeves.length === 1 ? 'sleeve' : 'sleeves'}
      </span>
      <span>
        <b>{toSigned(massG, 1)} g</b>
      </span>
    </p>
  );
}
