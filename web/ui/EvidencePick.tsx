import { EVIDENCE, type Evidence } from 'wattograph-core';

/** Where a fact is from. What is only guessed is not cut. */
export function EvidencePick({
  label,
  value,
  onChange,
  none,
  className,
}: {
  label: string;
  value: Evidence | null;
  onChange: (value: Evidence | null) => void;
  /** words for no evidence; left out where there must be some */
  none?: string;
  className?: string | undefined;
}) {
  return (
    <select
      className={className}
      aria-label={label}
      title="Where this is known from. What is only guessed is not cut."
      value={value ?? ''}
      onChange={(event) => onChange((event.target.value || null) as Evidence | null)}
    >
      {none !== undefined && <option value="">{none}</option>}
      {EVIDENCE.map((one) => (
        <option key={one}>{one}</option>
      ))}
    </select>
  );
}
