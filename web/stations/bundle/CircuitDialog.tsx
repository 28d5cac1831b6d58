'use client';

import { Group, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import {
  CIRCUIT_KINDS,
  COLOUR_NAMES,
  findFamily,
  fromColourWords,
  listCavities,
  MOST_BANDS,
  type Circuit,
  type ColourName,
  isOffered,
  type Job,
  type Loom,
  keepCircuit,
  KIND_WORDS,
  listWireKinds,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJob, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { NumberEntry } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import { DialogEnd } from '../../ui/DialogEnd';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Bundle.module.css';

const JOINS = [
  { value: 'splice', label: 'spliced, least wire' },
  { value: 'chain', label: 'chained, double crimps' },
  { value: 'stud', label: 'all to the stud at the source' },
];

type Places = Circuit['terminations'];

/** Bands as they are typed, the one nearest to the end first; null: they are none of ours. */
const readBands = (words: string): ColourName[] | null => fromColourWords(`white (${words})`)?.bands ?? null;

/** Everything about one circuit. Nothing is stored before Keep. */
export function CircuitDialog({
  planned,
  circuitId,
  start,
  onClose,
}: {
  planned: PlannedLoom;
  /** null: a new one */
  circuitId: string | null;
  start: Circuit;
  onClose: () => void;
}) {
  const shop = useShop();
  const { loomId } = planned;
  const store = useJobStore();
  // as it is now: the plan may be a change behind, and what it does not know is taken all the same
  const job = useJob(({ document }) => document);
  const loom = job.looms[loomId] ?? planned.loom;
  const others = Object.entries(loom.circuits).flatMap(([id, other]) => (id === circuitId ? [] : [other]));
  // a copy: the document is frozen, and what is copied of it as it is stays so
  const [values] = useState(() => structuredClone(start));
  const [bands, setBands] = useState(() => start.colour.bands.join(' '));
  const form = useForm<Circuit>({
    initialValues: values,
    validateInputOnChange: true,
    validate: {
      name: (name) => (name.trim() ? null : 'expected a name'),
      number: (number) => {
        const twin = others.find((other) => other.number === number);
        if (twin) return `circuit ${twin.name} has it`;
        return /^[0-9A-Z]{1,8}$/.test(number) ? null : 'expected 1 to 8 capitals and digits';
      },
      currentA: (currentA) => (Number.isNaN(currentA) ? 'expected amperes' : null),
      twist: (twist) => (Number.isNaN(twist?.pitchMm) ? 'expected the length of one turn' : null),
      sizePin: (pin) => (pin && !pin.reason.trim() ? 'a pinned size needs a reason' : null),
    },
  });
  const circuit = form.values;
  const cables = shop.cables.filter(({ id }) => id === circuit.cable?.itemId || isOffered(shop, 'cables', id));
  const sizes = shop.wires[circuit.wireTable]!.map(({ size }) => size);
  const keep = (kept: Circuit) => {
    const read = readBands(bands);
    if (read === null) return;
    store.edit(keepCircuit(loomId, circuitId, { ...kept, colour: { ...kept.colour, bands: read } }));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title={circuitId === null ? 'Add a circuit' : `Circuit ${start.number}`} size="lg">
      <form onSubmit={form.onSubmit(keep)}>
        <Stack gap="xs">
          <Group grow align="start">
            <TextInput
              label="Number"
              {...form.getInputProps('number')}
              onChange={(event) => form.setFieldValue('number', event.currentTarget.value.toUpperCase())}
            />
            <TextInput label="Name" data-autofocus {...form.getInputProps('name')} />
            <Select
              label="Kind"
              data={CIRCUIT_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
              allowDeselect={false}
              {...form.getInputProps('kind')}
            />
          </Group>
          <CircuitPins
            job={job}
            loom={loom}
            others={others}
            places={circuit.terminations}
            onChange={(places) => form.setFieldValue('terminations', places)}
          />
          <Group grow align="start">
            <Select
              label="Wire"
              data={listWireKinds(shop, shop.standards[job.standardId]!)}
              value={circuit.wireTable}
              allowDeselect={false}
              onChange={(value) => {
                form.setFieldValue('wireTable', value!);
                form.setFieldValue('sizePin', null);
              }}
            />
            <Select
              label="Size"
              data={[{ value: '', label: 'computed' }, ...sizes.map((size) => ({ value: size, label: size }))]}
              value={circuit.sizePin?.size ?? ''}
              disabled={circuit.cable !== null}
              allowDeselect={false}
              onChange={(value) => form.setFieldValue('sizePin', value ? { size: value, reason: circuit.sizePin?.reason ?? '' } : null)}
            />
            {circuit.sizePin && (
              <TextInput
                label="Why this size"
                required
                value={circuit.sizePin.reason}
                onChange={(event) => form.setFieldValue('sizePin', { size: circuit.sizePin!.size, reason: event.currentTarget.value })}
                error={form.errors.sizePin}
              />
            )}
          </Group>
          <Group grow preventGrowOverflow={false} wrap="nowrap" align="start">
            <Select label="Colour" data={[...COLOUR_NAMES]} allowDeselect={false} {...form.getInputProps('colour.base')} />
            <Select
              label="Stripe"
              data={[{ value: '', label: 'none' }, ...COLOUR_NAMES.map((name) => ({ value: name, label: name }))]}
              value={circuit.colour.stripe ?? ''}
              allowDeselect={false}
              onChange={(value) => form.setFieldValue('colour.stripe', value ? (value as ColourName) : null)}
            />
            <TextInput
              label="Bands"
              miw={110}
              title="from the end on, as in red blue"
              placeholder="none"
              value={bands}
              onChange={(event) => setBands(event.currentTarget.value)}
              error={readBands(bands) === null && `expected up to ${MOST_BANDS} of ${COLOUR_NAMES.join(', ')}`}
            />
            <TextInput
              label="Why this colour"
              miw={186}
              title="no scheme and no proposal gives it another colour then"
              placeholder="none: it may be changed"
              maxLength={400}
              value={circuit.colourPin?.reason ?? ''}
              onChange={(event) => {
                const reason = event.currentTarget.value;
                form.setFieldValue('colourPin', reason.trim() === '' ? null : { reason });
              }}
            />
          </Group>
          <Group grow align="start">
            <Select label="More than two pins are" data={JOINS} allowDeselect={false} {...form.getInputProps('join')} />
            <NumberEntry
              label="Current, A"
              placeholder="not known"
              unit="A"
              least={0}
              most={1000}
              canBeEmpty
              value={circuit.currentA}
              onChange={(currentA) => form.setFieldValue('currentA', currentA)}
            />
          </Group>
          <Group grow align="start">
            <TextInput
              label="Twisted with"
              description="circuits with the same group lie in one pair or triple"
              placeholder="not twisted"
              value={circuit.twist?.groupId ?? ''}
              onChange={(event) => {
                const groupId = toGroupId(event.currentTarget.value);
                form.setFieldValue('twist', groupId ? { groupId, pitchMm: circuit.twist?.pitchMm ?? 25 } : null);
              }}
            />
            <NumberEntry
              label="Pitch, mm"
              description="length of one turn"
              unit="mm"
              least={5}
              most={200}
              disabled={!circuit.twist}
              value={circuit.twist?.pitchMm ?? null}
              onChange={(pitchMm) => {
                if (circuit.twist) form.setFieldValue('twist', { ...circuit.twist, pitchMm: pitchMm ?? NaN });
              }}
            />
          </Group>
          <Group grow align="start">
            <TextInput
              label="In cable"
              disabled={cables.length === 0}
              description={cables.length === 0 ? 'the shop has no cable' : 'circuits with the same name lie in one bought cable'}
              placeholder="single wire"
              value={circuit.cable?.groupId ?? ''}
              onChange={(event) => {
                const groupId = toGroupId(event.currentTarget.value);
                const known = Object.values(loom.circuits).find(({ cable }) => cable?.groupId === groupId)?.cable?.itemId;
                form.setFieldValue('cable', groupId ? { groupId, itemId: known ?? circuit.cable?.itemId ?? cables[0]!.id } : null);
              }}
            />
            <Select
              label="Cable"
              description="size and thickness come from it"
              data={cables.map(({ id, name }) => ({ value: id, label: name }))}
              value={circuit.cable?.itemId ?? null}
              disabled={!circuit.cable}
              allowDeselect={false}
              onChange={(itemId) => circuit.cable && itemId && form.setFieldValue('cable', { ...circuit.cable, itemId })}
            />
          </Group>
        </Stack>
        <DialogEnd onClose={onClose} words="Keep circuit" isReady={form.isValid() && readBands(bands) !== null} />
      </form>
    </Modal>
  );
}

const toGroupId = (words: string) => words.replace(/[^A-Za-z0-9_-]/g, '');

/** Which pins a circuit joins, the source first. Offered are the cavities that no other circuit has. */
function CircuitPins({
  job,
  loom,
  others,
  places,
  onChange,
}: {
  job: Job;
  loom: Loom;
  others: readonly Circuit[];
  places: Places;
  onChange: (places: Places) => void;
}) {
  const shop = useShop();
  const taken = new Set(others.flatMap(({ terminations }) => terminations.map(({ endId, cavity }) => `${endId} ${cavity}`)));
  const cavitiesOf = (endId: string): readonly string[] => {
    const family = findFamily(job, shop, loom.ends[endId]?.familyId ?? null);
    if (family) return listCavities(family);
    // no housing, or one still to be chosen: what is wired there, and some more
    const wired = Object.values(loom.circuits).flatMap(({ terminations }) =>
      terminations.flatMap((one) => (one.endId === endId ? [one.cavity] : [])),
    );
    return [...new Set([...wired, ...Array.from({ length: 12 }, (_, index) => String(index + 1))])];
  };
  const free = (endId: string, own: string | null) =>
    cavitiesOf(endId).filter(
      (cavity) =>
        cavity === own || (!taken.has(`${endId} ${cavity}`) && !places.some((one) => one.endId === endId && one.cavity === cavity)),
    );
  const add = (endId: string | null) => {
    const cavity = endId === null ? undefined : free(endId, null)[0];
    if (endId !== null && cavity !== undefined) onChange([...places, { endId, cavity }]);
  };
  return (
    <>
      <FactTable label="Pins of the circuit">
        <thead>
          <tr>
            <th>{places.length ? 'pins, the first is the source' : 'no pins yet'}</th>
            <th>cavity</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {places.map((place, index) => (
            <tr key={`${place.endId} ${place.cavity}`}>
              <td>{loom.ends[place.endId]?.name ?? place.endId}</td>
              <td>
                <Pick
                  label={`Cavity at ${loom.ends[place.endId]?.name}`}
                  value={place.cavity}
                  options={free(place.endId, place.cavity)}
                  onChange={(cavity) => cavity && onChange(places.map((one, at) => (at === index ? { ...one, cavity } : one)))}
                />
              </td>
              <td style={{ textAlign: 'right' }}>
                {index > 0 && (
                  <button
                    type="button"
                    className={styles.link}
                    onClick={() => onChange([place, ...places.filter((_, at) => at !== index)])}
                  >
                    make it the source
                  </button>
                )}
                <button
                  type="button"
                  className={styles.link}
                  aria-label={`Take ${loom.ends[place.endId]?.name} out`}
                  onClick={() => onChange(places.filter((_, at) => at !== index))}
                >
                  take out
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </FactTable>
      <Select
        key={places.length}
        label="Add a pin at"
        placeholder="choose an end; its first free cavity is taken"
        searchable
        value={null}
        onChange={add}
        data={Object.entries(loom.ends)
          .filter(([id]) => free(id, null).length > 0)
          .map(([value, end]) => ({ value, label: end.name }))}
      />
    </>
  );
}
