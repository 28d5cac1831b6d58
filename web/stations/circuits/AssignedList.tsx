import type { Assignment } from 'wattograph-core';
import { toCount } from 'wattograph-core';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Circuits.module.css';

/** What an assignment did and why, and what it could not place. */
export function AssignedList({
  result: { assignment, ms },
  onClose,
}: {
  result: { assignment: Assignment; ms: number };
  onClose: () => void;
}) {
  const { assigned, conflicts, kept, breaks } = assignment;
  return (
    <section className={styles.assigned} aria-label="Assignment">
      <p>
        <b>
          {assigned.length === 0 && conflicts.length === 0
            ? 'Nothing was open.'
            : `${assigned.length} ${assigned.length === 1 ? 'need' : 'needs'} placed${conflicts.length ? `, ${conflicts.length} without a place` : ''}.`}
        </b>{' '}
        {toCount(kept, 'pin that was served stays as it is', 'pins that were served stay as they are')}. {Math.max(1, Math.round(ms))} ms.
        <button className={styles.link} onClick={onClose}>
          close
        </button>
      </p>
      {conflicts.length > 0 && (
        <ul className={styles.conflicts}>
          {conflicts.map((one, index) => (
            // two needs may have one name: shared supplies of one box
            <li key={`${one.need} ${index}`}>
              <b>{one.need}</b>: {one.wouldTake}. {one.competing.length > 1 && <>Competing: {one.competing.join(', ')}. </>}
              {one.places.length > 0 && <>For: {one.places.join(', ')}.</>}
            </li>
          ))}
        </ul>
      )}
      {breaks.map(({ name, led, before, after }) => (
        <p key={name}>
          {led} {led === 1 ? 'wire' : 'wires'} led through {name}
          {after.crossings === before.crossings && after.mixed === before.mixed
            ? `; ${after.crossings} crossings there with all that was there before.`
            : `: crossings there ${before.crossings} as they came, ${after.crossings} as arranged; power beside sensors ${before.mixed}, now ${after.mixed}.`}
        </p>
      ))}
      {assigned.length > 0 && (
        <FactTable>
          <tbody>
            {assigned.map((one) => (
              <tr key={`${one.need} ${one.place}`}>
                <td>{one.need}</td>
                <td>{one.place}</td>
                <td className="faint">{one.because}</td>
              </tr>
            ))}
          </tbody>
        </FactTable>
      )}
    </section>
  );
}
