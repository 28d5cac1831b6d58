'use client';

import { Button, FileButton, Group, Modal, Stack, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMemo, useState } from 'react';
import { createDonorId, fromDonorList, toDonorMapping, type DonorMapping, importDonor, toCount } from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { ColumnPicker, type ColumnField } from '../../ui/wireList/ColumnPicker';
import { ProblemList } from '../../ui/findings/ProblemList';
import { useListFile } from '../../ui/wireList/useListFile';

const FIELDS: ColumnField<keyof DonorMapping>[] = [
  { field: 'number', label: 'Wire number', required: false },
  { field: 'from', label: 'From', required: true },
  { field: 'fromPin', label: 'From pin', required: false },
  { field: 'to', label: 'To', required: true },
  { field: 'toPin', label: 'To pin', required: false },
  { field: 'functions', label: 'Functions', required: false },
  { field: 'colour', label: 'Colour', required: false },
  { field: 'size', label: 'Size', required: false },
  { field: 'lengthMm', label: 'Length, mm', required: false },
];

/** A donor's pinout from CSV or a spreadsheet: say which column is what, and keep it as a ledger with nothing decided yet. */
export function ImportDonor({ onClose, onDone }: { onClose: () => void; onDone: (donorId: string) => void }) {
  const store = useJobStore();
  const [mapping, setMapping] = useState<Partial<DonorMapping>>({});
  const form = useForm({ initialValues: { name: '' }, validate: { name: (words) => (words.trim() ? null : 'expected a name') } });
  const { name } = form.values;
  const { table, fileName, problems, choose } = useListFile((read, title) => {
    setMapping(toDonorMapping(read.columns));
    if (form.getValues().name === '') form.setFieldValue('name', title);
  });
  const isMapped = FIELDS.every(({ field, required }) => !required || mapping[field]);
  const made = useMemo(
    () => (table && isMapped ? fromDonorList(name.trim() || 'donor', table, mapping as DonorMapping) : null),
    [table, isMapped, name, mapping],
  );
  const keep = () => {
    if (!made?.ok) return;
    const id = createDonorId(store.get().document.donors);
    store.edit(importDonor(id, made.value));
    onDone(id);
  };
  return (
    <Modal opened onClose={onClose} title="The pinout of a donor loom" size="lg">
      <Stack gap="sm">
        <Group>
          <FileButton onChange={(file) => void choose(file)} accept=".csv,.txt,.xlsx,text/csv">
            {(props) => (
              <Button variant="default" {...props}>
                Choose the file
              </Button>
            )}
          </FileButton>
          <span className="faint">
            {table ? `${fileName}: ${toCount(table.rows.length, 'row')}` : 'one row a wire; CSV, or the first sheet of an XLSX'}
          </span>
        </Group>
        {problems.length > 0 && <ProblemList title={`${fileName} was not read; nothing was stored`} problems={problems} />}
        {table && (
          <>
            <TextInput label="Name of the donor" maxLength={80} {...form.getInputProps('name')} />
            <ColumnPicker
              fields={FIELDS}
              table={table}
              mapping={mapping}
              onChange={(field, column) => setMapping((now) => ({ ...now, [field]: column }))}
            />
            {made && !made.ok && <ProblemList title="This cannot become a ledger yet; nothing was stored" problems={made.problems} />}
            {made?.ok && <p style={{ margin: 0 }}>{toCount(Object.keys(made.value.wires).length, 'wire')}, nothing decided yet.</p>}
          </>
        )}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button disabled={!made?.ok || !form.isValid()} onClick={keep}>
            Keep the ledger
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
