import { useState } from 'react';
import { compareIds, findFamily, CATALOGUE, listCavities, toColourWords, type Circuit, type Job } from 'wattograph-core';
import { Swatch } from '../../ui/Swatch';
import styles from './Circuits.module.css';

/** Both faces of a break, cavity by cavity, colour to colour. */
export function BreaksPanel({ planned: { job } }: { planned: { job: Job } }) {
  const ids = Object.keys(job.mates).sort(compareIds);
  const [wanted, setWanted] = useState<string | null>(null);
  const id = wanted !== null && ids.includes(wanted) ? wanted : ids[0];
  if (id === undefined) return <p className={styles.wait}>No plugs between looms yet. Mate two ends in Brief.</p>;
  const { a, b } = job.mates[id]!;
  const sideOf = ({ loomId, endId }: { loomId: string; endId: string }) => {
    const loom = job.looms[loomId]!;
    const at = new Map<string, Circuit>();
    for (const circuit of Object.values(loom.circuits))
      for (const one of circuit.terminations) if (one.endId === endId) at.set(one.cavity, circuit);
    return { loom, end: loom.ends[endId]!, at };
  };
  const [one, other] = [sideOf(a), sideOf(b)];
  const family = findFamily(job, CATALOGUE, one.end.familyId);
  const cavities = family ? listCavities(family) : [...new Set([...one.at.keys(), ...other.at.keys()])].sort(compareIds);
  return (
    <div className={styles.facts}>
      <select className={styles.pick} aria-label="Which break" value={id} onChange={(event) => setWanted(event.target.value)}>
        {ids.map((mate) => (
          <option key={mate} value={mate}>
            {job.looms[job.mates[mate]!.a.loomId]!.ends[job.mates[mate]!.a.endId]!.name} ↔{' '}
            {job.looms[job.mates[mate]!.b.loomId]!.ends[job.mates[mate]!.b.endId]!.name}
          </option>
        ))}
      </select>
      <p className="faint">The same cavity on both faces. Seen from the wire side the other half is mirrored: go by the numbers.</p>
      <table className={styles.plain} aria-label="Both faces">
        <thead>
          <tr>
            <th>cavity</th>
            <th>
              {one.end.name}, {one.loom.name}
            </th>
            <th>
              {other.end.name}, {other.loom.name}
            </th>
          </tr>
        </thead>
        <tbody>
          {cavities.map((cavity) => {
            const [left, right] = [one.at.get(cavity), other.at.get(cavity)];
            if (!left && !right) return null;
            return (
              <tr key={cavity} className={left && right ? '' : styles.alarm}>
                <td className="mono">{cavity}</td>
                <Face circuit={left} prefix={one.loom.prefix} />
                <Face circuit={right} prefix={other.loom.prefix} />
              </tr>
            );
          })}
        </tbody>
      </table>
      <p>{cavities.filter((cavity) => !one.at.has(cavity) && !other.at.has(cavity)).length} cavities to spare.</p>
    </div>
  );
}

function Face({ circuit, prefix }: { circuit: Circuit | undefined; prefix: string }) {
  if (!circuit) return <td>nothing here</td>;
  return (
    <td>
      <Swatch colour={circuit.colour} words={false} /> <span className="mono">{`${prefix}-${circuit.number}`}</span> {circuit.name}
      <span className="faint"> {toColourWords(circuit.colour)}</span>
    </td>
  );
}
