'use client';

import { useDisclosure } from '@mantine/hooks';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import {
  compareIds,
  createId,
  DECISIONS,
  findDeviceTemplate,
  UNKNOWN_POLICIES,
  type Decision,
  type Command,
  type Device,
  type DeviceTemplate,
  type Job,
  type UnknownPolicy,
  addDevice,
  decideDevice,
  putDevice,
  setDevice,
  strikeDevice,
  takeDeviceOff,
  toCount,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { readAuthor } from '../../client/person';
import { useJobStore } from '../../client/jobContext';
import { Pick } from '../../ui/fields/Pick';
import { TextField } from '../../ui/fields/TextField';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';
import { PinTable } from './PinTable';
import { WireListButton } from '../../ui/wireList/WireListButton';
import { TemplateDialog } from './TemplateDialog';
import { TemplatePicker } from './TemplatePicker';

export const DECISION_WORDS: Record<Decision, string> = {
  fit: '+ fit',
  keep: '= keep',
  remove: '× remove',
  repurpose: '↻ re-purpose',
  later: '… later',
};
const POLICY_WORDS: Record<UnknownPolicy, string> = { connector: 'connector, tail later', coil: 'full length, coiled' };

interface Row {
  id: string;
  device: Device;
  template: DeviceTemplate | undefined;
}

/** Devices of the vehicle by system: what is to become of each, why, and who said so. */
export function DevicesTable({ job }: { job: Job }) {
  const shop = useShop();
  const store = useJobStore();
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  const [picking, picker] = useDisclosure(false);
  const [making, maker] = useDisclosure(false);
  const rows = useMemo(
    () =>
      Object.entries(job.devices)
        .map(([id, device]): Row => ({ id, device, template: findDeviceTemplate(job, shop, device.templateId) ?? undefined }))
        .sort((a, b) => compareIds(a.device.system, b.device.system)),
    [job, shop],
  );
  const columns = useMemo(
    () => createColumns({ job, edit: store.edit, open, setOpen, go: (loomId, endId) => router.push(`ends?loom=${loomId}&end=${endId}`) }),
    [job, store, open, router],
  );
  const add = (name: string, system: string, templateId: string | null) => {
    const id = createId(store.get().document.devices, 'd');
    store.edit(addDevice(id, { name, system, templateId, decidedBy: readAuthor() }));
    setOpen(id);
  };
  const bar = (
    <>
      <button className={styles.button} onClick={picker.open}>
        Add device
      </button>
      <button className={styles.button} onClick={maker.open}>
        New template
      </button>
      <span className="faint">
        {Object.values(shop.devices).length} templates of the catalogue, {Object.keys(job.deviceTemplates).length} of this job
      </span>
    </>
  );
  return (
    <>
      <DataTable
        name="devices"
        label="Devices"
        rows={rows}
        columns={columns}
        keyOf={({ id }) => id}
        groupOf={({ device }) => device.system}
        rowProps={toRowProps}
        detail={({ id, device, template }) =>
          open === id && (
            <div className={styles.pins}>
              <TemplatePicker
                job={job}
                value={device.templateId}
                onChange={(templateId) => store.edit(setDevice(id, device.name, 'templateId', templateId))}
              />
              {template && <PinTable template={template} />}
            </div>
          )
        }
        empty={
          <>
            <div className={styles.bar}>{bar}</div>
            <div className={styles.empty}>
              <p>
                The want-list and the delete-list of the vehicle: every device with what it needs at each pin, and whether it is fitted,
                kept, removed, put to other use, or placed later. Add the first; or, where there is a list of wires already, begin with
                that.
              </p>
              <WireListButton job={job} />
            </div>
          </>
        }
      >
        {bar}
      </DataTable>
      {picking && <AddDevice job={job} onAdd={add} onClose={picker.close} />}
      {making && <TemplateDialog job={job} onClose={maker.close} />}
    </>
  );
}

const toRowProps = ({ device }: Row) => ({ 'data-decision': device.decision });

function createColumns({
  job,
  edit,
  open,
  setOpen,
  go,
}: {
  job: Job;
  edit: (command: Command) => void;
  open: string | null;
  setOpen: (id: string | null) => void;
  go: (loomId: string, endId: string) => void;
}): Column<Row>[] {
  const zones = Object.entries(job.zones).map(([value, { name }]) => ({ value, label: name }));
  return [
    {
      id: 'device',
      head: 'device',
      className: styles.nameCell,
      value: ({ device }) => device.name,
      cell: ({ id, device }) => (
        <TextField
          label={`Name of ${device.name}`}
          value={device.name}
          most={80}
          required
          onChange={(name) => edit(setDevice(id, device.name, 'name', name))}
        />
      ),
    },
    {
      id: 'kind',
      head: 'kind, pins',
      className: styles.kind,
      value: ({ template }) => toKindWords(template),
      cell: ({ id, template }) => (
        <button className={styles.link} aria-expanded={open === id} onClick={() => setOpen(open === id ? null : id)}>
          {toKindWords(template)}
        </button>
      ),
    },
    {
      id: 'decision',
      head: 'decision',
      value: ({ device }) => DECISION_WORDS[device.decision],
      cell: ({ id, device }) => (
        <>
          <Pick
            label={`Decision on ${device.name}`}
            value={device.decision}
            options={DECISIONS.map((value) => ({ value, label: DECISION_WORDS[value] }))}
            onChange={(decision) => decision && edit(decideDevice(id, device.name, decision, readAuthor()))}
          />
          {device.decision === 'later' && (
            <Pick
              label={`Unknown place of ${device.name}`}
              value={device.unknownPolicy ?? 'connector'}
              options={UNKNOWN_POLICIES.map((value) => ({ value, label: POLICY_WORDS[value] }))}
              onChange={(policy) => edit(setDevice(id, device.name, 'unknownPolicy', policy))}
            />
          )}
        </>
      ),
    },
    {
      id: 'because',
      head: 'because',
      className: styles.why,
      value: ({ device }) => device.reason,
      cell: ({ id, device }) => (
        <TextField
          label={`Reason for ${device.name}`}
          value={device.reason}
          most={400}
          placeholder="why"
          onChange={(reason) => edit(setDevice(id, device.name, 'reason', reason))}
        />
      ),
      take: ({ id, device }, text) => (text.length > 400 ? 'at most 400 letters' : setDevice(id, device.name, 'reason', text)),
    },
    {
      id: 'by',
      head: 'decided by',
      value: ({ device }) => device.decidedBy,
      cell: ({ device }) => device.decidedBy || <span className={styles.alarm}>nobody yet</span>,
    },
    {
      id: 'zone',
      head: 'zone',
      value: ({ device }) => job.zones[device.zoneId ?? '']?.name ?? null,
      cell: ({ id, device }) => (
        <Pick
          label={`Zone of ${device.name}`}
          value={device.zoneId}
          none="not known"
          options={zones}
          onChange={(zoneId) => edit(setDevice(id, device.name, 'zoneId', zoneId))}
        />
      ),
    },
    {
      id: 'place',
      head: 'on loom',
      className: styles.place,
      value: ({ device: { at } }) => (at ? `${job.looms[at.loomId]!.name} · ${job.looms[at.loomId]!.ends[at.endId]!.name}` : null),
      cell: ({ id, device }) => <Place job={job} id={id} device={device} onGo={go} />,
    },
    {
      id: 'do',
      head: '',
      cell: ({ id, device }) => (
        <button
          className={styles.link}
          aria-label={`Strike ${device.name} off the list`}
          title="Off the list altogether. Undo brings it back."
          onClick={() => edit(strikeDevice(id, device.name))}
        >
          ×
        </button>
      ),
    },
  ];
}

const toKindWords = (template: DeviceTemplate | undefined): string =>
  template
    ? `${template.name}, ${toCount(Object.keys(template.pins).length + Object.keys(template.offers).length, 'pin')}`
    : 'pins not known';

/** Where a device hangs, or which free end of a loom it may be put on. */
function Place({ job, id, device, onGo }: { job: Job; id: string; device: Device; onGo: (loomId: string, endId: string) => void }) {
  const shop = useShop();
  const store = useJobStore();
  if (device.decision === 'remove') return <span className="faint">–</span>;
  if (device.at) {
    const { loomId, endId } = device.at;
    return (
      <span className={styles.placed}>
        <button className={styles.link} onClick={() => onGo(loomId, endId)}>
          {job.looms[loomId]!.name} · {job.looms[loomId]!.ends[endId]!.name}
        </button>
        <button
          className={styles.link}
          aria-label={`Take ${device.name} off its end`}
          title="Off this end; it stays on the list"
          onClick={() => store.edit(takeDeviceOff(id, device.name))}
        >
          ×
        </button>
      </span>
    );
  }
  const used = new Set(Object.values(job.devices).flatMap(({ at }) => (at ? [`${at.loomId} ${at.endId}`] : [])));
  const free = Object.entries(job.looms).flatMap(([loomId, loom]) =>
    Object.entries(loom.ends).flatMap(([endId, end]) =>
      used.has(`${loomId} ${endId}`) ? [] : [{ loomId, endId, words: `${loom.name} · ${end.name}` }],
    ),
  );
  return (
    <Pick
      label={`Put ${device.name} on`}
      value={null}
      none="not yet …"
      options={free.map(({ words }, index) => ({ value: String(index), label: words }))}
      onChange={(index) => {
        const chosen = free[Number(index)]!;
        store.edit(putDevice(id, chosen, { device: device.name, end: chosen.words }, shop));
      }}
    />
  );
}

function AddDevice({
  job,
  onAdd,
  onClose,
}: {
  job: Job;
  onAdd: (name: string, system: string, templateId: string | null) => void;
  onClose: () => void;
}) {
  const shop = useShop();
  return (
    <TemplatePicker
      job={job}
      value={null}
      isDialog
      onClose={onClose}
      onChange={(templateId, typed) => {
        const template = findDeviceTemplate(job, shop, templateId);
        onAdd(template?.name ?? typed, template?.system ?? 'other', templateId);
        onClose();
      }}
    />
  );
}
