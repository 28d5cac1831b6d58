import type { DeviceTemplate } from '../model';
import { toCell } from './cells';
import { PIN_COLUMNS } from './pinColumns';
import { writeCsv } from './toCsv';

/** Every pin of a kind of device (CSV): what it needs (`function`, `kind` …) or what it gives (`name`, `can` …), a row a pin. */
export function toPinListCsv({ pins, offers }: Pick<DeviceTemplate, 'pins' | 'offers'>): string {
  const rows = [...Object.entries(pins), ...Object.entries(offers)].map(([pin, fields]) =>
    PIN_COLUMNS.map((column) => {
      if (column === 'pin') return pin;
      const value = (fields as Record<string, unknown>)[column];
      return Array.isArray(value) ? value.join(' ') : toCell(value);
    }),
  );
  return writeCsv([...PIN_COLUMNS], rows);
}
