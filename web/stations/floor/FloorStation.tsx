'use client';

import { Link } from '../../ui/Link';
import { useRouter } from 'next/navigation';
import { useMemo, useState, useSyncExternalStore, type ReactNode } from 'react';
import {
  createUndoStep,
  findNext,
  findResume,
  holdChanged,
  isPinning,
  isWorkOrder,
  listCardSteps,
  listClaims,
  listTesters,
  listTouching,
  listWork,
  measureProgress,
  orderWork,
  toLane,
  type ExpectedReading,
  type FloorBoard,
  type Loom,
  type Step,
  type WorkOrder,
} from 'wattograph-core';
import { useLocalStorage } from '@mantine/hooks';
import { usePerson } from '../../client/person';
import { findCure } from '../../client/findCure';
import type { FloorStore } from '../../client/floor/floorStore';
import { useFloorStore, useIsClient, type BenchPack, type Crimping, type FloorTimes } from '../../client/floor/useFloorStore';
import { useNow } from '../../client/useNow';
import type { Person } from '../../server/accounts/rights';
import type { FloorEvent, FloorProgress } from '../../server/floorEvent';
import { askProblem } from './askProblem';
import styles from './Floor.module.css';
import { CrimpLines } from './crimp/CrimpLines';
import { listOpenedWith } from './crimp/listOpenedWith';
import { useCrimps } from './crimp/useCrimps';
import { EndCheck } from './EndCheck';
import { CureTimer } from './CureTimer';
import { toClaimWords } from './claimWords';
import { FloorHead } from './FloorHead';
import { HandoverDialog } from './HandoverDialog';
import { PrintCheck } from './LayOnBoard';
import { PaperTwin } from './PaperTwin';
import { PhotoItems } from './PhotoItems';
import { PinCard } from './PinCard';
import { StepItems } from './StepItems';
import { StepList, toLaneWords } from './StepList';
import { StepPicture } from './StepPicture';
import { StepTime } from './StepTime';
import { Trouble } from './Trouble';
import { usePins } from './usePins';

interface Pack extends BenchPack {
  /** it is spread on; null: it was not when it was released */
  board: FloorBoard | null;
  /** how its crimps are proved */
  crimping: Crimping;
  /** what its steps take */
  times: FloorTimes;
  /** is there somebody else than who tested to sign? */
  needsSecond: boolean;
}

/** Crew mode: one step at a time from a released revision, large enough for gloves. */
export function FloorStation({
  person,
  jobId,
  pack,
  events,
  card = null,
}: {
  person: Person;
  jobId: string;
  pack: Pack | null;
  events: FloorEvent[];
  /** of the pack, as its code says: opened at its first step that is not done */
  card?: string | null;
}) {
  const isClient = useIsClient();
  if (!pack)
    return (
      <Empty words="The crew gets one step at a time here: what to cut, crimp, seat and read, with its picture, and ticks it. Nothing is released yet: the floor works from a numbered revision.">
        <Link href={`/jobs/${jobId}/sheets`}>Release one on Sheets</Link>
      </Empty>
    );
  if (pack.steps.length === 0)
    return (
      <Empty words={`This loom has no wires in revision ${pack.release}: there is nothing to build.`}>
        <Link href={`/jobs/${jobId}/bundle`}>Back to the plan</Link>
      </Empty>
    );
  // ticks kept on this tablet are known to the browser alone
  if (!isClient) return <p className={styles.empty}>Opening the job card …</p>;
  return (
    <OpenCard person={person} key={`${pack.release} ${pack.plan.loomId} ${card}`} jobId={jobId} pack={pack} events={events} card={card} />
  );
}

interface Opened {
  person: Person;
  jobId: string;
  pack: Pack;
  events: FloorEvent[];
  card: string | null;
}

function OpenCard({ person, jobId, pack, events, card }: Opened) {
  const store = useFloorStore(person, jobId, pack, events);
  // ticks kept on this tablet say where work goes on
  if (!store) return <p className={styles.empty}>Opening the job card …</p>;
  return <Card jobId={jobId} pack={pack} store={store} card={card} />;
}

/** Where a card of the pack begins: its first step that is not done, or its last. */
function findCardStep(steps: readonly Step[], card: string, progress: ReadonlyMap<string, FloorProgress>): string | null {
  const here = listCardSteps(steps, card);
  return (here.find(({ id }) => !progress.get(id)!.done) ?? here.at(-1))?.id ?? null;
}

/** The place of a step on the loom: its end, where its run begins, or the datum. */
const findNode = ({ endId, segmentId }: Step, { ends, segments }: Loom, { tree }: Pack['plan']): string =>
  (endId === null ? undefined : ends[endId]?.nodeId) ?? (segmentId === null ? undefined : segments[segmentId]?.fromNodeId) ?? tree.datumId;

function Card({ jobId, pack, store, card }: { jobId: string; pack: Pack; store: FloorStore; card: string | null }) {
  const { plan, job, release } = pack;
  const { name: author } = usePerson();
  const router = useRouter();
  const state = useSyncExternalStore(store.subscribe, store.get, store.get);
  const { carried } = state;
  // what is to be undone comes before all else
  const built = useMemo(() => {
    const undo = createUndoStep(carried.undo);
    return undo ? [undo, ...pack.steps] : pack.steps;
  }, [pack.steps, carried.undo]);
  const all = useMemo(() => [...state.events, ...state.waiting], [state.events, state.waiting]);
  const told = useMemo(() => all.filter(({ loomId }) => loomId === plan.loomId), [all, plan.loomId]);
  const nowMs = useNow();
  const crimps = useCrimps(store, all, pack.crimping, { loom: job.looms[plan.loomId]!, loomId: plan.loomId, author, nowMs });
  const progress = useMemo(() => measureProgress(built, told, carried, crimps.refused), [built, told, carried, crimps.refused]);
  const deeds = useMemo(() => told.map((event) => ({ ...event, atMs: Date.parse(event.happenedAt) })), [told]);
  const pins = usePins(store, deeds, { loomId: plan.loomId, author, nowMs, leaseMin: pack.leaseMin });
  const steps = useMemo(() => holdChanged(built, progress, pins.inHand), [built, progress, pins.inHand]);
  const claims = useMemo(() => listClaims(steps, deeds, { nowMs, leaseMin: pack.leaseMin }), [steps, deeds, nowMs, pack.leaseMin]);
  const [orders, setOrders] = useLocalStorage<Record<string, string>>({
    key: 'wattograph.orders',
    defaultValue: {},
    getInitialValueInEffect: false,
  });
  const place = `${jobId} ${plan.loomId}`;
  const kept = orders[place];
  const order: WorkOrder = isWorkOrder(kept) ? kept : 'operation';
  const listed = useMemo(
    () => listWork(steps, (id, itemId) => progress.get(id)!.ticked.has(itemId) && !progress.get(id)!.failed.has(itemId)),
    [steps, progress],
  );
  const work = useMemo(() => orderWork(listed, order, job, plan), [listed, order, job, plan]);
  const touching = useMemo(() => listTouching(steps, (id) => progress.get(id)!.done), [steps, progress]);
  const [isListed, setListed] = useState(false);
  const [isHanded, setHanded] = useState(false);
  const [isPaper, setPaper] = useState(false);
  // by its id: what is to be undone may come in while a card is open
  const asked = useState(() => (card === null ? null : findCardStep(steps, card, progress)))[0];
  const [stepId, setStepId] = useState(
    () =>
      asked ??
      steps.find((one) => pins.listDoubtful(one).length > 0)?.id ??
      findNext(work, claims, author, null)?.step.id ??
      steps[findResume(steps, progress)]!.id,
  );
  const at = Math.max(
    0,
    steps.findIndex(({ id }) => id === stepId),
  );
  const setAt = (place: number) => setStepId(steps[place]!.id);
  // with what was read last on this tablet, by kind of work
  const [instruments, setInstruments] = useLocalStorage<Record<string, string>>({
    key: 'wattograph.instruments',
    defaultValue: {},
    getInitialValueInEffect: false,
  });
  const step = steps[at]!;
  const here = progress.get(step.id)!;
  const instrument = instruments[step.operation] ?? '';
  const tested = useMemo(() => listTesters(pack.steps, told), [pack.steps, told]);
  const needsOther = pack.needsSecond && step.operation === 'sign' && tested.includes(author);
  const doable = step.items.filter(({ heldBecause }) => heldBecause === null);
  const isFinished = doable.every(({ id }) => here.ticked.has(id) && !here.failed.has(id));
  // whoever has done one goes on to what can be done now; what is skipped leads to the next in order
  const next = (isFinished && doable.length > 0 ? findNext(work, claims, author, step.id)?.step : undefined) ?? steps[at + 1];
  const doubtful = pins.listDoubtful(step);
  // what is in one's hand, or doubtful, is finished before anything else is looked at
  const isTaken = isPinning(step) && (doubtful.length > 0 || pins.isTaken(step));
  const isOne = isPinning(step) && (pins.isOne || isTaken);
  const lane = toLane(step);
  const others = lane === null ? [] : (claims.get(lane) ?? []).filter((claim) => claim.author !== author);
  const done = steps.filter(({ id }) => progress.get(id)!.done).length;
  const waitingFor = step.needs
    .map(({ stepId, because }) => ({ step: steps.find(({ id }) => id === stepId), because }))
    .filter((one) => one.step && !progress.get(one.step.id)!.done);
  const tell = (kind: Exclude<FloorEvent['kind'], 'reading' | 'take' | 'leave'>, itemId: string, words = '') =>
    store.add({ loomId: plan.loomId, stepId: step.id, itemId, kind, words, author });
  const tellLane = (kind: 'take' | 'leave', itemId: string) =>
    store.add({ loomId: plan.loomId, stepId: '', itemId, kind, words: '', author });
  const tellReading = (itemId: string, one: ExpectedReading, value: number) => {
    const reading = { readId: one.id, value, unit: one.unit, instrument: instrument.trim() };
    store.add({ loomId: plan.loomId, stepId: step.id, itemId, kind: 'reading', words: one.words, author, ...reading });
  };
  if (isPaper)
    return (
      <PaperTwin
        {...{ pack, step, inHand: pins.inHand, asking: pins.asking }}
        isDone={(id) => here.ticked.has(id) && !here.failed.has(id)}
        onClose={() => setPaper(false)}
      />
    );
  return (
    <div className={`${styles.floor} ${isListed ? styles.listed : ''}`}>
      <FloorHead {...{ jobId, pack, store, state, done, total: steps.length }} isForeign={card !== null && asked === null} />
      {isListed ? (
        <StepList
          {...{ work, claims, touching, author, lane, nowMs, order }}
          onOrder={(next) => setOrders({ ...orders, [place]: next })}
          loom={job.looms[plan.loomId]!}
          onOpen={(id) => {
            setStepId(id);
            setListed(false);
          }}
          onScan={({ jobId: of, query }) => {
            const isHere = of === jobId && (query.get('loom') ?? plan.loomId) === plan.loomId;
            const found = isHere ? findCardStep(steps, query.get('card')!, progress) : null;
            if (found === null) router.push(`/jobs/${of}/floor?${query.toString()}`);
            else {
              setStepId(found);
              setListed(false);
            }
          }}
          onHandOver={() => setHanded(true)}
          onTake={(one) => tellLane('take', one)}
          onLeave={(one) => tellLane('leave', one)}
        />
      ) : (
        <main className={styles.step}>
          <div className={styles.title}>
            <span className={styles.number}>
              {at + 1} of {steps.length}
            </span>
            <h1>{step.title}</h1>
          </div>
          {step.caution && <p className={styles.caution}>{step.caution} Local codes and makers’ instructions come first.</p>}
          <Trouble
            jobId={jobId}
            title={step.title}
            told={here}
            kept={state.waitingPhotos.find(({ id }) => id === here.trouble?.id)?.blob ?? null}
            author={author}
            onAnswer={(answer, words) => {
              const of = { loomId: plan.loomId, stepId: step.id, author };
              // to be done over: what was done is open again, as if whoever ticked it had taken it back
              const undone = answer === 'redo' ? [...here.ticked] : [];
              store.addMany([
                { ...of, itemId: answer, kind: 'answer', words },
                ...undone.map((itemId) => ({ ...of, itemId, kind: 'untick' as const, words: '' })),
              ]);
            }}
            onSolved={() => tell('solved', 'step')}
          />
          {others.length > 0 && (
            <p className={styles.here}>
              {toLaneWords(lane!, job.looms[plan.loomId]!)}: {others.map((claim) => toClaimWords(claim, nowMs)).join(' · ')}
            </p>
          )}
          {waitingFor.length > 0 && (
            <p className={styles.trouble}>
              First:{' '}
              {waitingFor
                .slice(0, 2)
                .map(({ step: one, because }) => `${one!.title} (${because})`)
                .join('; ')}
              {waitingFor.length > 2 ? ` and ${waitingFor.length - 2} more` : ''}
            </p>
          )}
          {step.operation === 'lay' && pack.board && <PrintCheck board={pack.board} release={release} />}
          {step.operation === 'wait' && <CureTimer cure={findCure(step, told)} />}
          {needsOther && <p className={styles.trouble}>{author} tested this loom: somebody else looks it over and signs.</p>}
          {step.operation === 'sign' && crimps.unproved.length > 0 && (
            <p className={styles.trouble}>
              No sample stands for {crimps.unproved.map(({ state: { series } }) => `${series.contactName} on ${series.wires}`).join('; ')}:
              make a last-off at its crimp step, or say at the problem why it passes.
            </p>
          )}
          <CrimpLines
            {...{ jobId, step, here, crimps }}
            loomId={plan.loomId}
            waiting={state.waitingPhotos}
            instruments={pack.instruments}
            onOpenAgain={(itemIds) =>
              store.addMany(
                listOpenedWith(steps, step, itemIds, progress).map((one) => ({
                  ...{ ...one, loomId: plan.loomId, kind: 'untick' as const, words: '', author },
                })),
              )
            }
          />
          {isOne ? (
            <PinCard
              {...{ pack, step, here, instrument, inHand: pins.inHand, asking: pins.asking, bars: crimps.bars }}
              onInstrument={(name) => setInstruments({ ...instruments, [step.operation]: name })}
              onDeed={(itemId, deed, words) => pins.deed(step, itemId, deed, words)}
              onRead={tellReading}
            />
          ) : step.operation === 'photo' ? (
            <PhotoItems {...{ jobId, plan, step, here, told, store, author }} waiting={state.waitingPhotos} />
          ) : (
            <StepItems
              pack={pack}
              step={step}
              here={here}
              isBarred={needsOther}
              crimps={crimps}
              instrument={instrument}
              onInstrument={(name) => setInstruments({ ...instruments, [step.operation]: name })}
              onTick={(itemId, isTicked) => tell(isTicked ? 'untick' : 'tick', itemId)}
              onRead={tellReading}
            />
          )}
          <aside className={styles.side}>
            {here.done && <EndCheck pack={pack} step={step} />}
            {isPinning(step) && (
              <div className={styles.pair}>
                <button className={styles.prove} aria-pressed={isOne} disabled={isTaken} onClick={() => pins.setOne(!pins.isOne)}>
                  One at a time
                </button>
                <button className={styles.prove} onClick={() => setPaper(true)}>
                  On paper
                </button>
              </div>
            )}
            {step.operation === 'test' && (
              <Link className={styles.prove} href={`/jobs/${jobId}/prove?loom=${plan.loomId}&release=${release}`}>
                Ring it out on Prove
              </Link>
            )}
            {/* what is to be undone is in no plan any more */}
            {step.operation !== 'undo' && <StepPicture pack={pack} step={step} ticked={here} />}
            <dl>
              {step.tool && (
                <>
                  <dt>Tool</dt>
                  <dd>{step.tool}</dd>
                </>
              )}
              {step.parts.length > 0 && (
                <>
                  <dt>Parts</dt>
                  <dd>{step.parts.join(', ')}</dd>
                </>
              )}
            </dl>
            <StepTime
              {...{ step, author, loomId: plan.loomId, events: all, times: pack.times }}
              onSay={(kind, { itemId, eventId }) => tell(kind, itemId, eventId)}
            />
          </aside>
        </main>
      )}
      {isHanded && (
        <HandoverDialog
          {...{ work, deeds, claims, progress, crimps, nowMs }}
          title={`${job.name} · ${job.looms[plan.loomId]!.name}, revision ${release}`}
          loom={job.looms[plan.loomId]!}
          onClose={() => setHanded(false)}
        />
      )}
      <footer className={styles.foot}>
        <button disabled={at === 0 && !isListed} onClick={() => (isListed ? setListed(false) : setAt(at - 1))}>
          Back
        </button>
        <button aria-pressed={isListed} onClick={() => setListed(!isListed)}>
          Steps
        </button>
        {!isListed && (
          <>
            <span className={styles.next}>
              {next ? `Next: ${next.title}` : done === steps.length ? 'Every step is done.' : 'This is the last step.'}
            </span>
            <button
              className={styles.problem}
              onClick={() =>
                askProblem((words, blob) =>
                  store.addWithPhoto(
                    { loomId: plan.loomId, stepId: step.id, itemId: 'step', kind: 'problem', words, author },
                    blob && { blob, node: findNode(step, job.looms[plan.loomId]!, plan), caption: `Problem: ${words}` },
                  ),
                )
              }
            >
              Problem
            </button>
            <button className={styles.main} disabled={!next || doubtful.length > 0} onClick={() => (setListed(false), setStepId(next!.id))}>
              {isFinished ? 'Next step' : 'Skip for now'}
            </button>
          </>
        )}
      </footer>
    </div>
  );
}

const Empty = ({ words, children }: { words: string; children: ReactNode }) => (
  <main className={styles.empty}>
    <p>{words}</p>
    {children}
  </main>
);
