'use client';

import { Button, Group, Modal, Select, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import { createPinNeed, keepTemplate, listTemplateProblems, type DeviceHazard, type DeviceTemplate, type Job } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { DialogEnd } from '../../ui/DialogEnd';
import { HazardField } from '../../ui/template/HazardField';
import { fromRows, TemplateEditor, toRows, type EditedRows } from '../../ui/template/TemplateEditor';
import { listFamilyOptions } from '../bundle/RouteDialogs';

interface NewTemplate {
  name: string;
  system: string;
  familyId: string | null;
  rows: EditedRows;
  hazard: DeviceHazard | null;
  note: string;
}

const toTemplate = ({ name, system, familyId, rows, hazard, note }: NewTemplate): DeviceTemplate => ({
  name: name.trim(),
  system: system.trim(),
  familyId,
  hazard,
  note: note.trim(),
  ...fromRows(rows),
});

/** A kind of device of her own: from nothing, or from one that is nearly it. */
export function TemplateDialog({ job, onClose }: { job: Job; onClose: () => void }) {
  const shop = useShop();
  const store = useJobStore();
  const [from, setFrom] = useState<string | null>(null);
  const form = useForm<NewTemplate>({
    initialValues: {
      name: '',
      system: '',
      familyId: null,
      hazard: null,
      rows: { pins: [['1', createPinNeed('signal', 'signal')]], offers: [], links: [] },
      note: '',
    },
    validate: {
      name: (name) => (name.trim() ? null : 'expected a name'),
      system: (system) => (system.trim() ? null : 'expected the system it belongs to'),
      rows: (rows) => (rows.pins.length + rows.offers.length === 0 ? 'expected a pin' : (listTemplateProblems(rows)[0]?.message ?? null)),
    },
  });
  const known: Record<string, DeviceTemplate> = { ...shop.devices, ...job.deviceTemplates };
  const begin = (id: string | null) => {
    setFrom(id);
    const template = id === null ? undefined : known[id];
    if (!template) return;
    const { system, familyId, hazard, note } = template;
    const name = Object.hasOwn(job.deviceTemplates, id!) ? template.name : `${template.name}, own`.slice(0, 80);
    form.setValues({ name, system, familyId, hazard, note, rows: toRows(structuredClone(template)) });
  };
  const isOwn = from !== null && Object.hasOwn(job.deviceTemplates, from);
  const keep = (asId: string | null) => (values: NewTemplate) => {
    store.edit(keepTemplate(asId, toTemplate(values)));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="A kind of device of your own" size="90%">
      <form onSubmit={form.onSubmit(keep(null))}>
        <Group align="end">
          <Select
            label="Begin from"
            w={260}
            searchable
            clearable
            placeholder="nothing"
            value={from}
            onChange={begin}
            data={Object.entries(known).map(([value, { name: label }]) => ({ value, label }))}
          />
          <TextInput label="Name" data-autofocus maxLength={80} {...form.getInputProps('name')} />
          <TextInput label="System" maxLength={80} {...form.getInputProps('system')} />
          <Select
            label="Mates with"
            w={220}
            searchable
            clearable
            placeholder="studs or tails"
            {...form.getInputProps('familyId')}
            data={listFamilyOptions(shop, job.families)}
          />
        </Group>
        <TemplateEditor
          key={from}
          name={form.values.name}
          rows={form.values.rows}
          others={known}
          onChange={(rows) => form.setFieldValue('rows', rows)}
        />
        <Group align="end" wrap="nowrap">
          <HazardField {...form.getInputProps('hazard')} />
          <TextInput label="Note" flex={1} maxLength={400} {...form.getInputProps('note')} />
        </Group>
        <DialogEnd onClose={onClose} words="Keep template" isReady={form.isValid()}>
          {isOwn && (
            <Button variant="default" disabled={!form.isValid()} onClick={() => form.onSubmit(keep(from))()}>
              Change this template
            </Button>
          )}
        </DialogEnd>
      </form>
    </Modal>
  );
}
