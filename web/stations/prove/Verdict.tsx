import { Button } from '@mantine/core';
import { Link } from '../../ui/Link';
import { useMemo } from 'react';
import { measureProgress, STAND_IN, toCount } from 'wattograph-core';
import type { FloorStore } from '../../client/floor/floorStore';
import { useMay, usePerson } from '../../client/person';
import styles from './Prove.module.css';
import type { ProvePack } from './provePack';
import type { ProofState } from './useProof';

/** How the loom stands in one sentence, and what follows from it. */
export function Verdict({
  pack,
  proof,
  store,
  jobId,
  isPractice,
}: {
  pack: ProvePack;
  proof: ProofState;
  store: FloorStore;
  jobId: string;
  isPractice: boolean;
}) {
  const { examined, proofs } = proof;
  const { name: author } = usePerson();
  const may = useMay('report');
  const total = pack.ringOut.tests.length;
  const isRead = examined.unread.length < total;
  const isSound = examined.passed === total;
  const isSham = !isPractice && [...proofs.values()].some(({ instrument, voidBecause }) => instrument === STAND_IN && voidBecause === null);
  const voided = pack.ringOut.tests.filter(({ id }) => proofs.get(id)?.voidBecause).length;
  const test = pack.steps.find(({ id }) => id === 'test');
  const ticked = useMemo(
    () => measureProgress(pack.steps, proof.events, pack.carried).get('test')?.ticked,
    [pack.steps, pack.carried, proof.events],
  );
  const powerless = pack.plan.wires.flatMap(({ number, heldBy }) =>
    heldBy.flatMap(({ stops, words }) => (stops === 'energise' ? [`${number}, ${words}`] : [])),
  );
  const open = test?.items.filter(({ id, heldBecause }) => heldBecause === null && !ticked?.has(id)) ?? [];
  return (
    <div className={`${styles.verdict} ${examined.failed.length > 0 ? styles.bad : isSound ? styles.good : ''}`}>
      <h2>
        {examined.failed.length > 0
          ? `${toCount(examined.failed.length, 'measurement')} failed`
          : isSound
            ? `All ${total} measurements pass`
            : isRead
              ? `${examined.passed} of ${total} pass, none fails`
              : 'Nothing is measured yet'}
      </h2>
      <p>
        {toCount(total, 'measurement')}, {toCount(pack.ringOut.moves, 'move')} of a probe to another end; {examined.passed} passed,{' '}
        {examined.unread.length} to go
        {voided > 0 && `, ${voided} of them read before something was done over`}.
      </p>
      {powerless.length > 0 && <p className={styles.alarm}>▲ Held from power, whatever the measurements say: {powerless.join('; ')}.</p>}
      {isSham && (
        <p className={styles.alarm}>
          ▲ There are readings of the stand-in tester among these: they say nothing of this loom and prove nothing.
        </p>
      )}
      {isSound && !isPractice && !isSham && open.length > 0 && (
        <Button
          disabled={!may}
          onClick={() => {
            store.addMany(
              open.map(({ id }) => ({ loomId: pack.plan.loomId, stepId: 'test', itemId: id, kind: 'tick', words: 'proved', author })),
            );
          }}
        >
          Tick the test on the floor
        </Button>
      )}
      {isSound && !isPractice && !isSham && open.length === 0 && (
        <p>
          Ticked on the floor.{' '}
          <Link href={`/jobs/${jobId}/floor?loom=${pack.plan.loomId}&release=${pack.release}`}>
            Somebody else looks it over and signs there.
          </Link>{' '}
          <Link href={`/jobs/${jobId}/prove/power?release=${pack.release}`}>First power of the vehicle</Link> comes once every loom is.
        </p>
      )}
    </div>
  );
}
