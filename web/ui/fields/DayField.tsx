'use client';

import { DateInput } from '@mantine/dates';
import { readDay, writeDay } from './readDay';

const toLocale = () => (typeof navigator === 'undefined' ? 'en-GB' : navigator.language);

/** A day, picked or typed as the reader writes one; YYYY-MM-DD. */
export function DayField({ label, value, onChange }: { label: string; value: string | null; onChange: (day: string | null) => void }) {
  const locale = toLocale();
  return (
    <DateInput
      aria-label={label}
      value={value}
      onChange={(day) => {
        if (day !== value) onChange(day);
      }}
      valueFormat={(day) => writeDay(day, locale)}
      dateParser={(text) => readDay(text, locale)}
      firstDayOfWeek={locale === 'en-US' ? 0 : 1}
      placeholder={writeDay('2026-12-24', locale)}
      clearable
      clearButtonProps={{ 'aria-label': `No day: ${label}` }}
      variant="unstyled"
      size="xs"
      styles={{ input: { borderBottom: '1px dashed var(--ink-2)', borderRadius: 0, minHeight: 24, height: 26, width: 130, fontSize: 14 } }}
    />
  );
}
