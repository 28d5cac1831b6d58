import { toTimeWords, type TimesOf } from 'wattograph-core';
import styles from './Milestones.module.css';

/** What work took beside what the shop counts with, by kind of work: of everybody together, never of one person. */
export function TimesTable({ times }: { times: readonly TimesOf[] }) {
  if (times.length === 0) return null;
  const sum = (key: 'plannedMin' | 'takenMin') => times.reduce((all, one) => all + one[key], 0);
  return (
    <section aria-label="Times">
      <h2>Taken so far</h2>
      <table className={styles.times}>
        <thead>
          <tr>
            <th scope="col">work</th>
            <th scope="col">done</th>
            <th scope="col">counted</th>
            <th scope="col">taken</th>
          </tr>
        </thead>
        <tbody>
          {times.map(({ operation, items, plannedMin, takenMin }) => (
            <tr key={operation}>
              <th scope="row">{operation}</th>
              <td>{items}</td>
              <td>{toTimeWords(plannedMin)}</td>
              <td>{toTimeWords(takenMin)}</td>
            </tr>
          ))}
          <tr>
            <th scope="row">together</th>
            <td />
            <td>{toTimeWords(sum('plannedMin'))}</td>
            <td>{toTimeWords(sum('takenMin'))}</td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}
