'use client';

import { NumberField } from './NumberField';

/** of one run, mm */
export const MOST_MM = 20000;
/** what a length of a run can be */
export const OF_RUN = { unit: 'mm', least: 0.1, most: MOST_MM } as const;

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
  return <NumberField label={label} value={value} {...OF_RUN} digits={1} canBeEmpty={optional} onChange={onChange} isWide />;
}
