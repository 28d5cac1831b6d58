'use client';

import { Checkbox } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMemo, useState } from 'react';
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

/** Resistors, diodes and terminators that are neither wire nor device: where each is, why, and what it reads. */
export function PartsPanel({ job, power, loomId }: { job: Job; power: PowerPlan; loomId: string }) {
  const shop = useShop();
  const store = useJobStore();
  const findings = useFindings().filter(({ code }) => code === 'CI16' || code === 'CI17');
  const [draft, setDraft] = useState<{
    kind: PartKind;
    ohms: number | null;
    watts: number | null;
    endId: string;
    one: string;
    other: string;
    inside: boolean;
    reason: string;
  }>({
    kind: 'resistor',
    ohms: null,
    watts: null,
    endId: '',
    one: '',
    other: '',
    inside: false,
    reason: '',
  });
  const loom = job.looms[loomId]!;
  const ids = Object.keys(job.parts).sort(compareIds);
  const netAt = useMemo(() => listNetsAt(job, power), [job, power]);
  const needsOhms = draft.kind !== 'diode' && draft.kind !== 'suppressor';
  const cavities = draft.endId ? listWired(job, loomId, draft.endId) : [];
  const isGood =
    draft.endId !== '' &&
    draft.one !== '' &&
    draft.other !== '' &&
    draft.one !== draft.other &&
    draft.reason.trim() !== '' &&
    (!needsOhms || draft.ohms !== null);
  const add = () => {
    store.edit(
      addPart({
        kind: draft.kind,
        ohms: needsOhms ? draft.ohms : null,
        watts: draft.watts,
        at: { loomId, endId: draft.endId, cavities: [draft.one, draft.other] },
        inside: draft.inside,
        reason: draft.reason.trim(),
      }),
    );
    setDraft({ ...draft, ohms: null, watts: null, one: '', other: '', reason: '' });
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
      <form
        className={styles.form}
        aria-label="Add an inline part"
        onSubmit={(event) => {
          event.preventDefault();
          if (isGood) add();
        }}
      >
        <Pick label="Kind of part" value={draft.kind} options={PART_KINDS} onChange={(kind) => kind && setDraft({ ...draft, kind })} />
        {needsOhms && (
          <NumberField
            label="Ohms"
            placeholder="Ω"
            unit="Ω"
            least={0.001}
            most={1e8}
            canBeEmpty
            value={draft.ohms}
            onChange={(ohms) => setDraft({ ...draft, ohms })}
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
          onChange={(watts) => setDraft({ ...draft, watts })}
        />
        <Pick
          label="At which end"
          value={draft.endId || null}
          none="at …"
          options={Object.entries(loom.ends)
            .filter(([endId]) => listWired(job, loomId, endId).length > 1)
            .map(([endId, end]) => ({ value: endId, label: end.name }))}
          onChange={(value) => setDraft({ ...draft, endId: value ?? '', one: '', other: '' })}
        />
        {(['one', 'other'] as const).map((key) => (
          <Pick
            key={key}
            label={key === 'one' ? 'First cavity' : 'Second cavity'}
            value={draft[key] || null}
            none="cavity"
            options={cavities}
            onChange={(value) => setDraft({ ...draft, [key]: value ?? '' })}
          />
        ))}
        <Checkbox
          size="xs"
          label="inside the device"
          checked={draft.inside}
          onChange={(event) => setDraft({ ...draft, inside: event.currentTarget.checked })}
        />
        <Words
          label="Why it is there"
          value={draft.reason}
          most={400}
          placeholder="why"
          onChange={(value) => setDraft({ ...draft, reason: value })}
        />
        <button className={controls.button} disabled={!isGood}>
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
