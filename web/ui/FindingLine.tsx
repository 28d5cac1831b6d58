import type { Finding } from 'wattograph-core';
import { useJobStore } from '../client/jobContext';
import styles from './FindingLine.module.css';

/** One finding where it matters, with the button that mends it where there is one. */
export function FindingLine({ finding }: { finding: Finding }) {
  const store = useJobStore();
  const { grade, code, sentence, fix } = finding;
  return (
    <p className={`${styles.line} ${grade === 'note' ? styles.note : ''}`}>
      <b>
        {grade} {code}
      </b>{' '}
      {sentence} {fix && <button onClick={() => store.push(fix.label, fix.patch)}>{fix.label}</button>}
    </p>
  );
}
