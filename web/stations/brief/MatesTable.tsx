'use client';

import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { findFamily, isMate, type Job, type Mate, mateEnds, takeMateApart } from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { Pick } from '../../ui/fields/Pick';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';

interface Row {
  id: string;
  mate: Mate;
}

/** Which end plugs into which, across the looms of the job. */
export function MatesTable({ job }: { job: Job }) {
  const shop = useShop();
  const store = useJobStore();
  const router = useRouter();
  const [a, setA] = useState<string | null>(null);
  const [b, setB] = useState<string | null>(null);
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
  const rows = useMemo(() => Object.entries(job.mates).map(([id, mate]) => ({ id, mate })), [job]);
  const columns = useMemo(() => {
    const name = ({ loomId, endId }: { loomId: string; endId: string }) =>
      `${job.looms[loomId]!.name} · ${job.looms[loomId]!.ends[endId]!.name}`;
    return [
      ...(['a', 'b'] as const).map((side): Column<Row> => ({
        id: side,
        head: side === 'a' ? 'this end' : 'plugs into',
        value: ({ mate }) => name(mate[side]),
        cell: ({ mate }) => (
          <button className={styles.link} onClick={() => router.push(`ends?loom=${mate[side].loomId}&end=${mate[side].endId}`)}>
            {name(mate[side])}
          </button>
        ),
      })),
      {
        id: 'do',
        head: '',
        cell: ({ id }: Row) => (
          <button className={styles.link} onClick={() => store.edit(takeMateApart(id))}>
            take apart
          </button>
        ),
      },
    ];
  }, [job, router, store]);
  const bar = (
    <div className={styles.bar}>
      <Pick
        label="This end"
        value={a}
        none="an end …"
        options={ends.map(({ key, words }) => ({ value: key, label: words }))}
        onChange={setA}
      />
      plugs into
      <Pick
        label="Plugs into"
        value={b}
        none={one && fitting.length === 0 ? 'no end on another loom that it goes into' : 'an end of another loom …'}
        options={fitting.map(({ key, words }) => ({ value: key, label: words }))}
        onChange={setB}
        disabled={!one}
      />
      <button
        className={styles.button}
        disabled={!one || !other}
        onClick={() => {
          const [first, second] = [one!, other!].map(({ loomId, endId }) => ({ loomId, endId }));
          store.edit(mateEnds({ a: first!, b: second! }, { a: one!.words, b: other!.words }));
          setA(null);
          setB(null);
        }}
      >
        Mate them
      </button>
    </div>
  );
  return (
    <DataTable
      name="mates"
      label="Mates"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      empty={
        <>
          {bar}
          <p className={styles.empty}>
            No looms are mated yet. Where one loom plugs into another, both ends are shown on both strips, and a cavity wired on one side
            only is found.
          </p>
        </>
      }
    >
      {bar}
    </DataTable>
  );
}
