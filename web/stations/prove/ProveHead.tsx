import Link from 'next/link';
import { toCount } from 'wattograph-core';
import type { FloorStore } from '../../client/floor/floorStore';
import { sayOldest } from '../../client/outbox/deviceStorage';
import { Who } from '../../ui/accounts/Who';
import { NotTaken } from '../../ui/NotTaken';
import styles from './Prove.module.css';
import type { ProvePack } from './provePack';
import type { ProofState } from './useProof';

/** Which loom of which revision is proved, and what of its readings is not stored yet. */
export function ProveHead({
  jobId,
  pack,
  store,
  proof: { state },
}: {
  jobId: string;
  pack: ProvePack;
  store: FloorStore;
  proof: ProofState;
}) {
  const { job, plan, release, newest } = pack;
  const { waiting, online, isFull, isBarred, refused, oldestSince } = state;
  const kept = `${toCount(waiting.length, 'reading')} kept here`;
  const words = isFull
    ? 'This device is full: what is read is lost when the page is closed before it is sent.'
    : waiting.length > 0
      ? `${kept}${isBarred ? ' until who made it signs in' : online ? ', sending' : ', server away'}${sayOldest(oldestSince)}`
      : online
        ? 'all stored'
        : 'server away';
  return (
    <header>
      <div className={styles.head}>
        <h1>
          Prove <span>{job.looms[plan.loomId]!.name}</span>
        </h1>
        <span>
          {job.name}, revision {release}
        </span>
        <Who />
        {Object.entries(job.looms).map(([id, loom]) =>
          id === plan.loomId ? null : (
            <Link key={id} href={`/jobs/${jobId}/prove?loom=${id}&release=${release}`}>
              {loom.name}
            </Link>
          ),
        )}
        <Link href={`/jobs/${jobId}/prove/power?release=${release}`}>first power</Link>
        <Link href={`/jobs/${jobId}/floor?loom=${plan.loomId}&release=${release}`}>floor</Link>
        <Link href={`/jobs/${jobId}/bundle?loom=${plan.loomId}`}>plan</Link>
        <span role="status" className={`${styles.state} ${online && !isFull ? '' : styles.away}`}>
          {words}
        </span>
      </div>
      <NotTaken
        entries={refused.map(({ id, body, reason }) => ({
          id,
          what: `${body.words}${body.kind === 'reading' ? `, ${body.value} ${body.unit}` : ''}`,
          reason,
        }))}
        onRetry={store.retry}
        onLetGo={store.letGo}
      />
      {newest > release && (
        <p className={styles.notice}>
          Revision {newest} is out; this is revision {release}.{' '}
          <Link href={`/jobs/${jobId}/prove?loom=${plan.loomId}`}>Go on in revision {newest}</Link>
        </p>
      )}
    </header>
  );
}
