'use client';

import { useState } from 'react';
import { compareIds, createCircuit, createId, toColourWords, removeCircuit, toNextNumber, KIND_WORDS } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { Swatch } from '../../ui/Swatch';
import styles from './Bundle.module.css';
import { CircuitDialog } from './CircuitDialog';

/** The circuits of a loom: what joins what, in which wire. */
export function CircuitsTable({ planned }: { planned: PlannedLoom }) {
  const { loom, loomId } = planned;
  const store = useJobStore();
  const [open, setOpen] = useState<{ id: string; isNew: boolean } | null>(null);
  const ids = Object.keys(loom.circuits).sort(compareIds);
  const nextNumber = toNextNumber(loom);
  return (
    <>
      <table className={styles.table}>
        <thead>
          <tr>
            <th>no</th>
            <th>circuit</th>
            <th>kind</th>
            <th>pins, source first</th>
            <th>joined by</th>
            <th>colour</th>
            <th>size</th>
            <th className={styles.num}>A</th>
            <th style={{ textAlign: 'right' }}>
              <button
                className={styles.link}
                disabled={Object.keys(loom.ends).length === 0}
                title={Object.keys(loom.ends).length ? undefined : 'add ends first'}
                onClick={() => setOpen({ id: createId(loom.circuits, 'c'), isNew: true })}
              >
                Add circuit
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          {ids.map((id) => {
            const circuit = loom.circuits[id]!;
            return (
              <tr key={id}>
                <td className="mono">
                  <b>{circuit.number}</b>
                </td>
                <td>{circuit.name}</td>
                <td>{KIND_WORDS[circuit.kind]}</td>
                <td style={{ whiteSpace: 'normal' }}>
                  {circuit.terminations.map(({ endId, cavity }) => `${loom.ends[endId]!.name} · ${cavity}`).join(', ') || 'none yet'}
                </td>
                <td>
                  {circuit.terminations.length > 2 ? circuit.join : ''}
                  {circuit.twist ? ` twisted ${circuit.twist.groupId}, ${circuit.twist.pitchMm} mm` : ''}
                </td>
                <td title={toColourWords(circuit.colour)}>
                  <Swatch colour={circuit.colour} />
                </td>
                <td>
                  {circuit.cable ? `cable ${circuit.cable.groupId}` : circuit.sizePin ? `${circuit.sizePin.size}, pinned` : 'computed'}
                </td>
                <td className={styles.num}>{circuit.currentA ?? '?'}</td>
                <td style={{ textAlign: 'right' }}>
                  <button
                    className={styles.link}
                    onClick={() => setOpen({ id, isNew: false })}
                    aria-label={`Change circuit ${circuit.number}`}
                  >
                    change
                  </button>
                  <button
                    className={styles.link}
                    onClick={() => store.edit(removeCircuit(loomId, id, circuit.number))}
                    aria-label={`Remove circuit ${circuit.number}`}
                  >
                    remove
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {ids.length === 0 && (
        <p className={styles.wait}>No circuits yet. A circuit joins two or more pins; give it a name and where it goes.</p>
      )}
      {open && (
        <CircuitDialog
          planned={planned}
          circuitId={open.id}
          start={loom.circuits[open.id] ?? createCircuit(nextNumber, '', [])}
          isNew={open.isNew}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}
