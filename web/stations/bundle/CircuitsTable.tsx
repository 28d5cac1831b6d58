'use client';

import { useMemo, useState } from 'react';
import {
  type Circuit,
  type Loom,
  compareIds,
  chooseWireKind,
  createCircuit,
  toColourWords,
  removeCircuit,
  toNextNumber,
  KIND_WORDS,
} from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import { Swatch } from '../../ui/Swatch';
import styles from './Bundle.module.css';
import { useShop } from '../../client/shopContext';
import { CircuitDialog } from './CircuitDialog';

interface Row {
  id: string;
  circuit: Circuit;
}

/** The circuits of a loom: what joins what, in which wire. */
export function CircuitsTable({ planned }: { planned: PlannedLoom }) {
  const { job, loom, loomId } = planned;
  const shop = useShop();
  const store = useJobStore();
  const [open, setOpen] = useState<{ id: string | null } | null>(null);
  const rows = useMemo(
    () =>
      Object.keys(loom.circuits)
        .sort(compareIds)
        .map((id): Row => ({ id, circuit: loom.circuits[id]! })),
    [loom],
  );
  const columns = useMemo(
    () =>
      createColumns(
        loom,
        (id) => setOpen({ id }),
        ({ id, circuit }) => store.edit(removeCircuit(loomId, id, circuit.number)),
      ),
    [loom, loomId, store],
  );
  const hasEnds = Object.keys(loom.ends).length > 0;
  const add = (
    <button
      className={styles.link}
      disabled={!hasEnds}
      title={hasEnds ? undefined : 'add ends first'}
      onClick={() => setOpen({ id: null })}
    >
      Add circuit
    </button>
  );
  return (
    <>
      <DataTable
        name="circuits"
        label="Circuits of the loom"
        rows={rows}
        columns={columns}
        keyOf={({ id }) => id}
        empty={
          <div className={styles.wait}>
            <p>No circuits yet. A circuit joins two or more pins; give it a name and where it goes.</p>
            {add}
          </div>
        }
      >
        {add}
      </DataTable>
      {open && (
        <CircuitDialog
          planned={planned}
          circuitId={open.id}
          start={
            (open.id && loom.circuits[open.id]) ||
            createCircuit(toNextNumber(store.get().document.looms[loomId] ?? loom), '', [], { wireTable: chooseWireKind(job, shop) })
          }
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

function createColumns(loom: Loom, change: (id: string) => void, remove: (row: Row) => void): Column<Row>[] {
  const toPins = ({ circuit }: Row) =>
    circuit.terminations.map(({ endId, cavity }) => `${loom.ends[endId]!.name} · ${cavity}`).join(', ') || 'none yet';
  return [
    { id: 'no', head: 'no', className: 'mono', value: ({ circuit }) => circuit.number, cell: ({ circuit }) => <b>{circuit.number}</b> },
    { id: 'circuit', head: 'circuit', value: ({ circuit }) => circuit.name },
    { id: 'kind', head: 'kind', value: ({ circuit }) => KIND_WORDS[circuit.kind] },
    { id: 'pins', head: 'pins, source first', className: styles.wrap, value: toPins },
    {
      id: 'join',
      head: 'joined by',
      value: ({ circuit }) =>
        [
          circuit.terminations.length > 2 ? circuit.join : '',
          circuit.twist ? `twisted ${circuit.twist.groupId}, ${circuit.twist.pitchMm} mm` : '',
        ]
          .filter(Boolean)
          .join(' '),
    },
    {
      id: 'colour',
      head: 'colour',
      value: ({ circuit }) => toColourWords(circuit.colour),
      cell: ({ circuit }) => <Swatch colour={circuit.colour} />,
    },
    {
      id: 'size',
      head: 'size',
      value: ({ circuit }) =>
        circuit.cable ? `cable ${circuit.cable.groupId}` : circuit.sizePin ? `${circuit.sizePin.size}, pinned` : 'computed',
    },
    { id: 'amps', head: 'A', isNumber: true, value: ({ circuit }) => circuit.currentA, cell: ({ circuit }) => circuit.currentA ?? '?' },
    {
      id: 'do',
      head: '',
      cell: (row) => (
        <span className={styles.does}>
          <button className={styles.link} onClick={() => change(row.id)} aria-label={`Change circuit ${row.circuit.number}`}>
            change
          </button>
          <button className={styles.link} onClick={() => remove(row)} aria-label={`Remove circuit ${row.circuit.number}`}>
            remove
          </button>
        </span>
      ),
    },
  ];
}
