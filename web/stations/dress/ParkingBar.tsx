import type { Parking } from 'wattograph-core';
import styles from './Dress.module.css';

const ORDER_WORDS = {
  none: 'Nothing stands back.',
  'push-back': 'Stands back while the end is made:',
  'cover-first': 'The leg is covered first; on it stands back:',
  'after-end': 'The sleeve goes on over the made end; before it stands back:',
} as const satisfies Record<Parking['order'], string>;

const LENGTH = 560;
const TINTS = ['var(--brass-wash)', 'var(--paper-2)'] as const;

/** What stands back on a leg while its end is made, one behind the other from the breakout, against the room there is. */
export function ParkingBar({ parking, legMm, isBreakout = false }: { parking: Parking; legMm: number; isBreakout?: boolean }) {
  const { pieces, needMm, roomMm, fits, because, order } = parking;
  const used = pieces.reduce((sum, { lengthMm }) => sum + lengthMm, 0);
  const scale = LENGTH / Math.max(needMm, roomMm, 1);
  const starts = pieces.map((_, at) => pieces.slice(0, at).reduce((sum, { lengthMm }) => sum + lengthMm, 0));
  return (
    <figure className={styles.parking} aria-label="Room to stand back">
      <figcaption>
        <b>{isBreakout ? 'Stands back while the ends beyond are made:' : ORDER_WORDS[order]}</b>{' '}
        <span className={fits ? undefined : styles.alarm}>
          {pieces.length > 0 ? because : `${because.charAt(0).toUpperCase()}${because.slice(1)}`}.
        </span>
      </figcaption>
      {pieces.length > 0 && roomMm > 0 && (
        <svg viewBox={`0 0 ${LENGTH + 4} 46`} role="img" aria-label={`${Math.ceil(needMm)} of ${Math.floor(roomMm)} mm`}>
          {pieces.map(({ name, lengthMm }, at) => (
            <rect
              key={at}
              x={2 + starts[at]! * scale}
              y={6}
              width={Math.max(1, lengthMm * scale)}
              height={16}
              fill={TINTS[at % 2]}
              stroke="var(--ink-2)"
            >
              <title>
                {name}, {Math.round(lengthMm)} mm
              </title>
            </rect>
          ))}
          <rect
            x={2 + used * scale}
            y={6}
            width={(needMm - used) * scale}
            height={16}
            fill="none"
            stroke="var(--ink-2)"
            strokeDasharray="3 3"
          >
            <title>bare wire to strip</title>
          </rect>
          <line x1={2} x2={2 + roomMm * scale} y1={28} y2={28} stroke={fits ? 'var(--sea)' : 'var(--action)'} strokeWidth={3} />
          {legMm < roomMm && (
            <line x1={2 + (roomMm - legMm) * scale} x2={2 + (roomMm - legMm) * scale} y1={2} y2={32} stroke="var(--ink)" />
          )}
          <text x={2} y={43} className={styles.scale}>
            {isBreakout ? 'datum side' : legMm < roomMm ? 'loose wire of the runs before' : 'breakout'}
          </text>
          <text x={LENGTH} y={43} textAnchor="end" className={styles.scale}>
            {isBreakout ? 'breakout' : 'end'}: {Math.ceil(needMm)} of {Math.floor(roomMm)} mm
          </text>
        </svg>
      )}
    </figure>
  );
}
