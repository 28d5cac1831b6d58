import { useState } from 'react';
import { REGISTER, toCount, type Finding } from 'wattograph-core';
import { useJob, useJobStore } from '../../client/jobContext';
import { WaiveButton, Stands, useWaiver } from './WaiveFinding';
import styles from './FindingLine.module.css';

/** So many findings leave room for what they are about; the rest comes on demand. */
const SHOWN = 2;

/** Findings where they matter: what is open first, in the order given, then what may stand; notes only on demand. */
export function FindingLines({ findings }: { findings: readonly Finding[] }) {
  const [all, setAll] = useState(false);
  const accepted = useJob(({ document }) => document.accepted);
  const stands = ({ key }: Finding) => Object.hasOwn(accepted, key);
  const isOpen = (one: Finding) => one.grade !== 'note' && !stands(one);
  const open = findings.filter(isOpen);
  const ordered = [...open, ...findings.filter((one) => !isOpen(one) && !stands(one)), ...findings.filter(stands)];
  const shown = all ? ordered : open.slice(0, SHOWN);
  const notes = findings.filter(({ grade }) => grade === 'note').length;
  const rest = findings.length - notes - Math.min(SHOWN, open.length);
  const more = [rest > 0 ? `${rest} more ${rest === 1 ? 'finding' : 'findings'}` : '', notes > 0 ? toCount(notes, 'note') : '']
    .filter(Boolean)
    .join(', ');
  return (
    <>
      {shown.map((finding) => (
        <FindingLine key={finding.key} finding={finding} />
      ))}
      {more && (
        <button type="button" className={styles.more} aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'fewer' : more}
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
      <Stands finding={finding} />{' '}
      {fix && !isAccepted && (
        <button type="button" onClick={() => store.push(fix.label, fix.patch)}>
          {fix.label}
        </button>
      )}
      <WaiveButton finding={finding} className={styles.stand} />
    </p>
  );
}
