import { Link } from '../../ui/Link';
import { usePerson } from '../../client/person';
import type { OpenProblem } from '../../server/jobs/openProblems';
import { ToldPhoto } from '../../ui/ToldPhoto';
import styles from './Jobs.module.css';
import { toTouchedWords } from './listShown';

/** What the floor tells to be wrong and nobody has answered: each leads to its step, where it is answered. */
export function FloorProblems({ problems, now }: { problems: readonly OpenProblem[]; now: number | null }) {
  const { name } = usePerson();
  if (problems.length === 0) return null;
  return (
    <section className={styles.problems} aria-labelledby="floor-problems">
      <h2 id="floor-problems">
        From the floor <span>{problems.length}</span>
      </h2>
      <ul>
        {problems.map(({ id, jobId, job, release, loomId, loom, stepId, step, words, author, at, hasPhoto, owner }) => (
          <li key={id}>
            <span>
              <Link
                href={`/jobs/${jobId}/floor?loom=${encodeURIComponent(loomId)}&release=${release}&card=${encodeURIComponent(`step ${stepId}`)}`}
              >
                {words}
              </Link>
              {hasPhoto && <ToldPhoto id={id} alt="photo of the problem" />}
            </span>
            <span>
              {job} · {loom}, {step}
            </span>
            <span className="faint">
              {author}
              {now !== null && `, ${toTouchedWords(at, now)}`}
            </span>
            <span>
              for {owner === name ? <b>you</b> : owner}, who released revision {release}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
