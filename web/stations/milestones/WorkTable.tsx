import { Link } from '../../ui/Link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { toTimeWords, type WorkLeft } from 'wattograph-core';
import { Segmented } from '../../ui/fields/Segmented';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import { toSystemWords } from './Blockers';
import type { MilestonePack } from './milestonePack';
import styles from './Milestones.module.css';
import type { MilestoneLeft } from './useMilestones';

const STEPS: Column<WorkLeft>[] = [
  { id: 'step', head: 'Step', value: ({ step }) => step.title },
  {
    id: 'left',
    head: 'Left',
    isNumber: true,
    value: ({ items, held }) => items.length + held.length,
    cell: ({ step, items, held }) => `${items.length + held.length} of ${step.items.length}`,
  },
  {
    id: 'held',
    head: 'Held',
    isNumber: true,
    value: ({ held }) => held.length || null,
    cell: ({ held }) =>
      held.length > 0 && <span title={[...new Set(held.map(({ heldBecause }) => heldBecause))].join('; ')}>▲ {held.length}</span>,
  },
  {
    id: 'minutes',
    head: 'Takes',
    isNumber: true,
    value: ({ minutes }) => Math.round(minutes * 10) / 10,
    cell: ({ minutes }) => (minutes > 0 ? toTimeWords(minutes) : ''),
  },
];

type Part = MilestoneLeft['parts'][number];
const PARTS: Column<Part>[] = [
  { id: 'part', head: 'Part', value: ({ words }) => words },
  { id: 'for', head: 'For', value: ({ step }) => step.title },
];

const SHOWN = ['steps', 'parts'] as const;

/** The steps that a milestone waits for, in the order of each loom, or the parts that they need. */
export function WorkTable({ jobId, pack, left }: { jobId: string; pack: MilestonePack; left: MilestoneLeft }) {
  const [shown, setShown] = useState<(typeof SHOWN)[number]>('steps');
  const names = useMemo(() => new Map(pack.looms.map(({ loomId, name }) => [loomId, name])), [pack.looms]);
  const router = useRouter();
  const { wires } = left.needs;
  const toFloor = (loomId: string, stepId: string) =>
    router.push(`/jobs/${jobId}/floor?loom=${loomId}&release=${pack.power.release}&card=${encodeURIComponent(`step ${stepId}`)}`);
  const tools = (
    <>
      <Segmented label="Shown" value={shown} onChange={setShown} options={SHOWN.map((value) => ({ value, words: value }))} />
      <Link className={styles.tool} href={`/jobs/${jobId}/floor?release=${pack.power.release}`}>
        work on the floor
      </Link>
    </>
  );
  return (
    <section className={styles.work}>
      <p className={styles.asked}>
        {toSystemWords(left.needs)}
        {wires !== null && `: ${wires.length} of them, what comes before, and the ring-out of their looms`}.{' '}
        {wires !== null && <Link href="/shop">The shop says which</Link>}
      </p>
      {shown === 'steps' ? (
        <DataTable
          name="milestone-steps"
          label="Work left"
          rows={left.work}
          columns={STEPS}
          keyOf={({ loomId, step }) => `${loomId} ${step.id}`}
          groupOf={({ loomId }) => names.get(loomId)!}
          onPick={({ loomId, step }) => toFloor(loomId, step.id)}
          isEven
          empty="No work on a loom is left."
        >
          {tools}
        </DataTable>
      ) : (
        <DataTable
          name="milestone-parts"
          label="Parts of the work left"
          rows={left.parts}
          columns={PARTS}
          keyOf={({ loomId, step, words }) => `${loomId} ${step.id} ${words}`}
          groupOf={({ loomId }) => names.get(loomId)!}
          isEven
          empty="No part is asked for by what is left."
        >
          {tools}
        </DataTable>
      )}
    </section>
  );
}
