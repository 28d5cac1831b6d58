import { Button } from '@mantine/core';
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
            <Button size="xs" variant="default" disabled={!may} onClick={() => onMended(fault)}>
              Mended: measure it again
            </Button>
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
