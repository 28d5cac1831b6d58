'use client';

import { useState } from 'react';
import { listLikelyLoads, toOhmWords, UNKNOWN_CAUTION } from 'wattograph-core';
import { readQuantity } from '../../ui/fields/readQuantity';
import { Words } from '../../ui/fields/TextField';
import controls from '../../ui/controls.module.css';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Circuits.module.css';

/** A wire of unknown use: what its resistance fits, and the next test that harms nothing. */
export function UnknownPanel() {
  const [text, setText] = useState('');
  const read = readQuantity(text, 'Ω');
  // no resistance is below nothing
  const ohms = read !== null && read >= 0 ? read : null;
  const likely = ohms === null ? [] : listLikelyLoads(ohms);
  return (
    <div className={controls.facts}>
      <p className={controls.caution}>{UNKNOWN_CAUTION}</p>
      <label className={styles.reading}>
        <span>Read between the wire and ground, or its pair</span>
        <Words label="Reading in ohms" value={text} most={80} placeholder="14, 4.7k, 1M" onChange={setText} />
      </label>
      {text.trim() !== '' && ohms === null && <p className={controls.alarm}>Expected a resistance such as 14, 4.7k or 1M, got “{text}”.</p>}
      {ohms !== null && (
        <FactTable label="Likely functions">
          <thead>
            <tr>
              <th>could be</th>
              <th>usual</th>
              <th>next safe test</th>
            </tr>
          </thead>
          <tbody>
            {likely.map(({ name, leastOhm, mostOhm, test }) => (
              <tr key={name}>
                <td>{name}</td>
                <td className="mono">
                  {toOhmWords(leastOhm)} to {Number.isFinite(mostOhm) ? toOhmWords(mostOhm) : 'open'}
                </td>
                <td>{test}</td>
              </tr>
            ))}
          </tbody>
        </FactTable>
      )}
    </div>
  );
}
