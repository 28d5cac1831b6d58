'use client';

import { MEASURE_METHODS, type MeasureMethod } from 'wattograph-core';
import { Pick } from '../../ui/fields/Pick';
import styles from './Survey.module.css';

const METHODS = MEASURE_METHODS.filter((one) => one !== 'fitted');

/** What the keypad wrote, and what it was measured by. */
export function Digits({
  label,
  text,
  method,
  onMethod,
}: {
  label: string;
  text: string;
  method: MeasureMethod;
  onMethod: (method: MeasureMethod) => void;
}) {
  return (
    <div className={styles.entry}>
      <output aria-label={label} className={styles.digits}>
        {text || '0'}
      </output>
      <span>mm by</span>
      <Pick label="Measured by" value={method} options={METHODS} onChange={(one) => one && onMethod(one)} />
    </div>
  );
}
