'use client';

import { Button, Group, Modal, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  CAVITY_NAME,
  CIRCUIT_KINDS,
  createId,
  createPinNeed,
  type CircuitKind,
  type DeviceTemplate,
  type Job,
  type PinNeed,
  type PinOffer,
  type TemplateLink,
  RETURNS,
  type Return,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { EvidencePick } from '../../ui/EvidencePick';
import { listFamilyOptions } from '../bundle/RouteDialogs';
import { LinkRows } from './LinkRows';
import { OfferRows } from './OfferRows';
import { toNumber } from '../../ui/toNumber';
import { RETURN_WORDS } from '../../ui/returnWords';
import styles from './Brief.module.css';

/** What is wrong with the offers and links of a box; all: every pin it has. */
function listBoxProblems(
  offers: readonly [string, PinOffer][],
  links: readonly [string, TemplateLink][],
  all: readonly string[],
): string[] {
  const isNumber = (value: number | null) => value === null || (Number.isFinite(value) && value >= 0);
  return [
    ...offers.flatMap(([pin, { name, can, volts, limitA, pwmHz }], index) => [
      ...(CAVITY_NAME.test(pin) ? [] : [`pin that gives ${index + 1}: expected 1 to 6 letters or digits`]),
      ...(all.filter((one) => one === pin).length === 1 ? [] : [`pin ${pin} stands twice`]),
      ...(name.trim() === '' ? [`pin ${pin}: expected a name`] : []),
      ...(can.length === 0 ? [`pin ${pin}: expected what it can do`] : []),
      ...([volts, limitA, pwmHz].every(isNumber) && limitA !== 0
        ? []
        : [`pin ${pin}: expected numbers for V, limit and PWM, the limit above 0`]),
    ]),
    ...links.flatMap(([, { name, a, b, maxA, coil }], index) => [
      ...(name.trim() === '' ? [`link ${index + 1}: expected a name`] : []),
      ...([...(a.part === null ? [a.cavity] : []), b.cavity, ...(coil ? [coil.feed, coil.switch] : [])].every((pin) => all.includes(pin))
        ? []
        : [`${name}: expected pins that it has on both sides and at its coil`]),
      ...(a.part === null && a.cavity === b.cavity ? [`${name}: expected two different pins`] : []),
      ...(isNumber(maxA) && maxA !== 0 ? [] : [`${name}: expected a number above 0 for the most it carries`]),
    ]),
  ];
}

/** A kind of device of her own: from nothing, or from one that is nearly it. */
export function TemplateDialog({ job, onClose }: { job: Job; onClose: () => void }) {
  const shop = useShop();
  const store = useJobStore();
  const [from, setFrom] = useState<string | null>(null);
  const [name, setName] = useState('');
  const [system, setSystem] = useState('');
  const [familyId, setFamilyId] = useState<string | null>(null);
  const [pins, setPins] = useState<[string, PinNeed][]>([['1', createPinNeed('signal', 'signal')]]);
  const [offers, setOffers] = useState<[string, PinOffer][]>([]);
  const [links, setLinks] = useState<[string, TemplateLink][]>([]);
  const [note, setNote] = useState('');
  const known: Record<string, DeviceTemplate> = { ...shop.devices, ...job.deviceTemplates };
  const begin = (id: string | null) => {
    setFrom(id);
    const template = id === null ? undefined : known[id];
    if (!template) return;
    setName(Object.hasOwn(job.deviceTemplates, id!) ? template.name : `${template.name}, own`.slice(0, 80));
    setSystem(template.system);
    setFamilyId(template.familyId);
    setPins(Object.entries(structuredClone(template.pins)));
    setOffers(Object.entries(structuredClone(template.offers)));
    setLinks(Object.entries(structuredClone(template.links)));
    setNote(template.note);
  };
  const change = (index: number, part: Partial<PinNeed>) =>
    setPins((now) => now.map(([pin, need], at) => (at === index ? [pin, { ...need, ...part }] : [pin, need])));
  const ids = pins.map(([pin]) => pin);
  const all = [...ids, ...offers.map(([pin]) => pin)];
  const choices = [...new Set(all)];
  const problems = pins.flatMap(([pin, need], index) => [
    ...(CAVITY_NAME.test(pin) ? [] : [`pin ${index + 1}: expected 1 to 6 letters or digits`]),
    ...(ids.indexOf(pin) === index ? [] : [`pin ${pin} stands twice`]),
    ...(need.function.trim() === '' ? [`pin ${pin}: expected what it does`] : []),
    ...([need.volts, need.currentA, need.cycleS].some((value) => value !== null && !Number.isFinite(value))
      ? [`pin ${pin}: expected a number for V and A`]
      : []),
    ...(need.twistWith !== null && !ids.includes(need.twistWith) ? [`pin ${pin}: is twisted with ${need.twistWith}, which is no pin`] : []),
  ]);
  problems.push(...listBoxProblems(offers, links, all));
  const isGood = name.trim() !== '' && system.trim() !== '' && all.length > 0 && problems.length === 0;
  const isOwn = from !== null && Object.hasOwn(job.deviceTemplates, from);
  const keep = (asId: string | null) => {
    const id = asId ?? createId(job.deviceTemplates, 'own-');
    store.edit(`${asId === null ? 'new' : 'change'} template ${name.trim()}`, (draft) => {
      draft.deviceTemplates[id] = {
        name: name.trim(),
        system: system.trim(),
        familyId,
        note: note.trim(),
        pins: Object.fromEntries(pins),
        offers: Object.fromEntries(offers),
        links: Object.fromEntries(links),
      };
    });
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
      <table className={styles.pinTable}>
        <thead>
          <tr>
            <th>pin</th>
            <th>function</th>
            <th>kind</th>
            <th className={styles.num}>V</th>
            <th className={styles.num}>A while on</th>
            <th>returns by</th>
            <th className={styles.num}>cycle s</th>
            <th>screened</th>
            <th>twisted with</th>
            <th>required</th>
            <th>evidence</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {pins.map(([pin, need], index) => (
            <tr key={index}>
              <td>
                <input
                  className={styles.small}
                  aria-label={`Pin ${index + 1}`}
                  value={pin}
                  onChange={(event) => {
                    const { value } = event.target;
                    setPins((now) => now.map(([was, one], at) => (at === index ? [value, one] : [was, one])));
                  }}
                />
              </td>
              <td>
                <input
                  className={styles.field}
                  aria-label={`Function of pin ${index + 1}`}
                  value={need.function}
                  onChange={(event) => change(index, { function: event.target.value })}
                />
              </td>
              <td>
                <select
                  className={styles.pick}
                  aria-label={`Kind of pin ${index + 1}`}
                  value={need.kind}
                  onChange={(event) => change(index, { kind: event.target.value as CircuitKind })}
                >
                  {CIRCUIT_KINDS.map((kind) => (
                    <option key={kind}>{kind}</option>
                  ))}
                </select>
              </td>
              <td>
                <input
                  className={styles.small}
                  aria-label={`Volts of pin ${index + 1}`}
                  defaultValue={need.volts ?? ''}
                  onChange={(event) => change(index, { volts: toNumber(event.target.value) })}
                />
              </td>
              <td>
                <input
                  className={styles.small}
                  aria-label={`Amperes of pin ${index + 1}`}
                  defaultValue={need.currentA ?? ''}
                  onChange={(event) => change(index, { currentA: toNumber(event.target.value) })}
                />
              </td>
              <td>
                {need.kind === 'supply' && (
                  <select
                    className={styles.pick}
                    aria-label={`Return of pin ${index + 1}`}
                    value={need.returnBy}
                    onChange={(event) => change(index, { returnBy: event.target.value as Return })}
                  >
                    {RETURNS.map((value) => (
                      <option key={value} value={value}>
                        {RETURN_WORDS[value]}
                      </option>
                    ))}
                  </select>
                )}
              </td>
              <td>
                {(need.kind === 'supply' || need.kind === 'output') && (
                  <input
                    className={styles.small}
                    aria-label={`Cycle of pin ${index + 1}`}
                    defaultValue={need.cycleS ?? ''}
                    onChange={(event) => change(index, { cycleS: toNumber(event.target.value) })}
                  />
                )}
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Pin ${index + 1} is screened`}
                  checked={need.screened}
                  onChange={(event) => change(index, { screened: event.target.checked })}
                />
              </td>
              <td>
                <select
                  className={styles.pick}
                  aria-label={`Twist partner of pin ${index + 1}`}
                  value={need.twistWith ?? ''}
                  onChange={(event) => change(index, { twistWith: event.target.value || null })}
                >
                  <option value="">none</option>
                  {[...new Set(ids)]
                    .filter((id) => id !== pin)
                    .map((id) => (
                      <option key={id}>{id}</option>
                    ))}
                </select>
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Pin ${index + 1} is required`}
                  checked={need.required}
                  onChange={(event) => change(index, { required: event.target.checked })}
                />
              </td>
              <td>
                <EvidencePick
                  className={styles.pick}
                  label={`Evidence of pin ${index + 1}`}
                  value={need.evidence}
                  none="not recorded"
                  onChange={(evidence) => change(index, { evidence })}
                />
              </td>
              <td>
                <button
                  className={styles.link}
                  aria-label={`Take pin ${pin} out`}
                  onClick={() => setPins((now) => now.filter((_, at) => at !== index))}
                >
                  ×
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        className={styles.link}
        onClick={() => setPins((now) => [...now, [String(now.length + 1), createPinNeed('signal', 'signal')]])}
      >
        another pin
      </button>
      <h3>If it is a box: what its pins give, and what joins them inside</h3>
      <OfferRows key={`offers of ${from}`} offers={offers} pins={choices} onChange={setOffers} />{' '}
      <LinkRows key={`links of ${from}`} links={links} pins={choices} others={known} onChange={setLinks} />
      <TextInput label="Note" value={note} maxLength={400} onChange={(event) => setNote(event.currentTarget.value)} />
      {[...new Set(problems)].map((words) => (
        <p key={words} role="alert" className={styles.alarm}>
          {words}
        </p>
      ))}
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
