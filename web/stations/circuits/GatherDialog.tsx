'use client';

import { Checkbox, Modal, Select, Stack, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  compareIds,
  countJunction,
  findStandard,
  fitJunction,
  gatherTails,
  listCavities,
  listEndsBeyond,
  listJunctionPairs,
  listJunctionPlaces,
  measureJunctionWorth,
  toCount,
  type Job,
  type JunctionCount,
  type JunctionFit,
  type JunctionPair,
  type LoomPlan,
  type Shop,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { DialogEnd } from '../../ui/DialogEnd';
import { NumberEntry } from '../../ui/fields/NumberField';
import controls from '../../ui/controls.module.css';

const USUAL_STUB_MM = 60;
/** so many pairs are looked at for one in which all goes; any other can be chosen */
const MOST_TRIED = 100;

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
  const places = useMemo(
    () =>
      listJunctionPlaces(job, plan).map((one) => ({
        value: one.nodeId,
        label: `${job.looms[plan.loomId]!.nodes[one.nodeId]!.name}, ${Math.round(one.distanceMm)} mm, ${one.ends} ends beyond`,
      })),
    [job, plan],
  );
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
  // what is typed below changes nothing of this: a shop may have thousands of housings
  const { endIds, count, pairs, fitOf, best } = useMemo(() => {
    const beyond = listEndsBeyond(loom, tree, chosen);
    const counted = countJunction(loom, beyond, standard.spareShare);
    const all = listJunctionPairs(job, shop, counted.shared + counted.spares);
    const fit = (pair: JunctionPair) => fitJunction({ job, catalogue: shop, standard, plan, nodeId, pair, circuitIds: counted.circuitIds });
    const isGood = ({ unfitIds, over }: JunctionFit) => unfitIds.length + over.length === 0;
    // the smallest whose contacts take and carry all that crosses
    const first = all.slice(0, MOST_TRIED).find((one) => isGood(fit(one))) ?? all[0];
    return { endIds: beyond, count: counted, pairs: all, fitOf: fit, best: first };
  }, [job, shop, standard, plan, loom, tree, nodeId, chosen]);
  const housing = pairs.find(({ id }) => id === housingId) ?? best;
  const fit = useMemo(() => housing && fitOf(housing), [housing, fitOf]);
  const isReady = name.trim() !== '' && stubMm !== null && stubMm > 0 && endIds.size > 0 && count.shared > 0 && housing !== undefined;
  const gather = () => {
    if (!isReady) return;
    const trimmed = name.trim();
    onGather(
      gatherTails({
        ...{ loomId, tree, nodeId, segmentIds: chosen, stubMm, name: trimmed, loomName: `${trimmed} tails`.slice(0, 80) },
        ...{ prefix: toFreePrefix(job), near: housing, farId: housing.mateId, cavityOf: fit!.cavityOf },
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
          data={pairs.map(({ id, family }) => ({
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
        {fit && <Unfit fit={fit} nameOf={(id) => loom.circuits[id]!.name} />}
        {housing && fit && <Worth shop={shop} job={job} pair={housing} price={fit.price} couplings={endIds.size} />}
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

/** What the contacts of the pair do not take, and what they do not carry. */
const Unfit = ({ fit: { unfitIds, over, unknownIds }, nameOf }: { fit: JunctionFit; nameOf: (circuitId: string) => string }) => (
  <>
    {unfitIds.length > 0 && <p className={controls.alarm}>No contact of it takes the wire of {unfitIds.map(nameOf).join(', ')}.</p>}
    {unknownIds.length > 0 && (
      <p>What flows in {unknownIds.map(nameOf).join(', ')} is not known: whether a contact is good for it is not judged.</p>
    )}
    {over.map(({ circuitId, currentA, ratedA }) => (
      <p key={circuitId} className={controls.alarm}>
        {nameOf(circuitId)} carries {Number(currentA.toFixed(1))} A through one contact, which is good for {ratedA.toFixed(1)} A there.
      </p>
    ))}
  </>
);

/** What it saves where the tails are taken off together, against the price of both halves. */
function Worth({
  shop,
  job,
  pair,
  price,
  couplings,
}: {
  shop: Shop;
  job: Job;
  pair: JunctionPair;
  price: number | null;
  couplings: number;
}) {
  const standard = findStandard(job, shop);
  const [removals, setRemovals] = useState<number | null>(null);
  const { family } = pair;
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
            ? 'What both halves with their contacts, seals and plugs cost is not known.'
            : `Both halves with their contacts, seals and plugs cost ${price.toFixed(2)} ${shop.currency ?? ''}: ${worth.pays ? 'it pays within a year' : 'it does not pay for itself in a year'}.`}
        </p>
      )}
    </>
  );
}
