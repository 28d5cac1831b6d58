'use client';

import { Checkbox, Group, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { checkFamily, createId, fromCavityWords, type ConnectorFamily, type Job, addFamily } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { DialogEnd } from '../../ui/DialogEnd';
import { NumberEntry } from '../../ui/fields/NumberField';
import { FacePicture } from '../../ui/FacePicture';

const LIMITS = {
  pitchMm: { unit: 'mm', least: 0.1, most: 100 },
  envelopeMm: { unit: 'mm', least: 0.1, most: 500 },
  entryDepthMm: { unit: 'mm', least: 0, most: 500 },
  massG: { unit: 'g', least: 0, most: 10000 },
  adapterMm: { unit: 'mm', least: 0.1, most: 200 },
} as const;

interface NewFamily extends Record<keyof typeof LIMITS, number | null> {
  name: string;
  shape: 'rows' | 'rings';
  /** how many cavities in each row or ring, as it is typed */
  counts: string;
  /** what stands at its cavities, as it is typed */
  words: string;
  cavitySize: string | null;
  seating: ConnectorFamily['seating'];
  sealed: boolean;
  secondaryLock: boolean;
}

const EMPTY: NewFamily = {
  name: '',
  shape: 'rows',
  counts: '2, 2',
  words: '',
  cavitySize: null,
  pitchMm: null,
  envelopeMm: null,
  entryDepthMm: null,
  massG: null,
  adapterMm: null,
  seating: 'push-to-seat',
  sealed: true,
  secondaryLock: false,
};

/** Whole numbers of a list that is typed; null where it is none. */
function readCounts(words: string): number[] | null {
  const counts = words
    .split(/[,\s]+/)
    .filter(Boolean)
    .map(Number);
  const isGood = counts.length > 0 && counts.length <= 8 && counts.every((count) => Number.isInteger(count) && count >= 1 && count <= 40);
  return isGood ? counts : null;
}

/** The family as far as it is described: what is not given yet stands as what can be drawn. Null: not even its cavities are. */
function toFamily({ name, shape, counts, words, cavitySize, ...rest }: NewFamily): ConnectorFamily | null {
  const list = readCounts(counts);
  if (!list) return null;
  const named = words.trim() === '' ? null : fromCavityWords(words);
  return {
    ...rest,
    name: name.trim() || 'new family',
    arrangement: shape === 'rows' ? { kind: 'rows', rows: list } : { kind: 'rings', rings: list },
    cavityNames: named?.ok ? named.value : null,
    cavitySize: cavitySize ?? '',
    otherSizes: {},
    gender: null,
    mateId: null,
    pitchMm: Number(rest.pitchMm) || 4,
    envelopeMm: Number(rest.envelopeMm) || 1,
    entryDepthMm: Number(rest.entryDepthMm),
    massG: Number(rest.massG),
    adapterMm: rest.adapterMm,
    keys: [],
  };
}

function findWordsProblem(values: NewFamily): string | null {
  const named = values.words.trim() === '' ? null : fromCavityWords(values.words);
  if (named?.ok === false) return named.problems[0]!.message;
  const family = toFamily(values);
  return family && (checkFamily(family, '')[0]?.message ?? null);
}

const checkGiven = (value: number | null) => (value === null || Number.isNaN(value) ? 'expected a figure' : null);

/** A connector family that the catalogue lacks, described for this job from its data sheet. */
export function FamilyDialog({ job, onClose }: { job: Job; onClose: () => void }) {
  const shop = useShop();
  const store = useJobStore();
  const form = useForm<NewFamily>({
    initialValues: EMPTY,
    validate: {
      name: (name) => (name.trim() ? null : 'expected a name'),
      counts: (counts) => (readCounts(counts) ? null : 'whole numbers from 1 to 40'),
      words: (_, values) => findWordsProblem(values),
      cavitySize: (size) => (size === null ? 'expected contacts' : null),
      pitchMm: checkGiven,
      envelopeMm: checkGiven,
      entryDepthMm: checkGiven,
      massG: checkGiven,
    },
  });
  const family = toFamily(form.values);
  // told as it is typed: how many there are and what stands at them belong together
  const wordsProblem = findWordsProblem(form.values);
  const keep = (values: NewFamily) => {
    store.edit(addFamily(createId(job.families, 'own'), toFamily(values)!));
    onClose();
  };
  const field = (key: keyof typeof LIMITS, label: string, description: string) => (
    <NumberEntry
      label={label}
      description={description}
      {...LIMITS[key]}
      value={form.values[key]}
      onChange={(value) => form.setFieldValue(key, value)}
    />
  );
  return (
    <Modal opened onClose={onClose} title="A connector family of this job" size="lg">
      <form onSubmit={form.onSubmit(keep)}>
        <Group align="start" wrap="nowrap">
          <Stack gap="xs" style={{ flex: 1 }}>
            <TextInput label="Name" data-autofocus {...form.getInputProps('name')} />
            <Group grow align="start">
              <Select
                label="Cavities lie in"
                data={[
                  { value: 'rows', label: 'rows, top first' },
                  { value: 'rings', label: 'rings, inner first' },
                ]}
                allowDeselect={false}
                {...form.getInputProps('shape')}
              />
              <TextInput
                label="How many in each"
                description="wire side, such as 3, 3"
                {...form.getInputProps('counts')}
                error={readCounts(form.values.counts) ? null : 'whole numbers from 1 to 40'}
              />
            </Group>
            <TextInput
              label="Marked on its cavities"
              description="in that order, as in 30, 85, 86, 87 or A to H without F; empty: counted from 1"
              {...form.getInputProps('words')}
              error={wordsProblem}
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
                {...form.getInputProps('cavitySize')}
              />
              <Select
                label="Seating"
                description="which way the contact goes"
                data={['push-to-seat', 'pull-to-seat']}
                allowDeselect={false}
                {...form.getInputProps('seating')}
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
            <Group grow align="start">
              {field('adapterMm', 'Rear, mm', 'what a boot closes on; empty: nothing')}
            </Group>
            <Group>
              <Checkbox label="Sealed" {...form.getInputProps('sealed', { type: 'checkbox' })} />
              <Checkbox label="Secondary lock" {...form.getInputProps('secondaryLock', { type: 'checkbox' })} />
            </Group>
          </Stack>
          <div style={{ width: 190 }}>
            {family && (
              <FacePicture family={wordsProblem === null ? family : { ...family, cavityNames: null }} side="wire" colourAt={() => null} />
            )}
            <p className="faint" style={{ textAlign: 'center', margin: 0 }}>
              WIRE SIDE
            </p>
          </div>
        </Group>
        <DialogEnd onClose={onClose} words="Keep family" isReady={form.isValid()} />
      </form>
    </Modal>
  );
}
