import { Link } from '../../ui/Link';
import type { FloorStore } from '../../client/floor/floorStore';
import { Who } from '../../ui/accounts/Who';
import { NotTaken } from '../../ui/NotTaken';
import styles from './Prove.module.css';
import type { ProvePack } from './provePack';
import { sayKept } from './sayKept';
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
  const { online, isFull, refused } = state;
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
        <Link href={`/jobs/${jobId}/prove/milestones?release=${release}`}>milestones</Link>
        <Link href={`/jobs/${jobId}/floor?loom=${plan.loomId}&release=${release}`}>floor</Link>
        <Link href={`/jobs/${jobId}/bundle?loom=${plan.loomId}`}>plan</Link>
        <span role="status" className={`${styles.state} ${online && !isFull ? '' : styles.away}`}>
          {sayKept(state)}
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
