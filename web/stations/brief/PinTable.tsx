import type { DeviceTemplate, PinNeed } from 'wattograph-core';
import { DOUBT_WORDS, KIND_WORDS } from 'wattograph-core';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Brief.module.css';

const needs = ({ screened, twistWith, required }: PinNeed) =>
  [screened ? 'screened' : '', twistWith === null ? '' : `twisted with ${twistWith}`, required ? '' : 'may stay open']
    .filter(Boolean)
    .join(', ');

/** Every pin of a kind of device with what it needs. */
export function PinTable({ template }: { template: DeviceTemplate }) {
  return (
    <>
      <FactTable label="Pins">
        <thead>
          <tr>
            <th>pin</th>
            <th>function</th>
            <th>kind</th>
            <th className={styles.num}>V</th>
            <th className={styles.num}>A</th>
            <th>needs</th>
            <th>evidence</th>
          </tr>
        </thead>
        <tbody>
          {Object.entries(template.pins).map(([pin, need]) => (
            <tr key={pin}>
              <td className="mono">{pin}</td>
              <td>{need.function}</td>
              <td>{KIND_WORDS[need.kind]}</td>
              <td className={styles.num}>{need.volts ?? '–'}</td>
              <td className={styles.num}>{need.currentA ?? '–'}</td>
              <td>{needs(need)}</td>
              <td>
                {need.evidence ?? 'its maker’s sheet decides'}
                {need.doubts.length > 0 && `: ${need.doubts.map((doubt) => DOUBT_WORDS[doubt]).join(', ')}`}
              </td>
            </tr>
          ))}
        </tbody>
      </FactTable>
      {template.note && <p className={styles.note}>{template.note}</p>}
    </>
  );
}
