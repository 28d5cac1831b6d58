'use client';

import { useElementSize } from '@mantine/hooks';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { Loom, LoomPlan } from 'wattograph-core';
import styles from './TapeBand.module.css';

const LEFT = 14;
const RIGHT = 22;
const TRUNK_Y = 26;
const FIRST_Y = 46;
/** room that a mark takes along the tape and from row to row, px: what a finger or an unsteady hand needs (WCAG 2.2, 2.5.8) */
const ROOM = 24;
const MOST_ROWS = 3;

interface Mark {
  endId: string;
  name: string;
  atMm: number;
  /** where its branch leaves the trunk, mm */
  leavesMm: number;
  x: number;
  y: number;
}

/**
 * The tape of a loom as one narrow band: how far along each end lies and where it leaves the trunk. Choosing an end narrows what is below
 * to it; choosing it again, or Escape, lets go.
 */
export function TapeBand({
  loom,
  plan,
  chosen,
  onChoose,
}: {
  loom: Loom;
  plan: LoomPlan;
  chosen: string | null;
  onChoose: (endId: string | null) => void;
}) {
  const { ref, width } = useElementSize();
  const box = useRef<HTMLDivElement>(null);
  const reachMm = Math.max(100, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm));
  const scale = Math.max(200, width - LEFT - RIGHT) / reachMm;
  const marks = placeMarks(loom, plan, scale);
  const height = Math.max(FIRST_Y, ...marks.map(({ y }) => y)) + ROOM / 2;
  const step = [100, 200, 500, 1000, 2000].find((mm) => mm * scale > 70) ?? 5000;
  const walk = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && chosen !== null) return onChoose(null);
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0 || marks.length === 0) return;
    event.preventDefault();
    const now = marks.findIndex(({ endId }) => endId === chosen);
    const next = marks[Math.min(marks.length - 1, Math.max(0, now === -1 ? 0 : now + by))]!;
    onChoose(next.endId);
    box.current?.querySelector<HTMLElement>(`[data-end="${next.endId}"]`)?.focus();
  };
  // what is pointed at is named before it is chosen
  const [overId, setOverId] = useState<string | null>(null);
  const over = marks.find(({ endId }) => endId === overId);
  const at = over ?? marks.find(({ endId }) => endId === chosen);
  return (
    <div className={styles.band} ref={box} role="group" aria-label={`Tape of the ${loom.name} loom`} onKeyDown={walk}>
      <div className={styles.tape} ref={ref} style={{ height }}>
        <svg width="100%" height={height} aria-hidden>
          {Array.from({ length: Math.floor(reachMm / step) + 1 }, (_, index) => (
            <g key={index} transform={`translate(${LEFT + index * step * scale} 0)`}>
              <line y1="14" y2="20" className={styles.tick} />
              <text y="12" className={styles.number} textAnchor={index === 0 ? 'start' : 'middle'}>
                {index * step}
              </text>
            </g>
          ))}
          {listTrunk(plan).map((segmentId) => {
            const { startMm, lengthMm } = plan.tree.segments[segmentId]!;
            const odMm = plan.bundles.find((one) => one.segmentId === segmentId)?.odMm ?? 0;
            return (
              <line
                key={segmentId}
                className={styles.trunk}
                x1={LEFT + startMm * scale}
                x2={LEFT + (startMm + lengthMm) * scale}
                y1={TRUNK_Y}
                y2={TRUNK_Y}
                strokeWidth={Math.max(1.5, Math.min(9, odMm / 2.5))}
              />
            );
          })}
          {marks.map(({ endId, x, y, leavesMm }) => (
            <path
              key={endId}
              className={styles.branch}
              data-chosen={endId === chosen}
              d={`M ${LEFT + leavesMm * scale} ${TRUNK_Y} L ${x} ${y}`}
            />
          ))}
        </svg>
        {marks.map(({ endId, name, atMm, x, y }) => (
          <button
            key={endId}
            data-end={endId}
            className={styles.mark}
            style={{ left: x, top: y }}
            aria-pressed={endId === chosen}
            aria-label={`${name}, ${Math.round(atMm)} mm`}
            onPointerEnter={() => setOverId(endId)}
            onPointerLeave={() => setOverId(null)}
            onClick={() => onChoose(endId === chosen ? null : endId)}
          />
        ))}
      </div>
      <p className={styles.words}>
        {at ? (
          <>
            <b>{at.name}</b>
            <br />
            <span className="mono">{Math.round(at.atMm)}</span> mm{' '}
            {at.endId === chosen && (
              <button className={styles.all} onClick={() => onChoose(null)}>
                all ends
              </button>
            )}
          </>
        ) : (
          <span className="faint">
            point at an end to read its name,
            <br />
            choose it to see only it
          </span>
        )}
      </p>
    </div>
  );
}

function listTrunk({ tree }: LoomPlan): string[] {
  const way: string[] = [];
  for (
    let at = tree.nodes[tree.datumId]!;
    at.childSegmentIds[0] !== undefined;
    at = tree.nodes[tree.segments[at.childSegmentIds[0]]!.farNodeId]!
  )
    way.push(at.childSegmentIds[0]);
  return way;
}

/** Ends by their distance; each in the first row that has room, else in the one with most. */
function placeMarks(loom: Loom, plan: LoomPlan, scale: number): Mark[] {
  const { nodes, segments, datumId } = plan.tree;
  const trunk = new Set([datumId, ...listTrunk(plan).map((id) => segments[id]!.farNodeId)]);
  const free = Array.from({ length: MOST_ROWS }, () => -Infinity);
  return Object.entries(loom.ends)
    .map(([endId, { name, nodeId }]) => {
      let leaves = nodes[nodeId]!;
      while (!trunk.has(leaves.id)) leaves = nodes[leaves.parentNodeId!]!;
      return { endId, name, atMm: nodes[nodeId]!.distanceMm, leavesMm: leaves.distanceMm };
    })
    .sort((a, b) => a.atMm - b.atMm || (a.name < b.name ? -1 : 1))
    .map((one): Mark => {
      const wanted = LEFT + one.atMm * scale;
      const row = free.findIndex((x) => x <= wanted);
      const at = row === -1 ? free.indexOf(Math.min(...free)) : row;
      const x = Math.max(wanted, free[at]!);
      free[at] = x + ROOM;
      return { ...one, x, y: FIRST_Y + at * ROOM };
    });
}
