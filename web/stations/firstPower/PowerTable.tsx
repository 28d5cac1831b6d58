import { Fragment, useEffect, useRef } from 'react';
import type { FirstPower, JudgedPower, PowerProof } from 'wattograph-core';
import { FactTable } from '../../ui/table/FactTable';
import styles from '../prove/Prove.module.css';
import { PART_WORDS, toBandWords, toPowerWords } from './powerWords';

/** The whole sheet in its order, part by part and state by state; a line is read again by a press on it. */
export function PowerTable({
  sheet,
  judged,
  proofs,
  chosen,
  onPick,
}: {
  sheet: FirstPower;
  judged: JudgedPower;
  proofs: ReadonlyMap<string, PowerProof>;
  chosen: string | null;
  onPick: (testId: string) => void;
}) {
  const table = useRef<HTMLElement>(null);
  // what is read next, or what surprised, comes into sight by itself
  const shown = chosen ?? judged.failed[0]?.test.id ?? null;
  useEffect(() => {
    const rows = table.current?.querySelectorAll<HTMLElement>('[data-test]') ?? [];
    [...rows].find(({ dataset }) => dataset.test === shown)?.scrollIntoView({ block: 'center' });
  }, [shown]);
  const nameOf = new Map(sheet.states.map(({ id, name }) => [id, name]));
  return (
    <section ref={table} className={styles.sheet} aria-label="The sheet" tabIndex={0}>
      <FactTable label="First power">
        <thead>
          <tr>
            <th>what is read</th>
            <th>passes</th>
            <th>read</th>
          </tr>
        </thead>
        {judged.parts.map(({ part, passed, failed, total }) => (
          <tbody key={part}>
            <tr className={styles.part}>
              <th colSpan={2} scope="rowgroup">
                {PART_WORDS[part]}
              </th>
              <td className={failed > 0 ? styles.failed : passed === total ? styles.passed : styles.todo}>
                {failed > 0 ? `${failed} failed` : `${passed} of ${total}`}
              </td>
            </tr>
            {judged.tests
              .filter(({ test }) => test.part === part)
              .map((one, at, of) => {
                const { test, value, verdict } = one;
                const proof = proofs.get(test.id);
                const isNewState = test.stateId !== null && of[at - 1]?.test.stateId !== test.stateId;
                return (
                  <Fragment key={test.id}>
                    {isNewState && (
                      <tr>
                        <td colSpan={3} className={styles.stateLine}>
                          {nameOf.get(test.stateId!)}
                        </td>
                      </tr>
                    )}
                    <tr data-test={test.id} className={test.id === chosen ? styles.chosen : ''}>
                      <td>
                        <button className={styles.row} onClick={() => onPick(test.id)}>
                          {test.words}
                        </button>
                      </td>
                      <td className={styles.band}>{toBandWords(one)}</td>
                      <td className={verdict === 'failed' ? styles.failed : verdict === 'passed' ? styles.passed : styles.todo}>
                        {proof?.voidBecause
                          ? 'to be read again'
                          : value === null
                            ? 'to go'
                            : `${toPowerWords(value, test.unit)} ${verdict === 'failed' ? '✕' : '✓'}`}
                        {proof && proof.release !== null && proof.voidBecause === null && <small> revision {proof.release}</small>}
                      </td>
                    </tr>
                  </Fragment>
                );
              })}
          </tbody>
        ))}
      </FactTable>
    </section>
  );
}
