import { Button, Menu } from '@mantine/core';
import { Link } from '../../ui/Link';
import { useState } from 'react';
import { toCount } from 'wattograph-core';
import { useMay } from '../../client/person';
import type { JobSummary } from '../../server/jobSummaries';
import { toTouchedWords } from './listShown';
import styles from './Jobs.module.css';

/** What is done with a job from the wall. */
export type Act = (what: 'copy' | 'archive' | 'delete' | 'bringBack', job: JobSummary) => void;

/** Findings of a job as they were last counted; while a worker counts them anew that is said. */
function Findings({ line: { counted, isCurrent } }: { line: JobSummary }) {
  const again = !isCurrent && <span className="faint"> · counting anew</span>;
  if (!counted) return <span className="faint">its wires and findings are being counted</span>;
  if (counted.problem !== null) return <span className={styles.stop}>{counted.problem}</span>;
  return (
    <>
      <span className={counted.stops ? styles.stop : 'faint'}>{counted.stops ? `⬣ ${counted.stops} stop` : 'no stop findings'}</span>
      <span className="faint">, {counted.checks} to check</span>
      {again}
    </>
  );
}

/** What else can be done with a job. A wall has many: the list of one is made when it is asked for. */
function More({ job, act }: { job: JobSummary; act: Act }) {
  const [isAsked, setAsked] = useState(false);
  const label = `More of ${job.name}`;
  if (!isAsked)
    return (
      <button className={styles.more} aria-label={label} aria-haspopup="menu" onClick={() => setAsked(true)}>
        …
      </button>
    );
  return (
    <Menu position="bottom-end" defaultOpened>
      <Menu.Target>
        <button className={styles.more} aria-label={label}>
          …
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item component={Link} href={`/jobs/${job.id}/customer`}>
          What the customer sees
        </Menu.Item>
        <Menu.Item onClick={() => act('copy', job)}>Begin another from it</Menu.Item>
        <Menu.Item onClick={() => act('archive', job)}>{job.isArchived ? 'Back on the wall' : 'Archive'}</Menu.Item>
        <Menu.Item color="flame" onClick={() => act('delete', job)}>
          Delete
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** A job on the wall: what is next for it, how it stands, where to go on. */
export function JobLine({ job, now, act }: { job: JobSummary; now: number | null; act: Act }) {
  const mayPlan = useMay('plan');
  return (
    <li className={styles.job}>
      <div>
        <h2>
          {job.deleted ? job.name : <Link href={`/jobs/${job.id}/${job.counted?.wires === 0 ? 'brief' : 'bundle'}`}>{job.name}</Link>}
        </h2>
        <span className="faint">
          {job.customer || 'no customer named'}
          {job.promisedOn && (
            <>
              , promised <span className={styles.day}>{job.promisedOn}</span>
            </>
          )}
        </span>
      </div>
      <div>
        {job.deleted ? (
          <>
            <span className={styles.next}>Deleted by {job.deleted.by}</span>
            <br />
            <span className="faint">gone for good after {job.deleted.until}</span>
          </>
        ) : (
          <>
            <span className={styles.next}>{job.next}</span>
            <br />
            <Findings line={job} />
          </>
        )}
      </div>
      <div className="faint">
        {job.counted && !job.counted.problem && `${toCount(job.counted.looms, 'loom')}, ${toCount(job.counted.wires, 'wire')}, `}
        {job.revision ? `revision ${job.revision}${job.editsSince ? `, ${toCount(job.editsSince, 'edit')} since` : ''}` : 'not released'}
        <br />
        {now !== null && (
          <span title={job.changedAt}>
            {toTouchedWords(job.changedAt, now)}
            {job.changedBy && `, ${job.changedBy}`}
          </span>
        )}
      </div>
      {job.deleted ? (
        <div className={styles.go}>
          {mayPlan && (
            <Button variant="default" size="compact-sm" onClick={() => act('bringBack', job)}>
              Bring it back
            </Button>
          )}
        </div>
      ) : (
        <div className={styles.go}>
          <Link href={`/jobs/${job.id}/brief`}>Brief</Link>
          <Link href={`/jobs/${job.id}/survey`}>Survey</Link>
          <Link href={`/jobs/${job.id}/bundle`}>Plan</Link>
          <Link href={`/jobs/${job.id}/sheets`}>Sheets</Link>
          {job.revision > 0 && <Link href={`/jobs/${job.id}/floor`}>Floor</Link>}
          {mayPlan && <More job={job} act={act} />}
        </div>
      )}
    </li>
  );
}
