'use client';

import { Checkbox } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMemo } from 'react';
import {
  compareIds,
  gatherParts,
  listOperations,
  listScatteredParts,
  PART_KINDS,
  toPartWords,
  toMeterReading,
  type Job,
  type PartKind,
  addPart,
  removePart,
  measurePartHeat,
  type PowerPlan,
  listNetsAt,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useFindings, useJobStore } from '../../client/jobContext';
import { FindingLines } from '../../ui/findings/FindingLine';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import { Words } from '../../ui/fields/TextField';
import controls from '../../ui/controls.module.css';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Circuits.module.css';

interface NewPart {
  kind: PartKind;
  ohms: number | null;
  watts: number | null;
  endId: string;
  one: string;
  other: string;
  inside: boolean;
  reason: string;
}

const NO_PART: NewPart = { kind: 'resistor', ohms: null, watts: null, endId: '', one: '', other: '', inside: false, reason: '' };

const needsOhms = (kind: PartKind) => kind !== 'diode' && kind !== 'suppressor';

/** Resistors, diodes and terminators that are neither wire nor device: where each is, why, and what it reads. */
export function PartsPanel({ job, power, loomId }: { job: Job; power: PowerPlan; loomId: string }) {
  const shop = useShop();
  const store = useJobStore();
  const findings = useFindings().filter(({ code }) => code === 'CI16' || code === 'CI17');
  const form = useForm<NewPart>({
    initialValues: NO_PART,
    validate: {
      ohms: (ohms, { kind }) => (needsOhms(kind) && ohms === null ? 'expected ohms' : null),
      endId: (endId) => (endId === '' ? 'expected an end' : null),
      one: (one) => (one === '' ? 'expected a cavity' : null),
      other: (other, { one }) => (other === '' || other === one ? 'expected another cavity' : null),
      reason: (reason) => (reason.trim() ? null : 'expected a reason'),
    },
  });
  const draft = form.values;
  const loom = job.looms[loomId]!;
  const ids = Object.keys(job.parts).sort(compareIds);
  const netAt = useMemo(() => listNetsAt(job, power), [job, power]);
  const cavities = draft.endId ? listWired(job, loomId, draft.endId) : [];
  const add = ({ kind, ohms, watts, endId, one, other, inside, reason }: NewPart) => {
    const at = { loomId, endId, cavities: [one, other] as [string, string] };
    store.edit(addPart({ kind, ohms: needsOhms(kind) ? ohms : null, watts, at, inside, reason: reason.trim() }));
    // the next one is often of the same kind, at the same end
    form.setValues({ ohms: null, watts: null, one: '', other: '', reason: '' });
  };
  const scattered = listScatteredParts(job, loomId);
  const gather = () => {
    const gathered = gatherParts(job, shop, loomId);
    if (gathered) store.push(`gather ${gathered.moved.length} resistors on one pigtail`, listOperations(job, gathered.next));
    else
      notifications.show({
        color: 'flame',
        title: 'Not gathered',
        message: 'Each of them has to lie between two pins that are wired, and a housing has to have cavities for all of them.',
      });
  };
  return (
    <div className={controls.facts}>
      {ids.length === 0 && (
        <p className="faint">None yet. A resistor that nobody can find again is worse than none: enter it here with its reason.</p>
      )}
      {scattered.length > 1 && (
        <p className={styles.note}>
          {scattered.length} resistors of this loom lie at {new Set(scattered.map((id) => job.parts[id]!.at.endId)).size} places. The house
          style gathers them on one pigtail that can be found and labelled.{' '}
          <button className={controls.button} onClick={gather}>
            Gather on one pigtail
          </button>
        </p>
      )}
      <FindingLines findings={findings} />
      {ids.length > 0 && (
        <FactTable label="Inline parts">
          <thead>
            <tr>
              <th>part</th>
              <th>between</th>
              <th>reads</th>
              <th>because</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {ids.map((id) => {
              const part = job.parts[id]!;
              const { at } = part;
              const heat = measurePartHeat(job, netAt, part);
              return (
                <tr key={id}>
                  <td>
                    {toPartWords(part)}
                    {heat && heat.watts > 0 && (
                      <span className="faint">
                        {' '}
                        between {heat.volts[0]} V and {heat.volts[1]} V it gives off {Number(heat.watts.toPrecision(2))} W
                      </span>
                    )}
                  </td>
                  <td>
                    {job.looms[at.loomId]!.ends[at.endId]!.name} {at.cavities.join(' and ')}
                  </td>
                  <td>{toMeterReading(part)}</td>
                  <td>{part.reason}</td>
                  <td>
                    <button
                      className={styles.link}
                      aria-label={`Take the ${part.kind} at ${job.looms[at.loomId]!.ends[at.endId]!.name} out`}
                      onClick={() => store.edit(removePart(id, part))}
                    >
                      take out
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </FactTable>
      )}
      <form className={styles.form} aria-label="Add an inline part" onSubmit={form.onSubmit(add)}>
        <Pick label="Kind of part" value={draft.kind} options={PART_KINDS} onChange={(kind) => kind && form.setFieldValue('kind', kind)} />
        {needsOhms(draft.kind) && (
          <NumberField
            label="Ohms"
            placeholder="Ω"
            unit="Ω"
            least={0.001}
            most={1e8}
            canBeEmpty
            value={draft.ohms}
            onChange={(ohms) => form.setFieldValue('ohms', ohms)}
          />
        )}
        <NumberField
          label="Watts"
          placeholder="W"
          unit="W"
          least={0.001}
          most={1000}
          canBeEmpty
          value={draft.watts}
          onChange={(watts) => form.setFieldValue('watts', watts)}
        />
        <Pick
          label="At which end"
          value={draft.endId || null}
          none="at …"
          options={Object.entries(loom.ends)
            .filter(([endId]) => listWired(job, loomId, endId).length > 1)
            .map(([endId, end]) => ({ value: endId, label: end.name }))}
          onChange={(value) => form.setValues({ endId: value ?? '', one: '', other: '' })}
        />
        {(['one', 'other'] as const).map((key) => (
          <Pick
            key={key}
            label={key === 'one' ? 'First cavity' : 'Second cavity'}
            value={draft[key] || null}
            none="cavity"
            options={cavities}
            onChange={(value) => form.setFieldValue(key, value ?? '')}
          />
        ))}
        <Checkbox size="xs" label="inside the device" {...form.getInputProps('inside', { type: 'checkbox' })} />
        <Words
          label="Why it is there"
          value={draft.reason}
          most={400}
          placeholder="why"
          onChange={(value) => form.setFieldValue('reason', value)}
        />
        <button className={controls.button} disabled={!form.isValid()}>
          Add part
        </button>
      </form>
    </div>
  );
}

const listWired = (job: Job, loomId: string, endId: string): string[] => {
  const loom = job.looms[loomId]!;
  const used = Object.values(loom.circuits).flatMap(({ terminations }) =>
    terminations.flatMap((one) => (one.endId === endId ? [one.cavity] : [])),
  );
  return [...new Set([...used, ...Object.keys(loom.ends[endId]!.pins)])].sort(compareIds);
};
