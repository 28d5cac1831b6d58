'use client';

import { Checkbox, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  compareIds,
  countJunction,
  findBuying,
  findFamily,
  findStandard,
  gatherTails,
  isOffered,
  listCavities,
  listEndsBeyond,
  measureJunctionWorth,
  toCount,
  type ConnectorFamily,
  type Job,
  type JunctionCount,
  type LoomPlan,
  type Shop,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { DialogEnd } from '../../ui/DialogEnd';
import { NumberEntry } from '../../ui/fields/NumberField';
import controls from '../../ui/controls.module.css';

const USUAL_STUB_MM = 60;

/** Places of a loom at which tails can be gathered: breakouts with an end beyond them. */
function listPlaces(job: Job, { loomId, tree }: LoomPlan) {
  const loom = job.looms[loomId]!;
  return tree.nodeIds.flatMap((nodeId) => {
    if (loom.nodes[nodeId]!.kind !== 'breakout') return [];
    const { childSegmentIds, distanceMm } = tree.nodes[nodeId]!;
    const ends = listEndsBeyond(loom, tree, childSegmentIds).size;
    return ends < 2 ? [] : [{ value: nodeId, label: `${loom.nodes[nodeId]!.name}, ${Math.round(distanceMm)} mm, ${ends} ends beyond` }];
  });
}

/** Housings with enough cavities, the one with the fewest first; of halves that differ, the one with sockets stays on the side that is fed. */
function listHousings(shop: Shop, job: Job, least: number) {
  const all = [...Object.entries(job.families), ...Object.entries(shop.families).filter(([id]) => isOffered(shop, 'families', id))];
  return all
    .filter(([id, family]) => family.gender !== 'pins' && listCavities(family).length >= least && findMate(job, shop, id, family) !== null)
    .sort(([, a], [, b]) => listCavities(a).length - listCavities(b).length)
    .map(([id, family]) => ({ id, family }));
}

/** Id of the half that it goes into; null: the shop does not have it. */
function findMate(job: Job, shop: Shop, id: string, { mateId, gender }: ConnectorFamily): string | null {
  if (mateId === null) return gender === null ? id : null;
  return findFamily(job, shop, mateId) ? mateId : null;
}

/** Gather tails of a loom at one connector: what crosses it one by one and shared, which housing does, and whether it pays. */
export function GatherDialog({
  job,
  looms,
  openId,
  onClose,
}: {
  job: Job;
  looms: readonly LoomPlan[];
  /** the loom that is open, to begin with */
  openId: string | undefined;
  onClose: () => void;
}) {
  const store = useJobStore();
  const [loomId, setLoomId] = useState(openId);
  const plan = looms.find((one) => one.loomId === loomId) ?? looms[0]!;
  const places = useMemo(() => listPlaces(job, plan), [job, plan]);
  const [nodeId, setNodeId] = useState<string | null>(null);
  const at = places.some(({ value }) => value === nodeId) ? nodeId! : (places[0]?.value ?? null);
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <Modal opened onClose={onClose} title="Gather tails at a connector" size="lg">
      <Stack gap="xs">
        <Select
          label="Loom"
          data={looms.map((one) => ({ value: one.loomId, label: job.looms[one.loomId]!.name }))}
          value={plan.loomId}
          allowDeselect={false}
          onChange={(id) => id && setLoomId(id)}
        />
        {at === null ? (
          <p>No breakout of this loom has two ends beyond it.</p>
        ) : (
          <>
            <Select label="At" data={places} value={at} allowDeselect={false} searchable onChange={setNodeId} />
            <Gather
              key={`${plan.loomId} ${at}`}
              job={job}
              plan={plan}
              nodeId={at}
              problem={problem}
              onClose={onClose}
              onGather={(command) => {
                try {
                  store.edit(command);
                  onClose();
                } catch (error) {
                  if (!(error instanceof RangeError)) throw error;
                  setProblem(error.message);
                }
              }}
            />
          </>
        )}
      </Stack>
    </Modal>
  );
}

/** a prefix that no loom has: the letters from Z down */
const toFreePrefix = (job: Job) => {
  const taken = new Set(Object.values(job.looms).map(({ prefix }) => prefix));
  const letters = [...'ZYXWVUTSRQPONMLKJIHGFEDCBA'];
  return [...letters, ...letters.flatMap((a) => letters.map((b) => a + b))].find((one) => !taken.has(one))!;
};

function Gather({
  job,
  plan,
  nodeId,
  problem,
  onClose,
  onGather,
}: {
  job: Job;
  plan: LoomPlan;
  nodeId: string;
  problem: string | null;
  onClose: () => void;
  onGather: (command: ReturnType<typeof gatherTails>) => void;
}) {
  const shop = useShop();
  const { loomId, tree } = plan;
  const loom = job.looms[loomId]!;
  const standard = findStandard(job, shop);
  const branches = [...tree.nodes[nodeId]!.childSegmentIds].sort(compareIds);
  const [chosen, setChosen] = useState<readonly string[]>(() => {
    const leaving = branches.filter((id) => !tree.segments[id]!.onward);
    return listEndsBeyond(loom, tree, leaving).size > 1 ? leaving : branches;
  });
  const [name, setName] = useState(`${loom.nodes[nodeId]!.name} junction`.slice(0, 80));
  const [stubMm, setStub] = useState<number | null>(USUAL_STUB_MM);
  const [housingId, setHousing] = useState<string | null>(null);
  const endIds = listEndsBeyond(loom, tree, chosen);
  const count = countJunction(loom, endIds, standard.spareShare);
  const housings = listHousings(shop, job, count.shared + count.spares);
  const housing = housings.find(({ id }) => id === housingId) ?? housings[0];
  const isReady = name.trim() !== '' && stubMm !== null && stubMm > 0 && endIds.size > 0 && count.shared > 0 && housing !== undefined;
  const gather = () => {
    if (!isReady) return;
    const trimmed = name.trim();
    onGather(
      gatherTails({
        ...{ loomId, tree, nodeId, segmentIds: chosen, stubMm, name: trimmed, loomName: `${trimmed} tails`.slice(0, 80) },
        ...{ prefix: toFreePrefix(job), near: housing, farId: findMate(job, shop, housing.id, housing.family)! },
      }),
    );
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        gather();
      }}
    >
      <Stack gap="xs">
        <Checkbox.Group label="What is gathered" value={[...chosen]} onChange={setChosen}>
          <Stack gap={4} mt={4}>
            {branches.map((id) => {
              const { farNodeId, lengthMm, onward } = tree.segments[id]!;
              const ends = [...listEndsBeyond(loom, tree, [id])].map((endId) => loom.ends[endId]!.name);
              return (
                <Checkbox
                  key={id}
                  value={id}
                  label={`to ${loom.nodes[farNodeId]!.name}, ${Math.round(lengthMm)} mm${onward ? ', the trunk itself' : ''}: ${ends.slice(0, 4).join(', ')}${ends.length > 4 ? ` and ${ends.length - 4} more` : ''}`}
                />
              );
            })}
          </Stack>
        </Checkbox.Group>
        <p data-testid="contacts">{toCountWords(count)}</p>
        <Select
          label="Housing, both halves"
          data={housings.map(({ id, family }) => ({
            value: id,
            label: `${family.name}: ${toCount(listCavities(family).length - count.shared, 'cavity', 'cavities')} to spare`,
          }))}
          value={housing?.id ?? null}
          allowDeselect={false}
          searchable
          onChange={setHousing}
          {...(housing ? {} : { error: `no pair of the shop has ${count.shared + count.spares} cavities` })}
        />
        <TextInput label="Name of the connector" maxLength={80} value={name} onChange={(event) => setName(event.currentTarget.value)} />
        <NumberEntry label="From the breakout, mm" unit="mm" least={1} most={2000} value={stubMm} onChange={setStub} />
        {housing && <Worth shop={shop} job={job} housing={housing} couplings={endIds.size} />}
        {problem && <p className={controls.alarm}>{problem}</p>}
      </Stack>
      <DialogEnd onClose={onClose} words="Gather them" isReady={isReady} />
    </form>
  );
}

const toCountWords = ({ unshared, signals, feeds, references, shared, spares }: JunctionCount) =>
  shared === 0
    ? 'Nothing crosses there: no circuit has pins on both sides.'
    : `${toCount(unshared, 'contact')} if every wire came through by itself; shared ${toCount(signals, 'signal')} + ${toCount(feeds, 'feed')} + ${toCount(references, 'reference')} = ${shared}, and ${spares} to spare: ${shared + spares}.`;

/** What it saves where the tails are taken off together, against the price of both halves. */
function Worth({
  shop,
  job,
  housing: { id, family },
  couplings,
}: {
  shop: Shop;
  job: Job;
  housing: { id: string; family: ConnectorFamily };
  couplings: number;
}) {
  const standard = findStandard(job, shop);
  const [removals, setRemovals] = useState<number | null>(null);
  const prices = [id, findMate(job, shop, id, family)!].map((one) => findBuying(shop, 'families', one)?.price ?? null);
  const price = prices.includes(null) ? null : prices.reduce<number>((sum, one) => sum + one!, 0);
  const minutesEach = family.arrangement.kind === 'rings' ? standard.couplingRoundMin : standard.couplingFlatMin;
  const inputs = { couplingsLess: couplings - 1, minutesEach, labourPerHour: standard.labourPerHour };
  const worth =
    removals === null || Number.isNaN(removals) ? null : measureJunctionWorth({ ...inputs, removalsPerYear: removals, price: price ?? 0 });
  return (
    <>
      <NumberEntry
        label="Taken off together, times a year"
        unit={null}
        least={0}
        most={1000}
        canBeEmpty
        value={removals}
        onChange={setRemovals}
      />
      {worth && (
        <p data-testid="worth">
          {toCount(couplings - 1, 'coupling')} less each time at {minutesEach} min: {Math.round(worth.minutes)} min and{' '}
          {worth.money.toFixed(2)} {shop.currency ?? ''} a year.{' '}
          {price === null
            ? 'What both halves cost is not known.'
            : `Both halves cost ${price.toFixed(2)} ${shop.currency ?? ''}: ${worth.pays ? 'it pays within a year' : 'it does not pay for itself in a year'}.`}
        </p>
      )}
    </>
  );
}
