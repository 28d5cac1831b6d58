import type { ReactNode } from 'react';
import controls from './controls.module.css';

/** Tabs of the side of a bench and the panel of the chosen one. */
export function SideTabs<T extends string>({
  names,
  value,
  onChange,
  children,
}: {
  names: Readonly<Record<T, string>>;
  value: T;
  onChange: (value: T) => void;
  children: ReactNode;
}) {
  return (
    <>
      <div className={controls.tabs} role="tablist">
        {(Object.keys(names) as T[]).map((one) => (
          <button type="button" key={one} role="tab" aria-selected={one === value} onClick={() => onChange(one)}>
            {names[one]}
          </button>
        ))}
      </div>
      <div className={controls.panel} role="tabpanel" tabIndex={0} aria-label={names[value]}>
        {children}
      </div>
    </>
  );
}
