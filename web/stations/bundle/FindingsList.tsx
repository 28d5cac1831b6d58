'use client';

import type { Finding } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { WaiveButton, Stands } from '../../ui/WaiveFinding';
import { useCursorStore } from '../../ui/cursor';
import styles from './Bundle.module.css';

const SHAPE = { stop: '⬣', check: '▲', note: '●' } as const;

/** Findings of a loom with what mends them, or lets them stand with a reason. */
export function FindingsList({ planned, findings }: { planned: PlannedLoom; findings: readonly Finding[] }) {
  const store = useJobStore();
  const cursor = useCursorStore();
  const { job, plan } = planned;
  const show = ({ places }: Finding) => {
    const splice = plan.splices.find(({ id }) => places.some((one) => one.kind === 'splice' && one.id === id));
    const segment = places.find(({ kind, id }) => kind === 'segment' && plan.tree.segments[id]);
    const end = places.find(({ kind }) => kind === 'end');
    const node = end ? planned.loom.ends[end.id]?.nodeId : places.find(({ kind }) => kind === 'node')?.id;
    const at = node === undefined ? null : plan.tree.nodes[node]?.parentSegmentId;
    if (splice) cursor.set(splice.place);
    else if (segment) cursor.set({ segmentId: segment.id, offsetMm: plan.tree.segments[segment.id]!.lengthMm / 2 });
    else if (at) cursor.set({ segmentId: at, offsetMm: plan.tree.segments[at]!.lengthMm });
  };
  if (findings.length === 0) return <p className={styles.wait}>No findings: every rule that applies is kept.</p>;
  return (
    <table className={styles.table}>
      <tbody>
        {findings.map((finding) => {
          const isAccepted = Object.hasOwn(job.accepted, finding.key);
          return (
            <tr key={finding.key}>
              <td className={finding.grade === 'stop' && !isAccepted ? styles.stop : ''}>
                <span className={styles.grade}>
                  {SHAPE[finding.grade]} {finding.grade}
                </span>{' '}
                <span className="mono">{finding.code}</span>
              </td>
              <td style={{ whiteSpace: 'normal' }}>
                {finding.sentence}
                <Stands finding={finding} />
              </td>
              <td style={{ textAlign: 'right' }}>
                <button className={styles.link} onClick={() => show(finding)}>
                  show
                </button>
                {finding.fix && (
                  <button className={styles.link} onClick={() => store.push(finding.fix!.label, finding.fix!.patch)}>
                    <b>{finding.fix.label}</b>
                  </button>
                )}
                <WaiveButton finding={finding} className={styles.link} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
