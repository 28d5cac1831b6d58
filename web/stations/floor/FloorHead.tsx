import { Link } from '../../ui/Link';
import { toCount, type Step } from 'wattograph-core';
import type { FloorState, FloorStore } from '../../client/floor/floorStore';
import type { BenchPack } from '../../client/floor/useFloorStore';
import { sayOldest } from '../../client/outbox/deviceStorage';
import type { FloorEvent } from '../../server/floorEvent';
import { Who } from '../../ui/accounts/Who';
import { NotTaken } from '../../ui/NotTaken';
import styles from './Floor.module.css';
import { toLaneWords } from './StepList';

const WORDS = {
  ...{ tick: 'tick', untick: 'tick taken back', problem: 'problem', solved: 'solved', reading: 'reading' },
  ...{ take: 'taken', leave: 'left', answer: 'answer', hand: 'in hand', down: 'put down' },
  ...{ gauge: 'gauge', sample: 'samples', changeover: 'change', worked: 'time', paused: 'time' },
} satisfies Record<FloorEvent['kind'], string>;

const titleOf = (steps: readonly Step[], stepId: string): string => steps.find(({ id }) => id === stepId)?.title ?? stepId;

function sayState({ waiting, waitingPhotos, oldestSince, refused, refusedPhotos, online, isFull, isBarred }: FloorState): string {
  const not = refused.length + refusedPhotos.length;
  if (isFull) return 'This tablet is full: what is ticked is lost when the page is closed before it is sent.';
  if (waiting.length > 0 && isBarred) return `${waiting.length} kept here until who made it signs in${sayOldest(oldestSince)}`;
  if (waiting.length > 0) return `${waiting.length} kept here, ${online ? 'sending' : 'server away'}${sayOldest(oldestSince)}`;
  if (waitingPhotos.length > 0) return `${toCount(waitingPhotos.length, 'photo')} kept here, ${online ? 'sending' : 'server away'}`;
  if (!online) return 'server away';
  return not > 0 ? `${not} not stored` : 'all stored';
}

/** Which loom of which revision is built, what of it is not stored yet, and how far it is. */
export function FloorHead({
  jobId,
  pack,
  store,
  state,
  done,
  total,
  isForeign,
}: {
  jobId: string;
  pack: BenchPack;
  store: FloorStore;
  state: FloorState;
  /** steps */
  done: number;
  total: number;
  /** a card was opened that is of another loom */
  isForeign: boolean;
}) {
  const { job, plan, release } = pack;
  return (
    <header>
      <div className={styles.head}>
        <b>
          {job.name} · {job.looms[plan.loomId]!.name}
        </b>
        <span>revision {release}</span>
        <Who />
        {Object.keys(job.looms).length > 1 &&
          Object.entries(job.looms).map(([id, loom]) =>
            id === plan.loomId ? null : (
              <Link key={id} href={`/jobs/${jobId}/floor?loom=${id}&release=${release}`}>
                {loom.name}
              </Link>
            ),
          )}
        <Link href={`/jobs/${jobId}/prove/milestones?release=${release}`}>milestones</Link>
        <Link href={`/jobs/${jobId}/bundle?loom=${plan.loomId}`}>plan</Link>
        <span
          role="status"
          className={`${styles.state} ${state.online && !state.isFull && !state.refused.length && !state.refusedPhotos.length ? '' : styles.offline}`}
        >
          {sayState(state)}
        </span>
      </div>
      <NotTaken
        entries={[
          ...state.refused.map(({ id, body, reason }) => ({
            id,
            what: [
              WORDS[body.kind],
              body.stepId === '' ? toLaneWords(body.itemId, job.looms[plan.loomId]!) : titleOf(pack.steps, body.stepId),
              body.words,
              body.kind === 'reading' && `${body.value} ${body.unit}`,
            ]
              .filter(Boolean)
              .join(', '),
            reason,
          })),
          ...state.refusedPhotos.map(({ id, body, reason }) => ({ id, what: `photo, ${body.caption}`, reason })),
        ]}
        onRetry={store.retry}
        onLetGo={store.letGo}
        size="lg"
      />
      {pack.newest > release && (
        <p className={styles.trouble} style={{ margin: '8px 20px' }}>
          Revision {pack.newest} is out; this card is revision {release}.{' '}
          <Link href={`/jobs/${jobId}/floor?loom=${plan.loomId}`}>Go on in revision {pack.newest}</Link>: work that stays the same counts
          there.
        </p>
      )}
      {isForeign && (
        <p className={styles.trouble} style={{ margin: '8px 20px' }}>
          The card that was opened is not of this loom in revision {release}: work goes on where it was.
        </p>
      )}
      <div
        className={styles.progress}
        role="progressbar"
        aria-valuemin={0}
        aria-valuemax={total}
        aria-valuenow={done}
        aria-label="Steps done"
      >
        <span style={{ width: `${(100 * done) / total}%` }} />
      </div>
    </header>
  );
}
