import { useState } from 'react';
import { REGISTER, type Finding } from 'wattograph-core';
import { useJob, useJobStore } from '../../client/jobContext';
import { WaiveButton, Stands, useWaiver } from './WaiveFinding';
import styles from './FindingLine.module.css';

/** So many findings leave room for what they are about; the rest comes on demand. */
const SHOWN = 3;

/** Findings where they matter: what is open first, in the order given, then what may stand. */
export function FindingLines({ findings }: { findings: readonly Finding[] }) {
  const [all, setAll] = useState(false);
  const accepted = useJob(({ document }) => document.accepted);
  const stands = ({ key }: Finding) => Object.hasOwn(accepted, key);
  const ordered = [...findings.filter((one) => !stands(one)), ...findings.filter(stands)];
  const more = findings.length - SHOWN;
  return (
    <>
      {(all ? ordered : ordered.slice(0, SHOWN)).map((finding) => (
        <FindingLine key={finding.key} finding={finding} />
      ))}
      {more > 0 && (
        <button className={styles.more} aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'fewer' : `${more} more ${more === 1 ? 'finding' : 'findings'}`}
        </button>
      )}
    </>
  );
}

/** One finding with the button that mends it where there is one, or the reason for which it stands. */
function FindingLine({ finding }: { finding: Finding }) {
  const store = useJobStore();
  const isAccepted = useWaiver(finding) !== undefined;
  const { grade, code, sentence, fix } = finding;
  return (
    <p className={`${styles.line} ${grade === 'note' || isAccepted ? styles.note : ''}`}>
      <b title={REGISTER[code].means}>
        {grade} {code}
      </b>{' '}
      {sentence}
      <Stands finding={finding} /> {fix && !isAccepted && <button onClick={() => store.push(fix.label, fix.patch)}>{fix.label}</button>}
      <WaiveButton finding={finding} className={styles.stand} />
    </p>
  );
}
