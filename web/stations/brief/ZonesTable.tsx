'use client';

import { type Job, addZone, removeZone, setZone, countZoneUses } from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { TextField } from '../../ui/TextField';
import styles from './Brief.module.css';

const FLAGS = [
  ['wet', 'wet'],
  ['abrasion', 'abrasion'],
  ['flexing', 'moves in use'],
  ['reopen', 'must be opened later'],
] as const;

/** Parts of the vehicle with what they do to a loom. A run that lies in one takes its covering from it. */
export function ZonesTable({ job }: { job: Job }) {
  const store = useJobStore();
  const uses = (id: string) => countZoneUses(job, id);
  return (
    <>
      <div className={styles.bar}>
        <button className={styles.button} onClick={() => store.edit(addZone())}>
          Add zone
        </button>
      </div>
      <table className={styles.table}>
        <thead>
          <tr>
            <th>zone</th>
            <th className={styles.num}>hottest ambient °C</th>
            {FLAGS.map(([, words]) => (
              <th key={words}>{words}</th>
            ))}
            <th className={styles.num}>runs and devices in it</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {Object.entries(job.zones).map(([id, zone]) => (
            <tr key={id}>
              <td>
                <TextField
                  label={`Name of zone ${zone.name}`}
                  value={zone.name}
                  most={80}
                  required
                  onChange={(name) => store.edit(setZone(id, zone.name, 'name', 'name', name))}
                />
              </td>
              <td className={styles.num}>
                <TextField
                  label={`Ambient of ${zone.name}`}
                  value={String(zone.ambientC)}
                  most={5}
                  required
                  onChange={(text) => {
                    const ambientC = Number(text.replace(',', '.'));
                    if (ambientC >= -60 && ambientC <= 400) store.edit(setZone(id, zone.name, `${ambientC} °C`, 'ambientC', ambientC));
                  }}
                />
              </td>
              {FLAGS.map(([flag, words]) => (
                <td key={flag}>
                  <input
                    type="checkbox"
                    aria-label={`${zone.name}: ${words}`}
                    checked={zone[flag]}
                    onChange={(event) => {
                      const { checked } = event.target;
                      store.edit(setZone(id, zone.name, words, flag, checked));
                    }}
                  />
                </td>
              ))}
              <td className={styles.num}>{uses(id)}</td>
              <td>
                <button
                  className={styles.link}
                  disabled={uses(id) > 0}
                  title={uses(id) ? 'something lies in it' : undefined}
                  onClick={() => store.edit(removeZone(id, zone.name))}
                >
                  remove
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
