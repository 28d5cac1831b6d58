'use client';

import { useState } from 'react';
import {
  compareIds,
  LENGTH_STATUSES,
  MEASURE_METHODS,
  type LengthStatus,
  type MeasureMethod,
  type Tree,
  leaveAt,
  setFitted,
  setHole,
  setMethod,
  setReading,
  setRunZone,
  setSecondReading,
  setStatus,
  takeNodeOut,
} from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursor, useCursorStore } from '../../ui/cursor';
import { Why } from '../../ui/Why';
import { readLength } from '../../ui/readLength';
import styles from './Bundle.module.css';
import { DatumBar } from './DatumBar';

/** Every run of the loom with its reading, method, status and zone, to be typed over. */
export function LengthsTable({ planned }: { planned: PlannedLoom }) {
  const { loom, plan, loomId, job } = planned;
  const store = useJobStore();
  const cursor = useCursorStore();
  const here = useCursor((at) => at?.segmentId ?? null);
  const [problem, setProblem] = useState<string | null>(null);
  const join = (nodeId: string) => {
    try {
      store.edit(takeNodeOut({ loomId, nodeId, name: loom.nodes[nodeId]!.name, tree: plan.tree }));
      setProblem(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const leave = (segmentId: string, nodeId: string) =>
    store.edit(
      leaveAt(
        { loomId, nodeId, name: loom.nodes[nodeId]!.name, tree: plan.tree },
        segmentId,
        loom.nodes[plan.tree.segments[segmentId]!.farNodeId]!.name,
      ),
    );
  const rows = Object.keys(plan.tree.segments).sort(
    (a, b) => plan.tree.segments[a]!.startMm - plan.tree.segments[b]!.startMm || compareIds(a, b),
  );
  return (
    <>
      {problem && (
        <p role="alert" style={{ color: 'var(--action)', margin: '4px 0' }}>
          {problem}
        </p>
      )}
      <DatumBar planned={planned} />
      <table className={styles.table}>
        <thead>
          <tr>
            <th>run</th>
            <th className={styles.num}>from datum</th>
            <th className={styles.num}>length mm</th>
            <th className={styles.num}>second reading</th>
            <th className={styles.num}>fitted</th>
            <th>method</th>
            <th>status</th>
            <th className={styles.num}>±</th>
            <th>zone</th>
            <th className={styles.num}>bundle mm</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {rows.map((id) => {
            const tree = plan.tree.segments[id]!;
            const segment = loom.segments[id]!;
            const run = `${loom.nodes[tree.nearNodeId]!.name} to ${loom.nodes[tree.farNodeId]!.name}`;
            const far = plan.tree.nodes[tree.farNodeId]!;
            const place = { loomId, segmentId: id, name: run };
            return (
              <tr key={id} data-here={here === id} onClick={() => cursor.set({ segmentId: id, offsetMm: Math.min(tree.lengthMm, 1) })}>
                <td>
                  {tree.onward || loom.nodes[tree.nearNodeId]!.kind === 'datum' ? (
                    run
                  ) : (
                    <>
                      <select
                        className={styles.pick}
                        aria-label={`Where ${loom.nodes[tree.farNodeId]!.name} leaves`}
                        title="let this branch leave somewhere else; it keeps its length"
                        value={tree.nearNodeId}
                        onChange={(event) => leave(id, event.target.value)}
                      >
                        {Object.entries(loom.nodes).map(([nodeId, node]) =>
                          node.kind === 'end' || isBeyond(plan.tree, tree.farNodeId, nodeId) ? null : (
                            <option key={nodeId} value={nodeId}>
                              {node.name}
                            </option>
                          ),
                        )}
                      </select>{' '}
                      to {loom.nodes[tree.farNodeId]!.name}
                    </>
                  )}
                </td>
                <td className={styles.num}>{Math.round(tree.startMm)}</td>
                <td className={styles.num}>
                  <LengthField
                    label={`Length of ${run}`}
                    value={segment.lengthMm}
                    onChange={(value) => value !== null && store.edit(setReading(place, value))}
                  />
                </td>
                <td className={styles.num}>
                  <LengthField
                    label={`Second reading of ${run}`}
                    value={segment.secondLengthMm}
                    onChange={(value) => store.edit(setSecondReading(place, value))}
                    optional
                  />
                </td>
                <td className={styles.num}>
                  <LengthField
                    label={`Fit of ${run}`}
                    value={segment.fittedMm}
                    onChange={(value) => store.edit(setFitted(place, value))}
                    optional
                  />
                </td>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`Method of ${run}`}
                    value={segment.method}
                    onChange={(event) => store.edit(setMethod(place, event.target.value as MeasureMethod))}
                  >
                    {MEASURE_METHODS.map((one) => (
                      <option key={one}>{one}</option>
                    ))}
                  </select>
                </td>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`Status of ${run}`}
                    value={segment.status}
                    onChange={(event) => store.edit(setStatus(place, event.target.value as LengthStatus, tree.lengthMm))}
                  >
                    {LENGTH_STATUSES.map((one) => (
                      <option key={one}>{one}</option>
                    ))}
                  </select>
                </td>
                <td className={styles.num}>
                  <Why
                    because={
                      segment.secondLengthMm === null
                        ? `One sigma of ${segment.method}: a + b × length, as the shop standard has them.`
                        : 'Two readings: their mean, and one sigma divided by √2.'
                    }
                  >
                    {tree.sigmaMm.toFixed(1)}
                  </Why>
                </td>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`Zone of ${run}`}
                    value={segment.zoneId ?? ''}
                    onChange={(event) => store.edit(setRunZone(place, event.target.value || null))}
                  >
                    <option value="">not known</option>
                    {Object.entries(job.zones).map(([zoneId, zone]) => (
                      <option key={zoneId} value={zoneId}>
                        {zone.name}
                      </option>
                    ))}
                  </select>
                </td>
                <td className={styles.num}>{plan.bundles.find(({ segmentId }) => segmentId === id)!.odMm.toFixed(1)}</td>
                <td>
                  {loom.nodes[tree.farNodeId]!.kind === 'pass' && (
                    <>
                      bore{' '}
                      <LengthField
                        label={`Bore of ${loom.nodes[tree.farNodeId]!.name}`}
                        optional
                        value={loom.nodes[tree.farNodeId]!.holeMm}
                        onChange={(value) =>
                          store.edit(setHole({ loomId, nodeId: tree.farNodeId, name: loom.nodes[tree.farNodeId]!.name }, value))
                        }
                      />
                    </>
                  )}
                  {far.childSegmentIds.length === 1 && (
                    <button className={styles.link} onClick={() => join(tree.farNodeId)}>
                      take out {loom.nodes[tree.farNodeId]!.name}
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

/** Does a node lie at or beyond another, seen from the datum? */
function isBeyond(tree: Tree, fromNodeId: string, nodeId: string): boolean {
  for (let at: string | null = nodeId; at !== null; at = tree.nodes[at]!.parentNodeId) if (at === fromNodeId) return true;
  return false;
}

/** A length, typed in any unit and kept in mm on Enter or when left; what is not a length is not kept and says so. */
export function LengthField({
  label,
  value,
  onChange,
  optional = false,
}: {
  label: string;
  value: number | null;
  onChange: (value: number | null) => void;
  optional?: boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? (value === null ? '' : String(Math.round(value * 10) / 10));
  const parsed = readLength(shown);
  const isGood = parsed === null ? optional : parsed > 0 && parsed <= 20000;
  const keep = () => {
    if (text !== null && isGood && parsed !== value) onChange(parsed);
    setText(null);
  };
  return (
    <input
      className={styles.field}
      aria-label={label}
      inputMode="decimal"
      aria-invalid={!isGood}
      title={isGood ? undefined : 'a length above 0 and at most 20 000 mm: 615, 1.2 m, 24 1/2 in'}
      style={isGood ? undefined : { color: 'var(--action)', fontWeight: 700 }}
      placeholder={optional ? '–' : undefined}
      value={shown}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setText(null);
      }}
    />
  );
}
