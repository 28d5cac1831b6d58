'use client';

import { Select, Table } from '@mantine/core';
import type { CsvTable } from 'wattograph-core';

export interface ColumnField<F extends string> {
  field: F;
  label: string;
  required: boolean;
}

/** Which column of a table holds what, with the first rows beside each choice. */
export function ColumnPicker<F extends string>({
  fields,
  table,
  mapping,
  onChange,
}: {
  fields: readonly ColumnField<F>[];
  table: CsvTable;
  mapping: Partial<Record<F, string | null>>;
  onChange: (field: F, column: string | undefined) => void;
}) {
  const sample = (column: string) =>
    table.rows
      .slice(0, 3)
      .map(({ cells }) => cells[table.columns.indexOf(column)])
      .join(', ');
  return (
    <Table unstyled style={{ borderCollapse: 'collapse' }}>
      <thead>
        <tr>
          {['this', 'is in the column', 'first rows'].map((title) => (
            <th key={title} style={{ textAlign: 'left', fontWeight: 500 }} className="faint">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {fields.map(({ field, label, required }) => {
          const column = mapping[field] ?? null;
          return (
            <tr key={field}>
              <td style={{ paddingRight: 16 }}>
                {label}
                {required ? '' : ' (if any)'}
              </td>
              <td>
                <Select
                  aria-label={`Column of ${label}`}
                  data={table.columns}
                  clearable={!required}
                  value={column}
                  onChange={(value) => onChange(field, value ?? undefined)}
                  w={230}
                  error={required && column === null}
                />
              </td>
              <td style={{ paddingLeft: 16 }} className="faint">
                {column === null ? '' : sample(column)}
              </td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}
