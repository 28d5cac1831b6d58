'use client';

import { useMemo } from 'react';
import type { Finding } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { WaiveButton, Stands } from '../../ui/findings/WaiveFinding';
import { useCursorStore } from '../../ui/cursor';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Bundle.module.css';

const SHAPE = { stop: '⬣', check: '▲', note: '●' } as const;

/** Findings of a loom with what mends them, or lets them stand with a reason. */
export function FindingsList({ planned, findings }: { planned: PlannedLoom; findings: readonly Finding[] }) {
  const store = useJobStore();
  const cursor = useCursorStore();
  const columns = useMemo(() => {
    const { plan, loom, job } = planned;
    const show = ({ places }: Finding) => {
      const splice = plan.splices.find(({ id }) => places.some((one) => one.kind === 'splice' && one.id === id));
      const segment = places.find(({ kind, id }) => kind === 'segment' && plan.tree.segments[id]);
      const end = places.find(({ kind }) => kind === 'end');
      const node = end ? loom.ends[end.id]?.nodeId : places.find(({ kind }) => kind === 'node')?.id;
      const at = node === undefined ? null : plan.tree.nodes[node]?.parentSegmentId;
      if (splice) cursor.set(splice.place);
      else if (segment) cursor.set({ segmentId: segment.id, offsetMm: plan.tree.segments[segment.id]!.lengthMm / 2 });
      else if (at) cursor.set({ segmentId: at, offsetMm: plan.tree.segments[at]!.lengthMm });
    };
    return createColumns((key) => Object.hasOwn(job.accepted, key), show, store);
  }, [planned, cursor, store]);
  return (
    <DataTable
      name="findings"
      label="Findings"
      rows={findings}
      columns={columns}
      keyOf={({ key }) => key}
      empty={<p className={styles.wait}>No findings: every rule that applies is kept.</p>}
    />
  );
}

function createColumns(
  isAccepted: (key: string) => boolean,
  show: (finding: Finding) => void,
  store: ReturnType<typeof useJobStore>,
): Column<Finding>[] {
  return [
    {
      id: 'grade',
      head: 'grade',
      value: ({ grade, code }) => `${grade} ${code}`,
      cell: ({ grade, code, key }) => (
        <span className={`${styles.code} ${grade === 'stop' && !isAccepted(key) ? styles.stop : ''}`}>
          <span className={styles.grade}>
            {SHAPE[grade]} {grade}
          </span>{' '}
          <span className="mono">{code}</span>
        </span>
      ),
    },
    {
      id: 'finding',
      head: 'finding',
      className: styles.wrap,
      value: ({ sentence }) => sentence,
      cell: (finding) => (
        <>
          {finding.sentence}
          <Stands finding={finding} />
        </>
      ),
    },
    {
      id: 'do',
      head: '',
      cell: (finding) => (
        <span className={styles.does}>
          <button className={styles.link} onClick={() => show(finding)}>
            show
          </button>
          {finding.fix && (
            <button className={styles.link} onClick={() => store.push(finding.fix!.label, finding.fix!.patch)}>
              <b>{finding.fix.label}</b>
            </button>
          )}
          <WaiveButton finding={finding} className={styles.link} />
        </span>
      ),
    },
  ];
}
