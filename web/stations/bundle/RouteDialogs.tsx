'use client';

import { Group, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import {
  compareIds,
  isOffered,
  LENGTH_STATUSES,
  MEASURE_METHODS,
  type LengthStatus,
  type MeasureMethod,
  type Shop,
  addLoomEnd,
  addNode,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJob, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { MOST_MM } from '../../ui/fields/LengthField';
import { NumberEntry } from '../../ui/fields/NumberField';
import { useCursorStore } from '../../ui/cursor';
import { DialogEnd } from '../../ui/DialogEnd';
import { listTongues } from './listTongues';

/** Families to choose from: the job's own first; of those that the shop has retired only the one that is chosen already. */
export function listFamilyOptions(
  shop: Pick<Shop, 'families' | 'buying'>,
  families: PlannedLoom['job']['families'],
  chosenId: string | null = null,
): { value: string; label: string }[] {
  return [
    ...Object.entries(families).map(([value, family]) => ({ value, label: `${family.name} (of this job)` })),
    ...Object.entries(shop.families).flatMap(([value, family]) => {
      const isHad = isOffered(shop, 'families', value);
      return isHad || value === chosenId ? [{ value, label: isHad ? family.name : `${family.name} (retired)` }] : [];
    }),
  ];
}

const AT_DATUM = 'at-datum';

interface NewEnd {
  name: string;
  kind: 'connector' | 'ring' | 'tail' | 'blade';
  familyId: string | null;
  place: string;
  legMm: number | null;
  method: MeasureMethod;
  status: LengthStatus;
  zoneId: string | null;
  studMm: string;
  tongueMm: string;
}

interface NewNode {
  name: string;
  kind: 'breakout' | 'pass';
  holeMm: number | null;
  segmentId: string;
  fromDatum: number | null;
}

/** A new end: at the datum while that is free, else on a leg from a breakout or the datum. */
export function AddEndDialog({ planned, onClose }: { planned: PlannedLoom; onClose: () => void }) {
  const shop = useShop();
  const { loomId, plan } = planned;
  const store = useJobStore();
  // as it is now: the plan may be a change behind
  const job = useJob(({ document }) => document);
  const loom = job.looms[loomId] ?? planned.loom;
  const isDatumFree = !Object.values(loom.ends).some(({ nodeId }) => nodeId === plan.tree.datumId);
  const breakouts = Object.keys(loom.nodes)
    .filter((id) => loom.nodes[id]!.kind === 'breakout' || loom.nodes[id]!.kind === 'datum')
    .sort(compareIds);
  const tongues = listTongues(shop, null);
  const form = useForm<NewEnd>({
    initialValues: {
      name: '',
      kind: 'connector',
      familyId: null,
      place: isDatumFree ? AT_DATUM : (breakouts.find((id) => loom.nodes[id]!.kind === 'breakout') ?? plan.tree.datumId),
      legMm: null,
      method: 'tape',
      status: 'roped',
      zoneId: null,
      studMm: '6',
      tongueMm: tongues.includes('6.3') ? '6.3' : (tongues[0] ?? ''),
    },
    validate: {
      name: (name) => (name.trim() ? null : 'expected a name'),
      familyId: (familyId, { kind }) => (kind === 'connector' && familyId === null ? 'expected a family' : null),
      legMm: (legMm, { place }) => (place !== AT_DATUM && !(legMm! > 0) ? 'expected a length' : null),
    },
  });
  const { kind, place, method, status, zoneId, legMm } = form.values;
  const onLeg = place !== AT_DATUM;
  const keep = ({ name, familyId, studMm, tongueMm }: NewEnd) => {
    const at = onLeg ? { nodeId: place, legMm } : { nodeId: plan.tree.datumId, legMm: null };
    const end = {
      kind,
      familyId: kind === 'connector' ? familyId : null,
      studMm: kind === 'ring' ? Number(studMm) : null,
      tongueMm: kind === 'blade' ? Number(tongueMm) : null,
    };
    store.edit(addLoomEnd(loomId, name.trim(), at, end, { method, status, zoneId }));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Add an end">
      <form onSubmit={form.onSubmit(keep)}>
        <Stack gap="xs">
          <TextInput label="Name" data-autofocus maxLength={80} {...form.getInputProps('name')} />
          <Group grow align="start">
            <Select
              label="It is"
              data={[
                { value: 'connector', label: 'a connector' },
                { value: 'ring', label: 'rings on a stud' },
                { value: 'tail', label: 'bare tails' },
                ...(tongues.length > 0 ? [{ value: 'blade', label: 'blades on tongues' }] : []),
              ]}
              allowDeselect={false}
              {...form.getInputProps('kind')}
            />
            {kind === 'connector' && (
              <Select label="Family" searchable data={listFamilyOptions(shop, job.families)} {...form.getInputProps('familyId')} />
            )}
            {kind === 'blade' && (
              <Select
                label="Tongues"
                data={tongues.map((value) => ({ value, label: `${value} mm` }))}
                allowDeselect={false}
                {...form.getInputProps('tongueMm')}
              />
            )}
            {kind === 'ring' && (
              <Select
                label="Stud"
                data={['4', '5', '6', '8'].map((value) => ({ value, label: `M${value}` }))}
                allowDeselect={false}
                {...form.getInputProps('studMm')}
              />
            )}
          </Group>
          <Select
            label="Where"
            data={[
              ...(isDatumFree ? [{ value: AT_DATUM, label: 'at the datum: the anchor end' }] : []),
              ...breakouts.map((id) => ({ value: id, label: `on a leg from ${loom.nodes[id]!.name}` })),
            ]}
            allowDeselect={false}
            {...form.getInputProps('place')}
          />
          {onLeg && (
            <>
              <Group grow align="start">
                <NumberEntry
                  label="Leg, mm"
                  unit="mm"
                  least={1}
                  most={MOST_MM}
                  value={legMm}
                  onChange={(mm) => form.setFieldValue('legMm', mm)}
                />
                <Select
                  label="Zone"
                  placeholder="not known"
                  clearable
                  data={Object.entries(job.zones).map(([value, zone]) => ({ value, label: zone.name }))}
                  {...form.getInputProps('zoneId')}
                />
              </Group>
              <Group grow align="start">
                <Select
                  label="Measured by"
                  data={[...MEASURE_METHODS]}
                  allowDeselect={false}
                  {...form.getInputProps('method')}
                  onChange={(value) =>
                    form.setValues({ method: value as MeasureMethod, ...(value === 'estimate' ? { status: 'guessed' } : {}) })
                  }
                />
                <Select
                  label="Status"
                  description={status === 'guessed' ? 'its wires are held from cutting' : undefined}
                  data={[...LENGTH_STATUSES]}
                  allowDeselect={false}
                  {...form.getInputProps('status')}
                />
              </Group>
            </>
          )}
        </Stack>
        <DialogEnd onClose={onClose} words="Add end" isReady={form.isValid()} />
      </form>
    </Modal>
  );
}

/** A breakout or a hole somewhere in a run. */
export function SplitDialog({ planned, onClose }: { planned: PlannedLoom; onClose: () => void }) {
  const { loom, loomId, plan } = planned;
  const store = useJobStore();
  const at = useCursorStore().get();
  const runs = Object.values(plan.tree.segments).sort((a, b) => a.startMm - b.startMm);
  const isInside = (fromDatum: number | null, segmentId: string) => {
    const { startMm, lengthMm } = plan.tree.segments[segmentId]!;
    return fromDatum !== null && fromDatum > startMm && fromDatum < startMm + lengthMm;
  };
  const start = at?.segmentId ?? runs[0]!.id;
  const form = useForm<NewNode>({
    initialValues: {
      name: '',
      kind: 'breakout',
      holeMm: null,
      segmentId: start,
      fromDatum: at ? Math.round(plan.tree.segments[start]!.startMm + at.offsetMm) : null,
    },
    validate: {
      name: (name) => (name.trim() ? null : 'expected a name'),
      holeMm: (mm, { kind }) => (kind === 'pass' && Number.isNaN(mm) ? 'expected a bore' : null),
      fromDatum: (mm, { segmentId }) => (isInside(mm, segmentId) ? null : 'expected a place within the run'),
    },
  });
  const { kind, holeMm, segmentId, fromDatum } = form.values;
  const segment = plan.tree.segments[segmentId]!;
  const keep = ({ name }: NewNode) => {
    const node = { kind, name: name.trim(), holeMm: kind === 'pass' ? holeMm : null };
    store.edit(addNode({ loomId, tree: plan.tree }, { segmentId, offsetMm: fromDatum! - segment.startMm }, node));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Add a breakout or a hole">
      <form onSubmit={form.onSubmit(keep)}>
        <Stack gap="xs">
          <TextInput label="Name" data-autofocus maxLength={80} {...form.getInputProps('name')} />
          <Group grow align="start">
            <Select
              label="It is"
              data={[
                { value: 'breakout', label: 'a breakout' },
                { value: 'pass', label: 'a hole it passes' },
              ]}
              allowDeselect={false}
              {...form.getInputProps('kind')}
            />
            {kind === 'pass' && (
              <NumberEntry
                label="Bore, mm"
                placeholder="not known"
                unit="mm"
                least={1}
                most={500}
                canBeEmpty
                value={holeMm}
                onChange={(mm) => form.setFieldValue('holeMm', mm)}
              />
            )}
          </Group>
          <Select
            label="In the run"
            searchable
            allowDeselect={false}
            data={runs.map((run) => ({
              value: run.id,
              label: `${loom.nodes[run.nearNodeId]!.name} to ${loom.nodes[run.farNodeId]!.name}`,
            }))}
            {...form.getInputProps('segmentId')}
          />
          <NumberEntry
            label="From the datum, mm"
            description={`this run lies between ${Math.round(segment.startMm)} and ${Math.round(segment.startMm + segment.lengthMm)} mm`}
            unit="mm"
            least={Math.floor(segment.startMm)}
            most={Math.ceil(segment.startMm + segment.lengthMm)}
            value={fromDatum}
            onChange={(mm) => form.setFieldValue('fromDatum', mm)}
          />
        </Stack>
        <DialogEnd onClose={onClose} words="Add it" isReady={form.isValid()} />
      </form>
    </Modal>
  );
}
