import type { ShopDifference } from 'wattograph-core';
import type { JobEffect } from '../../server/shop';
import { toSigned } from '../toSigned';
import styles from './ShopEffect.module.css';
import { TABLE_NAMES } from '../wireList/tableNames';

const MOST = 8;

/** What differs between two versions of a shop, a table after the other. */
export function ShopDifferences({ differences }: { differences: readonly ShopDifference[] }) {
  return (
    <ul className={styles.differences}>
      {differences.map(({ table, added, changed, gone }) => (
        <li key={table}>
          <b>{TABLE_NAMES[table]}</b>
          <ul>
            {changed.slice(0, MOST).map((one) => (
              <li key={one.id}>
                {one.name}: {one.fields.slice(0, MOST).join(', ')}
              </li>
            ))}
            {added.slice(0, MOST).map((one) => (
              <li key={one.id}>new: {one.name}</li>
            ))}
            {gone.slice(0, MOST).map((one) => (
              <li key={one.id}>gone: {one.name}</li>
            ))}
            {[changed, added, gone].some((list) => list.length > MOST) && (
              <li className="faint">
                in all {changed.length} changed, {added.length} new, {gone.length} gone
              </li>
            )}
          </ul>
        </li>
      ))}
    </ul>
  );
}

/** What planning with another version changes in one job: a line, and what it would have to stop for. */
export function Effect({ effect }: { effect: JobEffect }) {
  return (
    <>
      {sayEffect(effect)}
      {effect.stops.length > 0 && (
        <ul>
          {effect.stops.slice(0, MOST).map((sentence) => (
            <li key={sentence} className={styles.stop}>
              ⬣ {sentence}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

function sayEffect({ problems, cuts, sleeves, massG, stops }: JobEffect): string {
  if (problems.length > 0) return 'cannot be planned with it';
  if (cuts + sleeves + stops.length === 0 && Math.abs(massG) < 0.5) return 'stays as it is';
  const mass = Math.abs(massG) < 0.5 ? '' : `, ${toSigned(massG, 0)} g`;
  return `${cuts} ${cuts === 1 ? 'wire' : 'wires'} cut otherwise, ${sleeves} ${sleeves === 1 ? 'sleeve' : 'sleeves'}${mass}${stops.length > 0 ? `, ${stops.length} more to stop for` : ''}`;
}
