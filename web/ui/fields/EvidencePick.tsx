import { EVIDENCE, type Evidence } from 'wattograph-core';
import { Pick } from './Pick';

/** Where a fact is from. What is only guessed stops work. */
export function EvidencePick({
  label,
  value,
  onChange,
  none,
}: {
  label: string;
  value: Evidence | null;
  onChange: (value: Evidence | null) => void;
  /** words for no evidence; left out where there must be some */
  none?: string;
}) {
  return (
    <Pick
      label={label}
      title="Where this is known from. What is only guessed stops the work that rests on it."
      value={value}
      none={none}
      options={EVIDENCE}
      onChange={onChange}
    />
  );
}
