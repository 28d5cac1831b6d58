'use client';

import { Button, Group, Modal, NumberInput, Select, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
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
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursorStore } from '../../ui/cursor';

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

/** A new end: at the datum while that is free, else on a leg from a breakout or the datum. */
export function AddEndDialog({ planned, onClose }: { planned: PlannedLoom; onClose: () => void }) {
  const shop = useShop();
  const { loom, loomId, plan, job } = planned;
  const store = useJobStore();
  const isDatumFree = !Object.values(loom.ends).some(({ nodeId }) => nodeId === plan.tree.datumId);
  const breakouts = Object.keys(loom.nodes)
    .filter((id) => loom.nodes[id]!.kind === 'breakout' || loom.nodes[id]!.kind === 'datum')
    .sort(compareIds);
  const [name, setName] = useState('');
  const [kind, setKind] = useState<'connector' | 'ring' | 'tail'>('connector');
  const [familyId, setFamilyId] = useState<string | null>(null);
  const [place, setPlace] = useState<string>(
    isDatumFree ? 'at-datum' : (breakouts.find((id) => loom.nodes[id]!.kind === 'breakout') ?? plan.tree.datumId),
  );
  const [legMm, setLegMm] = useState<number | null>(null);
  const [method, setMethod] = useState<MeasureMethod>('tape');
  const [status, setStatus] = useState<LengthStatus>('roped');
  const [zoneId, setZoneId] = useState('');
  const [studMm, setStudMm] = useState('6');
  const onLeg = place !== 'at-datum';
  const isGood = name.trim() !== '' && (kind !== 'connector' || familyId !== null) && (!onLeg || (legMm !== null && legMm > 0));
  const keep = () => {
    const at = onLeg ? { nodeId: place, legMm } : { nodeId: plan.tree.datumId, legMm: null };
    const end = { kind, familyId: kind === 'connector' ? familyId : null, studMm: kind === 'ring' ? Number(studMm) : null };
    store.edit(addLoomEnd(loomId, name.trim(), at, end, { method, status, zoneId: zoneId || null }));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Add an end">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isGood) keep();
        }}
      >
        <Stack gap="xs">
          <TextInput label="Name" data-autofocus value={name} onChange={(event) => setName(event.currentTarget.value)} />
          <Group grow align="start">
            <Select
              label="It is"
              data={[
                { value: 'connector', label: 'a connector' },
                { value: 'ring', label: 'rings on a stud' },
                { value: 'tail', label: 'bare tails' },
              ]}
              value={kind}
              allowDeselect={false}
              onChange={(value) => setKind(value as typeof kind)}
            />
            {kind === 'connector' && (
              <Select label="Family" searchable data={listFamilyOptions(shop, job.families)} value={familyId} onChange={setFamilyId} />
            )}
            {kind === 'ring' && (
              <Select
                label="Stud"
                data={['4', '5', '6', '8'].map((value) => ({ value, label: `M${value}` }))}
                value={studMm}
                allowDeselect={false}
                onChange={(value) => setStudMm(value ?? '6')}
              />
            )}
          </Group>
          <Select
            label="Where"
            data={[
              ...(isDatumFree ? [{ value: 'at-datum', label: 'at the datum: the anchor end' }] : []),
              ...breakouts.map((id) => ({ value: id, label: `on a leg from ${loom.nodes[id]!.name}` })),
            ]}
            value={place}
            allowDeselect={false}
            onChange={(value) => setPlace(value!)}
          />
          {onLeg && (
            <>
              <Group grow align="start">
                <NumberInput
                  label="Leg, mm"
                  min={1}
                  max={20000}
                  value={legMm ?? ''}
                  onChange={(value) => setLegMm(value === '' ? null : Number(value))}
                />
                <Select
                  label="Zone"
                  data={[
                    { value: '', label: 'not known' },
                    ...Object.entries(job.zones).map(([value, zone]) => ({ value, label: zone.name })),
                  ]}
                  value={zoneId}
                  allowDeselect={false}
                  onChange={(value) => setZoneId(value ?? '')}
                />
              </Group>
              <Group grow align="start">
                <Select
                  label="Measured by"
                  data={[...MEASURE_METHODS]}
                  value={method}
                  allowDeselect={false}
                  onChange={(value) => {
                    setMethod(value as MeasureMethod);
                    if (value === 'estimate') setStatus('guessed');
                  }}
                />
                <Select
                  label="Status"
                  description={status === 'guessed' ? 'its wires are held from cutting' : undefined}
                  data={[...LENGTH_STATUSES]}
                  value={status}
                  allowDeselect={false}
                  onChange={(value) => setStatus(value as LengthStatus)}
                />
              </Group>
            </>
          )}
        </Stack>
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" disabled={!isGood}>
            Add end
          </Button>
        </Group>
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
  const [segmentId, setSegmentId] = useState(at?.segmentId ?? runs[0]!.id);
  const segment = plan.tree.segments[segmentId]!;
  const [fromDatum, setFromDatum] = useState<number | null>(at ? Math.round(segment.startMm + at.offsetMm) : null);
  const [kind, setKind] = useState<'breakout' | 'pass'>('breakout');
  const [name, setName] = useState('');
  const [holeMm, setHoleMm] = useState<number | null>(null);
  const offset = fromDatum === null ? NaN : fromDatum - segment.startMm;
  const isInside = offset > 0 && offset < segment.lengthMm;
  const isGood = name.trim() !== '' && isInside;
  const keep = () => {
    const node = { kind, name: name.trim(), holeMm: kind === 'pass' ? holeMm : null };
    store.edit(addNode({ loomId, tree: plan.tree }, { segmentId, offsetMm: offset }, node));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Add a breakout or a hole">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isGood) keep();
        }}
      >
        <Stack gap="xs">
          <TextInput label="Name" data-autofocus value={name} onChange={(event) => setName(event.currentTarget.value)} />
          <Group grow align="start">
            <Select
              label="It is"
              data={[
                { value: 'breakout', label: 'a breakout' },
                { value: 'pass', label: 'a hole it passes' },
              ]}
              value={kind}
              allowDeselect={false}
              onChange={(value) => setKind(value as typeof kind)}
            />
            {kind === 'pass' && (
              <NumberInput
                label="Bore, mm"
                placeholder="not known"
                min={1}
                max={500}
                value={holeMm ?? ''}
                onChange={(value) => setHoleMm(value === '' ? null : Number(value))}
              />
            )}
          </Group>
          <Select
            label="In the run"
            searchable
            allowDeselect={false}
            value={segmentId}
            onChange={(value) => setSegmentId(value!)}
            data={runs.map((run) => ({
              value: run.id,
              label: `${loom.nodes[run.nearNodeId]!.name} to ${loom.nodes[run.farNodeId]!.name}`,
            }))}
          />
          <NumberInput
            label="From the datum, mm"
            value={fromDatum ?? ''}
            onChange={(value) => setFromDatum(value === '' ? null : Number(value))}
            error={
              isInside || fromDatum === null
                ? null
                : `this run lies between ${Math.round(segment.startMm)} and ${Math.round(segment.startMm + segment.lengthMm)} mm`
            }
          />
        </Stack>
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" disabled={!isGood}>
            Add it
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
