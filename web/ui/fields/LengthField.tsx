'use client';

import { NumberField } from './NumberField';

/** of one run, mm */
export const MOST_MM = 20000;
export const LEAST_MM = 0.1;

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
  return (
    <NumberField
      label={label}
      value={value}
      unit="mm"
      least={LEAST_MM}
      most={MOST_MM}
      digits={1}
      canBeEmpty={optional}
      onChange={onChange}
      isWide
    />
  );
}
