'use client';

import { useState } from 'react';
import { clampDatum, moveDatumBy, toCount } from 'wattograph-core';
import { readAuthor } from '../../client/person';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { Words } from '../../ui/fields/TextField';
import { readLength } from '../../ui/fields/readLength';
import styles from './Bundle.module.css';

/** The zero of every length: who clamped it, and what moving it would do. */
export function DatumBar({ planned }: { planned: PlannedLoom }) {
  const { loom, loomId, plan } = planned;
  const store = useJobStore();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const datum = loom.nodes[plan.tree.datumId]!;
  const byMm = readLength(text) ?? NaN;
  const isGood = text.trim() !== '' && Number.isFinite(byMm) && byMm !== 0;
  const first = plan.tree.nodes[plan.tree.datumId]!.childSegmentIds;
  const wires = plan.wires.filter(({ pieces }) => pieces.some(({ segmentId }) => first.includes(segmentId))).length;
  const lost = first.filter((id) => ['fitted', 'rough-cut'].includes(loom.segments[id]!.status)).length;
  const move = () => {
    try {
      store.edit(moveDatumBy({ loomId, tree: plan.tree }, byMm));
      setText('');
      setProblem(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className={styles.datum}>
      <span>
        Datum <b>{datum.name}</b>, {loom.clampedBy === null ? 'not clamped' : `clamped by ${loom.clampedBy}`}
      </span>
      <button className={styles.link} onClick={() => store.edit(clampDatum(loomId, loom.clampedBy === null ? readAuthor() : null))}>
        {loom.clampedBy === null ? 'it is clamped' : 'take the clamp off'}
      </button>
      {loom.clampedBy === null && first.length > 0 && (
        <>
          <label>
            move it away from the ends by <Words isShort label="Move the datum by, mm" most={20} value={text} onChange={setText} /> mm
          </label>
          <button className={styles.link} disabled={!isGood} onClick={move}>
            move
          </button>
          <span className="faint">
            {toCount(wires, 'wire changes', 'wires change')} by it
            {lost ? `; ${lost} fitted or rough-cut ${lost === 1 ? 'run' : 'runs'} at it would count as roped again` : ''}
          </span>
        </>
      )}
      {problem && (
        <span role="alert" className={styles.stop}>
          {problem}
        </span>
      )}
    </div>
  );
}
