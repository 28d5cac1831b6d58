import { listEndCheck, type Step } from 'wattograph-core';
import type { BenchPack } from '../../client/floor/useFloorStore';
import styles from './Floor.module.css';

/** What is looked at when the last contact of an end is in. */
export function EndCheck({ pack, step }: { pack: Pick<BenchPack, 'job' | 'plan' | 'families'>; step: Step }) {
  const { job, plan, families } = pack;
  const lines = listEndCheck(step, plan, job.looms[plan.loomId]!, families);
  if (lines.length === 0) return null;
  return (
    <section aria-label="End check" className={styles.endCheck}>
      <b>Before it leaves your hand</b>
      <ul>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
