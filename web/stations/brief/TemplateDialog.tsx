'use client';

import { Button, Group, Modal, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { createPinNeed, listTemplateProblems, type DeviceTemplate, type Job, keepTemplate } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { fromRows, TemplateEditor, toRows, type EditedRows } from '../../ui/template/TemplateEditor';
import { listFamilyOptions } from '../bundle/RouteDialogs';

/** A kind of device of her own: from nothing, or from one that is nearly it. */
export function TemplateDialog({ job, onClose }: { job: Job; onClose: () => void }) {
  const shop = useShop();
  const store = useJobStore();
  const [from, setFrom] = useState<string | null>(null);
  const [name, setName] = useState('');
  const [system, setSystem] = useState('');
  const [familyId, setFamilyId] = useState<string | null>(null);
  const [rows, setRows] = useState<EditedRows>({ pins: [['1', createPinNeed('signal', 'signal')]], offers: [], links: [] });
  const [note, setNote] = useState('');
  const known: Record<string, DeviceTemplate> = { ...shop.devices, ...job.deviceTemplates };
  const begin = (id: string | null) => {
    setFrom(id);
    const template = id === null ? undefined : known[id];
    if (!template) return;
    setName(Object.hasOwn(job.deviceTemplates, id!) ? template.name : `${template.name}, own`.slice(0, 80));
    setSystem(template.system);
    setFamilyId(template.familyId);
    setRows(toRows(structuredClone(template)));
    setNote(template.note);
  };
  const isGood =
    name.trim() !== '' && system.trim() !== '' && rows.pins.length + rows.offers.length > 0 && listTemplateProblems(rows).length === 0;
  const isOwn = from !== null && Object.hasOwn(job.deviceTemplates, from);
  const keep = (asId: string | null) => {
    store.edit(keepTemplate(asId, { name: name.trim(), system: system.trim(), familyId, note: note.trim(), ...fromRows(rows) }));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="A kind of device of your own" size="90%">
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
        <TextInput label="Name" value={name} maxLength={80} onChange={(event) => setName(event.currentTarget.value)} />
        <TextInput label="System" value={system} maxLength={80} onChange={(event) => setSystem(event.currentTarget.value)} />
        <Select
          label="Mates with"
          w={220}
          searchable
          clearable
          placeholder="studs or tails"
          value={familyId}
          onChange={setFamilyId}
          data={listFamilyOptions(shop, job.families)}
        />
      </Group>
      <TemplateEditor key={from} name={name} rows={rows} others={known} onChange={setRows} />
      <TextInput label="Note" value={note} maxLength={400} onChange={(event) => setNote(event.currentTarget.value)} />
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose}>
          Leave it
        </Button>
        {isOwn && (
          <Button variant="default" disabled={!isGood} onClick={() => keep(from)}>
            Change this template
          </Button>
        )}
        <Button disabled={!isGood} onClick={() => keep(null)}>
          Keep template
        </Button>
      </Group>
    </Modal>
  );
}
