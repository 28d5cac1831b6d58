'use client';

import { useDisclosure } from '@mantine/hooks';
import { useRouter } from 'next/navigation';
import { Fragment, useState } from 'react';
import {
  compareIds,
  createDevice,
  createId,
  DECISIONS,
  findDeviceTemplate,
  placeDevice,
  UNKNOWN_POLICIES,
  type Decision,
  type Device,
  type Job,
  type UnknownPolicy,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { readAuthor } from '../../client/author';
import { useJobStore } from '../../client/jobContext';
import { TextField } from '../../ui/TextField';
import styles from './Brief.module.css';
import { PinTable } from './PinTable';
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

/** Devices of the vehicle by system: what is to become of each, why, and who said so. */
export function DevicesTable({ job }: { job: Job }) {
  const shop = useShop();
  const store = useJobStore();
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  const [picking, picker] = useDisclosure(false);
  const [making, maker] = useDisclosure(false);
  const systems = new Map<string, string[]>();
  for (const id of Object.keys(job.devices)) {
    const { system } = job.devices[id]!;
    systems.set(system, [...(systems.get(system) ?? []), id]);
  }
  const edit = (id: string, label: string, change: (device: Device) => void) =>
    store.edit(`${label} of ${job.devices[id]!.name}`, (draft) => change(draft.devices[id]!));
  const add = (name: string, system: string, templateId: string | null) => {
    const id = createId(job.devices, 'd');
    store.edit(`add ${name}`, (draft) => {
      draft.devices[id] = createDevice(name, system, { templateId, decidedBy: readAuthor() });
    });
    setOpen(id);
  };
  return (
    <>
      <div className={styles.bar}>
        <button className={styles.button} onClick={picker.open}>
          Add device
        </button>
        <button className={styles.button} onClick={maker.open}>
          New template
        </button>
        <span className="faint">
          {Object.values(shop.devices).length} templates of the catalogue, {Object.keys(job.deviceTemplates).length} of this job
        </span>
      </div>
      {Object.keys(job.devices).length === 0 && (
        <p className={styles.empty}>
          The want-list and the delete-list of the vehicle: every device with what it needs at each pin, and whether it is fitted, kept,
          removed, put to other use, or placed later. Add the first.
        </p>
      )}
      <table className={styles.table}>
        <thead>
          <tr>
            <th>device</th>
            <th>kind, pins</th>
            <th>what becomes of it</th>
            <th>because</th>
            <th>decided by</th>
            <th>zone</th>
            <th>on loom</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {[...systems.keys()].sort(compareIds).map((system) => (
            <Fragment key={system}>
              <tr>
                <th colSpan={8} className={styles.system} scope="rowgroup">
                  {system}
                </th>
              </tr>
              {systems.get(system)!.map((id) => {
                const device = job.devices[id]!;
                const template = findDeviceTemplate(job, shop, device.templateId);
                return (
                  <Fragment key={id}>
                    <tr data-decision={device.decision}>
                      <td className={styles.nameCell}>
                        <TextField
                          label={`Name of ${device.name}`}
                          value={device.name}
                          most={80}
                          required
                          onChange={(name) => edit(id, 'name', (one) => void (one.name = name))}
                        />
                      </td>
                      <td>
                        <button className={styles.link} aria-expanded={open === id} onClick={() => setOpen(open === id ? null : id)}>
                          {template ? `${template.name}, ${Object.keys(template.pins).length} pins` : 'pins not known'}
                        </button>
                      </td>
                      <td>
                        <select
                          className={styles.pick}
                          aria-label={`Decision on ${device.name}`}
                          value={device.decision}
                          onChange={(event) => {
                            const decision = event.target.value as Decision;
                            edit(id, decision, (one) => {
                              one.decision = decision;
                              one.decidedBy = readAuthor();
                              one.unknownPolicy = decision === 'later' ? (one.unknownPolicy ?? 'connector') : null;
                            });
                          }}
                        >
                          {DECISIONS.map((one) => (
                            <option key={one} value={one}>
                              {DECISION_WORDS[one]}
                            </option>
                          ))}
                        </select>
                        {device.decision === 'later' && (
                          <select
                            className={styles.pick}
                            aria-label={`Unknown place of ${device.name}`}
                            value={device.unknownPolicy ?? 'connector'}
                            onChange={(event) => {
                              const policy = event.target.value as UnknownPolicy;
                              edit(id, 'unknown place', (one) => void (one.unknownPolicy = policy));
                            }}
                          >
                            {UNKNOWN_POLICIES.map((one) => (
                              <option key={one} value={one}>
                                {POLICY_WORDS[one]}
                              </option>
                            ))}
                          </select>
                        )}
                      </td>
                      <td className={styles.why}>
                        <TextField
                          label={`Reason for ${device.name}`}
                          value={device.reason}
                          most={400}
                          placeholder="why"
                          onChange={(reason) => edit(id, 'reason', (one) => void (one.reason = reason))}
                        />
                      </td>
                      <td>{device.decidedBy || <span className={styles.alarm}>nobody yet</span>}</td>
                      <td>
                        <select
                          className={styles.pick}
                          aria-label={`Zone of ${device.name}`}
                          value={device.zoneId ?? ''}
                          onChange={(event) => {
                            const zoneId = event.target.value || null;
                            edit(id, 'zone', (one) => void (one.zoneId = zoneId));
                          }}
                        >
                          <option value="">not known</option>
                          {Object.entries(job.zones).map(([zoneId, zone]) => (
                            <option key={zoneId} value={zoneId}>
                              {zone.name}
                            </option>
                          ))}
                        </select>
                      </td>
                      <td className={styles.place}>
                        <Place
                          job={job}
                          id={id}
                          device={device}
                          onGo={(loomId, endId) => router.push(`ends?loom=${loomId}&end=${endId}`)}
                        />
                      </td>
                      <td>
                        <button
                          className={styles.link}
                          aria-label={`Strike ${device.name} off the list`}
                          title="Off the list altogether. Undo brings it back."
                          onClick={() =>
                            store.edit(`strike ${device.name} off`, (draft) => {
                              delete draft.devices[id];
                            })
                          }
                        >
                          ×
                        </button>
                      </td>
                    </tr>
                    {open === id && (
                      <tr>
                        <td colSpan={8} className={styles.pins}>
                          <TemplatePicker
                            job={job}
                            value={device.templateId}
                            onChange={(templateId) => edit(id, 'kind', (one) => void (one.templateId = templateId))}
                          />
                          {template && <PinTable template={template} />}
                        </td>
                      </tr>
                    )}
                  </Fragment>
                );
              })}
            </Fragment>
          ))}
        </tbody>
      </table>
      {picking && <AddDevice job={job} onAdd={add} onClose={picker.close} />}
      {making && <TemplateDialog job={job} onClose={maker.close} />}
    </>
  );
}

/** Where a device hangs, or which free end of a loom it may be put on. */
function Place({ job, id, device, onGo }: { job: Job; id: string; device: Device; onGo: (loomId: string, endId: string) => void }) {
  const shop = useShop();
  const store = useJobStore();
  if (device.decision === 'remove') return <span className="faint">–</span>;
  if (device.at) {
    const { loomId, endId } = device.at;
    return (
      <>
        <button className={styles.link} onClick={() => onGo(loomId, endId)}>
          {job.looms[loomId]!.name} · {job.looms[loomId]!.ends[endId]!.name}
        </button>
        <button
          className={styles.link}
          aria-label={`Take ${device.name} off its end`}
          onClick={() =>
            store.edit(`take ${device.name} off its end`, (draft) => {
              draft.devices[id]!.at = null;
            })
          }
        >
          ×
        </button>
      </>
    );
  }
  const used = new Set(Object.values(job.devices).flatMap(({ at }) => (at ? [`${at.loomId} ${at.endId}`] : [])));
  const free = Object.entries(job.looms).flatMap(([loomId, loom]) =>
    Object.entries(loom.ends).flatMap(([endId, end]) =>
      used.has(`${loomId} ${endId}`) ? [] : [{ loomId, endId, words: `${loom.name} · ${end.name}` }],
    ),
  );
  return (
    <select
      className={styles.pick}
      aria-label={`Put ${device.name} on`}
      value=""
      onChange={(event) => {
        const chosen = free[Number(event.target.value)]!;
        store.edit(`${device.name} on ${chosen.words}`, (draft) => placeDevice(draft, shop, id, chosen.loomId, chosen.endId));
      }}
    >
      <option value="">not yet …</option>
      {free.map(({ words }, index) => (
        <option key={words} value={index}>
          {words}
        </option>
      ))}
    </select>
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
