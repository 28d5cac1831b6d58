import { DOUBT_WORDS, DOUBTS, listLikelyDoubts, type PinNeed } from 'wattograph-core';
import { EvidencePick } from './EvidencePick';
import styles from './PinEvidence.module.css';

/** Where what a pin is is known from; of a guess, what of it: each stops the work that the shop says. */
export function PinEvidence({
  label,
  pin,
  none,
  onChange,
}: {
  label: string;
  pin: PinNeed;
  none: string;
  onChange: (part: Pick<PinNeed, 'evidence' | 'doubts'>) => void;
}) {
  const { evidence, doubts } = pin;
  return (
    <>
      <EvidencePick
        label={label}
        value={evidence}
        none={none}
        onChange={(next) => onChange({ evidence: next, doubts: next === 'guessed' ? listLikelyDoubts(pin) : [] })}
      />
      {evidence === 'guessed' && (
        <span className={styles.doubts} role="group" aria-label={`Guessed: ${label}`}>
          {DOUBTS.map((doubt) => {
            const isIn = doubts.includes(doubt);
            return (
              <button
                key={doubt}
                type="button"
                aria-pressed={isIn}
                title="What of it is guessed. With none chosen all of it may be wrong, and its wire is not cut."
                onClick={() => onChange({ evidence, doubts: DOUBTS.filter((one) => (one === doubt ? !isIn : doubts.includes(one))) })}
              >
                {DOUBT_WORDS[doubt]}
              </button>
            );
          })}
        </span>
      )}
    </>
  );
}
