'use client';

import { useDisclosure } from '@mantine/hooks';
import { useRouter } from 'next/navigation';
import { Fragment, useState } from 'react';
import {
  compareIds,
  createId,
  DECISIONS,
  findDeviceTemplate,
  UNKNOWN_POLICIES,
  type Decision,
  type Device,
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
import { readAuthor } from '../../client/author';
import { useJobStore } from '../../client/jobContext';
import { TextField } from '../../ui/TextField';
import styles from './Brief.module.css';
import { PinTable } from './PinTable';
import { WireListButton } from '../../ui/WireListButton';
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
  const add = (name: string, system: string, templateId: string | null) => {
    const id = createId(job.devices, 'd');
    store.edit(addDevice(id, { name, system, templateId, decidedBy: readAuthor() }));
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
        <div className={styles.empty}>
          <p>
            The want-list and the delete-list of the vehicle: every device with what it needs at each pin, and whether it is fitted, kept,
            removed, put to other use, or placed later. Add the first; or, where there is a list of wires already, begin with that.
          </p>
          <WireListButton job={job} />
        </div>
      )}
      <table className={styles.table}>
        <thead>
          <tr>
            <th>device</th>
            <th>kind, pins</th>
            <th>decision</th>
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
                          onChange={(name) => store.edit(setDevice(id, device.name, 'name', name))}
                        />
                      </td>
                      <td>
                        <button className={styles.link} aria-expanded={open === id} onClick={() => setOpen(open === id ? null : id)}>
                          {template
                            ? `${template.name}, ${toCount(Object.keys(template.pins).length + Object.keys(template.offers).length, 'pin')}`
                            : 'pins not known'}
                        </button>
                      </td>
                      <td>
                        <select
                          className={styles.pick}
                          aria-label={`Decision on ${device.name}`}
                          value={device.decision}
                          onChange={(event) => {
                            const decision = event.target.value as Decision;
                            store.edit(decideDevice(id, device.name, decision, readAuthor()));
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
                              store.edit(setDevice(id, device.name, 'unknownPolicy', policy));
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
                          onChange={(reason) => store.edit(setDevice(id, device.name, 'reason', reason))}
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
                            store.edit(setDevice(id, device.name, 'zoneId', zoneId));
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
                          onClick={() => store.edit(strikeDevice(id, device.name))}
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
                            onChange={(templateId) => store.edit(setDevice(id, device.name, 'templateId', templateId))}
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
      <span className={styles.placed}>
        <button className={styles.link} onClick={() => onGo(loomId, endId)}>
          {job.looms[loomId]!.name} · {job.looms[loomId]!.ends[endId]!.name}
        </button>
        <button
          className={styles.link}
          aria-label={`Take ${device.name} off its end`}
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
    <select
      className={styles.pick}
      aria-label={`Put ${device.name} on`}
      value=""
      onChange={(event) => {
        const chosen = free[Number(event.target.value)]!;
        store.edit(putDevice(id, chosen, { device: device.name, end: chosen.words }, shop));
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
