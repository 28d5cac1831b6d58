'use client';

import { useMemo } from 'react';
import {
  ANCHOR_STATES,
  compareIds,
  countPassing,
  placeAnchor,
  settleAnchor,
  type Anchor,
  type Command,
  type Job,
  type LoomPlan,
} from 'wattograph-core';
import { readAuthor } from '../../client/person';
import { useJob, useJobStore } from '../../client/jobContext';
import { Pick } from '../../ui/fields/Pick';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';

interface Row {
  id: string;
  anchor: Anchor;
}

const STATE_WORDS = { open: 'open', fixed: 'fixed', 'not-here': 'not part of this job' } as const;

/** What has to stand still before lengths are measured, and where on the looms it is: while it is open, what passes there is not cut. */
export function AnchorsTable({ job }: { job: Job }) {
  const store = useJobStore();
  const rows = useMemo(() => Object.entries(job.anchors).map(([id, anchor]) => ({ id, anchor })), [job]);
  const looms = useJob(({ result }) => result?.looms ?? null);
  const columns = useMemo(() => createColumns(job, looms, store.edit), [job, looms, store]);
  return (
    <DataTable
      name="anchors"
      label="Anchors"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      empty={<p className={styles.empty}>This job lists no anchors.</p>}
    />
  );
}

function createColumns(job: Job, looms: readonly LoomPlan[] | null, edit: (command: Command) => void): Column<Row>[] {
  return [
    { id: 'anchor', head: 'anchor', value: ({ anchor }) => anchor.name },
    { id: 'place', head: 'on the vehicle', value: ({ anchor }) => anchor.place, cell: ({ anchor }) => anchor.place || '–' },
    {
      id: 'state',
      head: 'state',
      value: ({ anchor }) => STATE_WORDS[anchor.state],
      cell: ({ id, anchor }) => (
        <Pick
          label={`State of ${anchor.name}`}
          value={anchor.state}
          options={ANCHOR_STATES.map((value) => ({ value, label: STATE_WORDS[value] }))}
          onChange={(state) => state && edit(settleAnchor(id, anchor.name, state, readAuthor()))}
        />
      ),
    },
    { id: 'by', head: 'by', value: ({ anchor }) => anchor.by },
    {
      id: 'nodes',
      head: 'on the looms',
      value: ({ anchor }) => anchor.nodes.map((one) => toNodeWords(job, one)).join(', '),
      cell: ({ id, anchor }) => <Nodes job={job} anchor={anchor} onChange={(nodes) => edit(placeAnchor(id, anchor.name, nodes))} />,
    },
    {
      id: 'passing',
      head: 'wires that pass it',
      isNumber: true,
      value: ({ anchor }) => (anchor.nodes.length === 0 || looms === null ? null : countPassing(job, looms, anchor)),
    },
    { id: 'holds', head: '', value: ({ anchor }) => toHoldingWords(anchor) },
  ];
}

const toKey = ({ loomId, nodeId }: Anchor['nodes'][number]) => `${loomId} ${nodeId}`;

const toNodeWords = (job: Job, { loomId, nodeId }: Anchor['nodes'][number]): string => {
  const loom = job.looms[loomId];
  const node = loom?.nodes[nodeId];
  return loom && node ? `${loom.name} · ${node.name}` : 'what is no longer there';
};

const toHoldingWords = ({ state, nodes }: Anchor): string => {
  if (state !== 'open') return '';
  return nodes.length === 0 ? 'open: nothing is cut before somebody says where it is' : 'open: these are not cut, all others are';
};

function Nodes({ job, anchor, onChange }: { job: Job; anchor: Anchor; onChange: (nodes: Anchor['nodes']) => void }) {
  const chosen = new Set(anchor.nodes.map(toKey));
  const all = Object.entries(job.looms).flatMap(([loomId, loom]) =>
    Object.keys(loom.nodes)
      .sort(compareIds)
      .map((nodeId) => ({ loomId, nodeId })),
  );
  return (
    <>
      {anchor.nodes.map((node) => (
        <span key={toKey(node)} className={styles.chip}>
          {toNodeWords(job, node)}
          <button
            aria-label={`${anchor.name} is not at ${toNodeWords(job, node)}`}
            onClick={() => onChange(anchor.nodes.filter((one) => one !== node))}
          >
            ×
          </button>
        </span>
      ))}
      <Pick
        label={`Where ${anchor.name} lies`}
        value={null}
        none={anchor.nodes.length ? 'and …' : 'nowhere said …'}
        options={all.filter((one) => !chosen.has(toKey(one))).map((one) => ({ value: toKey(one), label: toNodeWords(job, one) }))}
        onChange={(key) => {
          const node = all.find((one) => toKey(one) === key);
          if (node) onChange([...anchor.nodes, node]);
        }}
      />
    </>
  );
}
