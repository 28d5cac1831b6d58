'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { findFamily, isMate, type Job, mateEnds, takeMateApart } from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import styles from './Brief.module.css';

/** Which end plugs into which, across the looms of the job. */
export function MatesTable({ job }: { job: Job }) {
  const shop = useShop();
  const store = useJobStore();
  const router = useRouter();
  const [a, setA] = useState('');
  const [b, setB] = useState('');
  const mated = new Set(Object.values(job.mates).flatMap((mate) => [mate.a, mate.b].map(({ loomId, endId }) => `${loomId} ${endId}`)));
  const ends = Object.entries(job.looms).flatMap(([loomId, loom]) =>
    Object.entries(loom.ends).flatMap(([endId, end]) =>
      end.kind === 'connector' && !mated.has(`${loomId} ${endId}`)
        ? [{ key: `${loomId} ${endId}`, loomId, endId, familyId: end.familyId, words: `${loom.name} · ${end.name}` }]
        : [],
    ),
  );
  const one = ends.find(({ key }) => key === a);
  const fitting = ends.filter((end) => {
    if (!one || end.key === one.key || end.loomId === one.loomId) return false;
    const [a, b] = [one, end].map(({ familyId }) => findFamily(job, shop, familyId));
    // a housing that is still to be chosen is chosen to fit
    return !a || !b || isMate(one.familyId!, a, end.familyId!, b);
  });
  const other = fitting.find(({ key }) => key === b);
  const name = ({ loomId, endId }: { loomId: string; endId: string }) =>
    `${job.looms[loomId]!.name} · ${job.looms[loomId]!.ends[endId]!.name}`;
  return (
    <>
      <div className={styles.bar}>
        <select className={styles.pick} aria-label="This end" value={a} onChange={(event) => setA(event.target.value)}>
          <option value="">an end …</option>
          {ends.map(({ key, words }) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
        plugs into
        <select className={styles.pick} aria-label="Plugs into" value={b} onChange={(event) => setB(event.target.value)} disabled={!one}>
          <option value="">{one && fitting.length === 0 ? 'no end on another loom that it goes into' : 'an end of another loom …'}</option>
          {fitting.map(({ key, words }) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
        <button
          className={styles.button}
          disabled={!one || !other}
          onClick={() => {
            const [first, second] = [one!, other!].map(({ loomId, endId }) => ({ loomId, endId }));
            store.edit(mateEnds({ a: first!, b: second! }, { a: one!.words, b: other!.words }));
            setA('');
            setB('');
          }}
        >
          Mate them
        </button>
      </div>
      {Object.keys(job.mates).length === 0 && (
        <p className={styles.empty}>
          No looms are mated yet. Where one loom plugs into another, both ends are shown on both strips, and a cavity wired on one side only
          is found.
        </p>
      )}
      <table className={styles.table}>
        <tbody>
          {Object.entries(job.mates).map(([id, mate]) => (
            <tr key={id}>
              {[mate.a, mate.b].map((side) => (
                <td key={side.loomId}>
                  <button className={styles.link} onClick={() => router.push(`ends?loom=${side.loomId}&end=${side.endId}`)}>
                    {name(side)}
                  </button>
                </td>
              ))}
              <td>
                <button className={styles.link} onClick={() => store.edit(takeMateApart(id))}>
                  take apart
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
