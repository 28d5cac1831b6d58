import { Button } from '@mantine/core';
import { useState } from 'react';
import { toCount, toFaultWords, type Examined, type LoomFault } from 'wattograph-core';
import styles from './Prove.module.css';
import type { ProvePack } from './provePack';

/** What is wrong, each with where to look; and what would tell more. */
export function FaultList({
  pack: { ringOut },
  examined: { faults, seeks, failed },
  may,
  onMended,
}: {
  pack: ProvePack;
  examined: Examined;
  may: boolean;
  onMended: (fault: LoomFault) => void;
}) {
  if (failed.length === 0) return null;
  return (
    <section aria-label="What is wrong" className={styles.faults}>
      {faults.map((fault, at) => {
        const { what, look } = toFaultWords(ringOut, fault);
        return (
          <article key={`${fault.kind} ${fault.netIds.join(' ')} ${at}`} className={styles.fault}>
            <h3>{what}</h3>
            <p>{look}</p>
            <Mended may={may} onMended={() => onMended(fault)} />
          </article>
        );
      })}
      {seeks.length > 0 && (
        <p className={styles.seeks}>
          {faults.length === 0 ? 'What is wrong cannot be told yet. ' : ''}
          {toCount(seeks.length, 'more measurement')} {faults.length === 0 ? 'would tell' : 'would tell where to look'}; each that is made
          may spare others.
        </p>
      )}
    </section>
  );
}

/** It voids what was passed there, and that cannot be taken back: asked twice. */
function Mended({ may, onMended }: { may: boolean; onMended: () => void }) {
  const [isAsked, setAsked] = useState(false);
  if (!isAsked)
    return (
      <Button size="xs" variant="default" disabled={!may} onClick={() => setAsked(true)}>
        Mended: measure it again
      </Button>
    );
  return (
    <>
      <p>
        The work at its cavities counts as done over: what was measured there, the test and the signature of the loom are void. That is not
        taken back.
      </p>
      <span>
        <Button size="xs" disabled={!may} onClick={onMended} autoFocus>
          Yes, it was done over
        </Button>{' '}
        <Button size="xs" variant="default" onClick={() => setAsked(false)}>
          Not yet
        </Button>
      </span>
    </>
  );
}
