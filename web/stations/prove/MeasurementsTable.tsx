import { useMemo, useState } from 'react';
import { isPassing, nameProbe, toPassWords, toReadingWords, type ProofTest } from 'wattograph-core';
import { Segmented } from '../../ui/fields/Segmented';
import { DataTable } from '../../ui/table/DataTable';
import type { Column } from '../../ui/table/columns';
import styles from './Prove.module.css';
import type { ProvePack } from './provePack';
import type { ProofState } from './useProof';

type Standing = 'to do' | 'passed' | 'failed' | 'void';
interface Row {
  test: ProofTest;
  standing: Standing;
}

const SHOWN = ['all', 'to do', 'failed', 'passed'] as const;

/** Every measurement in the order in which probes move least, with its last reading. */
export function MeasurementsTable({
  pack,
  proof,
  chosen,
  onPick,
}: {
  pack: ProvePack;
  proof: ProofState;
  chosen: string | null;
  onPick: (test: ProofTest) => void;
}) {
  const { ringOut } = pack;
  const { proofs, values, examined } = proof;
  const [shown, setShown] = useState<(typeof SHOWN)[number]>('all');
  const rows = useMemo(() => {
    // what would tell more stands first, where it is seen
    const all = [...examined.seeks, ...ringOut.tests].map((test): Row => {
      const value = values.get(test.id);
      if (value === undefined) return { test, standing: proofs.has(test.id) ? 'void' : 'to do' };
      return { test, standing: isPassing(test, value) ? 'passed' : 'failed' };
    });
    return all.filter(({ standing }) => shown === 'all' || standing === shown || (shown === 'to do' && standing === 'void'));
  }, [ringOut, examined.seeks, values, proofs, shown]);
  const columns = useMemo((): Column<Row>[] => {
    const nets = new Map(ringOut.nets.map(({ id, name }) => [id, name]));
    return [
      { id: 'from', head: 'Black on', value: ({ test }) => nameProbe(ringOut, test.from) },
      { id: 'to', head: 'Red on', value: ({ test }) => (test.to ? nameProbe(ringOut, test.to) : 'all others') },
      { id: 'net', head: 'Net', value: ({ test }) => nets.get(test.netId) ?? '' },
      { id: 'passes', head: 'Passes', className: styles.passes, value: ({ test }) => toPassWords(test) },
      {
        id: 'read',
        head: 'Read',
        isNumber: true,
        value: ({ test }) => proofs.get(test.id)?.value ?? null,
        cell: ({ test }) => (proofs.has(test.id) ? toReadingWords(test, proofs.get(test.id)!.value) : ''),
      },
      {
        id: 'standing',
        head: 'Stands',
        value: ({ standing }) => standing,
        cell: ({ test, standing }) => (
          <span
            className={standing === 'failed' ? styles.failed : standing === 'passed' ? styles.passed : styles.todo}
            title={proofs.get(test.id)?.voidBecause ?? undefined}
          >
            {standing === 'failed' ? '▲ failed' : standing === 'passed' ? '✓ passed' : standing}
          </span>
        ),
      },
      {
        id: 'by',
        head: 'By',
        value: ({ test }) => proofs.get(test.id)?.author ?? '',
        cell: ({ test }) => <span title={proofs.get(test.id)?.instrument}>{proofs.get(test.id)?.author ?? ''}</span>,
      },
    ];
  }, [ringOut, proofs]);
  return (
    <section className={styles.table}>
      <DataTable
        name="prove"
        label="Measurements"
        rows={rows}
        columns={columns}
        keyOf={({ test }) => test.id}
        groupOf={({ test }) => toGroup(pack, test)}
        isHere={({ test }) => test.id === chosen}
        onPick={({ test }) => onPick(test)}
        seek={chosen}
        empty="No measurement stands so."
      >
        <Segmented label="Shown" value={shown} onChange={setShown} options={SHOWN.map((value) => ({ value, words: value }))} />
      </DataTable>
    </section>
  );
}

/** The two ends that the probes are at: as long as they stay nobody walks. */
function toGroup({ ringOut }: ProvePack, test: ProofTest): string {
  if (test.kind === 'seek') return 'To tell what is wrong';
  if (test.to === null) return `Isolation at ${ringOut.isolationVolts} V, each net against all others`;
  const end = (id: string) => ringOut.ends.find((one) => one.id === id)?.name ?? id;
  return test.kind === 'part' ? 'Across parts of the loom' : `${end(test.from.endId)} to ${end(test.to.endId)}`;
}
