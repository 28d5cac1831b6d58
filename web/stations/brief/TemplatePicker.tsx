'use client';

import { Modal, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { compareIds, isOffered, type DeviceTemplate, type Job, type Shop, toCount } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import styles from './Brief.module.css';

function listTemplates(job: Job, shop: Shop): { id: string; template: DeviceTemplate; isOwn: boolean }[] {
  const own = Object.entries(job.deviceTemplates).map(([id, template]) => ({ id, template, isOwn: true }));
  const shared = Object.entries(shop.devices).flatMap(([id, template]) =>
    Object.hasOwn(job.deviceTemplates, id) || !isOffered(shop, 'devices', id) ? [] : [{ id, template, isOwn: false }],
  );
  return [...own, ...shared];
}

/** Choose the kind of a device: in place, or from a list that is searched as one types. */
export function TemplatePicker({
  job,
  value,
  onChange,
  isDialog = false,
  onClose,
}: {
  job: Job;
  value: string | null;
  onChange: (templateId: string | null, typed: string) => void;
  isDialog?: boolean;
  onClose?: () => void;
}) {
  const shop = useShop();
  const [search, setSearch] = useState('');
  const all = listTemplates(job, shop);
  if (!isDialog) {
    const systems = new Map<string, { value: string; label: string }[]>();
    for (const { id, template, isOwn } of all)
      systems.set(template.system, [
        ...(systems.get(template.system) ?? []),
        { value: id, label: `${template.name}${isOwn ? ' (of this job)' : ''}` },
      ]);
    return (
      <Select
        aria-label="Kind of device"
        w={300}
        searchable
        clearable
        placeholder="kind not known"
        value={value}
        onChange={(id) => onChange(id, '')}
        data={[...systems.keys()].sort(compareIds).map((group) => ({ group, items: systems.get(group)! }))}
      />
    );
  }
  const words = search.trim().toLowerCase();
  const found = all.filter(({ template }) =>
    `${template.name} ${template.system} ${Object.values(template.pins)
      .map((pin) => pin.function)
      .join(' ')}`
      .toLowerCase()
      .includes(words),
  );
  return (
    <Modal opened onClose={onClose ?? (() => undefined)} title="Add a device" size="lg">
      <TextInput
        aria-label="Search the templates"
        placeholder="name, system or pin: crank, fuel, CAN …"
        value={search}
        onChange={(event) => setSearch(event.currentTarget.value)}
        data-autofocus
      />
      <div className={styles.found} role="listbox" aria-label="Templates">
        {found.map(({ id, template, isOwn }) => (
          <button key={id} role="option" aria-selected={false} onClick={() => onChange(id, search.trim())}>
            <b>{template.name}</b>
            <span className="faint">
              {template.system}, {toCount(Object.keys(template.pins).length + Object.keys(template.offers).length, 'pin')}
              {isOwn ? ', of this job' : ''}
            </span>
          </button>
        ))}
        {search.trim() !== '' && (
          <button role="option" aria-selected={false} onClick={() => onChange(null, search.trim())}>
            <b>{search.trim()}</b>
            <span className="faint">its pins are not known yet</span>
          </button>
        )}
      </div>
    </Modal>
  );
}
