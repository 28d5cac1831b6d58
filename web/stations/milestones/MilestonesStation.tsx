'use client';

import { Link } from '../../ui/Link';
import { useState } from 'react';
import { MILESTONE_STEP, MILESTONE_WORDS, toCount, toTimeWords, type Milestone } from 'wattograph-core';
import type { FloorState, FloorStore } from '../../client/floor/floorStore';
import { useFloorStore, useIsClient } from '../../client/floor/useFloorStore';
import { useMay, usePerson } from '../../client/person';
import type { Person } from '../../server/accounts/rights';
import type { FloorEvent } from '../../server/floorEvent';
import { Who } from '../../ui/accounts/Who';
import { NotTaken } from '../../ui/NotTaken';
import prove from '../prove/Prove.module.css';
import { sayKept } from '../prove/sayKept';
import { Blockers } from './Blockers';
import type { MilestonePack } from './milestonePack';
import styles from './Milestones.module.css';
import { TimesTable } from './TimesTable';
import { useMilestones, type MilestoneLeft } from './useMilestones';
import { WorkTable } from './WorkTable';

interface Opening {
  person: Person;
  jobId: string;
  jobName: string;
  pack: MilestonePack | null;
  events: FloorEvent[];
}

/** What is left until the vehicle starts, moves, is inspected and goes: work, what is held, and what is no work on a loom. */
export function MilestonesStation({ person, jobId, jobName, pack, events }: Opening) {
  const isClient = useIsClient();
  if (!pack || pack.looms.length === 0)
    return (
      <main className={prove.empty}>
        <h1>{jobName}: no milestones yet</h1>
        <p>
          {pack
            ? `No loom of revision ${pack.power.release} has a wire, so nothing is waited for.`
            : 'What is left until the first start goes by the steps of a released revision. None is released.'}
        </p>
        <Link href={`/jobs/${jobId}/${pack ? 'circuits' : 'sheets'}`}>{pack ? 'Wire it in Circuits' : 'Release one on Sheets'}</Link>
      </main>
    );
  // what is kept on this device is known to the browser alone
  if (!isClient) return <p className={prove.empty}>Opening the milestones …</p>;
  return <Opened key={pack.power.release} person={person} jobId={jobId} pack={pack} events={events} />;
}

function Opened({ person, jobId, pack, events }: { person: Person; jobId: string; pack: MilestonePack; events: FloorEvent[] }) {
  const { loomId, carried } = pack.looms[0]!;
  const store = useFloorStore(person, jobId, { release: pack.power.release, plan: { loomId }, carried }, events);
  if (!store) return <p className={prove.empty}>Opening the milestones …</p>;
  return <Wall jobId={jobId} pack={pack} store={store} />;
}

function Wall({ jobId, pack, store }: { jobId: string; pack: MilestonePack; store: FloorStore }) {
  const { state, milestones, times } = useMilestones(pack, store);
  const { name: author } = usePerson();
  const may = useMay('report');
  const [picked, setPicked] = useState<Milestone | null>(null);
  // what comes next, as long as nobody asks for another one
  const shown = milestones.find(({ needs }) => needs.id === picked) ?? milestones.find((one) => !isReached(one)) ?? milestones.at(-1)!;
  const tell = (words: string, isDone: boolean) =>
    store.add({ ...{ loomId: '', stepId: MILESTONE_STEP, itemId: words, words: '', author }, kind: isDone ? 'tick' : 'untick' });
  return (
    <div className={`${prove.prove} ${styles.wall}`}>
      <Head jobId={jobId} pack={pack} store={store} state={state} />
      <div role="group" aria-label="Milestones" className={styles.milestones}>
        {milestones.map((one) => (
          <button
            key={one.needs.id}
            aria-pressed={one === shown}
            className={isReached(one) ? styles.reached : ''}
            onClick={() => setPicked(one.needs.id)}
          >
            <b>{MILESTONE_WORDS[one.needs.id]}</b>
            {toLeftWords(one, pack.firstOffMin).map((words) => (
              <span key={words}>{words}</span>
            ))}
            <small>{toAskedWords(one)}</small>
          </button>
        ))}
      </div>
      <main className={styles.body}>
        <div className={styles.left}>
          <Blockers {...{ jobId, pack, may }} left={shown} onCheck={tell} />
          <TimesTable times={times} />
        </div>
        <WorkTable jobId={jobId} pack={pack} left={shown} />
      </main>
    </div>
  );
}

const isReached = ({ work, checks, needs, power }: MilestoneLeft) =>
  work.length === 0 && needs.unplaced.length === 0 && checks.every(({ done }) => done !== null) && countReadings(power) === 0;

/** readings of first power that are left or failed */
const countReadings = (power: MilestoneLeft['power']): number => (power ? power.left + power.failed : 0);

/** "33.4 h of work", "7 first-offs, 42 min, beside it", "29.5 h at the shortest, 24.0 h of it a cure" */
function toLeftWords(one: MilestoneLeft, firstOffMin: number): string[] {
  if (isReached(one)) return ['all done'];
  if (one.work.length === 0) return ['no work on a loom left'];
  const cure = one.cureMin > 0 ? `, ${toTimeWords(one.cureMin)} of it a cure` : '';
  const samples = `${toCount(one.firstOffs, 'first-off')}, ${toTimeWords(one.firstOffs * firstOffMin)}, beside it`;
  return [
    `${toTimeWords(one.workMin)} of work`,
    ...(one.firstOffs > 0 ? [samples] : []),
    `${toTimeWords(one.shortestMin)} at the shortest${cure}`,
  ];
}

/** "482 steps, 3 held, 120 readings, 5 checks" */
const toAskedWords = ({ work, held, checks, needs, power }: MilestoneLeft): string =>
  [
    toCount(work.length, 'step'),
    held.length > 0 && `${held.length} held`,
    needs.unplaced.length > 0 && `${needs.unplaced.length} on no loom`,
    countReadings(power) > 0 && toCount(countReadings(power), 'reading'),
    toCount(checks.filter(({ done }) => done === null).length, 'check'),
  ]
    .filter(Boolean)
    .join(', ');

function Head({ jobId, pack, store, state }: { jobId: string; pack: MilestonePack; store: FloorStore; state: FloorState }) {
  const { release, newest, jobName } = pack.power;
  return (
    <header>
      <div className={prove.head}>
        <h1>Milestones</h1>
        <span>
          {jobName}, revision {release}
        </span>
        <Who />
        <Link href={`/jobs/${jobId}/floor?release=${release}`}>floor</Link>
        <Link href={`/jobs/${jobId}/prove/power?release=${release}`}>first power</Link>
        <Link href={`/jobs/${jobId}/bundle`}>plan</Link>
        <span role="status" className={`${prove.state} ${state.online && !state.isFull ? '' : prove.away}`}>
          {sayKept(state)}
        </span>
      </div>
      <NotTaken
        entries={state.refused.map(({ id, body, reason }) => ({ id, what: body.words || body.itemId, reason }))}
        onRetry={store.retry}
        onLetGo={store.letGo}
      />
      {newest > release && (
        <p className={prove.notice}>
          Revision {newest} is out; this is revision {release}.{' '}
          <Link href={`/jobs/${jobId}/prove/milestones`}>Go on in revision {newest}</Link>
        </p>
      )}
    </header>
  );
}
