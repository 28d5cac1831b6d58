import { WIRE_HEX, type StripLayout } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { useCursorStore, useLit } from '../cursor';
import styles from './Strip.module.css';

/** The wire that is looked for, from end to end, above the others. */
export function LitWire({ layout }: { layout: StripLayout }) {
  const wireId = useLit();
  const trace = wireId === null ? undefined : layout.listTraces().find((one) => one.wireId === wireId);
  if (!trace) return null;
  return (
    <g fill="none" strokeLinejoin="round" pointerEvents="none" data-testid="lit-wire">
      {trace.parts.map(({ d, width }, index) => (
        <path key={`a${index}`} d={d} stroke="var(--brass)" strokeWidth={Math.max(3, width) + 6} opacity={0.55} />
      ))}
      {trace.parts.map(({ d, width }, index) => (
        <path key={`b${index}`} d={d} stroke="var(--outline)" strokeWidth={Math.max(3, width) + 1.4} />
      ))}
      {trace.parts.map(({ d, width }, index) => (
        <path key={`c${index}`} d={d} stroke={WIRE_HEX[trace.colour.base]} strokeWidth={Math.max(3, width)} />
      ))}
      {trace.colour.stripe &&
        trace.parts.map(({ d }, index) => <path key={`d${index}`} d={d} stroke={WIRE_HEX[trace.colour.stripe!]} strokeWidth={1.1} />)}
    </g>
  );
}

/** What the lit wire is, in words; closing it puts the light out. */
export function LitWords({ planned }: { planned: PlannedLoom }) {
  const wireId = useLit();
  const cursor = useCursorStore();
  const wire = planned.plan.wires.find((one) => one.id === wireId);
  if (!wire) return null;
  return (
    <span className={styles.where} role="status">
      <b>{wire.number}</b> {planned.loom.circuits[wire.circuitId]!.name}, cut <b className="mono">{wire.cutMm}</b> mm{' '}
      <button type="button" aria-label={`Stop showing ${wire.number}`} onClick={() => cursor.light(null)}>
        ✕
      </button>
    </span>
  );
}
