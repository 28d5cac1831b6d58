'use client';

import { Button, Checkbox, Group, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import { checkFamily, createId, fromCavityWords, type ConnectorFamily, type Job, addFamily } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { NumberEntry } from '../../ui/fields/NumberField';
import { FacePicture } from '../../ui/FacePicture';

const LIMITS = {
  pitchMm: { unit: 'mm', least: 0.1, most: 100 },
  envelopeMm: { unit: 'mm', least: 0.1, most: 500 },
  entryDepthMm: { unit: 'mm', least: 0, most: 500 },
  massG: { unit: 'g', least: 0, most: 10000 },
} as const;

/** A connector family that the catalogue lacks, described for this job from its data sheet. */
export function FamilyDialog({ job, onClose }: { job: Job; onClose: () => void }) {
  const shop = useShop();
  const store = useJobStore();
  const [name, setName] = useState('');
  const [shape, setShape] = useState<'rows' | 'rings'>('rows');
  const [counts, setCounts] = useState('2, 2');
  const [words, setWords] = useState('');
  const [cavitySize, setCavitySize] = useState<string | null>(null);
  const [numbers, setNumbers] = useState<Record<keyof typeof LIMITS, number | null>>({
    pitchMm: null,
    envelopeMm: null,
    entryDepthMm: null,
    massG: null,
  });
  const [seating, setSeating] = useState<ConnectorFamily['seating']>('push-to-seat');
  const [sealed, setSealed] = useState(true);
  const [secondaryLock, setSecondaryLock] = useState(false);
  const list = counts
    .split(/[,\s]+/)
    .filter(Boolean)
    .map(Number);
  const isListGood = list.length > 0 && list.length <= 8 && list.every((count) => Number.isInteger(count) && count >= 1 && count <= 40);
  const named = words.trim() === '' ? null : fromCavityWords(words);
  const family: ConnectorFamily | null = isListGood
    ? {
        name: name.trim() || 'new family',
        arrangement: shape === 'rows' ? { kind: 'rows', rows: list } : { kind: 'rings', rings: list },
        cavityNames: named?.ok ? named.value : null,
        cavitySize: cavitySize ?? '',
        otherSizes: {},
        gender: null,
        mateId: null,
        pitchMm: Number(numbers.pitchMm) || 4,
        envelopeMm: Number(numbers.envelopeMm) || 1,
        entryDepthMm: Number(numbers.entryDepthMm),
        seating,
        sealed,
        secondaryLock,
        keys: [],
        massG: Number(numbers.massG),
      }
    : null;
  const nameProblem = named?.ok === false ? named.problems[0]!.message : family ? (checkFamily(family, '')[0]?.message ?? null) : null;
  const isGood =
    name.trim() !== '' &&
    isListGood &&
    nameProblem === null &&
    cavitySize !== null &&
    Object.values(numbers).every((value) => value !== null && !Number.isNaN(value));
  const field = (key: keyof typeof numbers, label: string, description: string) => (
    <NumberEntry
      label={label}
      description={description}
      {...LIMITS[key]}
      value={numbers[key]}
      onChange={(value) => setNumbers((now) => ({ ...now, [key]: value }))}
    />
  );
  return (
    <Modal opened onClose={onClose} title="A connector family of this job" size="lg">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!isGood || !family) return;
          const id = createId(job.families, 'own');
          store.edit(addFamily(id, family));
          onClose();
        }}
      >
        <Group align="start" wrap="nowrap">
          <Stack gap="xs" style={{ flex: 1 }}>
            <TextInput label="Name" data-autofocus value={name} onChange={(event) => setName(event.currentTarget.value)} />
            <Group grow align="start">
              <Select
                label="Cavities lie in"
                data={[
                  { value: 'rows', label: 'rows, top first' },
                  { value: 'rings', label: 'rings, inner first' },
                ]}
                value={shape}
                allowDeselect={false}
                onChange={(value) => setShape(value as typeof shape)}
              />
              <TextInput
                label="How many in each"
                description="wire side, such as 3, 3"
                value={counts}
                onChange={(event) => setCounts(event.currentTarget.value)}
                error={isListGood ? null : 'whole numbers from 1 to 40'}
              />
            </Group>
            <TextInput
              label="Marked on its cavities"
              description="in that order, as in 30, 85, 86, 87 or A to H without F; empty: counted from 1"
              value={words}
              onChange={(event) => setWords(event.currentTarget.value)}
              error={nameProblem}
            />
            <Group grow align="start">
              <Select
                label="Contacts"
                description="what fits its cavities"
                data={[
                  ...new Map(
                    shop.contacts.map(({ cavitySize: size, name: words }) => [size, { value: size, label: words.replace(/, fine$/, '') }]),
                  ).values(),
                ]}
                value={cavitySize}
                onChange={setCavitySize}
              />
              <Select
                label="Seating"
                description="which way the contact goes"
                data={['push-to-seat', 'pull-to-seat']}
                value={seating}
                allowDeselect={false}
                onChange={(value) => setSeating(value as ConnectorFamily['seating'])}
              />
            </Group>
            <Group grow align="start">
              {field('pitchMm', 'Pitch, mm', 'between cavities')}
              {field('entryDepthMm', 'Entry depth, mm', 'rear face to barrel')}
            </Group>
            <Group grow align="start">
              {field('envelopeMm', 'Passes a hole of, mm', 'round, the smallest')}
              {field('massG', 'Mass, g', 'without contacts')}
            </Group>
            <Group>
              <Checkbox label="Sealed" checked={sealed} onChange={(event) => setSealed(event.currentTarget.checked)} />
              <Checkbox
                label="Secondary lock"
                checked={secondaryLock}
                onChange={(event) => setSecondaryLock(event.currentTarget.checked)}
              />
            </Group>
          </Stack>
          <div style={{ width: 190 }}>
            {family && (
              <FacePicture family={nameProblem === null ? family : { ...family, cavityNames: null }} side="wire" colourAt={() => null} />
            )}
            <p className="faint" style={{ textAlign: 'center', margin: 0 }}>
              WIRE SIDE
            </p>
          </div>
        </Group>
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" disabled={!isGood}>
            Keep family
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
