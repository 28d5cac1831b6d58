'use client';

import { Button, Group, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  CIRCUIT_KINDS,
  COLOUR_NAMES,
  findFamily,
  listCavities,
  type Circuit,
  type CircuitKind,
  type ColourName,
  isOffered,
  keepCircuit,
  KIND_WORDS,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { NumberEntry } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Bundle.module.css';

const JOINS = [
  { value: 'splice', label: 'spliced, least wire' },
  { value: 'chain', label: 'chained, double crimps' },
  { value: 'stud', label: 'all to the stud at the source' },
];

/** Everything about one circuit. Nothing is stored before Keep. */
export function CircuitDialog({
  planned,
  circuitId,
  start,
  isNew,
  onClose,
}: {
  planned: PlannedLoom;
  circuitId: string;
  start: Circuit;
  isNew: boolean;
  onClose: () => void;
}) {
  const shop = useShop();
  const { loom, loomId, job } = planned;
  const store = useJobStore();
  const [circuit, setCircuit] = useState<Circuit>(start);
  const set = (part: Partial<Circuit>) => setCircuit((now) => ({ ...now, ...part }));
  const places = circuit.terminations;
  const taken = new Set(
    Object.entries(loom.circuits)
      .filter(([id]) => id !== circuitId)
      .flatMap(([, other]) => other.terminations.map((one) => `${one.endId} ${one.cavity}`)),
  );
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
    if (endId !== null && cavity !== undefined) set({ terminations: [...places, { endId, cavity }] });
  };
  const numberTwin = Object.entries(loom.circuits).find(([id, other]) => id !== circuitId && other.number === circuit.number);
  const cables = shop.cables.filter(({ id }) => id === circuit.cable?.itemId || isOffered(shop, 'cables', id));
  const sizes = shop.wires[circuit.wireTable].map(({ size }) => size);
  const isGood =
    circuit.name.trim() !== '' &&
    /^[0-9A-Z]{1,8}$/.test(circuit.number) &&
    !numberTwin &&
    !Number.isNaN(circuit.currentA) &&
    !Number.isNaN(circuit.twist?.pitchMm) &&
    (circuit.sizePin === null || circuit.sizePin.reason.trim() !== '');
  const keep = () => {
    store.edit(keepCircuit(loomId, circuitId, circuit, isNew));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title={isNew ? 'Add a circuit' : `Circuit ${start.number}`} size="lg">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isGood) keep();
        }}
      >
        <Stack gap="xs">
          <Group grow align="start">
            <TextInput
              label="Number"
              value={circuit.number}
              onChange={(event) => set({ number: event.currentTarget.value.toUpperCase() })}
              error={numberTwin ? `circuit ${numberTwin[1].name} has it` : null}
            />
            <TextInput label="Name" data-autofocus value={circuit.name} onChange={(event) => set({ name: event.currentTarget.value })} />
            <Select
              label="Kind"
              data={CIRCUIT_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
              value={circuit.kind}
              allowDeselect={false}
              onChange={(value) => set({ kind: value as CircuitKind })}
            />
          </Group>
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
                      onChange={(cavity) =>
                        cavity && set({ terminations: places.map((one, at) => (at === index ? { ...one, cavity } : one)) })
                      }
                    />
                  </td>
                  <td style={{ textAlign: 'right' }}>
                    {index > 0 && (
                      <button
                        type="button"
                        className={styles.link}
                        onClick={() => set({ terminations: [place, ...places.filter((_, at) => at !== index)] })}
                      >
                        make it the source
                      </button>
                    )}
                    <button
                      type="button"
                      className={styles.link}
                      aria-label={`Take ${loom.ends[place.endId]?.name} out`}
                      onClick={() => set({ terminations: places.filter((_, at) => at !== index) })}
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
          <Group grow align="start">
            <Select
              label="Wire"
              data={[
                { value: 'etfe', label: 'ETFE, AWG, 150 °C' },
                { value: 'etfe-plated', label: 'ETFE plated, AWG, 200 °C' },
                { value: 'thinwall', label: 'thin-wall, mm²' },
              ]}
              value={circuit.wireTable}
              allowDeselect={false}
              onChange={(value) => set({ wireTable: value as Circuit['wireTable'], sizePin: null })}
            />
            <Select
              label="Colour"
              data={[...COLOUR_NAMES]}
              value={circuit.colour.base}
              allowDeselect={false}
              onChange={(value) => set({ colour: { ...circuit.colour, base: value as ColourName } })}
            />
            <Select
              label="Stripe"
              data={[{ value: '', label: 'none' }, ...COLOUR_NAMES.map((name) => ({ value: name, label: name }))]}
              value={circuit.colour.stripe ?? ''}
              allowDeselect={false}
              onChange={(value) => set({ colour: { ...circuit.colour, stripe: value ? (value as ColourName) : null } })}
            />
            <NumberEntry
              label="Current, A"
              placeholder="not known"
              unit="A"
              least={0}
              most={1000}
              canBeEmpty
              value={circuit.currentA}
              onChange={(currentA) => set({ currentA })}
            />
          </Group>
          <Group grow align="start">
            <Select
              label="More than two pins are"
              data={JOINS}
              value={circuit.join}
              allowDeselect={false}
              onChange={(value) => set({ join: value as Circuit['join'] })}
            />
            <Select
              label="Size"
              data={[{ value: '', label: 'computed' }, ...sizes.map((size) => ({ value: size, label: size }))]}
              value={circuit.sizePin?.size ?? ''}
              disabled={circuit.cable !== null}
              allowDeselect={false}
              onChange={(value) => set({ sizePin: value ? { size: value, reason: circuit.sizePin?.reason ?? '' } : null })}
            />
            {circuit.sizePin && (
              <TextInput
                label="Why this size"
                required
                value={circuit.sizePin.reason}
                onChange={(event) => set({ sizePin: { size: circuit.sizePin!.size, reason: event.currentTarget.value } })}
                error={circuit.sizePin.reason.trim() ? null : 'a pinned size needs a reason'}
              />
            )}
          </Group>
          <Group grow align="start">
            <TextInput
              label="Twisted with"
              description="circuits with the same group lie in one pair or triple"
              placeholder="not twisted"
              value={circuit.twist?.groupId ?? ''}
              onChange={(event) =>
                set({
                  twist: event.currentTarget.value
                    ? { groupId: event.currentTarget.value.replace(/[^A-Za-z0-9_-]/g, ''), pitchMm: circuit.twist?.pitchMm ?? 25 }
                    : null,
                })
              }
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
                if (circuit.twist) set({ twist: { ...circuit.twist, pitchMm: pitchMm ?? NaN } });
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
                const groupId = event.currentTarget.value.replace(/[^A-Za-z0-9_-]/g, '');
                const known = Object.values(loom.circuits).find(({ cable }) => cable?.groupId === groupId)?.cable?.itemId;
                set({ cable: groupId ? { groupId, itemId: known ?? circuit.cable?.itemId ?? cables[0]!.id } : null });
              }}
            />
            <Select
              label="Cable"
              description="size and thickness come from it"
              data={cables.map(({ id, name }) => ({ value: id, label: name }))}
              value={circuit.cable?.itemId ?? null}
              disabled={!circuit.cable}
              allowDeselect={false}
              onChange={(itemId) => circuit.cable && itemId && set({ cable: { ...circuit.cable, itemId } })}
            />
          </Group>
        </Stack>
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" disabled={!isGood}>
            Keep circuit
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
