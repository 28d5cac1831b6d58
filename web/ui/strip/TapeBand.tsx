'use client';

import { useElementSize } from '@mantine/hooks';
import { useRef, useState, type KeyboardEvent } from 'react';
import { listTrunk, placeEnds, TAPE_ROW, type Loom, type LoomPlan, type PlacedEnd } from 'wattograph-core';
import styles from './TapeBand.module.css';

const LEFT = 14;
const RIGHT = 22;
const TRUNK_Y = 26;
const FIRST_Y = 40;
/** before the page says how wide it is, px */
const UNMEASURED = 1000;
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
  const scale = Math.max(200, (width || UNMEASURED) - LEFT - RIGHT) / reachMm;
  const { ends: marks, rows, isNamed } = placeEnds(loom, plan, width || UNMEASURED, (mm) => LEFT + mm * scale);
  const height = FIRST_Y + rows * TAPE_ROW;
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
          {marks.map(({ endId, x, width: wide, row, leavesMm }) => (
            <path
              key={endId}
              className={styles.branch}
              data-chosen={endId === chosen}
              d={`M ${LEFT + leavesMm * scale} ${TRUNK_Y} L ${x + wide / 2} ${FIRST_Y + row * TAPE_ROW + 2}`}
            />
          ))}
        </svg>
        {marks.map(({ endId, name, atMm, x, width: wide, row }) => (
          <button
            type="button"
            key={endId}
            data-end={endId}
            className={isNamed ? styles.named : styles.mark}
            style={{ left: x, top: FIRST_Y + row * TAPE_ROW, width: wide, height: TAPE_ROW }}
            aria-pressed={endId === chosen}
            aria-label={`${name}, ${Math.round(atMm)} mm`}
            title={`${name}, ${Math.round(atMm)} mm`}
            onPointerEnter={() => setOverId(endId)}
            onPointerLeave={() => setOverId(null)}
            onClick={() => onChoose(endId === chosen ? null : endId)}
          >
            {isNamed && name}
          </button>
        ))}
      </div>
      {!isNamed && <Pointed at={at ?? null} isChosen={at?.endId === chosen} onLetGo={() => onChoose(null)} />}
      {isNamed && chosen !== null && (
        <button type="button" className={styles.all} onClick={() => onChoose(null)}>
          all ends
        </button>
      )}
    </div>
  );
}

/** Where there is room for boxes only: the name of the one that is pointed at, or chosen. */
function Pointed({ at, isChosen, onLetGo }: { at: PlacedEnd | null; isChosen: boolean; onLetGo: () => void }) {
  return (
    <p className={styles.words}>
      {at ? (
        <>
          <b>{at.name}</b> <span className="mono">{Math.round(at.atMm)}</span> mm{' '}
          {isChosen && (
            <button type="button" className={styles.all} onClick={onLetGo}>
              all ends
            </button>
          )}
        </>
      ) : (
        <span className="faint">point at an end to read its name, choose it to see only it</span>
      )}
    </p>
  );
}
