import { Link } from '../../ui/Link';
import { compareIds, toCount, type Milestone } from 'wattograph-core';
import type { MilestonePack } from './milestonePack';
import styles from './Milestones.module.css';
import type { MilestoneLeft } from './useMilestones';

/** What stands in the way of a milestone beside the steps: what is held, what is no work on a loom, first power; and what is not made yet. */
export function Blockers({
  jobId,
  pack,
  left,
  may,
  onCheck,
}: {
  jobId: string;
  pack: MilestonePack;
  left: MilestoneLeft;
  may: boolean;
  onCheck: (words: string, isDone: boolean) => void;
}) {
  const { needs, held, checks, openWires, power } = left;
  const looms = new Map(pack.looms.map((loom) => [loom.loomId, { name: loom.name, numbers: new Map(loom.numbers) }]));
  return (
    <>
      <section aria-label="Checks">
        <h2>Not on a loom</h2>
        <ul className={styles.checks}>
          {checks.map(({ words, done }) => (
            <li key={words}>
              <label>
                <input type="checkbox" checked={done !== null} disabled={!may} onChange={() => onCheck(words, done === null)} />
                <span>{words}</span>
              </label>
              {done && (
                <small>
                  {done.author}, {toClock(done.happenedAt)}
                </small>
              )}
            </li>
          ))}
          {checks.length === 0 && <li>The shop asks for nothing else.</li>}
        </ul>
      </section>
      {held.length + needs.unplaced.length > 0 && (
        <section aria-label="Held">
          <h2>Held</h2>
          <ul className={styles.held}>
            {held.map((words) => (
              <li key={words}>{words}</li>
            ))}
            {needs.unplaced.map((name) => (
              <li key={name}>{name} is on no loom yet</li>
            ))}
          </ul>
        </section>
      )}
      <section aria-label="First power">
        <h2>First power</h2>
        <p>
          {power === null
            ? 'No battery is on a loom: nothing is read.'
            : power.left + power.failed === 0
              ? `All ${toCount(power.of, 'reading')} that it waits for pass.`
              : `${power.left} of ${toCount(power.of, 'reading')} that it waits for left${power.failed > 0 ? `, ${power.failed} failed` : ''}.`}{' '}
          {power !== null && <Link href={`/jobs/${jobId}/prove/power?release=${pack.power.release}`}>To first power</Link>}
        </p>
      </section>
      {openWires.length > 0 && (
        <section aria-label="Wires not made">
          <h2>Wires not made</h2>
          <dl className={styles.named}>
            {openWires.map(({ loomId, wireIds }) => (
              <div key={loomId}>
                <dt>
                  {looms.get(loomId)!.name}, {wireIds.length}
                </dt>
                <dd>
                  {wireIds
                    .map((id) => looms.get(loomId)!.numbers.get(id) ?? id)
                    .sort(compareIds)
                    .map((number) => (
                      <span key={number}>{number}</span>
                    ))}
                </dd>
              </div>
            ))}
          </dl>
        </section>
      )}
    </>
  );
}

const toClock = (at: string): string =>
  new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** "power, ignition and fuel"; the others are all. */
export const toSystemWords = ({ systems, id }: { systems: readonly string[]; id: Milestone }): string =>
  id === 'ship' ? 'All work on every loom' : `Wires of ${systems.join(', ')}`;
