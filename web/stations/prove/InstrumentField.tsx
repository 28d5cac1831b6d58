'use client';

import { useLocalStorage } from '@mantine/hooks';
import { useId } from 'react';

/** What is read with on this device, by kind of work. */
export function useInstrument(work: string): [string, (name: string) => void] {
  const [instruments, setInstruments] = useLocalStorage<Record<string, string>>({
    key: 'wattograph.instruments',
    defaultValue: {},
    getInitialValueInEffect: false,
  });
  return [instruments[work] ?? '', (name) => setInstruments((now) => ({ ...now, [work]: name }))];
}

/** The name or number of the instrument: a tool of the shop, or any other. */
export function InstrumentField({ value, tools, onChange }: { value: string; tools: readonly string[]; onChange: (name: string) => void }) {
  const list = useId();
  return (
    <>
      <label>
        read with{' '}
        <input
          aria-label="Instrument"
          list={list}
          maxLength={80}
          value={value}
          placeholder="name or number of the instrument"
          onChange={(event) => onChange(event.target.value)}
        />
      </label>
      <datalist id={list}>
        {tools.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  );
}
