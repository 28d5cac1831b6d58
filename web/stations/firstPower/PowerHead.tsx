import { Link } from '../../ui/Link';
import type { FloorState, FloorStore } from '../../client/floor/floorStore';
import { Who } from '../../ui/accounts/Who';
import { NotTaken } from '../../ui/NotTaken';
import styles from '../prove/Prove.module.css';
import { sayKept } from '../prove/sayKept';
import type { FirstPowerPack } from './firstPowerPack';

/** Which revision gets power, the rule that goes before all else, and what of its readings is not stored yet. */
export function PowerHead({ jobId, pack, store, state }: { jobId: string; pack: FirstPowerPack; store: FloorStore; state: FloorState }) {
  const { looms, release, newest, jobName } = pack;
  const { online, isFull, refused } = state;
  return (
    <header>
      <div className={styles.head}>
        <h1>First power</h1>
        <span>
          {jobName}, revision {release}
        </span>
        <Who />
        {looms.map(({ loomId, name }) => (
          <Link key={loomId} href={`/jobs/${jobId}/prove?loom=${loomId}&release=${release}`}>
            ring out {name}
          </Link>
        ))}
        <Link href={`/jobs/${jobId}/prove/milestones?release=${release}`}>milestones</Link>
        <Link href={`/jobs/${jobId}/power`}>plan</Link>
        <span role="status" className={`${styles.state} ${online && !isFull ? '' : styles.away}`}>
          {sayKept(state)}
        </span>
      </div>
      <p className={styles.rule}>
        <b>Stop rule.</b> Extinguisher at hand, one person at the supply’s switch. Anything that was not expected: power off, nothing
        further until it is explained. Makers’ instructions and local codes come first; whatever you are not licensed for is left to who is.
      </p>
      <NotTaken
        entries={refused.map(({ id, body, reason }) => ({ id, what: `${body.words}, ${body.value} ${body.unit}`, reason }))}
        onRetry={store.retry}
        onLetGo={store.letGo}
      />
      {newest > release && (
        <p className={styles.notice}>
          Revision {newest} is out; this is revision {release}. <Link href={`/jobs/${jobId}/prove/power`}>Go on in revision {newest}</Link>
        </p>
      )}
    </header>
  );
}
